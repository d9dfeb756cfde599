import { useMemo, useState } from 'react';
import { Link, useParams } from 'react-router';
import { describeEndPoint } from '#core/chemistry';
import { explainRun } from '#core/explanation';
import { roundHalfEven } from '#core/measurement';
import { nominalMolPerL } from '#core/reagent';
import type { Forecast } from '#core/titration/figures';
import type { NextStep } from '#core/titration/guidance';
import type { Judgement } from '#core/titration/judging';
import type { Conflict, RunState } from '#core/titration/run';
import { forecastFlask } from '#core/titration/figures';
import {
  blankStep,
  nextStep,
  portionStep,
  refillStep,
  titrateStep,
} from '#core/titration/guidance';
import { judgeRun } from '#core/titration/judging';
import { flaskOf, flaskUnderBurette, openConflicts, pauseOf } from '#core/titration/run';
import {
  arrangementOf,
  describeInstruments,
  describeStandard,
  fillVerb,
} from '#core/titration/setUp';
import { Loading } from '../app/Loading';
import { usePersonName } from '../app/records';
import { Button } from '../ui/Button';
import { usePageHeading } from '../ui/Page';
import { ReasonDialog } from '../ui/ReasonDialog';
import { ShortName } from '../ui/ShortName';
import type { WeighingMode } from '../ui/WeighingModeChoice';
import type { Detour } from './Action';
import { Action } from './Action';
import type { BenchQuestion } from './BenchMenu';
import { BenchMenu } from './BenchMenu';
import { BuretteCheckDialog } from './BuretteCheckDialog';
import { BuretteDrawing } from './BuretteDrawing';
import type { Correction } from './CorrectionDialog';
import { CorrectionDialog } from './CorrectionDialog';
import { CurveDialog } from './CurveDialog';
import type { FlaskActions } from './FlaskColumn';
import { FlaskColumn } from './FlaskColumn';
import { IncidentDialog } from './IncidentDialog';
import { KeysDialog } from './KeysDialog';
import { LargeFigures } from './LargeFigures';
import { MolarityScale } from './MolarityScale';
import { PauseDialog } from './PauseDialog';
import { PhotographDialog } from './PhotographDialog';
import { SettleDialog } from './SettleDialog';
import { useEnter, useRun } from './useRun';
import type { Way } from './useKeys';
import { useWakeLock } from './useWakeLock';
import { Warnings } from './Warnings';

/** The screen beside the burette. */
export function BenchPage() {
  const { runId = '' } = useParams();
  const loaded = useRun(runId);
  return loaded ? <Bench key={runId} run={loaded.run} /> : <Loading />;
}

type Question =
  | { readonly kind: 'correct'; readonly correction: Correction }
  | { readonly kind: 'void' | 'take-back' | 'incident' | 'curve'; readonly flask: number }
  | { readonly kind: 'settle'; readonly conflict: Conflict }
  | { readonly kind: 'burette' | BenchQuestion };

