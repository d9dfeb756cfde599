import { foundText, foundUnit } from './found';
import { isAnalysis } from '#core/titration/setUp';
import { useEffect, useRef } from 'react';
import { figureText, roundHalfEven } from '#core/measurement';
import type { Replicate } from '#core/titration/judging';
import type { Reading, ReadingPlace, RunState } from '#core/titration/run';
import { flaskColour } from '#core/titration/guidance';
import { curveEndOf } from '#core/titration/figures';
import { SmallButton } from '../ui/Button';
import { FlaskEntries } from './FlaskEntries';
import { FlaskDrawing } from './FlaskDrawing';
import { FlaskTimer } from './FlaskTimer';
import { gradeName } from './Grade';
import { VERDICTS } from './wording';

/** What can be done with a flask. */
export interface FlaskActions {
  readonly onTitrate: (flask: number) => void;
  readonly onVoid: (flask: number) => void;
  readonly onSettle: (flask: number) => void;
  readonly onCorrectPortion: (flask: number) => void;
  readonly onCorrectReading: (flask: number, place: ReadingPlace, entry: Reading) => void;
}

interface FlaskColumnProps {
  readonly run: RunState;
  readonly replicate: Replicate;
  readonly isCurrent: boolean;
  /** Whether it is shown by itself, with room beside what it holds. */
  readonly isAlone?: boolean;
  readonly mayTitrate: boolean;
  /** How long the timer of a flask runs. */
  readonly timerMinutes: number;
  readonly actions: FlaskActions;
}

/** One flask: its entries, its titre and what it gives. */
export function FlaskColumn(props: FlaskColumnProps) {
  const { run, replicate, isCurrent, isAlone = false, mayTitrate, timerMinutes, actions } = props;
  const { flask, verdict } = replicate;
  const number = String(flask.number);
  const isDisputed = verdict === 'disputed';
  const look = isCurrent && !isDisputed ? VERDICTS.current : VERDICTS[verdict];
  const isWaiting = run.status === 'open' && !flask.voided && !flask.initial;
  const timer = isWaiting && (
    <FlaskTimer runId={run.id} flask={flask.number} minutes={timerMinutes} />
  );
  // Where not all columns fit beside each other, the one at hand is in sight.
  const column = useRef<HTMLElement>(null);
  useEffect(() => {
    const here = column.current;
    const strip = here?.parentElement?.parentElement;
    if (isCurrent && here && strip) strip.scrollLeft = here.offsetLeft;
  }, [isCurrent]);
  return (
    <section
      ref={column}
      aria-label={`Flask ${number}`}
      className={`@container flex min-h-0 min-w-[168px] flex-1 flex-col overflow-y-auto border-t-4 px-3 pt-1.5 ${isCurrent ? 'border-t-violet bg-sheet' : 'border-t-transparent'} ${flask.voided ? 'text-ink-soft' : ''}`}
    >
      <header className="flex items-center justify-between gap-1">
        <h3 className="text-lg font-bold">Flask {number}</h3>
        <span className={`rounded-full px-2.5 py-0.5 text-sm font-semibold ${look.className}`}>
          {look.word}
        </span>
      </header>
      <div className={`flex min-h-0 flex-1 flex-col gap-x-6 ${isAlone ? '@md:flex-row' : ''}`}>
        <div
          className={`flex items-center justify-center gap-3 py-1 ${isAlone ? 'h-24 w-28 shrink-0 @max-md:hidden' : `max-h-[108px] flex-1 ${isWaiting ? 'min-h-14' : 'min-h-8'}`}`}
        >
          <FlaskDrawing colour={flaskColour(flask, run.references.method)} />
          {!isAlone && timer && <span className="ml-auto">{timer}</span>}
        </div>
        <div className={isAlone ? 'min-w-0 @md:flex-1' : ''}>
          <FlaskEntries
            run={run}
            replicate={replicate}
            onCorrectPortion={actions.onCorrectPortion}
            onCorrectReading={actions.onCorrectReading}
          />
        </div>
      </div>
      <Remarks run={run} replicate={replicate} />
      <div className="mt-auto flex min-h-14 items-center justify-between gap-1.5 border-t border-rule">
        <Buttons
          run={run}
          replicate={replicate}
          mayBegin={mayTitrate && !isCurrent}
          actions={actions}
        />
        {isAlone && timer}
        <Found run={run} replicate={replicate} />
      </div>
    </section>
  );
}

/** What a titration gives: mol/L of a titrant, a content of a sample. */
function Found({
  run,
  replicate: { flask, verdict, molarity },
}: {
  readonly run: RunState;
  readonly replicate: Replicate;
}) {
  const look = verdict === 'disputed' ? 'text-ink-soft' : 'font-semibold';
  return (
    <p className={`ml-auto font-mono text-[21px] ${look} ${flask.voided ? 'line-through' : ''}`}>
      <span className="sr-only">
        {isAnalysis(run.references) ? 'content' : 'molarity'} in {foundUnit(run)}:{' '}
      </span>
      <span data-testid={`molarity-${String(flask.number)}`}>
        {molarity === null ? (
          <span className="text-base font-normal text-ink-soft">
            {verdict === 'blank' ? 'subtracted' : '–'}
          </span>
        ) : (
          foundText(run, molarity)
        )}
      </span>
    </p>
  );
}

/** What there is to say of a flask beside its figures. */
function Remarks({
  run,
  replicate: { flask },
}: {
  readonly run: RunState;
  readonly replicate: Replicate;
}) {
  const { voided, grade, incidents } = flask;
  if (voided) return <p className="py-1 text-sm leading-snug">{voided.reason}</p>;
  const curve = curveEndOf(run, flask);
  return (
    <>
      {curve && (
        <p className="text-sm leading-snug text-ink-soft">
          end by its curve:{' '}
          <span className="font-mono">{figureText(roundHalfEven(curve.volumeMl, 2))}</span> mL
        </p>
      )}
      {grade && grade.grade !== 'good' && (
        <p className="text-sm leading-snug text-straw">end point {gradeName(grade.grade)}</p>
      )}
      {incidents.length > 0 && (
        <p className="text-sm leading-snug text-blush">
          {incidents.length === 1
            ? 'an incident noted'
            : `${String(incidents.length)} incidents noted`}
        </p>
      )}
    </>
  );
}

interface ButtonsProps {
  readonly run: RunState;
  readonly replicate: Replicate;
  /** Whether its titration may begin now. */
  readonly mayBegin: boolean;
  readonly actions: FlaskActions;
}

function Buttons({ run, replicate: { flask, verdict }, mayBegin, actions }: ButtonsProps) {
  if (run.status !== 'open' || flask.voided) return null;
  const { number } = flask;
  return (
    <>
      {!flask.initial && mayBegin && (
        <SmallButton
          onClick={() => {
            actions.onTitrate(number);
          }}
        >
          Titrate<span className="sr-only"> flask {number}</span>
        </SmallButton>
      )}
      {verdict === 'disputed' && (
        <SmallButton
          onClick={() => {
            actions.onSettle(number);
          }}
        >
          Settle<span className="sr-only"> flask {number}</span>…
        </SmallButton>
      )}
      <SmallButton
        onClick={() => {
          actions.onVoid(number);
        }}
      >
        Void<span className="sr-only"> flask {number}</span>…
      </SmallButton>
    </>
  );
}
