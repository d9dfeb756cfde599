import { useState } from 'react';
import { Link, useParams } from 'react-router';
import type { Colour } from '#core/chemistry';
import { describeEndPoint, findSubstance } from '#core/chemistry';
import { roundHalfEven } from '#core/measurement';
import { nominalMolPerL } from '#core/reagent';
import type { Conflict, Forecast, Judgement, NextStep, RunState } from '#core/titration';
import {
  flaskUnderBurette,
  forecastTitre,
  judgeRun,
  nextStep,
  openConflicts,
  titrateStep,
  weighStep,
} from '#core/titration';
import { netMassG } from '#core/metrology';
import { Loading } from '../app/Loading';
import { usePersonName } from '../app/records';
import { Button, ButtonLink } from '../ui/Button';
import { usePageHeading } from '../ui/Page';
import { capitalized } from '../ui/typeset';
import { BuretteCheckDialog } from './BuretteCheckDialog';
import { BuretteDrawing } from './BuretteDrawing';
import type { Correction } from './CorrectionDialog';
import { CorrectionDialog } from './CorrectionDialog';
import type { WeighingMode } from '../ui/WeighingModeChoice';
import { EntryPanel } from './EntryPanel';
import type { FlaskActions } from './FlaskColumn';
import { FlaskColumn } from './FlaskColumn';
import { IncidentDialog } from './IncidentDialog';
import { Persistence } from './Persistence';
import { MolarityScale } from './MolarityScale';
import { ReasonDialog } from '../ui/ReasonDialog';
import { SettleDialog } from './SettleDialog';
import { useEnter, useRun } from './useRun';

/** The screen beside the burette. */
export function BenchPage() {
  const { runId = '' } = useParams();
  const loaded = useRun(runId);
  return loaded ? <Bench key={runId} run={loaded.run} /> : <Loading />;
}

/** What the analyst has chosen to do instead of what comes next by default. */
type Detour = { readonly kind: 'weigh' } | { readonly kind: 'titrate'; readonly flask: number };

type Question =
  | { readonly kind: 'correct'; readonly correction: Correction }
  | { readonly kind: 'void'; readonly flask: number }
  | { readonly kind: 'settle'; readonly conflict: Conflict }
  | { readonly kind: 'incident'; readonly flask: number }
  | { readonly kind: 'burette' }
  | { readonly kind: 'abandon' };

