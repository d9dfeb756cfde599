import { createHash } from 'node:crypto';
import type { Document } from '#core/document';
import { decimalMarkOf, DEFAULT_SETTINGS } from '#core/laboratory';
import { withFigures } from '#core/measurement';
import type { PersonState } from '#core/people';
import type { StoredFile } from '#core/record';
import type { DocumentContext } from '#core/titration/document';
import { certificateDocument, reportDocument } from '#core/titration/document';
import type { Judgement } from '#core/titration/judging';
import { certifiedFigures, judgeRun, reportedFigures } from '#core/titration/judging';
import type { Certificate, Report } from '#core/titration/run';
import { analysisOf, certificateLink, reportLink, standardizationOf } from '#core/titration/run';
import { namedRecords } from '#core/titration/setUp';
import type { CertificateFile, ReportFile } from '#contract';
import { newId } from '#contract';
import { getAuditHead } from '../audit/queries';
import { canonicalText } from '../audit/text';
import { findFile } from '../files/queries';
import { aroundOf } from '../ledger/around';
import { findLaboratory, findProjection } from '../ledger/queries';
import { foldLoaded, referencesFor } from '../ledger/references';
import { listPeople } from '../people/queries';
import { dateText, instantTextIn } from '../print/inWords';
import type { Services } from '../services';
import type { IssuedFile, Issuing } from './issue';
import type { RunAtHand } from './openRun';

/** A run as it was when a certificate was issued. */
export function asIssued(services: Services, run: RunAtHand, { number }: Certificate): RunAtHand {
  const end = run.facts.findIndex(
    (fact) => fact.kind === 'run.certified' && fact.body.certificate.number === number,
  );
  const facts = run.facts.slice(0, end);
  const references = referencesFor(facts, aroundOf(services, run.surroundings));
  const before = foldLoaded({ id: run.state.id, kind: 'run', facts, references });
  if (!before) throw new RangeError(`run ${run.state.id} never issued ${number}`);
  return { ...before, surroundings: run.surroundings };
}

/** The certificate on paper, and the file of its figures that is attached to it. */
export async function makeDocuments(
  issuing: Issuing,
  person: PersonState,
  run: RunAtHand,
  certificate: Certificate,
): Promise<readonly IssuedFile[]> {
  const { services, baseUrl } = issuing;
  const { number } = certificate;
  const file = await certificateFileOf(services, run, certificate, await getAuditHead(services.db));
  const link = certificateLink(baseUrl, run.state.id, number);
  return papersWith(issuing, person, { number, file, documents: [file.document], link });
}

/** The report on paper, for the batch or for each sample, and the file of its figures that is attached to each. */
export async function makeReportDocuments(
  issuing: Issuing,
  person: PersonState,
  run: RunAtHand,
  report: Report,
): Promise<readonly IssuedFile[]> {
  const { services, baseUrl } = issuing;
  const { number } = report;
  const file = await reportFileOf(services, run, report, await getAuditHead(services.db));
  const link = reportLink(baseUrl, run.state.id, number);
  return papersWith(issuing, person, { number, file, documents: file.documents, link });
}

/** What is put on paper, and the file that goes with it. */
interface Papers {
  readonly number: string;
  readonly file: object;
  readonly documents: readonly Document[];
  /** Where its page is. */
  readonly link: string;
}

/**
 * The file of what is issued, and its papers. All are made once: each paper holds the SHA-256 of the file, which holds the head of the
 * audit log before the issue.
 */
async function papersWith(
  { services, printer }: Issuing,
  person: PersonState,
  { number, file, documents, link }: Papers,
): Promise<readonly IssuedFile[]> {
  const json = issuedFile(`${number}.json`, 'application/json', Buffer.from(canonicalText(file)));
  const { name, sha256 } = json.stored;
  const logo = await logoOf(services);
  const papers: IssuedFile[] = [];
  for (const document of documents) {
    const source = { name, content: json.content, sha256 };
    const issuedAt = services.now().toISOString();
    const pdf = await printer.print(person.id, {
      kind: 'document',
      printed: { document, source, link, logo, issuedAt },
    });
    papers.push(issuedFile(`${document.number.replace('/', '-')}.pdf`, 'application/pdf', pdf));
  }
  return [json, ...papers];
}

