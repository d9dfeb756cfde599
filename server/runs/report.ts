import type { Fact } from '#core/record';
import type { AnalysisRun, Report, ReportedResult } from '#core/titration/run';
import {
  issueReport,
  nextReportNumber,
  outOfUseFindings,
  reportFindings,
} from '#core/titration/judging';
import type { ReportRequest } from '#contract';
import { deviceOf, makeServerFact, refuseUnexplained } from '../ledger/append';
import { makeReportDocuments } from './documents';
import type { Deciding, Issue } from './issue';
import { reportable } from './openRun';
import { controlsOf } from './controls';
import { partsNow, partsOf } from './partsNow';

/** A report of the samples of a run: each sample keeps what was stated of it. */
export const REPORT: Issue<AnalysisRun, Report, ReportRequest> = {
  of: reportable,
  also: ({ setUp }) => setUp.samples.map(({ sample: { id } }) => ({ id, kind: 'sample' as const })),
  issuedBy: (fact, { form, reason }) => {
    if (fact.kind !== 'run.reported') return null;
    const { report } = fact.body;
    return report.form === form && report.reason === reason ? report : null;
  },
  decide,
  documents: makeReportDocuments,
  facts: reportedFacts,
};

async function decide({
  services: { db },
  person,
  run,
  request: { form, reason },
  today,
  settings: { warningDays },
  signed,
}: Deciding<AnalysisRun, ReportRequest>): Promise<Report> {
  const now = await partsNow(db, run.setUp);
  const samples = await partsOf(db, run.setUp, 'sample');
  const controls = await controlsOf(db, run, { today, warningDays });
  const decision = {
    ...signed,
    number: nextReportNumber(run, samples),
    form,
    controls,
    issuedById: person.id,
    issuedOn: today,
    reason,
  };
  const findings = [
    ...reportFindings(run, { bottles: now.bottles, samples, controls }),
    ...outOfUseFindings(run.setUp, now),
  ];
  refuseUnexplained(findings, decision);
  return issueReport(run, decision);
}

/** What a report writes into the run and on each sample that it states something of. */
function reportedFacts(
  { services, person, run, request }: Deciding<AnalysisRun, ReportRequest>,
  report: Report,
): readonly Fact[] {
  const { basedOn, factId } = request;
  const device = deviceOf(request);
  return [
    makeServerFact(services, person.id, {
      ...device,
      id: factId,
      recordId: run.id,
      recordKind: 'run',
      kind: 'run.reported',
      body: { report },
      basedOn,
    }),
    ...report.results.map((result) =>
      makeServerFact(services, person.id, {
        ...device,
        recordId: result.sampleId,
        recordKind: 'sample',
        kind: 'sample.reported',
        body: onSample(run, report, result),
      }),
    ),
  ];
}

function onSample(
  { id: runId }: AnalysisRun,
  { number: reportNumber, analysisId, issuedOn: reportedOn }: Report,
  { unit, as, stated }: ReportedResult,
) {
  return { runId, reportNumber, analysisId, unit, as, stated, reportedOn };
}
