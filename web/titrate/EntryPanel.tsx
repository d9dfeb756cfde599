import type { KeyboardEvent } from 'react';
import { useEffect, useRef, useState } from 'react';
import { parseDecimal } from '#core/measurement';
import type { Finding } from '#core/record';
import type { NextStep, RunState } from '#core/titration';
import { checkRunFact, readingToCarryOver } from '#core/titration';
import type { NewFact } from '#contract';
import { Button, KeyHint } from '../ui/Button';
import { FigureField } from '../ui/FigureField';
import { Findings, isLetThrough } from '../ui/Findings';
import type { WeighingMode } from '../ui/WeighingModeChoice';
import { WeighingModeChoice } from '../ui/WeighingModeChoice';
import { useEnter } from './useRun';

interface EntryPanelProps {
  readonly run: RunState;
  readonly step: NextStep & { readonly flask: number };
  readonly mode: WeighingMode;
  readonly onMode: (mode: WeighingMode) => void;
  /** What is being typed, for the drawing of the burette. */
  readonly onPreview: (readingMl: number | null) => void;
  readonly onKept: () => void;
  /** Other ways on from here, each with its key. */
  readonly ways: readonly {
    readonly key: string;
    readonly name: string;
    readonly go: () => void;
  }[];
}

/** The figures that an entry is made of: one reading or mass, or two masses of a difference. */
type Typed = readonly [first: string, second: string];

/** Where the next figure is typed. Checks it as it is kept, asks when it is unlikely, never changes it. */
export function EntryPanel(props: EntryPanelProps) {
  const { run, step, mode, onPreview, onKept, ways } = props;
  const { propose, keep } = useEnter(run);
  const [typed, setTyped] = useState<Typed>(['', '']);
  const [findings, setFindings] = useState<readonly Finding[]>([]);
  const [reason, setReason] = useState('');
  const first = useRef<HTMLInputElement>(null);
  const isWeighing = step.action === 'weigh';
  const isDifference = isWeighing && mode === 'by-difference';

  useEffect(() => {
    first.current?.focus();
  }, [mode]);

  const change = (next: Typed): void => {
    setTyped(next);
    setFindings([]);
    const reading = isWeighing ? null : parseDecimal(next[0]);
    onPreview(reading === null ? null : Number(reading));
  };

  const submit = async (entry: NewFact): Promise<void> => {
    const { proposed, fact } = propose(entry);
    const found = checkRunFact(run, fact);
    if (!isLetThrough(found, reason)) {
      setFindings(found);
      return;
    }
    await keep(proposed);
    onPreview(null);
    onKept();
  };

  const keepTyped = async (): Promise<void> => {
    const texts = typed.map(parseDecimal);
    const [one, two] = texts;
    if (typeof one !== 'string' || (isDifference && typeof two !== 'string')) {
      const message = 'Write a plain number, such as 7.10, with a decimal point or comma.';
      setFindings([{ severity: 'impossible', code: 'not-a-number', field: 'entry', message }]);
      return;
    }
    const given = reason.trim() === '' ? null : reason.trim();
    await submit(entryFor(step, mode, one, two ?? '', given));
  };

  const carryOver = async (): Promise<void> => {
    const last = readingToCarryOver(run);
    if (!last) return;
    await submit({
      kind: 'run.burette-read',
      body: {
        flask: step.flask,
        moment: 'initial',
        readingMl: last.value,
        carriedFrom: last.factId,
        reason: null,
      },
    });
  };

  const allWays = [
    ...(step.canCarryOver
      ? [{ key: 'c', name: 'Carry on from here', go: () => void carryOver() }]
      : []),
    ...ways,
  ];

  /** A letter in an empty field is a command: no figure begins with one. */
  const onKeyDown = (event: KeyboardEvent<HTMLInputElement>): void => {
    if (event.currentTarget.value !== '' || event.ctrlKey || event.metaKey || event.altKey) return;
    const way = allWays.find(({ key }) => key === event.key.toLowerCase());
    if (!way) return;
    event.preventDefault();
    way.go();
  };

  return (
    <form
      noValidate
      aria-label="Next entry"
      onSubmit={(event) => {
        event.preventDefault();
        void keepTyped();
      }}
    >
      <div className="flex items-stretch gap-3">
        <FigureField
          ref={first}
          label={firstLabel(step, mode)}
          unit={isWeighing ? 'g' : 'mL'}
          value={typed[0]}
          isWrong={findings.length > 0}
          onKeyDown={onKeyDown}
          onChange={(text) => {
            change([text, typed[1]]);
          }}
        />
        {isDifference && (
          <FigureField
            label={`after, flask ${String(step.flask)}`}
            unit="g"
            value={typed[1]}
            isWrong={findings.length > 0}
            onChange={(text) => {
              change([typed[0], text]);
            }}
          />
        )}
        <Button type="submit" look="primary" className="w-[112px] shrink-0 px-2 text-lg">
          Keep <KeyHint>Enter</KeyHint>
        </Button>
      </div>
      {isWeighing && <WeighingModeChoice mode={mode} onMode={props.onMode} />}
      <Findings findings={findings} reason={reason} onReason={setReason} />
      {findings.length === 0 && allWays.length > 0 && (
        <div className="mt-2 flex gap-2">
          {allWays.map(({ key, name, go }) => (
            <Button key={key} className="px-3 text-[15px]" onClick={go}>
              {name} <KeyHint>{key.toUpperCase()}</KeyHint>
            </Button>
          ))}
        </div>
      )}
    </form>
  );
}

function firstLabel(step: EntryPanelProps['step'], mode: WeighingMode): string {
  const flask = `flask ${String(step.flask)}`;
  if (step.action === 'weigh') return mode === 'tared' ? `net mass, ${flask}` : `before, ${flask}`;
  return step.action === 'read-initial' ? `initial reading, ${flask}` : `final reading, ${flask}`;
}

function entryFor(
  step: EntryPanelProps['step'],
  mode: WeighingMode,
  first: string,
  second: string,
  reason: string | null,
): NewFact {
  const { flask } = step;
  if (step.action === 'weigh') {
    const weighing =
      mode === 'tared'
        ? ({ mode, massG: first } as const)
        : ({ mode, beforeG: first, afterG: second } as const);
    return { kind: 'run.flask-weighed', body: { flask, weighing, reason } };
  }
  const moment = step.action === 'read-initial' ? 'initial' : 'final';
  return {
    kind: 'run.burette-read',
    body: { flask, moment, readingMl: first, carriedFrom: null, reason },
  };
}
