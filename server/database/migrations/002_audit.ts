import type { Knex } from 'knex';
import { APP_ROLE } from '../connection';
import type { FactRow, PersonRow } from './frozen';
import { accountOf, canonicalText, digestOf, factOf } from './frozen';

/** Hash that the first entry of the audit chain goes over. */
export const GENESIS_HASH = '0'.repeat(64);

/** The hash-chained audit log, the device that a fact came from, and counters that limit attempts. */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('facts', (table) => {
    table.uuid('device_id');
    table.bigInteger('clock_offset_ms');
  });
  await db.schema.createTable('attempts', (table) => {
    table.text('key').primary();
    table.integer('hits').notNullable();
    table.timestamp('expires_at').notNullable();
  });
  await db.schema.createTable('audit', (table) => {
    table.bigInteger('sequence').primary();
    table.text('hash').notNullable();
    table.text('entry').notNullable();
  });
  // One row, updated in place by every append: room on its page keeps that cheap.
  await db.raw(`
    CREATE TABLE audit_head (
      is_only boolean PRIMARY KEY DEFAULT true CHECK (is_only),
      sequence bigint NOT NULL,
      hash text NOT NULL
    ) WITH (fillfactor = 10)`);
  await db('audit_head').insert({ sequence: 0, hash: GENESIS_HASH });
  await db.raw(APPEND_AUDIT);
  await db.raw(`REVOKE ALL ON FUNCTION append_audit(text[]) FROM PUBLIC`);
  await db.raw(`GRANT EXECUTE ON FUNCTION append_audit(text[]) TO ${APP_ROLE}`);
  await db.raw(`
    CREATE TRIGGER audit_append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON audit
    FOR EACH STATEMENT EXECUTE FUNCTION refuse_change()`);
  // So that a server can tell whether it is ready.
  await db.raw(`GRANT SELECT ON knex_migrations TO ${APP_ROLE}`);
  await db.raw(`GRANT SELECT ON audit, audit_head TO ${APP_ROLE}`);
  await db.raw(`GRANT SELECT, INSERT, UPDATE, DELETE ON attempts TO ${APP_ROLE}`);
  await chainWhatIsThere(db);
}

/**
 * The only way into the log, with its owner's rights, so that the application's role can append and do nothing
 * else: under the lock of the head row each entry takes the next number and hashes over the hash before it. Who
 * listens is told the number of the last one when the transaction commits.
 */
export const APPEND_AUDIT = `
  CREATE FUNCTION append_audit(entries text[]) RETURNS bigint
  LANGUAGE plpgsql SECURITY DEFINER SET search_path = public, pg_temp AS $$
  DECLARE
    head audit_head;
    added text;
  BEGIN
    SELECT * INTO STRICT head FROM audit_head FOR UPDATE;
    FOREACH added IN ARRAY entries LOOP
      head.sequence := head.sequence + 1;
      head.hash := encode(
        sha256(convert_to(head.hash || ' ' || head.sequence || ' ' || added, 'UTF8')), 'hex');
      INSERT INTO audit (sequence, hash, entry) VALUES (head.sequence, head.hash, added);
    END LOOP;
    UPDATE audit_head SET sequence = head.sequence, hash = head.hash;
    PERFORM pg_notify('vine_audit', head.sequence::text);
    RETURN head.sequence;
  END $$`;

/** Accounts and facts of before the log enter it, the facts in the order in which they were recorded. */
async function chainWhatIsThere(db: Knex): Promise<void> {
  const at = new Date().toISOString();
  const people: PersonRow[] = await db<PersonRow>('people').orderBy('created_at');
  const facts = (await db('facts')
    .join('records', 'records.id', 'facts.record_id')
    .select('facts.*', 'records.kind as record_kind')
    .orderBy(['recorded_at', 'record_id', 'sequence'])) as FactRow[];
  const entries = [
    ...people.map((row) => ({
      ...{ kind: 'account-made', at, by: null, personId: row.id },
      digest: digestOf(accountOf(row)),
    })),
    ...facts.map(factOf).map((fact) => ({
      ...{ kind: 'fact', at: fact.recordedAt, by: fact.authorId },
      ...{ factId: fact.id, factKind: fact.kind },
      ...{ recordId: fact.recordId, recordKind: fact.recordKind, version: fact.sequence },
      digest: digestOf(fact),
    })),
  ];
  if (entries.length > 0) {
    await db.raw('SELECT append_audit(?::text[])', [entries.map((entry) => canonicalText(entry))]);
  }
}

export function down(): Promise<void> {
  return Promise.reject(new Error('the audit log is not taken away'));
}
