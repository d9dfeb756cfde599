import { useMutation, useQuery } from '@tanstack/react-query';
import { useLocation, useParams } from 'react-router';
import type { Id } from '#core/grammar';
import { digestOf } from '#core/record';
import type { CertificateStatus } from '#core/titration/judging';
import { certificateStatus } from '#core/titration/judging';
import type { IssuedCertificate, RunState } from '#core/titration/run';
import { certificateLink, standardizationOf } from '#core/titration/run';
import { endOfSentence } from '#core/wording';
import type { CertificateFile } from '#contract';
import { certificateFileSchema } from '#contract';
import { askForFile, readAnswer } from '../app/api';
import { Loading } from '../app/Loading';
import { usePersonName, useRecord } from '../app/records';
import { NotFound } from '../app/RouteError';
import { useSession } from '../app/session';
import { useRun } from '../titrate/useRun';
import { Button, ButtonLink } from '../ui/Button';
import { DocumentView } from '../ui/DocumentView';
import { FormError } from '../ui/FormError';
import { Page } from '../ui/Page';
import { dateText, instantText } from '../ui/typeset';
import { WithdrawAction } from './WithdrawAction';

/** A certificate's file as it was issued. */
interface FileAtHand {
  /** As it was read, with all that is in it. */
  readonly json: unknown;
  readonly file: CertificateFile;
  /** SHA-256 of its canonical form, in which it is kept. */
  readonly sha256: string;
}

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
    queryFn: () => readFile(run.id, number),
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
            <Proof issued={issued} at={data} href={certificateLink('/api', run.id, number)} />
          </div>
        </>
      ) : (
        !error && <Loading />
      )}
      {isInForce && <WithdrawAction run={run} number={number} />}
    </Page>
  );
}

async function readFile(runId: Id, number: string): Promise<FileAtHand> {
  const sent = await askForFile('GET', certificateLink('', runId, number));
  const json = JSON.parse(await sent.text()) as object;
  return { json, file: readAnswer(certificateFileSchema, json), sha256: digestOf(json) };
}

function FileLink({ href, children }: { readonly href: string; readonly children: string }) {
  return (
    <a
      href={href}
      download
      className="inline-flex min-h-12 items-center rounded-md bg-violet px-5 font-semibold text-on-violet hover:bg-violet-deep"
    >
      {children}
    </a>
  );
}

interface StatusProps {
  readonly run: RunState;
  readonly issued: IssuedCertificate;
  readonly status: CertificateStatus;
}

/** Whether it holds, in a line that is seen first. */
function Status({ run, issued: { certificate }, status }: StatusProps) {
  const { laboratory } = useSession();
  const nameOf = usePersonName();
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
        <div className="border-l-4 border-blush bg-blush-wash px-3 py-2 text-lg">
          <p>
            <b>Withdrawn</b> by {nameOf(status.why.by)},{' '}
            {instantText(status.why.at, laboratory.timeZone, true)}:{' '}
            {endOfSentence(status.why.reason)}
          </p>
          {status.replacedBy !== null && (
            <p>
              <ButtonLink look="link" to={certificateLink('', run.id, status.replacedBy)}>
                Certificate {status.replacedBy} takes its place
              </ButtonLink>
            </p>
          )}
        </div>
      );
  }
}

interface ProofProps {
  readonly issued: IssuedCertificate;
  readonly at: FileAtHand;
  readonly href: string;
}

/** Whether a paper is the one that was issued, and whether its entries come to its figures. */
function Proof({ issued, at: { json, sha256 }, href }: ProofProps) {
  // The printed code leads here with the digest that stands on the paper.
  const printed = useLocation().hash.slice(1).toLowerCase();
  const kept = issued.documents.find(({ type }) => type === 'application/json');
  const again = useMutation({
    mutationFn: async () => (await import('#reproduce')).reproduce(json),
  });
  return (
    <aside aria-label="Proof" className="rounded-md border border-rule bg-sheet p-4">
      <h2 className="mb-2 text-lg font-bold">Is this the one?</h2>
      {kept ? (
        <>
          <p>
            {sha256 === kept.sha256
              ? 'The file is as it was issued. Its SHA-256, which stands on the paper too:'
              : 'The file is not as it was issued: tell whoever looks after the server.'}
          </p>
          <p className="my-2 font-mono text-sm wrap-anywhere">{sha256}</p>
        </>
      ) : (
        <p>Issued before documents were kept: its file is made from the entries.</p>
      )}
      {printed !== '' && (
        <p className={`font-semibold ${printed === sha256 ? 'text-leaf' : 'text-blush'}`}>
          {printed === sha256
            ? 'The code on the paper is that of this certificate.'
            : 'The code on the paper is of another file: do not rely on that paper.'}
        </p>
      )}
      <p className="my-3">
        <a href={href} download className="font-semibold text-violet underline underline-offset-4">
          Save it with all entries, as JSON
        </a>
      </p>
      <Button
        disabled={again.isPending}
        onClick={() => {
          again.mutate();
        }}
      >
        Compute it again
      </Button>
      <div role="status" className="mt-2">
        {again.data?.kind === 'identical' && (
          <p className="font-semibold text-leaf">
            Identical: {again.data.compared} figures, each within 1 part in 10¹².
          </p>
        )}
        {again.data?.kind === 'different' && (
          <ul className="list-disc pl-5 text-blush">
            {again.data.places.map((place) => (
              <li key={place}>{place}</li>
            ))}
          </ul>
        )}
        {again.data?.kind === 'refused' && <p className="text-blush">{again.data.sentence}</p>}
        <FormError message={again.error?.message} />
      </div>
    </aside>
  );
}
