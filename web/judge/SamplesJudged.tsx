import { Link } from 'react-router';
import { figureText, roundHalfEven, roundSignificant } from '#core/measurement';
import { controlText, requestFor, requirementText } from '#core/sample';
import type { Found, FoundParts, Judgement } from '#core/titration/judging';
import {
  contentText,
  coverageText,
  foundIn,
  heldOf,
  judgeRun,
  molarMassCandidates,
  partsFound,
  unitsText,
} from '#core/titration/judging';
import { nextStep } from '#core/titration/guidance';
import type { AnalysisRun, RunState } from '#core/titration/run';
import { analysisOf, reportLink, sampleIdOf, seriesOf } from '#core/titration/run';
import { describeTitrant, sampleOf, soughtOf, statedBy } from '#core/titration/setUp';
import { endOfSentence, stepText } from '#core/wording';
import { HistoryLink } from '../app/HistoryLink';
import { samplesText } from '../samples/wording';
import { BatchParts } from '../titrate/BatchParts';
import { foundUnit } from '../titrate/found';
import { RunWaysOut } from '../titrate/HazardsDialog';
import { ButtonLink } from '../ui/Button';
import { Page } from '../ui/Page';
import { Sentence } from '../ui/ShortName';
import { Term } from '../ui/Term';
import { capitalized, Symbol } from '../ui/typeset';
import { BudgetBars } from './BudgetBars';
import { Corrections } from './Corrections';
import { Differences } from './Differences';
import { PartsFound } from './PartsFound';
import { ReplicateTable } from './ReplicateTable';
import { SigningPanel } from './SigningPanel';
import { CONTROL_LOOKS } from '../samples/controlLooks';
import { useControls } from './useControls';
import { WorkingView } from './WorkingView';

/** What an analysis came to: a content for each of its samples, and what it is held against. */
export function SamplesJudged({
  run,
  isAllKept,
}: {
  readonly run: AnalysisRun;
  readonly isAllKept: boolean;
}) {
  const { references } = run;
  const series = seriesOf(run).map(analysisOf);
  const codes = samplesText(references.samples.map(({ state }) => state.sample.code));
  return (
    <Page
      title={codes}
      tabTitle={`Judge ${codes}`}
      lead={`${capitalized(references.method.name)}, ${describeTitrant(references)}`}
      actions={
        <>
          <ButtonLink to={`/runs/${run.id}`}>To the bench</ButtonLink>
          {run.report && (
            <ButtonLink look="primary" to={reportLink('', run.id, run.report.number)}>
              Report {run.report.number}
            </ButtonLink>
          )}
        </>
      }
    >
      <BatchParts run={run} page="/judge" />
      <Amended run={run} />
      {series.map((one) => (
        <SampleJudged key={sampleIdOf(one)} series={one} />
      ))}
      <Differences series={series} />
      <Controls run={run} />
      <Corrections run={run} />
      <div className="mt-6 flex flex-col gap-4">
        <p className="max-w-2xl text-ink-soft">{coverageText(run)}</p>
        {run.status === 'open' ? (
          <div className="max-w-2xl">
            <SigningPanel run={run} isAllKept={isAllKept} />
          </div>
        ) : (
          <RunWaysOut run={run} />
        )}
        <p>
          <HistoryLink of={run.id} />
        </p>
      </div>
    </Page>
  );
}

/** How the controls of a batch stand on their charts. */
function Controls({ run }: { readonly run: AnalysisRun }) {
  const controls = useControls(run);
  return controls.map((control) => (
    <p
      key={control.code}
      className={`mb-4 max-w-3xl border-l-4 px-3 py-1.5 ${CONTROL_LOOKS[control.standing.verdict]}`}
    >
      {controlText(control)}.
    </p>
  ));
}

/** The report that was withdrawn, beside which the results stand as they are now. */
function Amended({ run }: { readonly run: RunState }) {
  const last = run.reports.at(-1);
  if (!last?.withdrawn) return null;
  const { report, withdrawn } = last;
  return (
    <section
      aria-label="To be amended"
      className="mb-6 border-l-4 border-blush bg-blush-wash px-3 py-2"
    >
      <h2 className="font-bold">Report {report.number} was withdrawn</h2>
      <p>{endOfSentence(withdrawn.reason)}</p>
      <ul>
        {report.results.map(({ sampleId, code, stated }) => (
          <li key={sampleId}>
            It stated of <span className="font-mono">{code}</span>: {stated}
          </li>
        ))}
      </ul>
    </section>
  );
}

