import type { Knex } from 'knex';
import { APP_ROLE } from '../database/connection';
import { APPEND_AUDIT } from '../database/migrations/002_audit';
import { REFUSE_CHANGE } from '../database/migrations/001_footing';

/** Tables to which rows are appended and in which none is changed. */
const APPEND_ONLY = ['audit', 'facts', 'files', 'passwords', 'people'];

/** What the application may write where. */
const WRITES: Readonly<Record<string, readonly string[]>> = {
  attempts: ['DELETE', 'INSERT', 'UPDATE'],
  edges: ['DELETE', 'INSERT'],
  facts: ['INSERT'],
  files: ['INSERT'],
  passwords: ['INSERT'],
  people: ['INSERT'],
  projections: ['DELETE', 'INSERT', 'UPDATE'],
  records: ['INSERT', 'UPDATE'],
  secrets: ['DELETE', 'INSERT', 'UPDATE'],
  sessions: ['DELETE', 'INSERT', 'UPDATE'],
  stock_counts: ['DELETE', 'INSERT', 'UPDATE'],
  stock_taken: ['DELETE', 'INSERT', 'UPDATE'],
};

/**
 * What of the database's own guards is not as it was made: triggers that refuse changes, rights of anybody but the owner to
 * write, and the functions that the log rests on. A sentence each.
 */
export async function findLooseGuards(db: Knex): Promise<readonly string[]> {
  return [...(await looseTriggers(db)), ...(await looseRights(db)), ...(await looseFunctions(db))];
}

async function looseTriggers(db: Knex): Promise<readonly string[]> {
  const { rows } = await db.raw<{ rows: { trigger: string }[] }>(`
    SELECT concat_ws(' ', c.relname, t.tgname, t.tgenabled, p.proname, t.tgtype) AS trigger
    FROM pg_trigger t JOIN pg_class c ON c.oid = t.tgrelid JOIN pg_proc p ON p.oid = t.tgfoid
    WHERE NOT t.tgisinternal AND c.relnamespace = 'public'::regnamespace`);
  const found = new Set(rows.map(({ trigger }) => trigger));
  // Enabled, and before each statement that updates, deletes or truncates (PostgreSQL's bits 2, 8, 16 and 32).
  const made = APPEND_ONLY.map((table) => `${table} ${table}_append_only O refuse_change 58`);
  const missing = made.filter((trigger) => !found.delete(trigger)).map((one) => one.split(' ')[0]);
  return [
    ...missing.map((table) => `the trigger that guards the table ${table ?? ''} is gone or off`),
    ...[...found].map((trigger) => `a trigger is there that was not made here: ${trigger}`),
  ];
}

async function looseRights(db: Knex): Promise<readonly string[]> {
  const { rows } = await db.raw<{ rows: { table: string; grantee: string; right: string }[] }>(`
    SELECT c.relname AS table, coalesce(r.rolname, 'PUBLIC') AS grantee, a.privilege_type AS right
    FROM pg_class c
      CROSS JOIN LATERAL (
        SELECT * FROM aclexplode(c.relacl)
        UNION ALL
        SELECT e.* FROM pg_attribute t, aclexplode(t.attacl) e WHERE t.attrelid = c.oid
      ) a
      LEFT JOIN pg_roles r ON r.oid = a.grantee
    WHERE c.relnamespace = 'public'::regnamespace AND c.relkind IN ('r', 'p', 'v')
      AND a.grantee <> c.relowner AND a.privilege_type <> 'SELECT'
    ORDER BY 1, 2, 3`);
  return rows
    .filter(
      ({ table, grantee, right }) =>
        grantee !== APP_ROLE || !(WRITES[table]?.includes(right) ?? false),
    )
    .map(({ table, grantee, right }) => `${grantee} may ${right} on the table ${table}`);
}

async function looseFunctions(db: Knex): Promise<readonly string[]> {
  const { rows } = await db.raw<{ rows: { proname: string; prosrc: string }[] }>(`
    SELECT proname, prosrc FROM pg_proc
    WHERE pronamespace = 'public'::regnamespace AND proname IN ('append_audit', 'refuse_change')`);
  const made = { append_audit: bodyOf(APPEND_AUDIT), refuse_change: bodyOf(REFUSE_CHANGE) };
  return Object.entries(made)
    .filter(([name, body]) => {
      const found = rows.filter(({ proname }) => proname === name);
      return found.length !== 1 || found[0]?.prosrc !== body;
    })
    .map(([name]) => `the function ${name} is not the one that was made here`);
}

/** What stands between the dollars of a definition, as PostgreSQL keeps it. */
function bodyOf(definition: string): string {
  return definition.split('$$')[1] ?? '';
}
