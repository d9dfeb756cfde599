import type { NextStep } from '#core/titration/guidance';
import type { RunState } from '#core/titration/run';
import { flaskOf } from '#core/titration/run';
import { arrangementOf, fillVerb } from '#core/titration/setUp';
import type { Detour } from './atTheBench';
import type { Question } from './Questions';
import type { Way } from './useKeys';

interface From {
  readonly run: RunState;
  readonly step: NextStep;
  readonly isTakingTemperature: boolean;
  readonly onDetour: (detour: Detour | null) => void;
  readonly ask: (question: Question) => void;
}

/** The other ways on from a step, each with its key. */
export function waysFrom({ run, step, isTakingTemperature, onDetour, ask }: From): readonly Way[] {
  const to = (key: string, name: string, detour: Detour | null): Way => ({
    key,
    name,
    go: () => {
      onDetour(detour);
    },
  });
  const asking = (key: string, name: string, question: Question): Way => ({
    key,
    name,
    go: () => {
      ask(question);
    },
  });
  if (isTakingTemperature) return [to('h', 'Not now', null)];
  const flask = flaskOf(run, step.flask);
  const isHot = run.references.method.flaskTemperatureC !== null && flask !== undefined;
  const heat = isHot ? [to('h', 'How hot?', { kind: 'temperature' })] : [];
  const another = to('w', anotherOf(run), { kind: 'fill' });
  switch (step.action) {
    case 'weigh':
    case 'pipette':
    case 'blank': {
      const waiting = run.flasks.find((item) => !item.initial && !item.voided)?.number;
      return [
        ...(waiting === undefined
          ? []
          : [to('t', `Titrate flask ${String(waiting)}`, { kind: 'titrate', flask: waiting })]),
        step.action === 'blank' ? another : to('n', 'Make a blank', { kind: 'blank' }),
      ];
    }
    case 'read-initial': {
      const isChecked = run.buretteChecked.length > 0;
      const check = isChecked ? [] : [asking('b', 'Check burette', { kind: 'burette' })];
      return [...check, ...heat, another];
    }
    case 'read-first-end':
      return [to('r', 'Refill', { kind: 'refill' })];
    case 'read-final':
      return [
        to('r', 'Refill', { kind: 'refill' }),
        ...(flask ? [asking('e', 'Electrode', { kind: 'curve', flask: flask.number })] : []),
        ...heat,
      ];
    case 'read-stop':
      return [to('r', 'No refill', null), ...heat];
    case 'read-restart':
    case 'settle':
    case 'certify':
    case 'stop':
    case 'closed':
    case 'resume':
      return heat;
  }
}

/** Filling one more flask. */
export function anotherOf(run: RunState): string {
  return `${fillVerb(arrangementOf(run.references))} another`;
}

/** Asks whether the colour lasts, then whether it has faded. */
export function persistenceWay(
  isColoured: boolean,
  seconds: number,
  onColour: (isThere: boolean) => void,
): Way {
  const go = (): void => {
    onColour(!isColoured);
  };
  return isColoured
    ? { key: 'f', name: 'It faded', go }
    : { key: 'p', name: `Does it last ${String(seconds)} s?`, go };
}
