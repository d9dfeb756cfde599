import { useParams } from 'react-router';
import { findSubstance } from '#core/chemistry';
import { areSolutionsRelated } from '#core/ledger';
import { figureText, roundHalfEven, roundToUncertainty } from '#core/measurement';
import type { Judgement, Result } from '#core/titration/judging';
import type { PlainDate } from '#core/grammar';
import type { RunState, StandardizationRun } from '#core/titration/run';
import { analysisOf, isStandardization } from '#core/titration/run';
import { nextStep } from '#core/titration/guidance';
import {
  deviationsOf,
  judgeRun,
  outlierText,
  percentFromNominal,
  seriesFault,
} from '#core/titration/judging';
import { describeStandard, standardSubstance } from '#core/titration/setUp';
import { faultText, stepText } from '#core/wording';
import { HistoryLink } from '../app/HistoryLink';
import { Loading } from '../app/Loading';
import { usePersonName, useRunsOf } from '../app/records';
import { useSession } from '../app/session';
import { ButtonLink } from '../ui/Button';
import { Page } from '../ui/Page';
import { Sentence } from '../ui/ShortName';
import { capitalized, instantText } from '../ui/typeset';
import { Term } from '../ui/Term';
import { RunWaysOut } from '../titrate/HazardsDialog';
import { useRun } from '../titrate/useRun';
import { BudgetBars } from './BudgetBars';
import { CertificateView } from './CertificateView';
import { Corrections } from './Corrections';
import { CorrectionsLine } from './CorrectionsLine';
import { Explanations } from './Explanations';
import { FiguresWorking } from './FiguresWorking';
import { MonteCarlo } from './MonteCarlo';
import { PutRight } from './PutRight';
import { CurveView } from '../titrate/CurveView';
import { ReplicateTable } from './ReplicateTable';
import { SamplesJudged } from './SamplesJudged';
import { SigningPanel } from './SigningPanel';
import { WhatIf } from './WhatIf';
import { WorkingView } from './WorkingView';

/** What a run came to: a molarity with its certificate, or the content of each of its samples. */
export function JudgePage() {
  const { runId = '' } = useParams();
  const loaded = useRun(runId);
  if (!loaded) return <Loading />;
  const { run, isAllKept } = loaded;
  return isStandardization(run) ? (
    <Standardized run={run} isAllKept={isAllKept} />
  ) : (
    <SamplesJudged run={analysisOf(run)} isAllKept={isAllKept} />
  );
}

/** What a series came to: which titrations count, the result with its budget and working, and its certificate. */
function Standardized({
  run,
  isAllKept,
}: {
  readonly run: StandardizationRun;
  readonly isAllKept: boolean;
}) {
  // The same until an entry comes: what hangs on it is not computed with every glance.
  const judgement = judgeRun(run);
  const { today } = useSession();
  const { bottle } = run.references;
  const titrant = findSubstance(bottle.substanceId, bottle.own);
  const standard = standardSubstance(run.references.standard);
  return (
    <Page
      title={`${run.certificate ? `Certificate ${run.certificate.number}` : 'Judgement'}: bottle ${bottle.code}`}
      tabTitle={`Judge bottle ${bottle.code}`}
      lead={`${capitalized(titrant?.name ?? '')} against ${standard?.name ?? ''}, ${describeStandard(run.references)}`}
      actions={
        <>
          <ButtonLink to={`/runs/${run.id}`}>To the bench</ButtonLink>
          {run.status !== 'abandoned' && judgement.result && (
            <ButtonLink to={samplesLink(run, today)}>Titrate samples with it</ButtonLink>
          )}
          {run.certificate && (
            <ButtonLink look="primary" to={`/bottles/${bottle.id}/label`}>
              Print a label
            </ButtonLink>
          )}
        </>
      }
    >
      {judgement.result ? (
        <Judged run={run} judgement={judgement} result={judgement.result} isAllKept={isAllKept} />
      ) : (
        <NothingYet run={run} judgement={judgement} />
      )}
    </Page>
  );
}

/** To samples with what was certified, or calculated so far: the same burette goes on, on the same day from the level where it stands. */
function samplesLink(
  { id, references, setUp, level, certificate }: StandardizationRun,
  today: PlainDate,
): string {
  const link = `/titrate/samples?titrant=${references.bottle.id}&burette=${setUp.burette.id}`;
  const isToday = certificate === null || certificate.certifiedOn === today;
  return [
    link,
    // Worked with before it is authorized.
    ...(certificate ? [] : [`calculated=${id}`]),
    ...(level && isToday ? [`level=${level.readingMl}`] : []),
  ].join('&');
}

