import type { Knex } from 'knex';
import { APP_ROLE } from '../connection';

/** The version of the shape in which lists read their records: a program that folds them otherwise folds them again. */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    CREATE TABLE projections_shape (
      is_only boolean PRIMARY KEY DEFAULT true CHECK (is_only),
      version integer NOT NULL
    )`);
  await db('projections_shape').insert({ version: 0 });
  await db.raw(`GRANT SELECT ON projections_shape TO ${APP_ROLE}`);
}

export function down(): Promise<void> {
  return Promise.reject(new Error('without it nobody knows in which shape the lists are'));
}
