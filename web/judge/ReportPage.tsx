import { useQuery } from '@tanstack/react-query';
import { useParams } from 'react-router';
import { resultsCsv } from '#core/titration/document';
import { restated } from '#core/titration/judging';
import type { PlainDate } from '#core/grammar';
import type { IssuedReport, Report, RunState } from '#core/titration/run';
import { isAnalysisRun, reportLink } from '#core/titration/run';
import { bottleIdOf } from '#core/titration/setUp';
import { endOfSentence } from '#core/wording';
import { reportFileSchema } from '#contract';
import { Loading } from '../app/Loading';
import { useRecord } from '../app/records';
import { NotFound } from '../app/RouteError';
import { useRun } from '../titrate/useRun';
import { Button, ButtonLink } from '../ui/Button';
import { DocumentView } from '../ui/DocumentView';
import { saveFile } from '../ui/files';
import { FormError } from '../ui/FormError';
import { Page } from '../ui/Page';
import { Table } from '../ui/Table';
import { dateText } from '../ui/typeset';
import { FileLink, Proof, readIssuedFile } from './Proof';
import { WithdrawReportAction } from './WithdrawAction';
import { WithdrawnStatus } from './WithdrawnStatus';

/** A report of samples, whether it still holds, and by what anybody tells whether a paper is the one that was issued. */
export function ReportPage() {
  const { runId = '', number = '' } = useParams();
  const run = useRun(runId)?.run;
  if (!run) return <Loading />;
  const issued = run.reports.find(({ report }) => report.number === number);
  return issued ? <Issued run={run} issued={issued} /> : <NotFound />;
}

interface IssuedProps {
  readonly run: RunState;
  readonly issued: IssuedReport;
}

function Issued({ run, issued }: IssuedProps) {
  const { report, documents, withdrawn } = issued;
  const { number } = report;
  const { data, error } = useQuery({
    queryKey: ['report', run.id, number],
    // What was issued never changes.
    staleTime: Infinity,
    queryFn: () => readIssuedFile(reportFileSchema, reportLink('', run.id, number)),
  });
  const again = useRestated(run, report);
  const papers = documents.filter(({ type }) => type === 'application/pdf');
  const [first] = data?.file.documents ?? [];
  return (
    <Page
      title={`Report ${number}`}
      tabTitle={`Report ${number}`}
      lead={first?.issuer.join(' · ')}
      actions={
        <>
          <ButtonLink to={`/runs/${run.id}/judge`}>To the judgement</ButtonLink>
          <Button
            onClick={() => {
              saveFile(new Blob([resultsCsv(report)], { type: 'text/csv' }), `${number}.csv`);
            }}
          >
            Results as CSV
          </Button>
          {papers.map(({ fileId, name }) => (
            <FileLink key={fileId} href={`/api/files/${fileId}`}>
              {papers.length === 1 ? 'Save the PDF' : `Save ${name}`}
            </FileLink>
          ))}
        </>
      }
    >
      {again && !withdrawn ? (
        <RestatedDraft issuedOn={report.issuedOn} again={again} />
      ) : (
        <Status run={run} issued={issued} />
      )}
      <FormError message={error?.message} />
      {data ? (
        <div className="mt-5 grid grid-cols-1 items-start gap-x-10 gap-y-6 xl:grid-cols-[minmax(0,1.7fr)_minmax(0,1fr)]">
          <div>
            {data.file.documents.map((document) => (
              <section key={document.number} aria-label={document.number} className="mb-8">
                <p className="mb-5 text-[22px] leading-tight font-bold md:text-[30px]">
                  {document.headline}
                </p>
                <DocumentView document={document} />
              </section>
            ))}
          </div>
          <Proof documents={documents} at={data} href={reportLink('/api', run.id, number)} />
        </div>
      ) : (
        !error && <Loading />
      )}
      {!withdrawn && <WithdrawReportAction run={run} number={number} />}
    </Page>
  );
}

/** Whether it holds, in a line that is seen first. */
function Status({ run, issued: { report, withdrawn } }: IssuedProps) {
  if (!withdrawn) {
    return (
      <p className="border-l-4 border-leaf bg-leaf-wash px-3 py-2 text-lg">
        <b>It holds</b>, issued {dateText(report.issuedOn)}.
      </p>
    );
  }
  const next = run.reports.find((one) => one.report.amends === report.number);
  return (
    <WithdrawnStatus why={withdrawn}>
      {next && (
        <p>
          <ButtonLink look="link" to={reportLink('', run.id, next.report.number)}>
            Report {next.report.number} amends it
          </ButtonLink>
        </p>
      )}
    </WithdrawnStatus>
  );
}

/** What became of a report whose titrant's certificate was withdrawn since; null for any other. */
function useRestated(run: RunState, report: Report) {
  const found = useRecord('bottle', bottleIdOf(run.setUp));
  return found && isAnalysisRun(run) ? restated(run, report, found.record) : null;
}

/** That it stands on what holds no longer, with what its results come to by the certificate that holds now. */
function RestatedDraft({
  issuedOn,
  again: { number, reason, draft },
}: {
  readonly issuedOn: PlainDate;
  readonly again: NonNullable<ReturnType<typeof useRestated>>;
}) {
  return (
    <section aria-label="Its titrant" className="border-l-4 border-blush bg-blush-wash px-3 py-2">
      <p className="text-lg">
        <b>Certificate {number} of its titrant was withdrawn:</b> {endOfSentence(reason)}
      </p>
      <p>The report was issued {dateText(issuedOn)} and has not been withdrawn.</p>
      {draft ? (
        <>
          <Table
            caption={`Draft by certificate ${draft.number}`}
            heads={['Sample', 'Stated', `By certificate ${draft.number}`]}
            rows={draft.results.map(({ code, stated, wouldBe }) => ({
              key: code,
              cells: [code, stated, wouldBe],
            }))}
          />
          <p className="text-ink-soft">
            A draft: what was issued stays as it is. Withdraw the report to amend it.
          </p>
        </>
      ) : (
        <p>
          No other certificate has taken its place yet; once one has, its results stand here as a
          draft.
        </p>
      )}
    </section>
  );
}
