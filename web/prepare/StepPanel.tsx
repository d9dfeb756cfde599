import type { Balance } from '#core/metrology';
import { figureText, roundHalfEven, roundSignificant } from '#core/measurement';
import type { PreparationState, StepState } from '#core/preparation';
import { isExact, pinsFor } from '#core/preparation';
import type { NewFact } from '#contract';
import { useAround } from '../app/around';
import { usePersonName } from '../app/records';
import { useSession } from '../app/session';
import type { Stock } from '../app/stock';
import { useNow } from '../app/useNow';
import { AskingWhy } from '../ui/AskingWhy';
import { Button } from '../ui/Button';
import { Findings } from '../ui/Findings';
import { clockText, instantText } from '../ui/typeset';
import { useQuestioned } from '../ui/useQuestioned';
import { minutesText } from '#core/wording';
import { DryingState } from './DryingState';
import { MeasureForm } from './MeasureForm';
import { useEnterPreparation } from './usePreparation';
import { DONE_WORDS, quantityText, WORKS } from './wording';

interface StepPanelProps {
  readonly preparation: PreparationState;
  readonly step: StepState;
  readonly stock: Stock;
  readonly onDone: () => void;
}

/** One step: what to do, how much, with what; the wait, the entry or the word that it is done. */
export function StepPanel(props: StepPanelProps) {
  const { preparation, step, stock } = props;
  const { plan } = preparation;
  return (
    <>
      <h2 className="text-[28px] leading-tight font-bold">{WORKS[step.work]}</h2>
      <p className="mt-1 text-lg">{step.text}</p>
      {step.caution !== null && (
        <p className="mt-1 border-l-4 border-straw pl-3 text-straw">{step.caution}</p>
      )}
      <Target step={step} stock={stock} isExact={isExact(plan)} />
      {step.work === 'dry' && plan.source.kind === 'weigh' && (
        <DryingState lotId={plan.source.lotId} stock={stock} />
      )}
      <DoneAlready step={step} />
      <Doing {...props} />
      <LeavingOut {...props} />
    </>
  );
}

/** Where a step is entered: its figure, or that its wait has begun and that it is done. */
function Doing({ preparation, step, stock, onDone }: StepPanelProps) {
  const around = useAround();
  const { shown, setFindings, why, submit } = useQuestioned(useEnterPreparation(preparation));
  const enter = async (entry: NewFact): Promise<void> => {
    if (await submit(entry)) onDone();
  };
  const body = {
    step: step.id,
    pins: around ? pinsFor(preparation, step, around.now) : [],
    reason: why,
  };
  if (step.measures !== null) {
    return (
      <MeasureForm
        step={step}
        balance={balanceOf(step, stock)}
        shown={shown}
        onFindings={setFindings}
        onEnter={(quantity, takenFrom) => {
          const replaces = step.entries.map(({ factId }) => factId);
          void enter({
            kind: 'preparation.measured',
            body: { ...body, quantity, takenFrom, replaces },
          });
        }}
      />
    );
  }
  if (step.done) return null;
  return (
    <>
      <Wait
        step={step}
        onBegin={() => void submit({ kind: 'preparation.step-begun', body: { step: step.id } })}
      />
      <Findings {...shown} />
      <div className="mt-4">
        <Button
          look="primary"
          className="text-lg"
          onClick={() =>
            void enter({ kind: 'preparation.step-done', body: { ...body, isLeftOut: false } })
          }
        >
          {DONE_WORDS[step.work] ?? 'Done'}
        </Button>
      </div>
    </>
  );
}

/** A step without a figure that anything rests on may be left out, with a reason. */
function LeavingOut({ preparation, step, onDone }: StepPanelProps) {
  const enter = useEnterPreparation(preparation);
  const mayBeLeftOut = step.measures === null || step.measures.kind === 'temperature';
  if (step.done || !mayBeLeftOut) return null;
  return (
    <AskingWhy
      button="Leave it out…"
      look="quiet"
      className="mt-3 -ml-5"
      question={{
        title: `Leave out: ${WORKS[step.work].toLowerCase()}?`,
        description: 'The record says so, with your reason.',
        confirm: 'Leave it out',
        onConfirm: async (reason) => {
          const body = { step: step.id, isLeftOut: true, pins: [], reason };
          await enter({ kind: 'preparation.step-done', body });
          onDone();
        },
      }}
    />
  );
}

