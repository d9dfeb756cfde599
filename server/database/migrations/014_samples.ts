import type { Knex } from 'knex';

/** No two samples have one code. */
export async function up(db: Knex): Promise<void> {
  await db.raw(
    `CREATE UNIQUE INDEX sample_code_unique ON projections (name) WHERE kind = 'sample'`,
  );
}

export function down(): Promise<void> {
  return Promise.reject(new Error('without it two samples could have one code'));
}
