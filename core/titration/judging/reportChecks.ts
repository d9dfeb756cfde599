import type { BottleState } from '../../reagent';
import type { Finding } from '../../record';
import { impossible, sameValue, unlikely } from '../../record';
import type { ControlSaid, SampleState } from '../../sample';
import { controlText, requestFor } from '../../sample';
import type { AnalysisRun } from '../run';
import { openConflicts } from '../run';
import { sampleOf } from '../setUp';
import { judgedSeries } from './issueReport';
import type { JudgedSeries } from './judge';
import { awaitsAuthorization, titrantWithdrawn } from './recordsNow';
import { circumstanceFindings, seriesFindings } from './resultChecks';

/** What is around a run as it is reported; records that it does not rest on may be among them. */
interface ReportedNow {
  readonly bottles: readonly BottleState[];
  readonly samples: readonly SampleState[];
  /** How each control of the batch stands. */
  readonly controls: readonly ControlSaid[];
}

/** What speaks against reporting the results of a run now. The unlikely ones give way to a reason. */
export function reportFindings(run: AnalysisRun, now: ReportedNow): readonly Finding[] {
  if (run.status !== 'open') return [impossible('run-closed', 'run', { status: run.status })];
  const judged = judgedSeries(run);
  if (judged.every(({ judgement }) => !judgement.result)) return [impossible('no-result', 'run')];
  return [
    ...(openConflicts(run).length > 0 ? [impossible('conflict-open', 'run')] : []),
    ...titrantFindings(run, now),
    ...now.controls
      .filter(({ standing }) => standing.verdict === 'out')
      .map((control) => unlikely('control-out', 'run', { said: controlText(control) })),
    ...judged.flatMap((one) => sampleFindings(run, one, now)),
    ...circumstanceFindings(run),
  ];
}

/** Nothing is reported by a titrant whose certificate was withdrawn, or whose molarity nobody has authorized. */
function titrantFindings(run: AnalysisRun, now: ReportedNow): readonly Finding[] {
  if (awaitsAuthorization(run)) {
    const { code } = run.references.titrant;
    return [impossible('titrant-awaits-authorization', 'run', { code })];
  }
  const number = titrantWithdrawn(run, now)?.certificate.certificateNumber;
  return number === undefined
    ? []
    : [impossible('titrant-certificate-withdrawn', 'run', { number })];
}

function sampleFindings(
  { setUp: { rules }, references: { method } }: AnalysisRun,
  { series, judgement }: JudgedSeries,
  { samples }: ReportedNow,
): readonly Finding[] {
  const { state } = sampleOf(series.references);
  const { code } = state.sample;
  if (!judgement.result) return [unlikely('sample-not-found', 'run', { code })];
  const sampleNow = samples.find(({ id }) => id === state.id) ?? state;
  const isRequestSame = sameValue(
    requestFor(state.sample, method.id),
    requestFor(sampleNow.sample, method.id),
  );
  const values = { code, atLeast: rules.agreeAtLeast, limit: judgement.limit };
  return [
    ...(rules.testedBy === 'concordance' && !judgement.isConcordant
      ? [unlikely('sample-not-concordant', 'run', values)]
      : []),
    ...(isRequestSame ? [] : [unlikely('request-changed', 'run', { code })]),
    ...seriesFindings(series, judgement),
  ];
}