function Bench({ run }: { readonly run: RunState }) {
  const { bottle, method, burette } = run.references;
  const titrant = findSubstance(bottle.substanceId);
  const standard = findSubstance(method.standardId)?.shortName ?? 'standard';
  const heading = usePageHeading(`Bottle ${bottle.code} on the bench`);
  const [detour, setDetour] = useState<Detour | null>(null);
  const [question, setQuestion] = useState<Question | null>(null);
  const [mode, setMode] = useState<WeighingMode>('tared');
  const [previewMl, setPreviewMl] = useState<number | null>(null);
  const judgement = judgeRun(run);
  const step = takeDetour(run, judgement, detour);
  const onBurette = burettePosition(run, step, previewMl);
  const closeQuestion = (): void => {
    setQuestion(null);
  };
  const flaskOf = (number: number) => run.flasks.find((flask) => flask.number === number);
  const settle = (flask: number): void => {
    const conflict = openConflicts(run).find((item) => item.flask === flask);
    if (conflict) setQuestion({ kind: 'settle', conflict });
  };
  const actions: FlaskActions = {
    onTitrate: (flask) => {
      setDetour({ kind: 'titrate', flask });
    },
    onVoid: (flask) => {
      setQuestion({ kind: 'void', flask });
    },
    onSettle: settle,
    onCorrectWeighing: (flask) => {
      const entry = flaskOf(flask)?.weighing;
      if (entry) setQuestion({ kind: 'correct', correction: { what: 'weighing', flask, entry } });
    },
    onCorrectReading: (flask, moment) => {
      const entry = flaskOf(flask)?.[moment];
      if (entry)
        setQuestion({ kind: 'correct', correction: { what: 'reading', flask, moment, entry } });
    },
  };
  return (
    <div className="grid h-screen min-h-[760px] grid-cols-[268px_minmax(0,1fr)]">
      <div className="h-screen max-h-[860px] min-h-0 border-r border-rule bg-[#faf6ee]">
        <BuretteDrawing burette={burette} {...onBurette} />
      </div>
      <div className="flex min-h-0 flex-col px-6 pt-4 pb-3">
        <header className="flex items-end justify-between border-b-2 border-ink pb-2">
          <div>
            <h1 ref={heading} tabIndex={-1} className="text-2xl font-bold">
              {capitalized(titrant?.name ?? 'titrant')} {bottle.nominalMolarity} mol/L, bottle{' '}
              {bottle.code}
            </h1>
            <RunLine run={run} standard={standard} />
          </div>
          <div className="flex shrink-0 gap-2">
            {run.flasks.length > 0 && (
              <Button
                className="px-3 text-[15px] whitespace-nowrap"
                onClick={() => {
                  setQuestion({ kind: 'incident', flask: flaskAtHand(run, step) });
                }}
              >
                Does it matter?
              </Button>
            )}
            {run.status === 'open' && (
              <Button
                className="px-3 text-[15px]"
                onClick={() => {
                  setQuestion({ kind: 'abandon' });
                }}
              >
                Abandon…
              </Button>
            )}
          </div>
        </header>
        <Action
          run={run}
          step={step}
          mode={mode}
          onMode={setMode}
          onPreview={setPreviewMl}
          onDetour={setDetour}
          onSettle={settle}
          onBurette={() => {
            setQuestion({ kind: 'burette' });
          }}
        />
        <div className="flex min-h-0 flex-1 overflow-x-auto border-y border-rule">
          {run.flasks.length === 0 && <NoFlaskYet />}
          <div className="flex min-h-0 flex-1 divide-x divide-rule">
            {judgement.replicates.map((replicate) => (
              <FlaskColumn
                key={replicate.flask.number}
                run={run}
                replicate={replicate}
                standard={standard}
                isCurrent={step.flask === replicate.flask.number}
                mayTitrate={!flaskUnderBurette(run)}
                actions={actions}
              />
            ))}
          </div>
        </div>
        <SoFar run={run} judgement={judgement} />
      </div>
      <Questions run={run} judgement={judgement} question={question} onClose={closeQuestion} />
    </div>
  );
}

/** The flask that a question is probably about: the one that comes next, else the last one. */
function flaskAtHand(run: RunState, step: NextStep): number {
  const isThere = run.flasks.some(({ number }) => number === step.flask);
  return isThere && step.flask !== null ? step.flask : (run.flasks.at(-1)?.number ?? 1);
}

/** The analyst's own choice where there is one, else what core says comes next. */
function takeDetour(run: RunState, judgement: Judgement, detour: Detour | null): NextStep {
  const flask =
    detour?.kind === 'titrate' ? run.flasks.find((item) => item.number === detour.flask) : null;
  if (run.status === 'open' && detour?.kind === 'weigh') return weighStep(run, judgement, false);
  if (run.status === 'open' && flask && !flask.initial && !flaskUnderBurette(run)) {
    return titrateStep(run, flask);
  }
  return nextStep(run, judgement);
}

interface Position {
  readonly levelMl: number | null;
  readonly startedMl: number | null;
  readonly forecast: Forecast['onBurette'];
}

/** What the burette shows: the level as typed or read, and the forecast of the flask at hand. */
function burettePosition(run: RunState, step: NextStep, previewMl: number | null): Position {
  const capacityMl = Number(run.references.burette.capacityMl);
  const isOnScale = previewMl !== null && previewMl >= 0 && previewMl <= capacityMl;
  const readMl = run.level === null ? null : Number(run.level.readingMl);
  const levelMl = isOnScale ? previewMl : readMl;
  const flask = run.flasks.find((item) => item.number === step.flask);
  if (!flask || (step.action !== 'read-initial' && step.action !== 'read-final')) {
    return { levelMl, startedMl: null, forecast: null };
  }
  const startedMl = flask.initial ? Number(flask.initial.value) : null;
  const from = startedMl ?? levelMl;
  const massG = Number(netMassG(flask.weighing.value));
  const { onBurette } = forecastTitre(run, massG, from);
  // A burette that has to be refilled first shows no end point below its last mark.
  const forecast = onBurette && onBurette.expected <= capacityMl ? onBurette : null;
  return { levelMl, startedMl, forecast };
}

