import type { Knex } from 'knex';
import type { Author } from '#core/rights';
import type { Person } from '#contract';
import { authorOf, nameKey } from '#contract';
import type { PersonRow as AccountRow } from '../audit/digests';

interface PersonRow extends AccountRow {
  /** What the name is compared by. */
  readonly name_key: string;
}

/** A password as it was set; a person's last one counts. */
export interface PasswordRow {
  readonly id: string;
  readonly person_id: string;
  readonly hash: string;
  readonly set_at: Date;
}

function toPerson(row: PersonRow): Person {
  return {
    id: row.id,
    name: row.name,
    mayCertify: row.may_certify,
    mayManage: row.may_manage,
  };
}

export async function findPerson(db: Knex, id: string): Promise<Person | null> {
  const row = await db<PersonRow>('people').where({ id }).first();
  return row ? toPerson(row) : null;
}

/** People by their ids, with what they may. */
export async function listPeopleById(
  db: Knex,
  ids: readonly string[],
): Promise<ReadonlyMap<string, Author>> {
  if (ids.length === 0) return new Map();
  const rows = await db<PersonRow>('people').whereIn('id', ids);
  return new Map(rows.map((row) => [row.id, authorOf(toPerson(row))]));
}

/** Whether somebody is one of the demo's made-up people. */
export async function isDemoPerson(db: Knex, id: string): Promise<boolean> {
  return (await db<PersonRow>('people').where({ id }).first('is_demo'))?.is_demo ?? false;
}

/** Accounts as their rows are, for the audit; the oldest first. */
export async function listAccounts(db: Knex): Promise<AccountRow[]> {
  return db<PersonRow>('people')
    .orderBy('created_at')
    .select('id', 'name', 'may_certify', 'may_manage', 'is_demo', 'created_at');
}

/**
 * Who is meant by a name: whoever has it in any spelling; where two accounts of before have the same, the one with this
 * very spelling.
 */
export async function findCredentials(
  db: Knex,
  name: string,
): Promise<{ id: string; passwordHash: string } | null> {
  const rows = await db<PersonRow>('people').where({ name_key: nameKey(name) });
  const row = rows.length > 1 ? rows.find((one) => one.name === name) : rows[0];
  const passwordHash = row && (await findPasswordHash(db, row.id));
  return row && passwordHash ? { id: row.id, passwordHash } : null;
}

/** The hash of somebody's present password. */
export async function findPasswordHash(db: Knex, personId: string): Promise<string | null> {
  const row = await db<PasswordRow>('passwords')
    .where({ person_id: personId })
    .orderBy('id', 'desc')
    .first();
  return row?.hash ?? null;
}

/** Every password that was ever set, in that order. */
export async function listPasswords(db: Knex): Promise<PasswordRow[]> {
  return db<PasswordRow>('passwords').orderBy('id');
}

export async function insertPassword(db: Knex, row: Omit<PasswordRow, 'id'>): Promise<void> {
  await db('passwords').insert(row);
}

/** Whether somebody has this name in whatever spelling; nobody else can take it before the transaction ends. */
export async function isNameTaken(tx: Knex, name: string): Promise<boolean> {
  const key = nameKey(name);
  await tx.raw('SELECT pg_advisory_xact_lock(hashtextextended(?, 1))', [key]);
  return (await tx<PersonRow>('people').where({ name_key: key }).first('id')) !== undefined;
}

/** Ends somebody's sessions but one; gives how many there were. */
export async function deleteSessions(
  db: Knex,
  personId: string,
  exceptSid: string,
): Promise<number> {
  return db('sessions')
    .whereRaw(`sess->>'personId' = ?`, [personId])
    .whereNot({ sid: exceptSid })
    .delete();
}

/** The ids of the sessions that have not ended. */
export async function listSessionIds(db: Knex): Promise<string[]> {
  const rows = await db<{ sid: string }>('sessions').select('sid');
  return rows.map(({ sid }) => sid);
}

/** Forgets sessions that have run out, and attempts that count no more. */
export async function prune(db: Knex, now: Date): Promise<void> {
  await db('sessions').where('expire', '<', now).delete();
  await db('attempts').where('expires_at', '<', now).delete();
}

export async function listPeople(db: Knex): Promise<Person[]> {
  const rows = await db<PersonRow>('people').orderBy('name');
  return rows.map(toPerson);
}

export async function listDemoPeople(db: Knex): Promise<Person[]> {
  const rows = await db<PersonRow>('people').where({ is_demo: true }).orderBy('created_at');
  return rows.map(toPerson);
}

export async function hasPeople(db: Knex): Promise<boolean> {
  return (await db<PersonRow>('people').first('id')) !== undefined;
}

export async function insertPerson(db: Knex, row: PersonRow): Promise<void> {
  await db<PersonRow>('people').insert(row);
}

export async function findSecret(db: Knex, name: string): Promise<string | null> {
  const row = await db<{ name: string; value: string }>('secrets').where({ name }).first();
  return row?.value ?? null;
}

export async function replaceSecret(db: Knex, name: string, value: string): Promise<void> {
  await db('secrets').insert({ name, value }).onConflict('name').merge();
}

/** True for the one caller whose deletion found the secret there. */
export async function takeSecret(db: Knex, name: string, value: string): Promise<boolean> {
  return (await db('secrets').where({ name, value }).delete()) === 1;
}
