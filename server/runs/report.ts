import { authorOf } from '#core/people';
import type { Fact } from '#core/record';
import type { AnalysisRun, Report, ReportedResult } from '#core/titration/run';
import {
  issueReport,
  nextReportNumber,
  outOfUseFindings,
  reportFindings,
  signaturesWith,
} from '#core/titration/judging';
import type { ReportRequest } from '#contract';
import { makeServerFact, refuseStale, refuseUnexplained } from '../ledger/append';
import { laboratoryNow } from '../ledger/around';
import { makeReportDocuments } from './documents';
import type { Deciding, Issue } from './issue';
import { reportable } from './openRun';
import { controlsOf } from './controls';
import { partsNow, partsOf } from './partsNow';
import { signingNow } from './sign';

/** A report of the samples of a run: each sample keeps what was stated of it. */
export const REPORT: Issue<AnalysisRun, Report, ReportRequest> = {
  of: reportable,
  also: ({ setUp }) => setUp.samples.map(({ sample: { id } }) => ({ id, kind: 'sample' as const })),
  issuedBy: (fact, person, { basedOn, form, reason }) => {
    if (fact.kind !== 'run.reported') return null;
    const { report } = fact.body;
    const isSame =
      fact.authorId === person.id &&
      fact.basedOn === basedOn &&
      report.form === form &&
      report.reason === reason;
    return isSame ? report : null;
  },
  decide,
  documents: makeReportDocuments,
  facts: reportedFacts,
};

async function decide({
  services,
  person,
  run,
  request,
  at,
}: Deciding<AnalysisRun, ReportRequest>): Promise<Report> {
  const tx = services.db;
  refuseStale(request.basedOn, run.version);
  const { today, settings } = await laboratoryNow(tx, services);
  const { draft, form, reason } = request;
  const signing = await signingNow(tx, run, {
    ...{ means: 'authorized', draft, author: authorOf(person) },
  });
  const now = await partsNow(tx, run.setUp);
  const samples = await partsOf(tx, run.setUp, 'sample');
  const controls = await controlsOf(tx, run, { today, warningDays: settings.warningDays });
  const decision = {
    ...signaturesWith(run, signing, { by: person.id, at }),
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
  const { deviceId, deviceTime, clockOffsetMs, basedOn, factId } = request;
  const device = { deviceId, deviceTime, clockOffsetMs };
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
