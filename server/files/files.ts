import { createHash } from 'node:crypto';
import { fileTypeFromBuffer } from 'file-type';
import type { Knex } from 'knex';
import { v7 as uuidv7 } from 'uuid';
import { foldRecord } from '#core/ledger';
import type { CertificateFile } from '#core/reagent';
import type { Person } from '#contract';
import { durably } from '../database/durably';
import { AppError } from '../http/appError';
import { makeServerFact, recordOf, storeNext } from '../ledger/append';
import { lockRecords } from '../ledger/queries';
import { loadRecords } from '../ledger/references';
import type { Services } from '../services';

/** What a certificate may be. */
export const CERTIFICATE_TYPES: readonly CertificateFile['type'][] = [
  'application/pdf',
  'image/png',
  'image/jpeg',
];

/** Largest certificate, bytes. */
export const CERTIFICATE_BYTES = 8 * 1024 * 1024;

interface FileRow {
  id: string;
  record_id: string;
  name: string;
  type: string;
  sha256: string;
  content: Buffer;
}

/**
 * Attaches a certificate to a lot: the file and the fact that says so, both or neither. What the file is, its content says, not its
 * name.
 *
 * @throws AppError `unsupported-media-type` for anything but a PDF or a picture, `not-found` for a lot that is not there.
 */
export async function attachCertificate(
  services: Services,
  person: Person,
  lotId: string,
  name: string,
  content: Buffer,
): Promise<CertificateFile> {
  const type = await certificateType(name, content);
  const sha256 = createHash('sha256').update(content).digest('hex');
  const file: CertificateFile = { fileId: uuidv7(), name, type, sizeBytes: content.length, sha256 };
  await durably(services.db, async (tx) => {
    await lockRecords(tx, [lotId]);
    const records = await loadRecords(tx, [{ id: lotId, kind: 'lot' }]);
    if (!foldRecord('lot', recordOf(records, lotId).facts)) {
      throw new AppError('not-found', 'There is no such lot.');
    }
    await tx<FileRow>('files').insert({
      id: file.fileId,
      record_id: lotId,
      name,
      type,
      sha256,
      content,
    });
    const fact = makeServerFact(services, person.id, {
      recordId: lotId,
      recordKind: 'lot',
      kind: 'lot.certificate-attached',
      body: file,
    });
    await storeNext(tx, [fact], records);
  });
  return file;
}

async function certificateType(name: string, content: Buffer): Promise<CertificateFile['type']> {
  const found = await fileTypeFromBuffer(content);
  const type = CERTIFICATE_TYPES.find((allowed) => allowed === found?.mime);
  if (type) return type;
  const what = found ? `a file of the kind ${found.ext}` : 'no file that can be recognized';
  throw new AppError(
    'unsupported-media-type',
    `${name} is ${what}. A certificate is a PDF, or a picture as PNG or JPEG; nothing was stored.`,
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
    FULL JOIN (SELECT body FROM facts WHERE kind = 'lot.certificate-attached') fact
      ON fact.body->>'fileId' = file.id::text
    WHERE encode(sha256(file.content), 'hex') IS DISTINCT FROM fact.body->>'sha256'
    LIMIT 1`);
  return rows[0]?.id ?? null;
}
