import { useQuery } from '@tanstack/react-query';
import { useParams } from 'react-router';
import type { CertificateStatus } from '#core/titration/judging';
import { certificateStatus } from '#core/titration/judging';
import type { IssuedCertificate, RunState } from '#core/titration/run';
import { certificateLink, standardizationOf } from '#core/titration/run';
import { certificateFileSchema } from '#contract';
import { useListOn } from '../app/lists';
import { Loading } from '../app/Loading';
import { useRecord } from '../app/records';
import { NotFound } from '../app/RouteError';
import { RunsTable } from '../app/RunsTable';
import { useSession } from '../app/session';
import { useRun } from '../titrate/useRun';
import { ButtonLink } from '../ui/Button';
import { DocumentView } from '../ui/DocumentView';
import { FormError } from '../ui/FormError';
import { Page } from '../ui/Page';
import { dateText } from '../ui/typeset';
import { FileLink, Proof, readIssuedFile } from './Proof';
import { WithdrawAction } from './WithdrawAction';
import { WithdrawnStatus } from './WithdrawnStatus';

/** A certificate, whether it still holds, and by what anybody tells whether a paper is the one that was issued. */
export function CertificatePage() {
  const { runId = '', number = '' } = useParams();
  const run = useRun(runId)?.run;
  if (!run) return <Loading />;
  const issued = run.certificates.find(({ certificate }) => certificate.number === number);
  return issued ? <Issued run={run} issued={issued} /> : <NotFound />;
}

function Issued({ run, issued }: { readonly run: RunState; readonly issued: IssuedCertificate }) {
  const { today } = useSession();
  const { number } = issued.certificate;
  const bottle = useRecord('bottle', standardizationOf(run).setUp.bottle.id)?.record;
  const { data, error } = useQuery({
    queryKey: ['certificate', run.id, number],
    // What was issued never changes.
    staleTime: Infinity,
    queryFn: () => readIssuedFile(certificateFileSchema, certificateLink('', run.id, number)),
  });
  if (!bottle) return <Loading />;
  const status = certificateStatus(run, number, bottle, today);
  const pdf = issued.documents.find(({ type }) => type === 'application/pdf');
  const isInForce = status?.kind === 'holds' || status?.kind === 'ran-out';
  return (
    <Page
      title={`${data?.file.document?.title ?? 'Certificate'} ${number}`}
      tabTitle={`Certificate ${number}`}
      lead={data?.file.document?.issuer.join(' · ')}
      actions={
        <>
          <ButtonLink to={`/runs/${run.id}/judge`}>To the judgement</ButtonLink>
          {isInForce && <ButtonLink to={`/bottles/${bottle.id}/label`}>Print a label</ButtonLink>}
          {pdf && <FileLink href={`/api/files/${pdf.fileId}`}>Save the PDF</FileLink>}
        </>
      }
    >
      {status && <Status run={run} issued={issued} status={status} />}
      <FormError message={error?.message} />
      {data ? (
        <>
          <p className="my-5 text-[22px] leading-tight font-bold md:text-[30px]">
            {data.file.document?.headline}
          </p>
          <div className="grid grid-cols-1 items-start gap-x-10 gap-y-6 xl:grid-cols-[minmax(0,1.7fr)_minmax(0,1fr)]">
            <div>{data.file.document && <DocumentView document={data.file.document} />}</div>
            <Proof
              documents={issued.documents}
              at={data}
              href={certificateLink('/api', run.id, number)}
            />
          </div>
        </>
      ) : (
        !error && <Loading />
      )}
      {!isInForce && <ReportsByIt bottleId={bottle.id} number={number} />}
      {isInForce && <WithdrawAction run={run} number={number} />}
    </Page>
  );
}

interface StatusProps {
  readonly run: RunState;
  readonly issued: IssuedCertificate;
  readonly status: CertificateStatus;
}

/** Whether it holds, in a line that is seen first. */
function Status({ run, issued: { certificate }, status }: StatusProps) {
  switch (status.kind) {
    case 'holds':
      return (
        <p className="border-l-4 border-leaf bg-leaf-wash px-3 py-2 text-lg">
          <b>It holds</b> to {dateText(certificate.validUntil)}.
        </p>
      );
    case 'ran-out':
      return (
        <p className="border-l-4 border-straw bg-straw-wash px-3 py-2 text-lg">
          <b>It ran out</b> on {dateText(certificate.validUntil)}: the bottle is to be standardized
          again.
        </p>
      );
    case 'followed':
      return (
        <p className="border-l-4 border-straw bg-straw-wash px-3 py-2 text-lg">
          <b>Superseded</b> by certificate {status.by} of the same bottle.
        </p>
      );
    case 'withdrawn':
      return (
        <WithdrawnStatus why={status.why}>
          {status.replacedBy !== null && (
            <p>
              <ButtonLink look="link" to={certificateLink('', run.id, status.replacedBy)}>
                Certificate {status.replacedBy} takes its place
              </ButtonLink>
            </p>
          )}
        </WithdrawnStatus>
      );
  }
}

/** Reports of samples whose titrant was known by a certificate that no longer holds. */
function ReportsByIt({ bottleId, number }: { readonly bottleId: string; readonly number: string }) {
  const runs = useListOn('run', bottleId);
  const reports = runs?.records.filter(({ report }) => report?.titrantCertificate === number) ?? [];
  if (!runs || reports.length === 0) return null;
  return (
    <section className="mt-6">
      <h2 className="mb-2 text-lg font-bold">Reports that rest on it</h2>
      <p className="mb-2 text-ink-soft">
        To compute one anew, withdraw it: its run is open then, and goes on with the certificate
        that is in force.
      </p>
      <RunsTable runs={{ ...runs, records: reports }} />
    </section>
  );
}
