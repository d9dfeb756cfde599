import { existsSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Knex } from 'knex';

/** The databases that versions of before left, one folder for each: the rows of each table as lines of JSON. */
export const GOLDENS = join(import.meta.dirname, '../database/goldens');

/** Tables of which nothing is kept: sessions and keys, what says which migrations were made, and what is counted. */
const LEFT_OUT = new Set([
  'sessions',
  'secrets',
  'attempts',
  'knex_migrations',
  'knex_migrations_lock',
]);

/** The migrations of which there is a golden, oldest first. */
export function listGoldens(): readonly string[] {
  return existsSync(GOLDENS) ? readdirSync(GOLDENS).toSorted() : [];
}

/** Keeps the rows of a database. */
export async function keepGolden(owner: Knex, migration: string): Promise<void> {
  const folder = join(GOLDENS, migration);
  mkdirSync(folder, { recursive: true });
  for (const table of await listTables(owner)) {
    const { rows } = await owner.raw<{ rows: { line: string }[] }>(
      `SELECT row_to_json(kept)::text AS line FROM ?? AS kept ORDER BY 1`,
      [table],
    );
    if (rows.length === 0) continue;
    writeFileSync(join(folder, `${table}.jsonl`), rows.map(({ line }) => `${line}\n`).join(''));
  }
}

/** Fills a database of that migration with the rows that were kept. */
export async function loadGolden(owner: Knex, migration: string): Promise<void> {
  const folder = join(GOLDENS, migration);
  await owner.transaction(async (tx) => {
    // In whatever order: a row may come before the one that it names.
    await tx.raw('SET LOCAL session_replication_role = replica');
    for (const file of readdirSync(folder).filter((name) => name.endsWith('.jsonl'))) {
      const table = file.replace('.jsonl', '');
      const lines = readFileSync(join(folder, file), 'utf8').trim().split('\n');
      await tx.raw('DELETE FROM ??', [table]);
      await tx.raw(
        `INSERT INTO ?? OVERRIDING SYSTEM VALUE SELECT * FROM jsonb_populate_recordset(NULL::??, ?::jsonb)`,
        [table, table, `[${lines.join(',')}]`],
      );
    }
  });
}

async function listTables(owner: Knex): Promise<string[]> {
  const { rows } = await owner.raw<{ rows: { name: string }[] }>(
    `SELECT tablename AS name FROM pg_tables WHERE schemaname = 'public' ORDER BY 1`,
  );
  return rows.map(({ name }) => name).filter((name) => !LEFT_OUT.has(name));
}
