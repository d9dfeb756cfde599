import { useEffect, useRef, useState } from 'react';
import { parseDecimal } from '#core/measurement';
import type { NextStep } from '#core/titration/guidance';
import type { RunState } from '#core/titration/run';
import { planRun } from '#core/titration/guidance';
import { flaskOf, readingToCarryOver } from '#core/titration/run';
import { arrangementOf } from '#core/titration/setUp';
import type { NewFact } from '#contract';
import { impossible } from '#core/record';
import { useSession } from '../app/session';
import { Button, KeyHint } from '../ui/Button';
import { FigureField } from '../ui/FigureField';
import { Findings } from '../ui/Findings';
import type { WeighingMode } from '../ui/WeighingModeChoice';
import { WeighingModeChoice } from '../ui/WeighingModeChoice';
import { BalanceDialog } from './BalanceDialog';
import type { Way } from './useKeys';
import { useKeys } from './useKeys';
import { useCheckedEntry } from './useCheckedEntry';

const CORE_ENTRIES = [
  'weigh',
  'pipette',
  'blank',
  'read-initial',
  'read-stop',
  'read-restart',
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

interface EntryPanelProps {
  readonly run: RunState;
  readonly step: Entering;
  readonly mode: WeighingMode;
  readonly onMode: (mode: WeighingMode) => void;
  /** What is being typed, for the drawing of the burette. */
  readonly onPreview: (readingMl: number | null) => void;
  readonly onKept: () => void;
  /** Other ways on from here, each with its key. */
  readonly ways: readonly Way[];
}

/** The figures that an entry is made of: one reading or mass, or two masses of a difference. */
type Typed = readonly [first: string, second: string];

/** Where the next figure is typed. Checks it as it is kept, asks when it is unlikely, never changes it. */
export function EntryPanel(props: EntryPanelProps) {
  const { run, step, mode, onPreview, onKept, ways } = props;
  const checked = useCheckedEntry(run);
  const { findings, setFindings, reason, setReason, why } = checked;
  const { isDemo } = useSession().person;
  const [isAtBalance, setIsAtBalance] = useState(false);
  const preset = step.action === 'pipette' ? arrangementOf(run.references).portion.fixedMl : null;
  const given = preset === null ? '' : String(preset);
  const [typed, setTyped] = useState<Typed>([given, '']);
  const first = useRef<HTMLInputElement>(null);
  const confirm = useRef<HTMLButtonElement>(null);
  const isWeighing = step.action === 'weigh';
  const isDifference = isWeighing && mode === 'by-difference';
  const isReading = step.action.startsWith('read-');

  useEffect(() => {
    first.current?.focus();
    confirm.current?.focus();
  }, [mode]);

  const change = (next: Typed): void => {
    setTyped(next);
    setFindings([]);
    const reading = isReading ? parseDecimal(next[0]) : null;
    onPreview(reading === null ? null : Number(reading));
  };

  const submit = async (entry: NewFact): Promise<void> => {
    if (!(await checked.submit(entry))) return;
    onPreview(null);
    onKept();
  };

  const withFigures = async (
    make: (first: string, second: string, reason: string | null) => NewFact,
  ): Promise<void> => {
    const [one, two] = typed.map(parseDecimal);
    if (typeof one !== 'string' || (isDifference && typeof two !== 'string')) {
      setFindings([impossible('not-a-number', 'entry', { examples: ['7.10'] })]);
      return;
    }
    await submit(make(one, two ?? '', why));
  };

  const keepTyped = (): Promise<void> =>
    step.action === 'blank'
      ? submit({ kind: 'run.blank-made', body: { flask: step.flask } })
      : withFigures((one, two, why) => entryFor(run, step, mode, one, two, why));

  const keepProvisional = (): Promise<void> =>
    withFigures((readingMl) => ({
      kind: 'run.provisional-read',
      body: { flask: step.flask, readingMl },
    }));

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

  const { standard } = run.references;
  const balance = isDemo && isWeighing && standard.kind === 'lot' ? standard.balance : null;
  const isSecondWanted = isDifference && typed[0] !== '';
  const take = (massG: string): void => {
    change(isSecondWanted ? [typed[0], massG] : [massG, typed[1]]);
    if (isDifference && !isSecondWanted) return;
    setIsAtBalance(false);
  };

  const allWays: readonly Way[] = [
    ...(balance
      ? [
          {
            key: 'd',
            name: 'Balance',
            go: () => {
              setIsAtBalance(true);
            },
          },
        ]
      : []),
    ...(step.canCarryOver ? [{ key: 'c', name: 'Carry on', go: () => void carryOver() }] : []),
    ...ways,
  ];
  useKeys(allWays);

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
        {step.action !== 'blank' && (
          <FigureField
            ref={first}
            label={firstLabel(step, mode)}
            unit={UNITS[step.action]}
            value={typed[0]}
            isWrong={findings.length > 0}
            takesKeys={typed[0] === given}
            onKeyDown={(event) => {
              if (step.action !== 'read-final' || event.key !== 'Enter' || !event.shiftKey) return;
              event.preventDefault();
              void keepProvisional();
            }}
            onChange={(text) => {
              change([text, typed[1]]);
            }}
          />
        )}
        {isDifference && (
          <FigureField
            label={secondLabel(step)}
            unit="g"
            value={typed[1]}
            isWrong={findings.length > 0}
            onChange={(text) => {
              change([typed[0], text]);
            }}
          />
        )}
        <Button
          type="submit"
          look="primary"
          className={`shrink-0 px-2 text-lg ${step.action === 'blank' ? 'min-h-[76px] flex-1' : 'w-[112px]'}`}
          ref={step.action === 'blank' ? confirm : undefined}
        >
          {step.action === 'blank' ? 'The blank is ready' : 'Keep'} <KeyHint>Enter</KeyHint>
        </Button>
      </div>
      {isWeighing && <WeighingModeChoice mode={mode} onMode={props.onMode} />}
      {balance && isAtBalance && (
        <BalanceDialog
          balance={balance}
          targetG={planRun(run.references, run.setUp.rules).portion.suggested}
          wanted={isSecondWanted ? secondLabel(step) : firstLabel(step, mode)}
          onTake={take}
          returnTo={first}
          onClose={() => {
            setIsAtBalance(false);
          }}
        />
      )}
      <Findings findings={findings} reason={reason} onReason={setReason} />
      {findings.length === 0 && (
        <div className="mt-2 flex flex-wrap gap-1.5">
          {step.action === 'read-final' && typed[0] !== '' && (
            <Button className="px-3 text-[15px]" onClick={() => void keepProvisional()}>
              Write it down, then one more drop <KeyHint>⇧ Enter</KeyHint>
            </Button>
          )}
          {(step.action !== 'read-final' || typed[0] === '') &&
            allWays.map(({ key, name, go }) => (
              <Button key={key} className="px-2.5 text-[15px]" onClick={go}>
                {name} <KeyHint>{key.toUpperCase()}</KeyHint>
              </Button>
            ))}
        </div>
      )}
    </form>
  );
}