function SampleJudged({ series }: { readonly series: AnalysisRun }) {
  const judgement = judgeRun(series);
  const { references } = series;
  const { id, sample } = sampleOf(references).state;
  const { result } = judgement;
  const found = result && foundIn(series, result);
  const parts = partsFound(series, judgement);
  const units = unitsText(series, judgement);
  return (
    <section
      aria-labelledby={`sample-${id}`}
      className="mb-8 border-b border-rule pb-8 last-of-type:border-b-0"
    >
      <h2 id={`sample-${id}`} className="mb-2 text-lg font-bold">
        <Link to={`/samples/${id}`} className="font-mono text-violet underline">
          {sample.code}
        </Link>{' '}
        {sample.description}
        {sample.source !== '' && `, ${sample.source}`}
      </h2>
      <div className="grid grid-cols-1 gap-x-10 gap-y-6 xl:grid-cols-[minmax(0,1.25fr)_minmax(0,1fr)]">
        <div>
          {found ? (
            <>
              <ContentLine series={series} found={found} />
              {units !== null && <p className="mb-3 text-lg">{units}</p>}
              <PartsFound series={series} parts={parts} />
              <HeldAgainst series={series} found={found} parts={parts} />
            </>
          ) : (
            <p className="mb-3 text-lg">No titration counts yet.</p>
          )}
          <NextOf series={series} judgement={judgement} />
          {series.flasks.length > 0 && <ReplicateTable run={series} judgement={judgement} />}
        </div>
        {result && <BudgetBars result={result} />}
        {result && (
          <details className="col-span-full">
            <summary className="flex min-h-12 items-center font-semibold text-violet underline underline-offset-4 lg:min-h-10">
              The working
            </summary>
            <WorkingView steps={result.working} />
          </details>
        )}
      </div>
    </section>
  );
}

interface FoundProps {
  readonly series: AnalysisRun;
  readonly found: Found;
}

/** The content in large figures, as what it is stated, and how sure it is. */
function ContentLine({ series, found }: FoundProps) {
  const { references } = series;
  const { as, onDryMatter } = statedBy(references.method, sampleOf(references).state);
  const percent = (100 * found.expandedUncertainty) / found.value;
  const { targetUPercent } = references.method;
  const { rounded, titrationUncertainty, methodUncertainty } = found;
  return (
    <div className="mb-3">
      {found.detection === 'quantified' ? (
        <p className="text-[22px] leading-tight font-bold md:text-[34px]">
          <Symbol of={soughtOf(references).symbol} /> ={' '}
          <span className="font-mono">{figureText(rounded.value)}</span>
          <span className="mx-2 font-normal">±</span>
          <span className="font-mono font-normal">{figureText(rounded.uncertainty)}</span>{' '}
          <span className="text-2xl">{foundUnit(series)}</span>
          <span className="text-lg font-normal">
            {as && ` as ${as.name}`}
            {references.method.twoEnds && ', in all'}
            {onDryMatter && ' in dry matter'}
          </span>
        </p>
      ) : (
        <p className="text-[22px] leading-tight font-bold md:text-[30px]">
          {contentText(series, found)}
        </p>
      )}
      <p className="text-ink-soft">
        <Term of="expanded-uncertainty">
          <i>U</i>
        </Term>{' '}
        with{' '}
        <Term of="coverage-factor">
          <i>k</i>
        </Term>{' '}
        = {figureText(roundHalfEven(found.coverageFactor, 2))} for 95 %, of the original
        {methodUncertainty !== null && (
          <>
            ; <i>u</i> of the titration {figureText(roundSignificant(titrationUncertainty, 2))}, of
            the method {figureText(roundSignificant(methodUncertainty, 2))} {foundUnit(series)}
          </>
        )}
      </p>
      <Candidates series={series} found={found} />
      {percent > targetUPercent && (
        <p className="border-l-4 border-straw bg-straw-wash px-3 py-1.5">
          <i>U</i> is {figureText(roundHalfEven(percent, 1))} % of the content; this analysis aims
          at {figureText(String(targetUPercent))} %: a smaller burette, a weaker titrant or more
          sample.
        </p>
      )}
    </div>
  );
}

/** What an unknown acid may have for a molar mass, by how many protons it gives. */
function Candidates({ series, found }: FoundProps) {
  const candidates = molarMassCandidates(series, found);
  if (candidates.length === 0) return null;
  const said = candidates.map(
    ({ protons, value, uncertainty }) =>
      `${figureText(value)} ± ${figureText(uncertainty)} with ${String(protons)}`,
  );
  return (
    <p className="text-ink-soft">
      Its molar mass is that times its protons, in g/mol: {said.join(', ')}.
    </p>
  );
}

/** What the result is held against, by the rule that was agreed before, and what that says. */
function HeldAgainst({ series, found, parts }: FoundProps & { readonly parts: FoundParts }) {
  const { references } = series;
  const { sample } = sampleOf(references).state;
  const held = heldOf(series, found, parts);
  const request = requestFor(sample, references.method.id);
  if (!held || !request) return null;
  const { requirement, unit } = request;
  const { text, isGood } = held;
  const look =
    isGood === null ? 'border-rule-strong' : isGood ? 'border-leaf' : 'border-blush bg-blush-wash';
  return (
    <p className={`mb-3 border-l-4 px-3 py-1.5 ${look}`}>
      <b>{text}</b>
      <span className="block text-[15px] text-ink-soft">{requirementText(requirement, unit)}</span>
    </p>
  );
}

/** What the series asks for next, while it is not done. */
function NextOf({
  series,
  judgement,
}: {
  readonly series: RunState;
  readonly judgement: Judgement;
}) {
  if (series.status !== 'open' || judgement.isConcordant) return null;
  return (
    <p className="mb-3 border-l-4 border-straw bg-straw-wash px-3 py-1.5">
      <Sentence text={stepText(nextStep(series, judgement).says)} />
    </p>
  );
}
