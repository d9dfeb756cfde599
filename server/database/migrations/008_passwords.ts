import type { Knex } from 'knex';
import { APP_ROLE } from '../connection';
import { canonicalText, sha256 } from './frozen';

/**
 * Passwords in a table of their own, to which they are appended: changing one adds a row, and the log has an entry for
 * each. Names with what they are compared by. Sessions end: the log knows of each from now on.
 */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    CREATE TABLE passwords (
      id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
      person_id uuid NOT NULL REFERENCES people (id),
      hash text NOT NULL,
      set_at timestamptz NOT NULL
    )`);
  await db.raw('CREATE INDEX passwords_person ON passwords (person_id, id)');
  await db.schema.alterTable('people', (table) => {
    // Not unique: two accounts of before may turn out to have the same.
    table.text('name_key').notNullable().defaultTo('').index();
  });
  const people = await db<{ id: string; name: string; password_hash: string }>('people')
    .orderBy('created_at')
    .select('id', 'name', 'password_hash');
  const at = new Date();
  const entries: string[] = [];
  for (const { id, name, password_hash: hash } of people) {
    await db('people')
      .where({ id })
      .update({ name_key: keyOf(name) });
    await db('passwords').insert({ person_id: id, hash, set_at: at });
    const entry = { kind: 'password-set', at: at.toISOString(), by: null, personId: id };
    entries.push(canonicalText({ ...entry, digest: sha256(hash) }));
  }
  if (entries.length > 0) await db.raw('SELECT append_audit(?::text[])', [entries]);
  await db.schema.alterTable('people', (table) => {
    table.dropColumn('password_hash');
  });
  await db.raw('ALTER TABLE people ALTER COLUMN name_key DROP DEFAULT');
  for (const table of ['people', 'passwords']) {
    await db.raw(`
      CREATE TRIGGER ${table}_append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON ${table}
      FOR EACH STATEMENT EXECUTE FUNCTION refuse_change()`);
  }
  await db.raw(`GRANT SELECT, INSERT ON passwords TO ${APP_ROLE}`);
  await db('sessions').delete();
}

/** Frozen: by what two names are the same. */
function keyOf(name: string): string {
  return name
    .normalize('NFKC')
    .replaceAll(/\s+/gu, ' ')
    .replaceAll(/[\p{Cf}\p{Cc}\u115f\u1160\u3164\uffa0]/gu, '')
    .trim()
    .toLowerCase();
}

export function down(): Promise<void> {
  return Promise.reject(new Error('passwords are appended, never taken away'));
}
