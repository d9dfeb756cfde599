import type { Knex } from 'knex';
import { APP_ROLE } from '../connection';

/**
 * Which record rests on which, at what version: written with the fact that says so, and made again with the projections. Where used,
 * descent and recall read it.
 */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    CREATE TABLE edges (
      fact_id uuid NOT NULL REFERENCES facts (id),
      child uuid NOT NULL REFERENCES records (id),
      parent uuid NOT NULL,
      version integer,
      kind text NOT NULL
    )`);
  await db.raw('CREATE INDEX edges_parent ON edges (parent, child)');
  await db.raw('CREATE INDEX edges_child ON edges (child)');
  await db.raw(`GRANT SELECT, INSERT, DELETE ON edges TO ${APP_ROLE}`);
}

export function down(): Promise<void> {
  return Promise.reject(new Error('without it nobody knows what rests on what'));
}
