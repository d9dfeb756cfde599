import { createHash } from 'node:crypto';
import { fileTypeFromBuffer } from 'file-type';
import type { Knex } from 'knex';
import { v7 as uuidv7 } from 'uuid';
import { foldRecord } from '#core/ledger';
import type { Fact, StoredFile } from '#core/record';
import type { Person } from '#contract';
import { durably } from '../database/durably';
import { AppError } from '../http/appError';
import { makeServerFact, recordOf, storeNext } from '../ledger/append';
import { lockRecords } from '../ledger/queries';
import type { LoadedRecord } from '../ledger/references';
import { foldLoaded, loadRecords } from '../ledger/references';
import type { Services } from '../services';

/** What a certificate may be. */
export const CERTIFICATE_TYPES = ['application/pdf', 'image/png', 'image/jpeg'] as const;

/** What a photograph may be. */
export const PICTURE_TYPES = ['image/png', 'image/jpeg'] as const;

/** Largest file, bytes. */
export const FILE_BYTES = 8 * 1024 * 1024;

interface FileRow {
  id: string;
  record_id: string;
  name: string;
  type: string;
  sha256: string;
  content: Buffer;
}

/** What a file is attached to, and what it may be. */
interface Attachment {
  readonly recordId: string;
  readonly recordKind: 'lot' | 'run';
  readonly allowed: readonly StoredFile['type'][];
  /** The fact that says so. */
  readonly fact: (file: StoredFile) => Pick<Fact, 'kind' | 'body'>;
  /** @throws AppError when the record takes no such file. */
  readonly check: (record: LoadedRecord) => void;
}

/**
 * Attaches a file to a record: the file and the fact that says so, both or neither. What the file is, its content says, not its
 * name.
 *
 * @throws AppError `unsupported-media-type` for anything but what is allowed, and what the check of the attachment throws.
 */
async function attach(
  services: Services,
  person: Person,
  { recordId, recordKind, allowed, fact, check }: Attachment,
  name: string,
  content: Buffer,
): Promise<StoredFile> {
  const type = await typeOf(name, content, allowed);
  const sha256 = createHash('sha256').update(content).digest('hex');
  const file: StoredFile = { fileId: uuidv7(), name, type, sizeBytes: content.length, sha256 };
  await durably(services.db, async (tx) => {
    await lockRecords(tx, [recordId]);
    const records = await loadRecords(tx, [{ id: recordId, kind: recordKind }]);
    check(recordOf(records, recordId));
    await tx<FileRow>('files').insert({
      id: file.fileId,
      record_id: recordId,
      name,
      type,
      sha256,
      content,
    });
    const made = makeServerFact(services, person.id, { recordId, recordKind, ...fact(file) });
    await storeNext(tx, [made], records);
  });
  return file;
}

/** Attaches a certificate to a lot. @throws AppError as `attach`; `not-found` for a lot that is not there. */
export function attachCertificate(
  services: Services,
  person: Person,
  lotId: string,
  name: string,
  content: Buffer,
): Promise<StoredFile> {
  const attachment: Attachment = {
    recordId: lotId,
    recordKind: 'lot',
    allowed: CERTIFICATE_TYPES,
    fact: (file) => ({ kind: 'lot.certificate-attached', body: file }),
    check: ({ facts }) => {
      if (!foldRecord('lot', facts)) throw new AppError('not-found', 'There is no such lot.');
    },
  };
  return attach(services, person, attachment, name, content);
}

/** Attaches a photograph to a flask of an open run. @throws AppError as `attach`; what core has against it. */
export function attachPhotograph(
  services: Services,
  person: Person,
  runId: string,
  flask: number,
  name: string,
  content: Buffer,
): Promise<StoredFile> {
  const attachment: Attachment = {
    recordId: runId,
    recordKind: 'run',
    allowed: PICTURE_TYPES,
    fact: (file) => ({ kind: 'run.flask-photographed', body: { flask, ...file } }),
    check: (record) => {
      const run = foldLoaded(record);
      const isThere = run?.state.flasks.some(({ number }) => number === flask) ?? false;
      if (!run || !isThere)
        throw new AppError('not-found', 'There is no such flask in such a run.');
      if (run.state.status !== 'open') {
        throw new AppError(
          'impossible-entry',
          `This run is ${run.state.status}; nothing can be added.`,
        );
      }
    },
  };
  return attach(services, person, attachment, name, content);
}

async function typeOf(
  name: string,
  content: Buffer,
  allowed: Attachment['allowed'],
): Promise<StoredFile['type']> {
  const found = await fileTypeFromBuffer(content);
  const type = allowed.find((one) => one === found?.mime);
  if (type) return type;
  const what = found ? `a file of the kind ${found.ext}` : 'no file that can be recognized';
  const wanted = allowed.includes('application/pdf')
    ? 'A certificate is a PDF, or a picture as PNG or JPEG'
    : 'A photograph is a picture as PNG or JPEG';
  throw new AppError(
    'unsupported-media-type',
    `${name} is ${what}. ${wanted}; nothing was stored.`,
  );
}

/** A file by its id; null when there is none. */
export async function findFile(
  db: Knex,
  id: string,
): Promise<Pick<FileRow, 'name' | 'type' | 'content'> | null> {
  return (await db<FileRow>('files').where({ id }).first('name', 'type', 'content')) ?? null;
}

/**
 * A file whose content is not what the fact that attached it says, that is missing, or that no fact speaks of; null when all is well.
 * The log vouches for the facts.
 */
export async function findStrayFile(db: Knex): Promise<string | null> {
  const { rows } = await db.raw<{ rows: { id: string }[] }>(`
    SELECT coalesce(file.id::text, fact.body->>'fileId') AS id
    FROM files file
    FULL JOIN (SELECT body FROM facts WHERE kind IN ('lot.certificate-attached', 'run.flask-photographed')) fact
      ON fact.body->>'fileId' = file.id::text
    WHERE encode(sha256(file.content), 'hex') IS DISTINCT FROM fact.body->>'sha256'
    LIMIT 1`);
  return rows[0]?.id ?? null;
}