const UNITS: Readonly<Record<EntryAction, string>> = {
  weigh: 'g',
  pipette: 'mL',
  blank: '',
  'read-initial': 'mL',
  'read-stop': 'mL',
  'read-restart': 'mL',
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
  'read-final': 'final reading',
  'take-temperature': 'temperature',
};

function firstLabel({ action, flask }: Entering, mode: WeighingMode): string {
  const label = action === 'weigh' && mode === 'by-difference' ? 'before' : LABELS[action];
  return `${label}, flask ${String(flask)}`;
}

function secondLabel({ flask }: Entering): string {
  return `after, flask ${String(flask)}`;
}

function entryFor(
  run: RunState,
  { action, flask: number }: Entering,
  mode: WeighingMode,
  first: string,
  second: string,
  reason: string | null,
): NewFact {
  switch (action) {
    case 'weigh': {
      const weighing =
        mode === 'tared'
          ? ({ mode, massG: first } as const)
          : ({ mode, beforeG: first, afterG: second } as const);
      return { kind: 'run.flask-weighed', body: { flask: number, weighing, reason } };
    }
    case 'pipette':
      return { kind: 'run.flask-pipetted', body: { flask: number, volumeMl: first, reason } };
    case 'blank':
      return { kind: 'run.blank-made', body: { flask: number } };
    case 'take-temperature':
      return {
        kind: 'run.temperature-taken',
        body: { flask: number, temperatureC: first, reason },
      };
    case 'read-stop':
    case 'read-restart': {
      const moment = action === 'read-stop' ? 'stop' : 'restart';
      const begun = flaskOf(run, number)?.refills.length ?? 0;
      const refill = moment === 'stop' ? begun + 1 : begun;
      return {
        kind: 'run.burette-refilled',
        body: { flask: number, refill, moment, readingMl: first, reason },
      };
    }
    case 'read-initial':
    case 'read-final': {
      const moment = action === 'read-initial' ? 'initial' : 'final';
      return {
        kind: 'run.burette-read',
        body: { flask: number, moment, readingMl: first, carriedFrom: null, reason },
      };
    }
  }
}
