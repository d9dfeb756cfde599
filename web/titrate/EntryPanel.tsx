import { arrangementOf } from '#core/titration/setUp';
import type { RefObject } from 'react';
import { useEffect, useRef, useState } from 'react';
import type { Balance } from '#core/metrology';
import { planRun } from '#core/titration/guidance';
import type { RunState } from '#core/titration/run';
import { useSession } from '../app/session';
import { Button, KeyHint } from '../ui/Button';
import { FigurePair } from '../ui/FigurePair';
import { Findings } from '../ui/Findings';
import { Form } from '../ui/Form';
import type { WeighingMode } from '../ui/WeighingModeChoice';
import { WeighingModeChoice } from '../ui/WeighingModeChoice';
import { BalanceDialog } from './BalanceDialog';
import type { Entering } from './entries';
import { labelsOf, UNITS } from './entries';
import { useEntry } from './useEntry';
import type { Way } from './useKeys';
import { useKeys } from './useKeys';

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

type Entry = ReturnType<typeof useEntry>;

/** Where the next figure is typed. */
export function EntryPanel(props: EntryPanelProps) {
  const { step, mode } = props;
  const entry = useEntry(props);
  const [isAtBalance, setAtBalance] = useState(false);
  const first = useRef<HTMLInputElement>(null);
  const balance = useSimulatedBalance(props);
  const { carryOver } = entry;
  const ways: readonly Way[] = [
    ...(balance
      ? [
          way('d', 'Balance', () => {
            setAtBalance(true);
          }),
        ]
      : []),
    ...(carryOver ? [way('c', 'Carry on', () => void carryOver())] : []),
    ...props.ways,
  ];
  useKeys(ways);
  const below = (
    <>
      {step.action === 'weigh' && <WeighingModeChoice mode={mode} onMode={props.onMode} />}
      <Findings {...entry.shown} />
      {entry.shown.findings.length === 0 && <Ways step={step} entry={entry} ways={ways} />}
    </>
  );
  return (
    <Form aria-label="Next entry" onSubmit={entry.keepTyped}>
      {step.action === 'blank' ? (
        <>
          <BlankIsReady />
          {below}
        </>
      ) : (
        <FigurePair
          ref={first}
          labels={labelsOf(step, mode)}
          unit={UNITS[step.action]}
          value={entry.typed}
          isDifference={entry.isDifference}
          isWrong={entry.shown.findings.length > 0}
          takesKeys={entry.isUntouched}
          onKeyDown={(event) => {
            if (step.action !== 'read-final' || event.key !== 'Enter' || !event.shiftKey) return;
            event.preventDefault();
            void entry.keepProvisional();
          }}
          onChange={entry.change}
        >
          {below}
        </FigurePair>
      )}
      {balance && isAtBalance && (
        <AtBalance
          {...props}
          balance={balance}
          entry={entry}
          returnTo={first}
          onClose={() => {
            setAtBalance(false);
          }}
        />
      )}
    </Form>
  );
}

interface AtBalanceProps extends Pick<EntryPanelProps, 'run' | 'step' | 'mode'> {
  readonly balance: Balance;
  readonly entry: Entry;
  readonly returnTo: RefObject<HTMLInputElement | null>;
  readonly onClose: () => void;
}

/** The balance, open until the mass is taken: for a difference, both. */
function AtBalance({ run, step, mode, balance, entry, returnTo, onClose }: AtBalanceProps) {
  const { isSecondNext, isDifference, typed, change } = entry;
  return (
    <BalanceDialog
      balance={balance}
      targetG={planRun(run.references, run.setUp.rules).portion.suggested}
      wanted={labelsOf(step, mode)[isSecondNext ? 1 : 0]}
      onTake={(massG) => {
        change(isSecondNext ? [typed[0], massG] : [massG, typed[1]]);
        if (!isDifference || isSecondNext) onClose();
      }}
      returnTo={returnTo}
      onClose={onClose}
    />
  );
}

function way(key: string, name: string, go: () => void): Way {
  return { key, name, go };
}

/** In the demo, the stand-in of the balance that the run weighs with, while something is weighed. */
function useSimulatedBalance({ run, step }: EntryPanelProps) {
  const { isDemo } = useSession().person;
  const { measuredWith } = arrangementOf(run.references).portion;
  return isDemo && step.action === 'weigh' && measuredWith.type === 'balance' ? measuredWith : null;
}

/** Nothing to type: the blank is made, and that is said. */
function BlankIsReady() {
  const confirm = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    confirm.current?.focus();
  }, []);
  return (
    <Button ref={confirm} type="submit" look="primary" className="min-h-[76px] w-full px-2 text-lg">
      The blank is ready <KeyHint>Enter</KeyHint>
    </Button>
  );
}

/** The other ways on; beside a final reading that is typed, writing it down before one more drop. */
function Ways({
  step,
  entry,
  ways,
}: {
  readonly step: Entering;
  readonly entry: Entry;
  readonly ways: readonly Way[];
}) {
  const isEnding = step.action === 'read-final' && entry.typed[0] !== '';
  return (
    <div className="mt-2 flex flex-wrap gap-1.5">
      {isEnding ? (
        <Button className="text-[15px]" onClick={() => void entry.keepProvisional()}>
          Write it down, then one more drop <KeyHint>⇧ Enter</KeyHint>
        </Button>
      ) : (
        ways.map(({ key, name, go }) => (
          <Button key={key} className="text-[15px]" onClick={go}>
            {name} <KeyHint>{key.toUpperCase()}</KeyHint>
          </Button>
        ))
      )}
    </div>
  );
}
