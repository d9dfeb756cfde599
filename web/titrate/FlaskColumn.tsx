import type { ReactNode } from 'react';
import { roundHalfEven } from '#core/measurement';
import type { Entry, Reading, ReadingPlace, Replicate, RunState } from '#core/titration';
import {
  forecastFlask,
  isBlank,
  placeName,
  portionAmount,
  readingAt,
  refillPlace,
} from '#core/titration';
import { SmallButton } from '../ui/Button';
import { ShortName } from '../ui/ShortName';
import { flaskColour, FlaskDrawing } from './FlaskDrawing';
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
  readonly mayTitrate: boolean;
  readonly actions: FlaskActions;
}

/** One flask: its entries, its titre and what it gives. */
export function FlaskColumn(props: FlaskColumnProps) {
  const { run, replicate, isCurrent, mayTitrate, actions } = props;
  const { flask } = replicate;
  const number = String(flask.number);
  const isDisputed = replicate.verdict === 'disputed';
  const look = isCurrent && !isDisputed ? VERDICTS.current : VERDICTS[replicate.verdict];
  const forecast = forecastFlask(run, flask, null);
  const isOpen = run.status === 'open';
  const isWeighed = run.references.standard.kind === 'lot';
  const { method, bottle } = run.references;
  const inFlask = method.inBurette === 'standard' ? bottle.substanceId : method.standardId;
  const reading = (place: ReadingPlace): ReactNode => {
    const entry = readingAt(flask, place);
    return (
      entry && (
        <Figure
          entry={entry}
          rivals={flask.rivals[place] ?? []}
          text={String}
          isConfirmed={entry.confirmed.length > 0}
          label={`Correct the ${placeName(place)} of flask ${number}`}
          onCorrect={
            isOpen
              ? () => {
                  actions.onCorrectReading(flask.number, place, entry);
                }
              : undefined
          }
        />
      )
    );
  };
  return (
    <section
      aria-label={`Flask ${number}`}
      className={`flex min-h-0 min-w-[150px] flex-1 flex-col border-t-4 px-3.5 pt-2 ${isCurrent ? 'border-t-violet bg-sheet' : 'border-t-transparent'} ${flask.voided ? 'text-ink-soft' : ''}`}
    >
      <header className="flex items-center justify-between gap-1">
        <h3 className="text-lg font-bold">Flask {number}</h3>
        <span className={`rounded-full px-2.5 py-0.5 text-sm font-semibold ${look.className}`}>
          {look.word}
        </span>
      </header>
      <div className="flex max-h-[108px] min-h-8 flex-1 justify-center py-2">
        <FlaskDrawing colour={flaskColour(flask, run.references.method)} />
      </div>
      <dl className="space-y-0.5">
        <Row
          name={
            isBlank(flask) ? (
              'blank'
            ) : (
              <>
                <ShortName of={inFlask} /> / {isWeighed ? 'g' : 'mL'}
              </>
            )
          }
        >
          {isBlank(flask) ? (
            <span className="text-ink-soft">
              no <ShortName of={inFlask} />
            </span>
          ) : (
            <Figure
              entry={flask.portion}
              rivals={flask.rivals.portion}
              text={portionAmount}
              label={`Correct the ${isWeighed ? 'mass' : 'volume'} in flask ${number}`}
              onCorrect={
                isOpen
                  ? () => {
                      actions.onCorrectPortion(flask.number);
                    }
                  : undefined
              }
            />
          )}
        </Row>
        <Row name="start / mL">{reading('initial')}</Row>
        {flask.refills.map((_, i) => (
          <Row key={i} name="refilled">
            <span className="flex">
              {reading(refillPlace('stop', i + 1))}
              <span className="text-ink-soft">→</span>
              {reading(refillPlace('restart', i + 1))}
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
        <Row name="end / mL">{reading('final')}</Row>
        <Row name="titre / mL">
          {replicate.titreMl === null ? (
            flask.voided ? null : (
              <span className="font-mono text-ink-soft">
                ≈ {roundHalfEven(forecast.titreMl, 2)}
              </span>
            )
          ) : (
            <span className={`font-mono ${isDisputed ? 'text-ink-soft' : 'font-semibold'}`}>
              {replicate.titreMl}
            </span>
          )}
        </Row>
      </dl>
      <div className="mt-1 flex min-h-12 shrink-0 flex-wrap items-center gap-2 text-sm">
        {flask.voided && <p className="leading-snug">{flask.voided.reason}</p>}
        {flask.grade && flask.grade.grade !== 'good' && !flask.voided && (
          <p className="leading-snug text-straw">{gradeName(flask.grade.grade)}</p>
        )}
        {flask.incidents.length > 0 && !flask.voided && (
          <p className="leading-snug text-blush">
            {flask.incidents.length === 1
              ? 'an incident noted'
              : `${String(flask.incidents.length)} incidents noted`}
          </p>
        )}
        {isOpen && !flask.voided && !flask.initial && mayTitrate && !isCurrent && (
          <SmallButton
            onClick={() => {
              actions.onTitrate(flask.number);
            }}
          >
            Titrate <span className="sr-only">flask {number}</span>
          </SmallButton>
        )}
        {isOpen && isDisputed && (
          <SmallButton
            onClick={() => {
              actions.onSettle(flask.number);
            }}
          >
            Settle <span className="sr-only">flask {number}</span>…
          </SmallButton>
        )}
        {isOpen && !flask.voided && (
          <SmallButton
            onClick={() => {
              actions.onVoid(flask.number);
            }}
          >
            Void <span className="sr-only">flask {number}</span>…
          </SmallButton>
        )}
      </div>
      <p className="mt-auto flex items-baseline justify-between border-t border-rule pt-1.5 pb-2">
        <span className="text-sm text-ink-soft">mol/L</span>
        <span
          className={`font-mono text-[22px] ${isDisputed ? 'text-ink-soft' : 'font-semibold'} ${flask.voided ? 'line-through' : ''}`}
          data-testid={`molarity-${number}`}
        >
          {replicate.molarity === null ? (
            <span className="text-base font-normal text-ink-soft">
              {replicate.verdict === 'blank' ? 'subtracted' : '–'}
            </span>
          ) : (
            roundHalfEven(replicate.molarity, 5)
          )}
        </span>
      </p>
    </section>
  );
}

function Row({ name, children }: { readonly name: ReactNode; readonly children: ReactNode }) {
  return (
    <div className="flex min-h-8 items-center justify-between gap-2">
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
    <span className="flex items-baseline gap-1.5">
      {before && (
        <s className="font-mono text-sm text-blush" title={before.reason}>
          {text(before.value)}
        </s>
      )}
      {onCorrect ? (
        <button
          type="button"
          aria-label={`${label}, ${text(entry.value)}`}
          className={`min-h-8 rounded px-1 font-mono text-[17px] underline decoration-rule-strong decoration-dotted underline-offset-4 hover:bg-violet-wash ${rivalLook}`}
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
