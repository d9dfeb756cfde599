import { randomBytes } from 'node:crypto';
import type { Knex } from 'knex';
import { APP_ROLE } from '../connection';

/** Accounts, sessions, the append-only facts, and the projections that lists read. */
export async function up(db: Knex): Promise<void> {
  // Another database of the same cluster may have made the role in this very moment.
  await db.raw(`
    DO $$ BEGIN
      CREATE ROLE ${APP_ROLE} NOLOGIN;
    EXCEPTION WHEN duplicate_object OR unique_violation THEN NULL;
    END $$`);
  await db.raw(`
    DO $$ BEGIN
      IF NOT pg_has_role(current_user, '${APP_ROLE}', 'MEMBER') THEN
        EXECUTE format('GRANT ${APP_ROLE} TO %I', current_user);
      END IF;
    END $$`);
  await db.schema.createTable('people', (table) => {
    table.uuid('id').primary();
    table.text('name').notNullable().unique({ indexName: 'people_name_unique' });
    table.text('password_hash').notNullable();
    table.boolean('may_certify').notNullable();
    table.boolean('may_manage').notNullable();
    table.boolean('is_demo').notNullable();
    table.timestamp('created_at').notNullable();
  });
  await db.schema.createTable('sessions', (table) => {
    table.text('sid').primary();
    table.json('sess').notNullable();
    table.timestamp('expire', { precision: 6 }).notNullable().index();
  });
  await db.schema.createTable('secrets', (table) => {
    table.text('name').primary();
    table.text('value').notNullable();
  });
  await db('secrets').insert({
    name: 'session-signing-key',
    value: randomBytes(32).toString('hex'),
  });
  await db.schema.createTable('records', (table) => {
    table.uuid('id').primary();
    table.text('kind').notNullable().index();
    table.integer('version').notNullable();
  });
  await db.schema.createTable('facts', (table) => {
    table.uuid('id').primary();
    table.uuid('record_id').notNullable().references('records.id');
    table.integer('sequence').notNullable();
    table.text('kind').notNullable();
    table.integer('schema_version').notNullable();
    table.jsonb('body').notNullable();
    table.uuid('author_id').notNullable().references('people.id');
    table.integer('based_on');
    table.timestamp('device_time').notNullable();
    table.timestamp('recorded_at').notNullable();
    table.unique(['record_id', 'sequence'], { indexName: 'facts_sequence_unique' });
  });
  await db.schema.createTable('projections', (table) => {
    table.uuid('record_id').primary().references('records.id');
    table.text('kind').notNullable().index();
    table.integer('version').notNullable();
    table.jsonb('state').notNullable();
  });
  await db.raw(
    `CREATE UNIQUE INDEX bottle_code_unique ON projections ((state->>'code')) WHERE kind = 'bottle'`,
  );
  await db.raw(
    `CREATE UNIQUE INDEX laboratory_only_one ON projections (kind) WHERE kind = 'laboratory'`,
  );
  await appendOnly(db);
  await db.raw(`GRANT USAGE ON SCHEMA public TO ${APP_ROLE}`);
  await db.raw(`GRANT SELECT, INSERT ON facts, people TO ${APP_ROLE}`);
  await db.raw(`GRANT SELECT, INSERT, UPDATE ON records TO ${APP_ROLE}`);
  await db.raw(
    `GRANT SELECT, INSERT, UPDATE, DELETE ON projections, sessions, secrets TO ${APP_ROLE}`,
  );
}

export const REFUSE_CHANGE = `
    CREATE FUNCTION refuse_change() RETURNS trigger LANGUAGE plpgsql AS $$
    BEGIN
      RAISE EXCEPTION 'facts are appended, never changed or deleted';
    END $$`;

/** Facts stay as they are, whoever asks: a second lock beside the missing privileges. */
async function appendOnly(db: Knex): Promise<void> {
  await db.raw(REFUSE_CHANGE);
  await db.raw(`
    CREATE TRIGGER facts_append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON facts
    FOR EACH STATEMENT EXECUTE FUNCTION refuse_change()`);
}

export function down(): Promise<void> {
  return Promise.reject(new Error('the first migration cannot be undone: it holds the facts'));
}