function RunLine({ run, standard }: { readonly run: RunState; readonly standard: string }) {
  const nameOf = usePersonName();
  const { lot, balance, burette, method } = run.references;
  return (
    <p className="text-[15px] text-ink-soft">
      {standard} lot {lot.lot.lotNumber} · {balance.name} · {burette.name} ·{' '}
      {describeEndPoint(method)} · {nameOf(run.started.by)}
      {run.buretteChecked.at(-1)?.faults.length === 0 && ' · burette checked'}
    </p>
  );
}

interface ActionProps {
  readonly run: RunState;
  readonly step: NextStep;
  readonly mode: WeighingMode;
  readonly onMode: (mode: WeighingMode) => void;
  readonly onPreview: (readingMl: number | null) => void;
  readonly onDetour: (detour: Detour | null) => void;
  readonly onSettle: (flask: number) => void;
  readonly onBurette: () => void;
}

/** What to do next, and where to write it down. */
function Action(props: ActionProps) {
  const { run, step, mode, onMode, onPreview, onDetour, onSettle, onBurette } = props;
  const { flask } = step;
  const waiting = run.flasks.find((item) => !item.initial && !item.voided);
  const isWeighing = step.action === 'weigh';
  const { persistenceS } = run.references.method;
  // The colour of one flask says nothing of another.
  const [colour, setColour] = useState<{ flask: number | null; sinceMs: number } | null>(null);
  const sinceMs = colour?.flask === flask ? colour.sinceMs : null;
  const ways = [
    ...(isWeighing && waiting
      ? [
          {
            key: 't',
            name: `Titrate flask ${String(waiting.number)}`,
            go: () => {
              onDetour({ kind: 'titrate', flask: waiting.number });
            },
          },
        ]
      : []),
    ...(step.action === 'read-final' && sinceMs === null
      ? [
          {
            key: 'p',
            name: `The colour is there: does it last ${String(persistenceS)} s?`,
            go: () => {
              setColour({ flask, sinceMs: Date.now() });
            },
          },
        ]
      : []),
    ...(step.action === 'read-final' && sinceMs !== null
      ? [
          {
            key: 'f',
            name: 'It faded',
            go: () => {
              setColour(null);
            },
          },
        ]
      : []),
    ...(step.action === 'read-initial' && run.buretteChecked.length === 0
      ? [{ key: 'b', name: 'Check the burette', go: onBurette }]
      : []),
    ...(step.action === 'read-initial'
      ? [
          {
            key: 'w',
            name: 'Weigh another',
            go: () => {
              onDetour({ kind: 'weigh' });
            },
          },
        ]
      : []),
  ];
  return (
    <div className="grid min-h-[158px] grid-cols-[minmax(0,1fr)_minmax(0,420px)] gap-6 py-3">
      <div>
        <p role="status" className="text-[26px] leading-[1.25] font-semibold">
          {step.sentence}
        </p>
        {step.action === 'read-final' && (
          <>
            <EndPointHint run={run} step={step} />
            {sinceMs !== null && <Persistence sinceMs={sinceMs} seconds={persistenceS} />}
          </>
        )}
      </div>
      {step.action === 'settle' && flask !== null ? (
        <div className="flex items-start justify-end gap-3">
          <Button
            onClick={() => {
              onDetour({ kind: 'weigh' });
            }}
          >
            Weigh another
          </Button>
          <Button
            look="primary"
            onClick={() => {
              onSettle(flask);
            }}
          >
            Compare and settle
          </Button>
        </div>
      ) : flask !== null ? (
        <EntryPanel
          key={`${step.action}-${String(flask)}-${String(run.version)}`}
          run={run}
          step={{ ...step, flask }}
          mode={mode}
          onMode={onMode}
          onPreview={onPreview}
          onKept={() => {
            onDetour(null);
          }}
          ways={ways}
        />
      ) : (
        <div className="flex items-start justify-end gap-3">
          {run.status === 'open' && (
            <Button
              onClick={() => {
                onDetour({ kind: 'weigh' });
              }}
            >
              Weigh another
            </Button>
          )}
          <ButtonLink look="primary" to={`/runs/${run.id}/judge`}>
            {run.status === 'open' ? 'Judge and certify' : 'See the result'}
          </ButtonLink>
        </div>
      )}
    </div>
  );
}

