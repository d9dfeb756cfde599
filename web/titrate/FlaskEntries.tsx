import type { ReactNode } from 'react';
import { figureText, roundHalfEven } from '#core/measurement';
import type { Replicate } from '#core/titration/judging';
import type { Entry, Reading, ReadingPlace, RunState } from '#core/titration/run';
import { forecastFlask } from '#core/titration/figures';
import {
  FINAL,
  FIRST_END,
  INITIAL,
  isBlank,
  placeName,
  portionAmount,
  readingAt,
  rivalsOf,
} from '#core/titration/run';
import { arrangementOf } from '#core/titration/setUp';
import { whyExpected } from '#core/titration/guidance';
import { ShortName } from '../ui/ShortName';
import { Term } from '../ui/Term';
import { Why } from '../ui/Why';

interface FlaskEntriesProps {
  readonly run: RunState;
  readonly replicate: Replicate;
  readonly onCorrectPortion: (flask: number) => void;
  readonly onCorrectReading: (flask: number, place: ReadingPlace, entry: Reading) => void;
}

/** What was entered for a flask, and its titre; pressing a figure asks for a correction. */
export function FlaskEntries(props: FlaskEntriesProps) {
  const { run, replicate } = props;
  const { flask } = replicate;
  const { excess } = arrangementOf(run.references);
  return (
    <dl className="gap-x-6 @xs:grid @xs:grid-cols-2">
      <PortionRow {...props} />
      {excess && (
        <Row
          name={
            <>
              excess of <ShortName of={excess.substanceId} own={excess.own} /> / mL
            </>
          }
        >
          <span className="px-1 font-mono text-[17px]">{excess.fixedMl}</span>
        </Row>
      )}
      <Row name="start / mL">
        <ReadingFigure {...props} place={INITIAL} />
      </Row>
      {flask.refills.map(({ stop }, i) => (
        <Row key={stop.factId} name="refilled">
          <span className="flex items-center">
            <ReadingFigure {...props} place={{ at: 'stop', refill: i + 1 }} />
            <span className="text-ink-soft">→</span>
            <ReadingFigure {...props} place={{ at: 'restart', refill: i + 1 }} />
          </span>
        </Row>
      ))}
      {flask.firstEnd && (
        <Row name="first end / mL">
          <ReadingFigure {...props} place={FIRST_END} />
        </Row>
      )}
      {flask.provisional.length > 0 && (
        <Row name="before">
          <span className="font-mono text-[17px] text-ink-soft">
            {figureText(flask.provisional.at(-1)?.value ?? '')}
          </span>
        </Row>
      )}
      <Row name="end / mL">
        <ReadingFigure {...props} place={FINAL} />
      </Row>
      <Row
        name={
          <>
            <Term of="titre" /> / mL
          </>
        }
      >
        <Titre run={run} replicate={replicate} />
      </Row>
    </dl>
  );
}

/** How much of the standard is in it, or that there is none of it. */
function PortionRow({ run, replicate: { flask }, onCorrectPortion }: FlaskEntriesProps) {
  const { portion } = arrangementOf(run.references);
  const name =
    portion.substanceId === null ? (
      'sample'
    ) : (
      <ShortName of={portion.substanceId} own={portion.own} />
    );
  if (isBlank(flask)) {
    return (
      <Row name="blank">
        <span className="text-ink-soft">no {name}</span>
      </Row>
    );
  }
  const what = portion.unit === 'g' ? 'mass' : 'volume';
  const correct = (): void => {
    onCorrectPortion(flask.number);
  };
  return (
    <Row
      name={
        <>
          {name} / {portion.unit}
        </>
      }
    >
      <Figure
        entry={flask.portion}
        rivals={flask.rivals.portion}
        text={(portion) => figureText(portionAmount(portion))}
        label={`Correct the ${what} in flask ${String(flask.number)}`}
        onCorrect={run.status === 'open' ? correct : undefined}
      />
    </Row>
  );
}