function issuedFile(name: string, type: StoredFile['type'], content: Buffer): IssuedFile {
  const sha256 = createHash('sha256').update(content).digest('hex');
  return { stored: { fileId: newId(), name, type, sizeBytes: content.length, sha256 }, content };
}

async function logoOf({ db }: Services) {
  const logo = (await findLaboratory(db))?.logo ?? null;
  return logo && (await findFile(db, logo.fileId));
}

/** A certificate as a file, made from the entries: as it is issued, and for those of before files were kept. */
export async function certificateFileOf(
  services: Services,
  run: RunAtHand,
  certificate: Certificate,
  auditHead: AuditHead,
): Promise<CertificateFile & { readonly document: Document }> {
  const judgement = judgeRun(run.state);
  return {
    format: 'vine-measure-certificate',
    formatVersion: 2,
    certificate,
    document: await documentOf(services, run, judgement, certificate, auditHead),
    figures: certifiedFigures(judgement),
    source: { facts: run.facts, references: run.references },
  };
}

async function documentOf(
  services: Services,
  run: RunAtHand,
  judgement: Judgement,
  certificate: Certificate,
  auditHead: AuditHead,
): Promise<Document> {
  const { state } = run;
  const { setUp, references } = standardizationOf(state);
  const bottle =
    (await findProjection(services.db, 'bottle', setUp.bottle.id)) ?? references.bottle;
  const own = bottle.certified.findIndex(
    ({ certificateNumber }) => certificateNumber === certificate.number,
  );
  const { analystIds, certifiedById, signatures } = certificate;
  const ids = [...analystIds, certifiedById, ...signatures.map(({ by }) => by)];
  return inWords(services, run, ids, auditHead, (context) =>
    certificateDocument(state, judgement, certificate, {
      ...context,
      bottle: own < 0 ? bottle : { ...bottle, certified: bottle.certified.slice(0, own) },
    }),
  );
}

type AuditHead = { readonly sequence: number; readonly hash: string } | null;

/** What is made with all that documents say of a run, with figures as the laboratory writes them. */
async function inWords<Made>(
  services: Services,
  { state, surroundings }: RunAtHand,
  personIds: readonly string[],
  auditHead: AuditHead,
  make: (context: DocumentContext) => Made,
): Promise<Made> {
  const { db } = services;
  const laboratory = await findLaboratory(db);
  const around = aroundOf(services, surroundings);
  const equipment = namedRecords(state.setUp).flatMap(({ kind, at }) =>
    kind === 'equipment' ? (around.at('equipment', at) ?? []) : [],
  );
  const people = await listPeople(db, [...new Set(personIds)]);
  return withFigures(decimalMarkOf(laboratory?.settings ?? DEFAULT_SETTINGS), () =>
    make({
      issuer: [laboratory?.name ?? '', ...(laboratory?.letterhead ?? [])],
      equipment,
      auditHead,
      nameOf: (id) => people.get(id)?.name ?? 'somebody',
      dateText,
      instantText: instantTextIn(laboratory?.timeZone ?? 'UTC'),
    }),
  );
}

/** A report as a file, made from the entries. */
async function reportFileOf(
  services: Services,
  run: RunAtHand,
  report: Report,
  auditHead: AuditHead,
): Promise<ReportFile> {
  const state = analysisOf(run.state);
  const { analystIds, issuedById, signatures, results, form } = report;
  const ids = [...analystIds, issuedById, ...signatures.map(({ by }) => by)];
  const each =
    form === 'each' ? results.map(({ sampleId }, i) => ({ sampleId, place: i + 1 })) : [null];
  return {
    format: 'vine-measure-report',
    formatVersion: 1,
    report,
    documents: await inWords(services, run, ids, auditHead, (context) =>
      each.map((of) => reportDocument(state, report, of, context)),
    ),
    figures: reportedFigures(state),
    source: { facts: run.facts, references: run.references },
  };
}
