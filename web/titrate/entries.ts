import type { NextStep } from '#core/titration/guidance';
import type { RunState } from '#core/titration/run';
import { flaskOf, readingToCarryOver, sampleIdOf } from '#core/titration/run';
import type { NewFact } from '#contract';
import type { WeighingMode } from '../ui/WeighingModeChoice';

const CORE_ENTRIES = [
  'weigh',
  'pipette',
  'blank',
  'read-initial',
  'read-stop',
  'read-restart',
  'read-first-end',
  'read-final',
] as const satisfies readonly NextStep['action'][];
type CoreEntry = (typeof CORE_ENTRIES)[number];

/** Whether a step asks for an entry. */
export function isEntryAction(action: NextStep['action']): action is CoreEntry {
  return CORE_ENTRIES.some((one) => one === action);
}

/** What is entered next: what core says, or the temperature of the flask. */
type EntryAction = CoreEntry | 'take-temperature';

export interface Entering {
  readonly action: EntryAction;
  readonly flask: number;
  readonly canCarryOver: boolean;
}

export const UNITS: Readonly<Record<EntryAction, string>> = {
  weigh: 'g',
  pipette: 'mL',
  blank: '',
  'read-initial': 'mL',
  'read-stop': 'mL',
  'read-restart': 'mL',
  'read-first-end': 'mL',
  'read-final': 'mL',
  'take-temperature': '°C',
};

const LABELS: Readonly<Record<EntryAction, string>> = {
  weigh: 'net mass',
  pipette: 'volume',
  blank: '',
  'read-initial': 'initial reading',
  'read-stop': 'reading before the refill',
  'read-restart': 'reading after the refill',
  'read-first-end': 'reading at the first end',
  'read-final': 'final reading',
  'take-temperature': 'temperature',
};

const MOMENTS = {
  'read-initial': 'initial',
  'read-first-end': 'first-end',
  'read-final': 'final',
} as const;

/** What is typed first, and what second where a mass is a difference of two. */
export function labelsOf(
  { action, flask }: Entering,
  mode: WeighingMode,
): readonly [first: string, second: string] {
  const first = action === 'weigh' && mode === 'by-difference' ? 'before' : LABELS[action];
  const inFlask = (label: string): string => `${label}, flask ${String(flask)}`;
  return [inFlask(first), inFlask('after')];
}

/** What is written down of the figures that were typed. */
export function entryOf(
  run: RunState,
  { action, flask: number }: Entering,
  mode: WeighingMode,
  [first, second]: readonly [string, string],
  reason: string | null,
): NewFact {
  const body = { flask: number, reason };
  const sampleId = sampleIdOf(run);
  const portion = sampleId === undefined ? body : { ...body, sampleId };
  const readingMl = first;
  switch (action) {
    case 'weigh': {
      const weighing =
        mode === 'tared'
          ? ({ mode, massG: first } as const)
          : ({ mode, beforeG: first, afterG: second } as const);
      return { kind: 'run.flask-weighed', body: { ...portion, weighing } };
    }
    case 'pipette':
      return { kind: 'run.flask-pipetted', body: { ...portion, volumeMl: first } };
    case 'blank':
      return { kind: 'run.blank-made', body: { flask: number } };
    case 'take-temperature':
      return { kind: 'run.temperature-taken', body: { ...body, temperatureC: first } };
    case 'read-stop':
    case 'read-restart': {
      const begun = flaskOf(run, number)?.refills.length ?? 0;
      const of =
        action === 'read-stop'
          ? ({ moment: 'stop', refill: begun + 1 } as const)
          : ({ moment: 'restart', refill: begun } as const);
      return { kind: 'run.burette-refilled', body: { ...body, ...of, readingMl } };
    }
    case 'read-initial':
    case 'read-first-end':
    case 'read-final': {
      const moment = MOMENTS[action];
      return { kind: 'run.burette-read', body: { ...body, moment, readingMl, carriedFrom: null } };
    }
  }
}

/** The last reading, as the first one of the next flask; null where it cannot be carried on. */
export function carriedOver(run: RunState, flask: number): NewFact | null {
  const last = readingToCarryOver(run);
  // That of the run before is no entry of this one.
  const before = run.level?.flask === null ? run.level.readingMl : null;
  const readingMl = last?.value ?? before;
  if (readingMl === null) return null;
  const carried = { readingMl, carriedFrom: last?.factId ?? null };
  return {
    kind: 'run.burette-read',
    body: { flask, moment: 'initial', ...carried, reason: null },
  };
}
