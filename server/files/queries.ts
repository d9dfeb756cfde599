import type { Knex } from 'knex';
import { FILE_KINDS } from '#core/ledger';

interface FileRow {
  id: string;
  record_id: string;
  name: string;
  type: string;
  sha256: string;
  content: Buffer;
}

export async function insertFile(tx: Knex, row: FileRow): Promise<void> {
  await tx<FileRow>('files').insert(row);
}

/** What all files together take. */
export async function bytesOfFiles(tx: Knex): Promise<number> {
  const { rows } = await tx.raw<{ rows: { taken: string | null }[] }>(
    'SELECT sum(octet_length(content)) AS taken FROM files',
  );
  return Number(rows[0]?.taken ?? 0);
}

/** A file by its id; null when there is none. */
export async function findFile(
  db: Knex,
  id: string,
): Promise<Pick<FileRow, 'name' | 'type' | 'content'> | null> {
  return (await db<FileRow>('files').where({ id }).first('name', 'type', 'content')) ?? null;
}

/**
 * A file whose row is not what the fact that attached it says, that is missing, or that no fact speaks of; null when all is well.
 * The log vouches for the facts.
 */
export async function findStrayFile(db: Knex): Promise<string | null> {
  const { rows } = await db.raw<{ rows: { id: string }[] }>(
    `
    SELECT coalesce(file.id::text, fact.body->>'fileId') AS id
    FROM files file
    FULL JOIN (
      SELECT record_id, body FROM facts
      WHERE kind = ANY (?)
    ) fact ON fact.body->>'fileId' = file.id::text
    WHERE (file.record_id, file.name, file.type, file.sha256, octet_length(file.content)::text,
        encode(sha256(file.content), 'hex'))
      IS DISTINCT FROM (fact.record_id, fact.body->>'name', fact.body->>'type', fact.body->>'sha256',
        fact.body->>'sizeBytes', fact.body->>'sha256')
    LIMIT 1`,
    [[...FILE_KINDS]],
  );
  return rows[0]?.id ?? null;
}
