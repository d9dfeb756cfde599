import type { ReactNode } from 'react';
import { roundHalfEven } from '#core/measurement';
import type { Entry, Replicate, RunState } from '#core/titration';
import { forecastTitre } from '#core/titration';
import { netMassG } from '#core/metrology';
import { SmallButton } from '../ui/Button';
import { flaskColour, FlaskDrawing } from './FlaskDrawing';
import { VERDICTS, weighingText } from './wording';

/** What can be done with a flask. */
export interface FlaskActions {
  readonly onTitrate: (flask: number) => void;
  readonly onVoid: (flask: number) => void;
  readonly onSettle: (flask: number) => void;
  readonly onCorrectWeighing: (flask: number) => void;
  readonly onCorrectReading: (flask: number, moment: 'initial' | 'final') => void;
}

interface FlaskColumnProps {
  readonly run: RunState;
  readonly replicate: Replicate;
  /** The short name of the standard. */
  readonly standard: string;
  readonly isCurrent: boolean;
  readonly mayTitrate: boolean;
  readonly actions: FlaskActions;
}

/** One flask: its entries, its titre and what it gives. */
export function FlaskColumn(props: FlaskColumnProps) {
  const { run, replicate, standard, isCurrent, mayTitrate, actions } = props;
  const { flask } = replicate;
  const number = String(flask.number);
  const isDisputed = replicate.verdict === 'disputed';
  const look = isCurrent && !isDisputed ? VERDICTS.current : VERDICTS[replicate.verdict];
  const forecast = forecastTitre(
    run,
    Number(netMassG(flask.weighing.value)),
    flask.initial ? Number(flask.initial.value) : null,
  );
  const isOpen = run.status === 'open';
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
        <Row name={`${standard} / g`}>
          <Figure
            entry={flask.weighing}
            rivals={flask.rivals.weighing}
            text={weighingText}
            label={`Correct the mass in flask ${number}`}
            onCorrect={
              isOpen
                ? () => {
                    actions.onCorrectWeighing(flask.number);
                  }
                : undefined
            }
          />
        </Row>
        {(['initial', 'final'] as const).map((moment) => (
          <Row key={moment} name={moment === 'initial' ? 'start / mL' : 'end / mL'}>
            {flask[moment] && (
              <Figure
                entry={flask[moment]}
                rivals={flask.rivals[moment]}
                text={String}
                label={`Correct the ${moment} reading of flask ${number}`}
                onCorrect={
                  isOpen
                    ? () => {
                        actions.onCorrectReading(flask.number, moment);
                      }
                    : undefined
                }
              />
            )}
          </Row>
        ))}
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
          {replicate.molarity === null ? '–' : roundHalfEven(replicate.molarity, 5)}
        </span>
      </p>
    </section>
  );
}

function Row({ name, children }: { readonly name: string; readonly children: ReactNode }) {
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
  readonly onCorrect: (() => void) | undefined;
}

/** A figure that was entered; pressing it asks for a correction. What it was before stands struck through. */
function Figure<T>({ entry, rivals, text, label, onCorrect }: FigureProps<T>) {
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
      {rivals.map((rival) => (
        <span key={rival.factId} className={`px-1 font-mono text-[17px] ${rivalLook}`}>
          <span className="sr-only">or </span>
          {text(rival.value)}
        </span>
      ))}
    </span>
  );
}
