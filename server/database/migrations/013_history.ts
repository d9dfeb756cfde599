import type { Knex } from 'knex';

/** The history is read from its end, of everybody or of one person. */
export async function up(db: Knex): Promise<void> {
  await db.raw('CREATE INDEX facts_recorded ON facts (recorded_at, id)');
  await db.raw('CREATE INDEX facts_authored ON facts (author_id, recorded_at, id)');
}

export function down(): Promise<void> {
  return Promise.reject(new Error('without them the history would read everything'));
}