function NothingYet({ run, judgement }: { readonly run: RunState; readonly judgement: Judgement }) {
  return (
    <section>
      <p className="text-lg">
        No titration counts yet. <Sentence text={stepText(nextStep(run, judgement).says)} />
      </p>
      <div className="my-5">
        <ButtonLink look="primary" to={`/runs/${run.id}`}>
          To the bench
        </ButtonLink>
      </div>
      <ReplicateTable run={run} judgement={judgement} />
      <Corrections run={run} />
    </section>
  );
}

/** Says where two standards of one run have a common origin, which the budget does not know: they were certified before that was kept. */
function RelatedSolutions({
  run,
  result,
}: {
  readonly run: StandardizationRun;
  readonly result: Result;
}) {
  const { standard, excess } = run.references;
  const solutions = standard.kind === 'bottle' && excess ? [standard.bottle, excess.bottle] : [];
  const runs = useRunsOf(solutions.flatMap(({ certified }) => certified.at(-1)?.runId ?? []));
  if (standard.kind !== 'bottle' || !excess) return null;
  if (result.correlations.length > 0 || !areSolutionsRelated(run.references, runs)) return null;
  return (
    <p className="border-l-4 border-straw pl-3 text-[15px]">
      Of bottles {standard.bottle.code} and {excess.bottle.code} one was standardized against the
      other: their molarities are off together, and the difference takes much of that off again.
      They are counted as independent here, so the true <i>U</i> is smaller. A blank with the whole
      excess makes it so.
    </p>
  );
}

/** Where the run does not follow the house rules; what is certified says so on its certificate. */
function Deviations({ run }: { readonly run: RunState }) {
  const deviations = deviationsOf(run);
  if (run.certificate || deviations.length === 0) return null;
  return (
    <section className="mb-4 border-l-4 border-straw bg-straw-wash px-3 py-1.5">
      <h2 className="font-bold">Not by the house rules</h2>
      <ul>
        {deviations.map((sentence) => (
          <li key={sentence}>{sentence}</li>
        ))}
      </ul>
    </section>
  );
}

/** Entries made by a clock that cannot be right. */
function DoubtfulTimes({ run }: { readonly run: RunState }) {
  const { laboratory } = useSession();
  const nameOf = usePersonName();
  if (run.doubtfulTimes.length === 0) return null;
  return (
    <section className="mb-4 border-l-4 border-straw bg-straw-wash px-3 py-1.5">
      <h2 className="font-bold">Time doubtful</h2>
      <ul>
        {run.doubtfulTimes.map(({ factId, by, deviceTime, recordedAt }) => (
          <li key={factId}>
            The device of {nameOf(by)} said {instantText(deviceTime, laboratory.timeZone, true)}; on
            record since {instantText(recordedAt, laboratory.timeZone, true)}, which counts.
          </li>
        ))}
      </ul>
    </section>
  );
}

/** The titrations that an electrode followed. */
function Curves({ run }: { readonly run: RunState }) {
  const followed = run.flasks.filter(({ electrode }) => electrode.length > 0);
  if (followed.length === 0) return null;
  return (
    <section className="col-span-full">
      <h2 className="mb-2 text-lg font-bold">Curves</h2>
      <div className="grid grid-cols-1 gap-x-10 gap-y-6 xl:grid-cols-2">
        {followed.map((flask) => (
          <figure key={flask.number}>
            <figcaption className="font-semibold">Flask {flask.number}</figcaption>
            <CurveView run={run} flask={flask} />
          </figure>
        ))}
      </div>
    </section>
  );
}

interface JudgedProps {
  readonly run: StandardizationRun;
  readonly judgement: Judgement;
  readonly result: Result;
  readonly isAllKept: boolean;
}

function Judged({ run, judgement, result, isAllKept }: JudgedProps) {
  return (
    <div className="grid grid-cols-1 gap-x-10 gap-y-6 xl:grid-cols-[minmax(0,1.25fr)_minmax(0,1fr)]">
      <section>
        <ResultLine run={run} judgement={judgement} result={result} />
        {run.status === 'open' && <PutRight run={run} result={result} />}
        <Deviations run={run} />
        <DoubtfulTimes run={run} />
        <Explanations run={run} judgement={judgement} />
        <ReplicateTable run={run} judgement={judgement} />
        <Statistics judgement={judgement} />
        <SeriesVerdict judgement={judgement} />
        <Corrections run={run} />
        <WhatIf run={run} judgement={judgement} result={result} />
        <MonteCarlo key={run.version} result={result} />
        <p className="mt-4">
          <HistoryLink of={run.id} />
        </p>
      </section>
      <section className="flex flex-col gap-6">
        {run.certificate ? (
          <CertificateView run={run} certificate={run.certificate} result={result} />
        ) : (
          run.status === 'open' && <SigningPanel run={run} isAllKept={isAllKept} />
        )}
        {run.status !== 'open' && <RunWaysOut run={run} />}
        <BudgetBars result={result} />
        <RelatedSolutions run={run} result={result} />
      </section>
      <Curves run={run} />
      <section className="col-span-full">
        <h2 className="mb-2 text-lg font-bold">The working</h2>
        <WorkingView steps={result.working} />
        <FiguresWorking judgement={judgement} result={result} />
      </section>
    </div>
  );
}

