import { createHash } from 'node:crypto';
import { fileTypeFromBuffer } from 'file-type';
import type { Knex } from 'knex';
import type { Id } from '#core/grammar';
import { newId } from '#contract';
import type { Fact, StoredFile } from '#core/record';
import type { PersonState } from '#core/people';
import { authorOf } from '#core/people';
import { durably } from '../database/durably';
import { AppError } from '../http/appError';
import { lockAndOpen, makeServerFact, refuseUnlessMay, storeNext } from '../ledger/append';
import { findLaboratory } from '../ledger/queries';
import { recordOf } from '../ledger/references';
import type { AppParts } from '../parts';
import { bytesOfFiles, insertFile } from './queries';

/** What a file of some use may be, and the sentence that asks for it. */
export interface Accepted {
  readonly types: readonly StoredFile['type'][];
  readonly wanted: string;
}

export const CERTIFICATE: Accepted = {
  types: ['application/pdf', 'image/png', 'image/jpeg'],
  wanted: 'A certificate is a PDF, or a picture as PNG or JPEG; nothing was stored.',
};

export const PHOTOGRAPH: Accepted = {
  types: ['image/png', 'image/jpeg'],
  wanted: 'A photograph is a picture as PNG or JPEG; nothing was stored.',
};

export const LOGO: Accepted = {
  types: ['image/png', 'image/jpeg'],
  wanted: 'A logo is a picture as PNG or JPEG, not a drawing such as SVG; nothing was stored.',
};

/** It is printed an inch or two wide. */
export const LOGO_BYTES = 1024 * 1024;

/** Largest file, bytes. */
export const FILE_BYTES = 8 * 1024 * 1024;

/** A file as it was sent. */
export interface Sent {
  readonly name: string;
  readonly content: Buffer;
}

type FileParts = Pick<AppParts, 'services' | 'fileQuotaBytes'>;

/** What a file is attached to, and what it may be. */
interface Attachment {
  readonly recordId: Id;
  readonly recordKind: 'lot' | 'run' | 'laboratory';
  readonly accepted: Accepted;
  /** The fact that says so. */
  readonly fact: (file: StoredFile) => Pick<Fact, 'kind' | 'body'>;
}

/**
 * Attaches a file to a record: the file and the fact that says so, both or neither. What the file is, its content says, not its
 * name.
 *
 * @throws AppError `unsupported-media-type` for anything but what is allowed, `not-found` for a record that is not
 * there, and for what core has against it.
 */
async function attach(
  { services, fileQuotaBytes }: FileParts,
  person: PersonState,
  { recordId, recordKind, accepted, fact }: Attachment,
  { name, content }: Sent,
): Promise<StoredFile> {
  const type = await typeOf(name, content, accepted);
  const sha256 = createHash('sha256').update(content).digest('hex');
  const file: StoredFile = { fileId: newId(), name, type, sizeBytes: content.length, sha256 };
  await durably(services.db, async (tx) => {
    const inside = { ...services, db: tx };
    const opened = await lockAndOpen(inside, [{ id: recordId, kind: recordKind }]);
    if (recordOf(opened.records, recordId).facts.length === 0) {
      throw new AppError('not-found', `There is no such ${recordKind}.`);
    }
    await refuseBeyondQuota(tx, content.length, fileQuotaBytes);
    await insertFile(tx, {
      id: file.fileId,
      record_id: recordId,
      name,
      type,
      sha256,
      content,
    });
    const made = makeServerFact(services, person.id, { recordId, recordKind, ...fact(file) });
    await storeNext(inside, authorOf(person), [made], opened);
  });
  return file;
}

/** Attaches a certificate to a lot. @throws AppError as `attach`; `not-found` for a lot that is not there. */
export function attachCertificate(
  parts: FileParts,
  person: PersonState,
  lotId: Id,
  sent: Sent,
): Promise<StoredFile> {
  const attachment: Attachment = {
    recordId: lotId,
    recordKind: 'lot',
    accepted: CERTIFICATE,
    fact: (file) => ({ kind: 'lot.certificate-attached', body: file }),
  };
  return attach(parts, person, attachment, sent);
}

/** Attaches a photograph to a flask of an open run. @throws AppError as `attach`; what core has against it. */
export function attachPhotograph(
  parts: FileParts,
  person: PersonState,
  runId: Id,
  flask: number,
  sent: Sent,
): Promise<StoredFile> {
  const attachment: Attachment = {
    recordId: runId,
    recordKind: 'run',
    accepted: PHOTOGRAPH,
    fact: (file) => ({ kind: 'run.flask-photographed', body: { flask, ...file } }),
  };
  return attach(parts, person, attachment, sent);
}

/**
 * Sets the picture on whatever the laboratory issues; it is printed once to see whether it can be.
 *
 * @throws AppError as `attach`; `unsupported-media-type` for a picture that does not print
 */
export async function attachLogo(
  parts: FileParts & Pick<AppParts, 'printer'>,
  person: PersonState,
  sent: Sent,
): Promise<StoredFile> {
  const laboratory = await findLaboratory(parts.services.db);
  if (!laboratory) throw new AppError('not-found', 'There is no laboratory yet.');
  refuseUnlessMay(authorOf(person), 'manage');
  const type = await typeOf(sent.name, sent.content, LOGO);
  const picture = { type, content: sent.content };
  await parts.printer.print(person.id, { kind: 'trial', picture }).catch((error: unknown) => {
    if (error instanceof AppError) throw error;
    const message =
      'This picture cannot be printed: save it as JPEG, or as PNG without interlacing. Nothing was stored.';
    throw new AppError('unsupported-media-type', message);
  });
  const attachment: Attachment = {
    recordId: laboratory.id,
    recordKind: 'laboratory',
    accepted: LOGO,
    fact: (file) => ({ kind: 'laboratory.logo-attached', body: file }),
  };
  return attach(parts, person, attachment, sent);
}

/** What a file of each type is called. */
const EXTENSIONS: Readonly<Record<StoredFile['type'], RegExp>> = {
  'application/pdf': /\.pdf$/i,
  'application/json': /\.json$/i,
  'image/png': /\.png$/i,
  'image/jpeg': /\.jpe?g$/i,
};

/** @throws AppError `too-large` when all files together would take more than is set aside for them */
async function refuseBeyondQuota(tx: Knex, bytes: number, quotaBytes: number): Promise<void> {
  if ((await bytesOfFiles(tx)) + bytes <= quotaBytes) return;
  const mb = Math.round(quotaBytes / 1024 / 1024);
  const message = `The ${String(mb)} MB set aside for files are full; nothing was stored. Whoever runs the server can set more (FILES_MB).`;
  throw new AppError('too-large', message);
}

async function typeOf(
  name: string,
  content: Buffer,
  { types, wanted }: Accepted,
): Promise<StoredFile['type']> {
  const found = await fileTypeFromBuffer(content);
  const type = types.find((one) => one === found?.mime);
  if (type && EXTENSIONS[type].test(name)) return type;
  if (type) {
    const message = `${name} is by its content ${String(found?.ext)}, which its name does not say. Name it so, then attach it.`;
    throw new AppError('unsupported-media-type', message);
  }
  const what = found ? `a file of the kind ${found.ext}` : 'no file that can be recognized';
  throw new AppError('unsupported-media-type', `${name} is ${what}. ${wanted}`);
}