function Bench({ run }: { readonly run: RunState }) {
  const { bottle, burette } = run.references;
  const heading = usePageHeading(`Bottle ${bottle.code} on the bench`);
  useWakeLock();
  const { propose, keep } = useEnter(run);
  const [detour, setDetour] = useState<Detour | null>(null);
  const [question, setQuestion] = useState<Question | null>(null);
  const [mode, setMode] = useState<WeighingMode>(run.setUp.rules.weighing);
  const [previewMl, setPreviewMl] = useState<number | null>(null);
  const [isLarge, setIsLarge] = useState(false);
  const judgement = useMemo(() => judgeRun(run), [run]);
  const step = takeDetour(run, judgement, detour);
  const onBurette = burettePosition(run, step, previewMl);
  const settle = (flask: number): void => {
    const conflict = openConflicts(run).find((item) => item.flask === flask);
    if (conflict) setQuestion({ kind: 'settle', conflict });
  };
  const askAboutIncident = (): void => {
    setQuestion({ kind: 'incident', flask: flaskAtHand(run, step) });
  };
  const toggleLarge = (): void => {
    setIsLarge(!isLarge);
  };
  const actions: FlaskActions = {
    onTitrate: (flask) => {
      setDetour({ kind: 'titrate', flask });
    },
    onVoid: (flask) => {
      setQuestion({ kind: 'void', flask });
    },
    onSettle: settle,
    onCorrectPortion: (flask) => {
      const entry = flaskOf(run, flask)?.portion;
      if (entry) setQuestion({ kind: 'correct', correction: { what: 'portion', flask, entry } });
    },
    onCorrectReading: (flask, place, entry) => {
      setQuestion({ kind: 'correct', correction: { what: 'reading', flask, place, entry } });
    },
  };
  const pageWays: readonly Way[] = [
    ...(run.flasks.length > 0 ? [{ key: 'i', name: 'Does it matter?', go: askAboutIncident }] : []),
    { key: 'l', name: 'Large figures', go: toggleLarge },
    {
      key: '?',
      name: 'Keys',
      go: () => {
        setQuestion({ kind: 'keys' });
      },
    },
  ];
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] md:grid-cols-[220px_minmax(0,1fr)] xl:h-screen xl:min-h-[760px] xl:grid-cols-[268px_minmax(0,1fr)]">
      <div className="border-rule bg-[#faf6ee] max-md:order-2 max-md:h-[480px] max-md:border-t md:sticky md:top-0 md:h-screen md:max-h-[860px] md:min-h-0 md:border-r">
        <BuretteDrawing burette={burette} {...onBurette} />
      </div>
      <div className="flex min-h-0 min-w-0 flex-col px-4 pt-4 pb-3 md:px-6 xl:pt-2">
        <header className="flex flex-wrap items-end justify-between gap-x-4 gap-y-2 border-b-2 border-ink pb-2 xl:flex-nowrap">
          <div className="min-w-0">
            <h1 ref={heading} tabIndex={-1} className="text-2xl font-bold">
              Bottle {bottle.code}: <ShortName of={bottle.substanceId} /> {bottle.nominalMolarity}{' '}
              mol/L
            </h1>
            <RunLine run={run} />
          </div>
          <div className="flex shrink-0 gap-2">
            {run.flasks.length > 0 && (
              <Button className="px-3 text-[15px] whitespace-nowrap" onClick={askAboutIncident}>
                Does it matter?
              </Button>
            )}
            <BenchMenu
              run={run}
              isLarge={isLarge}
              onLarge={toggleLarge}
              onAsk={(kind) => {
                setQuestion({ kind });
              }}
            />
          </div>
        </header>
        <Warnings run={run} />
        <Action
          run={run}
          step={step}
          isTakingTemperature={detour?.kind === 'temperature'}
          mode={mode}
          onMode={setMode}
          onPreview={setPreviewMl}
          onDetour={setDetour}
          onSettle={settle}
          onBurette={() => {
            setQuestion({ kind: 'burette' });
          }}
          onElectrode={() => {
            setQuestion({ kind: 'curve', flask: flaskAtHand(run, step) });
          }}
          onGrade={(flask, grade) => {
            const body = { flask: flask.number, grade };
            void keep(propose({ kind: 'run.end-point-graded', body }).proposed);
          }}
          onTakeBack={(flask) => {
            setQuestion({ kind: 'take-back', flask: flask.number });
          }}
          onResume={() =>
            void keep(propose({ kind: 'run.resumed', body: { remark: '' } }).proposed)
          }
          pageWays={pageWays}
        />
        {isLarge ? (
          <LargeFigures run={run} step={step} levelMl={onBurette.levelMl} />
        ) : (
          <>
            <div
              data-cut="scrolls sideways"
              className="relative flex min-h-0 flex-1 overflow-x-auto border-y border-rule"
            >
              {run.flasks.length === 0 && <NoFlaskYet run={run} />}
              <div className="flex min-h-0 flex-1 divide-x divide-rule">
                {judgement.replicates.map((replicate) => (
                  <FlaskColumn
                    key={replicate.flask.number}
                    run={run}
                    replicate={replicate}
                    isCurrent={step.flask === replicate.flask.number}
                    mayTitrate={!flaskUnderBurette(run)}
                    actions={actions}
                  />
                ))}
              </div>
            </div>
            <SoFar run={run} judgement={judgement} />
          </>
        )}
      </div>
      <Questions
        run={run}
        judgement={judgement}
        question={question}
        onClose={() => {
          setQuestion(null);
        }}
      />
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
  if (run.status !== 'open' || pauseOf(run)) return nextStep(run, judgement);
  const busy = flaskUnderBurette(run);
  switch (detour?.kind) {
    case 'fill':
      return portionStep(run, judgement, false);
    case 'blank':
      return blankStep(run);
    case 'refill':
      return busy ? refillStep(busy) : nextStep(run, judgement);
    case 'titrate': {
      const flask = flaskOf(run, detour.flask);
      return flask && !flask.initial && !busy ? titrateStep(run, flask) : nextStep(run, judgement);
    }
    case 'temperature':
    case undefined:
      return nextStep(run, judgement);
  }
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
  const flask = flaskOf(run, step.flask);
  if (!flask || !step.action.startsWith('read-')) {
    return { levelMl, startedMl: null, forecast: null };
  }
  const from = flask.refills.at(-1)?.restart ?? flask.initial;
  const { onBurette } = forecastFlask(run, flask, levelMl);
  // A burette that has to be refilled first shows no end point below its last mark.
  const forecast = onBurette && onBurette.expected <= capacityMl ? onBurette : null;
  return { levelMl, startedMl: from ? Number(from.value) : null, forecast };
}