/** The colours to look for, and what a drop is worth. */
function EndPointHint({ run, step }: { readonly run: RunState; readonly step: NextStep }) {
  const { colours, persistenceS } = run.references.method;
  const flask = run.flasks.find((item) => item.number === step.flask);
  if (!flask) return null;
  const { dropPercent } = forecastTitre(run, Number(netMassG(flask.weighing.value)), null);
  return (
    <p className="mt-2 flex flex-wrap items-center gap-x-4 gap-y-1 text-[15px] text-ink-soft">
      <Swatch word="wanted" colour={colours.endPoint} />
      <Swatch word="overshot" colour={colours.overshot} />
      <span>for {persistenceS} s</span>
      <span>one drop: {roundHalfEven(dropPercent, 2)} %</span>
    </p>
  );
}

function Swatch({ word, colour }: { readonly word: string; readonly colour: Colour }) {
  return (
    <span className="flex items-center gap-1.5">
      <span
        aria-hidden="true"
        className="inline-block size-5 rounded-full border border-rule-strong"
        style={{ background: colour.css }}
      />
      {word}: {colour.word}
    </span>
  );
}

function NoFlaskYet() {
  return (
    <p className="self-center px-4 text-lg text-ink-soft">
      Weigh all flasks first, number them, add water and indicator to all; then titrate one after
      the other.
    </p>
  );
}

/** What the numbers say so far. */
function SoFar({ run, judgement }: { readonly run: RunState; readonly judgement: Judgement }) {
  const { rules } = run.setUp;
  const { averaged, result } = judgement;
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_300px] items-center gap-6 pt-2">
      <MolarityScale
        judgement={judgement}
        nominal={nominalMolPerL(run.references.bottle)}
        rangePercent={Number(rules.concordanceRelativeRangePercent)}
      />
      <div className="text-[15px] leading-snug">
        {averaged && result ? (
          <>
            <p className="text-lg font-bold">
              <span className="font-mono">{result.rounded.value}</span> mol/L so far
            </p>
            <p className="text-ink-soft">
              <i>U</i> ≈ {result.rounded.uncertainty} (<i>k</i> ={' '}
              {roundHalfEven(result.evaluation.coverageFactor, 2)}), from {averaged.n}{' '}
              {averaged.n === 1 ? 'titration' : 'titrations'}
            </p>
            {averaged.n > 1 && (
              <p className="text-ink-soft">
                spread {roundHalfEven(averaged.relativeRangePercent, 2)} % of the{' '}
                {rules.concordanceRelativeRangePercent} % allowed
              </p>
            )}
            <Link
              to={`/runs/${run.id}/judge`}
              className="flex min-h-10 items-center font-semibold text-violet underline underline-offset-4"
            >
              Judge it
            </Link>
          </>
        ) : (
          <p className="text-ink-soft">
            No titration counts yet. {rules.agreeAtLeast} must agree within{' '}
            {rules.concordanceRelativeRangePercent} %
            {rules.firstIsRough ? '; the first one is rough and left out.' : '.'}
          </p>
        )}
      </div>
    </div>
  );
}

interface QuestionsProps {
  readonly run: RunState;
  readonly judgement: Judgement;
  readonly question: Question | null;
  readonly onClose: () => void;
}

/** The dialog that is open, if any. */
function Questions({ run, judgement, question, onClose }: QuestionsProps) {
  const { propose, keep } = useEnter(run);
  switch (question?.kind) {
    case undefined:
      return null;
    case 'correct':
      return <CorrectionDialog run={run} correction={question.correction} onClose={onClose} />;
    case 'settle':
      return <SettleDialog run={run} conflict={question.conflict} onClose={onClose} />;
    case 'void':
      return (
        <ReasonDialog
          title={`Void flask ${String(question.flask)}`}
          description="It stays on record with the reason, and out of the mean. This cannot be taken back."
          confirm="Void it"
          onConfirm={(reason) =>
            keep(
              propose({ kind: 'run.flask-voided', body: { flask: question.flask, reason } })
                .proposed,
            )
          }
          onClose={onClose}
        />
      );
    case 'burette':
      return <BuretteCheckDialog run={run} onClose={onClose} />;
    case 'incident':
      return (
        <IncidentDialog run={run} judgement={judgement} flask={question.flask} onClose={onClose} />
      );
    case 'abandon':
      return (
        <ReasonDialog
          title="Abandon this run"
          description="Its entries stay on record; nothing more can be added, and nothing is certified."
          confirm="Abandon it"
          onConfirm={(reason) =>
            keep(propose({ kind: 'run.abandoned', body: { reason } }).proposed)
          }
          onClose={onClose}
        />
      );
  }
}