/** The result in large figures, and how far it is from the label. */
function ResultLine({ run, judgement, result }: Omit<JudgedProps, 'isAllKept'>) {
  const { evaluation, rounded } = result;
  const away = percentFromNominal(run, result);
  const isFar = Math.abs(away) > Number(run.setUp.rules.farFromNominalAskPercent);
  return (
    <div className="mb-4">
      <p className="text-[22px] leading-tight font-bold md:text-[34px]">
        <i>c</i>
        <sub className="text-[0.45em] font-normal">{result.corrections.referenceC} °C</sub> ={' '}
        <span className="font-mono">{figureText(rounded.value)}</span>
        <span className="mx-2 font-normal">±</span>
        <span className="font-mono font-normal">{figureText(rounded.uncertainty)}</span>{' '}
        <span className="text-2xl">mol/L</span>
      </p>
      <p className="text-ink-soft">
        <Term of="expanded-uncertainty">
          <i>U</i>
        </Term>{' '}
        with{' '}
        <Term of="coverage-factor">
          <i>k</i>
        </Term>{' '}
        = {figureText(roundHalfEven(evaluation.coverageFactor, 2))} for 95 %;{' '}
        <Term of="standard-uncertainty">
          <i>u</i>
        </Term>
        <sub className="text-[0.7em]">c</sub> ={' '}
        {figureText(
          roundToUncertainty(evaluation.value, evaluation.combinedStandardUncertainty).uncertainty,
        )}{' '}
        mol/L (
        {figureText(
          roundHalfEven((100 * evaluation.combinedStandardUncertainty) / evaluation.value, 2),
        )}{' '}
        %); effective degrees of freedom{' '}
        {Number.isFinite(evaluation.effectiveDegreesOfFreedom)
          ? Math.floor(evaluation.effectiveDegreesOfFreedom)
          : '∞'}
      </p>
      <CorrectionsLine result={result} />
      <p className={isFar ? 'font-semibold text-blush' : 'text-ink-soft'}>
        {figureText(roundHalfEven(Math.abs(away), 1))} % {away < 0 ? 'below' : 'above'} the label
        {isFar && ': more likely a slip than a discovery. Check mass, lot and readings.'}
      </p>
      {run.status === 'open' && !judgement.isConcordant && (
        <p className="mt-2 border-l-4 border-straw bg-straw-wash px-3 py-1.5">
          <Sentence text={stepText(nextStep(run, judgement).says)} />
        </p>
      )}
    </div>
  );
}

/** What the house rule's outlier test says, and what keeps a series apart that does not agree. */
function SeriesVerdict({ judgement }: { readonly judgement: Judgement }) {
  const { outlier, isConcordant } = judgement;
  const fault = isConcordant ? null : seriesFault(judgement);
  if (!outlier) return fault && <p className="mt-2">{faultText(fault)}</p>;
  return (
    <p className={`mt-2 text-[15px] ${outlier.isOutlier ? 'font-semibold text-blush' : ''}`}>
      {outlierText(outlier)} {fault && faultText(fault)}
    </p>
  );
}

function Statistics({ judgement }: { readonly judgement: Judgement }) {
  const { accurate, averaged } = judgement;
  if (!accurate || !averaged) return null;
  const orNone = (value: number | null, places: number): string =>
    value === null ? '–' : roundHalfEven(value, places);
  const figures = [
    ['mean / (mol/L)', roundHalfEven(averaged.mean, 5)],
    ['s (n − 1)', orNone(accurate.sampleSd, 6)],
    [`RSD of all ${String(accurate.n)} accurate / %`, orNone(accurate.relativeSdPercent, 3)],
    ['range / %', roundHalfEven(averaged.relativeRangePercent, 3)],
    ['t-interval, 95 %', orNone(averaged.confidenceHalfWidth, 5)],
  ] as const;
  return (
    <dl className="mt-4 flex flex-wrap justify-between gap-x-4 gap-y-2 border-y border-rule py-2.5">
      {figures.map(([name, value]) => (
        <div key={name}>
          <dt className="text-sm text-ink-soft">{name}</dt>
          <dd className="font-mono">{figureText(value)}</dd>
        </div>
      ))}
    </dl>
  );
}