function RunLine({ run }: { readonly run: RunState }) {
  const nameOf = usePersonName();
  const { burette, method } = run.references;
  const arrangement = arrangementOf(run.references);
  return (
    <p className="text-[15px] leading-tight text-ink-soft xl:text-sm">
      <ShortName of={method.standardId} />
      {arrangement.soughtIn === 'flask' && ' in the burette'}: {describeStandard(run.references)} ·{' '}
      {describeInstruments(arrangement)} · {burette.name} ·{' '}
      {describeEndPoint(method, run.setUp.rules)} · {nameOf(run.started.by)}
      {run.buretteChecked.at(-1)?.faults.length === 0 && ' · burette checked'}
    </p>
  );
}

function NoFlaskYet({ run }: { readonly run: RunState }) {
  return (
    <p className="self-center px-4 text-lg text-ink-soft">
      {fillVerb(arrangementOf(run.references))} all flasks first, number them, add to all:{' '}
      {run.references.method.medium}; then titrate one after the other.
    </p>
  );
}

/** What the numbers say so far. */
function SoFar({ run, judgement }: { readonly run: RunState; readonly judgement: Judgement }) {
  const { rules } = run.setUp;
  // Every slip is tried on every entry: not at every key.
  const diagnosis = useMemo(() => explainRun(run, judgement), [run, judgement]);
  const { averaged, result } = judgement;
  return (
    <div className="grid grid-cols-1 items-center gap-6 pt-2 xl:grid-cols-[minmax(0,1fr)_300px]">
      <MolarityScale judgement={judgement} nominal={nominalMolPerL(run.references.bottle)} />
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
                spread {judgement.spread.averaged} of the {judgement.limit} allowed
              </p>
            )}
            {diagnosis?.isOutOfLine && (
              <p className="font-semibold text-blush">
                Out of line: {diagnosis.explanations[0]?.name ?? 'no known slip'}?
              </p>
            )}
            <Link
              to={`/runs/${run.id}/judge`}
              className="flex min-h-12 items-center font-semibold text-violet underline underline-offset-4"
            >
              Judge it
            </Link>
          </>
        ) : (
          <p className="text-ink-soft">
            No titration counts yet. {rules.agreeAtLeast} must agree within {judgement.limit}
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
    case 'take-back':
      return (
        <ReasonDialog
          title={`The end point of flask ${String(question.flask)} was not reached`}
          description="Its reading is kept as one before the end, and the titration goes on."
          confirm="Take it back"
          onConfirm={(reason) =>
            keep(
              propose({
                kind: 'run.end-point-taken-back',
                body: { flask: question.flask, reason },
              }).proposed,
            )
          }
          onClose={onClose}
        />
      );
    case 'curve':
      return <CurveDialog run={run} flask={question.flask} onClose={onClose} />;
    case 'pause':
      return <PauseDialog run={run} onClose={onClose} />;
    case 'photograph':
      return <PhotographDialog run={run} onClose={onClose} />;
    case 'keys':
      return <KeysDialog onClose={onClose} />;
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
