import type { Knex } from 'knex';
import { APP_ROLE } from '../connection';

/**
 * What lists order, filter and search by stands in columns beside the state, with the days on which a standing changes; what was
 * counted and what each record has taken from others, in tables of their own. All of it is made again from the facts at the start.
 */
export async function up(db: Knex): Promise<void> {
  await db('projections').delete();
  await db('projections_shape').update({ version: 0 });
  await db.raw('DROP INDEX bottle_code_unique, projections_kind_index');
  await db.raw(`
    ALTER TABLE projections
      ADD COLUMN name text NOT NULL,
      ADD COLUMN words text NOT NULL,
      ADD COLUMN about_id uuid,
      ADD COLUMN begun_at timestamptz NOT NULL,
      ADD COLUMN standing text NOT NULL,
      ADD COLUMN last_day date,
      ADD COLUMN standing_after text NOT NULL,
      ADD COLUMN warning_days integer,
      ADD COLUMN at_hand_until date NOT NULL`);
  // Columns that change with few facts only: the others are updated without touching an index.
  await db.raw(
    `CREATE UNIQUE INDEX bottle_code_unique ON projections (name) WHERE kind = 'bottle'`,
  );
  await db.raw('CREATE INDEX projections_newest ON projections (kind, begun_at, record_id)');
  await db.raw('CREATE INDEX projections_named ON projections (kind, name, record_id)');
  await db.raw('CREATE INDEX projections_at_hand ON projections (kind, at_hand_until)');
  await db.raw('CREATE INDEX projections_about ON projections (about_id)');
  await db.raw(`
    CREATE TABLE stock_counts (
      record_id uuid PRIMARY KEY REFERENCES records (id),
      amount double precision NOT NULL,
      at timestamptz NOT NULL
    )`);
  await db.raw(`
    CREATE TABLE stock_taken (
      source uuid NOT NULL REFERENCES records (id),
      parent uuid NOT NULL,
      amount double precision NOT NULL,
      at timestamptz NOT NULL,
      PRIMARY KEY (source, parent)
    )`);
  await db.raw('CREATE INDEX stock_taken_parent ON stock_taken (parent, at) INCLUDE (amount)');
  await db.raw(`GRANT SELECT, INSERT, UPDATE, DELETE ON stock_counts, stock_taken TO ${APP_ROLE}`);
}

export function down(): Promise<void> {
  return Promise.reject(new Error('without them lists would load everything'));
}
