import type { Knex } from 'knex';
import type { AuditEntry } from './entry';
import { nameOfBreak } from './entry';
import { canonicalText } from './text';

/** An entry with its place in the chain. `text` is what was hashed. */
export interface ChainedEntry {
  readonly sequence: number;
  readonly hash: string;
  readonly text: string;
}

interface AuditRow {
  // A bigint comes as text.
  sequence: string;
  hash: string;
  entry: string;
}

/** Appends entries to the log, in the caller's transaction; the last statement before its end, for the lock it takes. */
export async function appendAudit(tx: Knex, ...entries: readonly AuditEntry[]): Promise<void> {
  await tx.raw('SELECT append_audit(?::text[])', [entries.map((entry) => canonicalText(entry))]);
}

/** Entries after a number, in order, at most so many. */
export async function listAuditAfter(
  db: Knex,
  after: number,
  limit: number,
): Promise<ChainedEntry[]> {
  const rows = (await db('audit')
    .where('sequence', '>', after)
    .orderBy('sequence')
    .limit(limit)) as AuditRow[];
  return rows.map(({ sequence, hash, entry }) => ({
    sequence: Number(sequence),
    hash,
    text: entry,
  }));
}

/** The breaks that somebody has accepted, each as number and what was found: `12:3f…`. */
export async function listAcceptedBreaks(db: Knex): Promise<ReadonlySet<string>> {
  const rows = await db<AuditRow>('audit').where('entry', 'like', '%"kind":"break-accepted"%');
  const entries = rows.map(({ entry }) => JSON.parse(entry) as AuditEntry);
  return new Set(
    entries.flatMap((entry) => (entry.kind === 'break-accepted' ? [nameOfBreak(entry)] : [])),
  );
}

/** Number and hash of the last entry. */
export async function getAuditHead(db: Knex): Promise<{ sequence: number; hash: string }> {
  const row = await db<AuditRow>('audit_head').first('sequence', 'hash');
  if (!row) throw new RangeError('the audit log has no head: the database is not prepared');
  return { sequence: Number(row.sequence), hash: row.hash };
}