/** A reading of the burette, or a dash while there is none. */
function ReadingFigure({
  run,
  replicate: { flask },
  place,
  onCorrectReading,
}: FlaskEntriesProps & { readonly place: ReadingPlace }) {
  const entry = readingAt(flask, place);
  if (!entry) return <NothingYet />;
  const correct = (): void => {
    onCorrectReading(flask.number, place, entry);
  };
  return (
    <Figure
      entry={entry}
      rivals={rivalsOf(flask, place)}
      text={figureText}
      isConfirmed={entry.confirmed.length > 0}
      label={`Correct the ${placeName(place)} of flask ${String(flask.number)}`}
      onCorrect={run.status === 'open' ? correct : undefined}
    />
  );
}

/** The titre, or the one to expect. */
function Titre({ run, replicate }: Pick<FlaskEntriesProps, 'run' | 'replicate'>) {
  const { flask, titreMl, verdict } = replicate;
  if (titreMl !== null) {
    const look = verdict === 'disputed' ? 'text-ink-soft' : 'font-semibold';
    return <span className={`font-mono ${look}`}>{figureText(titreMl)}</span>;
  }
  if (flask.voided) return <NothingYet />;
  const forecast = forecastFlask(run, flask, null);
  return (
    <span className="font-mono text-ink-soft">
      <Why of="this titre is expected" because={whyExpected(run, flask, forecast)}>
        ≈ {figureText(roundHalfEven(forecast.titreMl, 2))}
      </Why>
    </span>
  );
}

function NothingYet() {
  return <span className="text-ink-soft">–</span>;
}

function Row({ name, children }: { readonly name: ReactNode; readonly children: ReactNode }) {
  return (
    <div className="flex min-h-9 items-center justify-between gap-2">
      <dt className="text-[15px] text-ink-soft">{name}</dt>
      <dd className="whitespace-nowrap">{children}</dd>
    </div>
  );
}

interface FigureProps<T> {
  readonly entry: Entry<T>;
  /** Other values for the same place, entered without knowing of it. */
  readonly rivals: readonly Entry<T>[];
  readonly text: (value: T) => string;
  readonly label: string;
  /** Whether a second person has read the same. */
  readonly isConfirmed?: boolean;
  readonly onCorrect: (() => void) | undefined;
}

/** A figure that was entered; pressing it asks for a correction. What it was before stands struck through. */
function Figure<T>({ entry, rivals, text, label, isConfirmed = false, onCorrect }: FigureProps<T>) {
  const before = entry.superseded.at(-1);
  // Neither of two values is more right than the other before somebody has settled it.
  const rivalLook = rivals.length > 0 ? 'rounded bg-blush-wash font-semibold text-blush' : '';
  return (
    <span className="flex items-center gap-1.5">
      {before && (
        <s className="font-mono text-sm text-blush" title={before.reason}>
          {text(before.value)}
        </s>
      )}
      {onCorrect ? (
        <button
          type="button"
          aria-label={`${label}, ${text(entry.value)}`}
          className={`min-h-12 min-w-12 rounded px-1 text-right font-mono text-[17px] underline decoration-rule-strong decoration-dotted underline-offset-4 hover:bg-violet-wash ${rivalLook}`}
          onClick={onCorrect}
        >
          {text(entry.value)}
        </button>
      ) : (
        <span className="px-1 font-mono text-[17px]">{text(entry.value)}</span>
      )}
      {isConfirmed && (
        <span className="text-sm text-leaf" title="read by a second person too">
          ✓<span className="sr-only">read by a second person too</span>
        </span>
      )}
      {rivals.map((rival) => (
        <span key={rival.factId} className={`px-1 font-mono text-[17px] ${rivalLook}`}>
          <span className="sr-only">or </span>
          {text(rival.value)}
        </span>
      ))}
    </span>
  );
}