function balanceOf({ measures }: StepState, { equipment }: Stock): Balance | null {
  if (measures?.kind !== 'mass') return null;
  const found = equipment.find(({ id }) => id === measures.balanceId)?.equipment;
  return found?.type === 'balance' ? found : null;
}

/** How much, in large figures, and with what. */
function Target({
  step,
  stock,
  isExact: exact,
}: {
  readonly step: StepState;
  readonly stock: Stock;
  readonly isExact: boolean;
}) {
  const { measures, vesselId } = step;
  const named = (id: string | null): string | null =>
    stock.equipment.find((one) => one.id === id)?.equipment.name ?? null;
  const vessel = named(measures?.kind === 'volume' ? measures.vesselId : vesselId);
  const amount =
    measures?.kind === 'mass'
      ? `${figureText(exact ? roundHalfEven(measures.targetG, 4) : roundSignificant(measures.targetG, 3))} g`
      : measures?.kind === 'volume'
        ? `${figureText(roundSignificant(measures.targetMl, 3))} mL`
        : null;
  if (amount === null) {
    return vessel === null ? null : <p className="mt-1 text-lg font-semibold">With {vessel}.</p>;
  }
  return (
    <p className="my-3">
      <span className="block font-mono text-[40px] leading-none font-bold">{amount}</span>
      <span className="mt-1 block text-ink-soft">
        {measures?.kind === 'mass'
          ? exact
            ? 'Anything near this will do; write every digit.'
            : 'About.'
          : `About, with ${vessel ?? 'a cylinder'}.`}
      </span>
    </p>
  );
}

/** The wait of a step: begins, counts down, is over. */
function Wait({ step, onBegin }: { readonly step: StepState; readonly onBegin: () => void }) {
  const { laboratory } = useSession();
  const now = useNow(1_000);
  if (step.waitMinutes === null) return null;
  if (step.waitsUntil === null) {
    return (
      <div className="mt-3 flex items-center gap-4">
        <Button onClick={onBegin}>Begin the wait</Button>
        <span className="text-ink-soft">{minutesText(step.waitMinutes)} from then on.</span>
      </div>
    );
  }
  const leftS = Math.ceil((Date.parse(step.waitsUntil) - Date.parse(now)) / 1000);
  if (leftS <= 0) {
    return <p className="mt-3 text-xl font-bold text-leaf">Time is up.</p>;
  }
  return (
    <p className="mt-3" role="timer">
      <span className="font-mono text-[40px] leading-none font-bold">{countdown(leftS)}</span>
      <span className="ml-3 text-ink-soft">
        until {clockText(step.waitsUntil, now, laboratory.timeZone)}; you may leave this page
      </span>
    </p>
  );
}

function countdown(seconds: number): string {
  const two = (part: number): string => String(part).padStart(2, '0');
  const hours = Math.floor(seconds / 3600);
  const rest = `${two(Math.floor(seconds / 60) % 60)}:${two(seconds % 60)}`;
  return hours > 0 ? `${String(hours)}:${rest}` : rest;
}

/** Who did a step, when, and what it came to. */
function DoneAlready({ step }: { readonly step: StepState }) {
  const { laboratory } = useSession();
  const nameOf = usePersonName();
  const { done, entries, replaced } = step;
  if (!done) return null;
  return (
    <div className="mt-3 border-l-4 border-leaf pl-4">
      <p>
        {done.isLeftOut ? 'Left out' : 'Done'} by {nameOf(done.by)},{' '}
        {instantText(done.at, laboratory.timeZone)}.{done.reason && ` ${done.reason}`}
      </p>
      {entries.map(({ factId, quantity, takenFrom, by, reason }) => (
        <p key={factId}>
          <b className="font-mono">{quantityText(quantity)}</b> by {nameOf(by)}
          {takenFrom && `, taken from ${takenFrom}`}
          {reason && `: ${reason}`}
        </p>
      ))}
      {replaced.map(({ factId, quantity, because }) => (
        <p key={factId} className="text-ink-soft">
          <s className="font-mono">{quantityText(quantity)}</s> corrected: {because}
        </p>
      ))}
      {entries.length > 1 && (
        <p className="mt-1 font-semibold text-blush">
          Two figures contradict each other. Enter the right one and say why.
        </p>
      )}
    </div>
  );
}
