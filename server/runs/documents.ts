import { createHash } from 'node:crypto';
import type { Document } from '#core/document';
import { decimalMarkOf, DEFAULT_SETTINGS } from '#core/laboratory';
import { withFigures } from '#core/measurement';
import type { PersonState } from '#core/people';
import type { StoredFile } from '#core/record';
import { certificateDocument } from '#core/titration/document';
import type { Judgement } from '#core/titration/judging';
import { certifiedFigures, judgeRun } from '#core/titration/judging';
import type { Certificate } from '#core/titration/run';
import { certificateLink, standardizationOf } from '#core/titration/run';
import { namedRecords } from '#core/titration/setUp';
import type { CertificateFile } from '#contract';
import { newId } from '#contract';
import { getAuditHead } from '../audit/queries';
import { canonicalText } from '../audit/text';
import { findFile } from '../files/queries';
import { aroundOf } from '../ledger/around';
import { findLaboratory, findProjection } from '../ledger/queries';
import { foldLoaded, referencesFor } from '../ledger/references';
import { listPeople } from '../people/queries';
import { dateText, instantTextIn } from '../print/inWords';
import type { Printer } from '../print/printer';
import type { Services } from '../services';
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

/** A file that is issued with a certificate: what its fact says of it, and its bytes. */
export interface IssuedFile {
  readonly stored: StoredFile;
  readonly content: Buffer;
}

/**
 * The certificate on paper, and the file of its figures that is attached to it. Both are made once: the paper holds the SHA-256 of the
 * file and the head of the audit log before the issue.
 */
export async function makeDocuments(
  { services, printer }: { readonly services: Services; readonly printer: Pick<Printer, 'print'> },
  person: PersonState,
  run: RunAtHand,
  certificate: Certificate,
  baseUrl: string,
): Promise<readonly IssuedFile[]> {
  const { db } = services;
  const file = await certificateFileOf(services, run, certificate, await getAuditHead(db));
  const json = issuedFile(
    `${certificate.number}.json`,
    'application/json',
    Buffer.from(canonicalText(file)),
  );
  const pdf = await printer.print(person.id, {
    kind: 'document',
    printed: {
      document: file.document,
      source: { name: json.stored.name, content: json.content, sha256: json.stored.sha256 },
      link: certificateLink(baseUrl, run.state.id, certificate.number),
      logo: await logoOf(services),
      issuedAt: services.now().toISOString(),
    },
  });
  return [json, issuedFile(`${certificate.number}.pdf`, 'application/pdf', pdf)];
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
  auditHead: { readonly sequence: number; readonly hash: string } | null,
): Promise<CertificateFile & { readonly document: Document }> {
  const judgement = judgeRun(run.state);
  return {
    format: 'vine-measure-certificate',
    formatVersion: 2,
    certificate,
    document: await documentOf(services, run, judgement, certificate, auditHead),
    figures: certifiedFigures(run.state, judgement),
    source: { facts: run.facts, references: run.references },
  };
}

async function documentOf(
  services: Services,
  { state, surroundings }: RunAtHand,
  judgement: Judgement,
  certificate: Certificate,
  auditHead: { readonly sequence: number; readonly hash: string } | null,
): Promise<Document> {
  const { db } = services;
  const { setUp, references } = standardizationOf(state);
  const laboratory = await findLaboratory(db);
  const bottle = (await findProjection(db, 'bottle', setUp.bottle.id)) ?? references.bottle;
  const own = bottle.certified.findIndex(
    ({ certificateNumber }) => certificateNumber === certificate.number,
  );
  const around = aroundOf(services, surroundings);
  const equipment = namedRecords(state.setUp).flatMap(({ kind, at }) =>
    kind === 'equipment' ? (around.at('equipment', at) ?? []) : [],
  );
  const { analystIds, certifiedById, signatures } = certificate;
  const ids = [...analystIds, certifiedById, ...signatures.map(({ by }) => by)];
  const people = await listPeople(db, [...new Set(ids)]);
  const mark = decimalMarkOf(laboratory?.settings ?? DEFAULT_SETTINGS);
  return withFigures(mark, () =>
    certificateDocument(state, judgement, certificate, {
      issuer: [laboratory?.name ?? '', ...(laboratory?.letterhead ?? [])],
      bottle: own < 0 ? bottle : { ...bottle, certified: bottle.certified.slice(0, own) },
      equipment,
      auditHead,
      nameOf: (id) => people.get(id)?.name ?? 'somebody',
      dateText,
      instantText: instantTextIn(laboratory?.timeZone ?? 'UTC'),
    }),
  );
}
