import { roundHalfEven, withFigures } from '../../measurement';
import { knownMolarity } from '../../reagent';
import { digestOf } from '../../record';
import type { SampleState } from '../../sample';
import { requestFor } from '../../sample';
import type { AnalysisRun, Report, ReportedPart, ReportedResult } from '../run';
import { analysisOf, seriesOf } from '../run';
import { describeTitrant, sampleOf, statedBy } from '../setUp';
import { foundIn } from './found';
import type { JudgedSeries, Judgement } from './judge';
import { judgeRun } from './judge';
import type { FoundPart, FoundParts } from './parts';
import { heldOf, partsFound, statedText } from './parts';
import { CATALOGUE_VERSION, CORE_VERSION } from './versions';
import { endPointText, workOf } from './work';

/** What the person who issues a report decides. */
export type ReportDecision = Pick<
  Report,
  | 'number'
  | 'form'
  | 'controls'
  | 'signatures'
  | 'isIndependent'
  | 'issuedById'
  | 'issuedOn'
  | 'reason'
>;

/** The series of a run of samples, each judged. */
export function judgedSeries(run: AnalysisRun): readonly JudgedSeries[] {
  return seriesOf(run).map((one) => ({ series: analysisOf(one), judgement: judgeRun(one) }));
}

/**
 * The number of the next report of a run: the code of the first sample that it states something of, which keeps count of its reports.
 *
 * @param samples the samples of the run as they are now
 */
export function nextReportNumber(run: AnalysisRun, samples: readonly SampleState[]): string {
  const first = judgedSeries(run).find(({ judgement }) => judgement.result);
  if (!first) throw new RangeError('a report needs a result');
  const { state } = sampleOf(first.series.references);
  const now = samples.find(({ id }) => id === state.id) ?? state;
  return `${now.sample.code}-R${String(now.reported.length + 1)}`;
}

/** The report of a run of samples. @throws RangeError when none of them has a result */
export function issueReport(run: AnalysisRun, decision: ReportDecision): Report {
  return {
    ...stated(run),
    ...decision,
    runVersion: run.version,
    coreVersion: CORE_VERSION,
    catalogueVersion: CATALOGUE_VERSION,
  };
}

/**
 * The digest of what is signed: what the report will state, and on how many entries of the run it rests; null while no sample has a
 * result.
 */
export function reportDigest(run: AnalysisRun): string | null {
  const hasResult = judgedSeries(run).some(({ judgement }) => judgement.result);
  if (!hasResult) return null;
  const { results, ...states } = stated(run);
  return digestOf({
    ...{ run: run.id, entries: run.entries },
    states: { ...states, results: results.map(asRounded) },
  });
}

/** A result without its unrounded figures: the last bits of those hang on the engine that computed them, in a browser or on the server. */
function asRounded({
  unrounded: _unrounded,
  effectiveDegreesOfFreedom: _degrees,
  parts = [],
  ...rounded
}: ReportedResult): object {
  if (parts.length === 0) return rounded;
  return { ...rounded, parts: parts.map(({ unrounded: _ofPart, ...part }) => part) };
}

/** What a report states before anybody has signed it. */
type Stated = Omit<
  Report,
  keyof ReportDecision | 'runVersion' | 'coreVersion' | 'catalogueVersion'
>;

/** What is stated, with a decimal point wherever it is made: it is stored and digested. */
function stated(run: AnalysisRun): Stated {
  return withFigures('.', () => statedOf(run));
}

function statedOf(run: AnalysisRun): Stated {
  const { references } = run;
  const { method, titrant } = references;
  const judged = judgedSeries(run);
  const known = knownMolarity(titrant);
  if (!known) throw new RangeError(`the molarity of bottle ${titrant.code} is not known`);
  return {
    analysisId: method.id,
    analysis: method.name,
    results: judged.flatMap(({ series, judgement }) => reported(series, judgement)),
    notFound: judged
      .filter(({ judgement }) => !judgement.result)
      .map(({ series }) => sampleOf(series.references).state.sample.code),
    titrant: {
      bottleId: titrant.id,
      described: describeTitrant(references),
      molarity: known.molarity,
      expandedUncertainty: known.expandedUncertainty,
      certificateNumber: known.certificateNumber,
    },
    endPoint: endPointText(
      run,
      judged.map(({ judgement }) => judgement),
    ),
    ...workOf(run),
    amends: run.reports.at(-1)?.report.number ?? null,
  };
}

function reported(series: AnalysisRun, judgement: Judgement): readonly ReportedResult[] {
  const { result, replicates } = judgement;
  if (!result) return [];
  const { state } = sampleOf(series.references);
  const { method } = series.references;
  const { unit, as } = statedBy(method, state);
  const found = foundIn(series, result);
  const parts = partsFound(series, judgement);
  const told = reportedParts(parts);
  const { value, standardUncertainty, titrationUncertainty, methodUncertainty } = found;
  const { rounded, coverageFactor, degreesOfFreedom, detection } = found;
  return [
    {
      sampleId: state.id,
      code: state.sample.code,
      unit,
      as: as?.formula ?? null,
      stated: statedText({ series, judgement }, found, parts),
      ...(told.length > 0 && { parts: told }),
      detection,
      value: rounded.value,
      expandedUncertainty: rounded.uncertainty,
      coverageFactor: roundHalfEven(coverageFactor, 2),
      unrounded: { value, standardUncertainty, titrationUncertainty, methodUncertainty },
      effectiveDegreesOfFreedom: Number.isFinite(degreesOfFreedom) ? degreesOfFreedom : null,
      titrationsAveraged: replicates.filter(({ verdict }) => verdict === 'counts').length,
      titrationsMade: replicates.filter(({ verdict }) => verdict !== 'open' && verdict !== 'blank')
        .length,
      requirement: requestFor(state.sample, method.id)?.requirement ?? { kind: 'none' },
      held: heldOf(series, found, parts),
    },
  ];
}

/** What a report states of the parts of a sample. */
export function reportedParts({ always, cases }: FoundParts): readonly ReportedPart[] {
  return [always, ...cases].flat().map(partReported);
}

function partReported({ part, series, found }: FoundPart): ReportedPart {
  const { state } = sampleOf(series.references);
  const { rounded, value, standardUncertainty } = found;
  return {
    part: part.name,
    as: statedBy(series.references.method, state).as?.formula ?? null,
    value: rounded.value,
    expandedUncertainty: rounded.uncertainty,
    coverageFactor: roundHalfEven(found.coverageFactor, 2),
    unrounded: { value, standardUncertainty },
  };
}
