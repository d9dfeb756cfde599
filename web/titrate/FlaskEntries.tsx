import type { ReactNode } from 'react';
import { roundHalfEven } from '#core/measurement';
import type { Replicate } from '#core/titration/judging';
import type { Entry, Reading, ReadingPlace, RunState } from '#core/titration/run';
import { forecastFlask } from '#core/titration/figures';
import {
  FINAL,
  INITIAL,
  isBlank,
  placeName,
  portionAmount,
  readingAt,
  rivalsOf,
} from '#core/titration/run';
import { arrangementOf } from '#core/titration/setUp';
import { ShortName } from '../ui/ShortName';

interface FlaskEntriesProps {
  readonly run: RunState;
  readonly replicate: Replicate;
  readonly onCorrectPortion: (flask: number) => void;
  readonly onCorrectReading: (flask: number, place: ReadingPlace, entry: Reading) => void;
}

/** What was entered for a flask, and its titre; pressing a figure asks for a correction. */
export function FlaskEntries(props: FlaskEntriesProps) {
  const { run, replicate, onCorrectPortion, onCorrectReading } = props;
  const { flask, titreMl } = replicate;
  const number = String(flask.number);
  const isOpen = run.status === 'open';
  const { portion, excess } = arrangementOf(run.references);
  const reading = (place: ReadingPlace): ReactNode => {
    const entry = readingAt(flask, place);
    return (
      entry && (
        <Figure
          entry={entry}
          rivals={rivalsOf(flask, place)}
          text={String}
          isConfirmed={entry.confirmed.length > 0}
          label={`Correct the ${placeName(place)} of flask ${number}`}
          onCorrect={
            isOpen
              ? () => {
                  onCorrectReading(flask.number, place, entry);
                }
              : undefined
          }
        />
      )
    );
  };
  return (
    <dl>
      {isBlank(flask) ? (
        <Row name="blank">
          <span className="text-ink-soft">
            no <ShortName of={portion.substanceId} />
          </span>
        </Row>
      ) : (
        <Row
          name={
            <>
              <ShortName of={portion.substanceId} /> / {portion.unit}
            </>
          }
        >
          <Figure
            entry={flask.portion}
            rivals={flask.rivals.portion}
            text={portionAmount}
            label={`Correct the ${portion.unit === 'g' ? 'mass' : 'volume'} in flask ${number}`}
            onCorrect={
              isOpen
                ? () => {
                    onCorrectPortion(flask.number);
                  }
                : undefined
            }
          />
        </Row>
      )}
      {excess && (
        <Row
          name={
            <>
              excess of <ShortName of={excess.substanceId} /> / mL
            </>
          }
        >
          <span className="px-1 font-mono text-[17px]">{excess.fixedMl}</span>
        </Row>
      )}
      <Row name="start / mL">{reading(INITIAL)}</Row>
      {flask.refills.map(({ stop }, i) => (
        <Row key={stop.factId} name="refilled">
          <span className="flex items-center">
            {reading({ at: 'stop', refill: i + 1 })}
            <span className="text-ink-soft">→</span>
            {reading({ at: 'restart', refill: i + 1 })}
          </span>
        </Row>
      ))}
      {flask.provisional.length > 0 && (
        <Row name="before">
          <span className="font-mono text-[17px] text-ink-soft">
            {flask.provisional.at(-1)?.value}
          </span>
        </Row>
      )}
      <Row name="end / mL">{reading(FINAL)}</Row>
      <Row name="titre / mL">
        {titreMl === null ? (
          !flask.voided && (
            <span className="font-mono text-ink-soft">
              ≈ {roundHalfEven(forecastFlask(run, flask, null).titreMl, 2)}
            </span>
          )
        ) : (
          <span
            className={`font-mono ${replicate.verdict === 'disputed' ? 'text-ink-soft' : 'font-semibold'}`}
          >
            {titreMl}
          </span>
        )}
      </Row>
    </dl>
  );
}

function Row({ name, children }: { readonly name: ReactNode; readonly children: ReactNode }) {
  return (
    <div className="flex min-h-9 items-center justify-between gap-2">
      <dt className="text-[15px] text-ink-soft">{name}</dt>
      <dd>{children ?? <span className="text-ink-soft">–</span>}</dd>
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
