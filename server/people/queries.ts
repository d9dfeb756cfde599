import type { Knex } from 'knex';
import type { Person } from '#contract';
import type { PersonRow as AccountRow } from '../audit/digests';

interface PersonRow extends AccountRow {
  readonly password_hash: string;
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

export async function findCredentials(
  db: Knex,
  name: string,
): Promise<{ id: string; passwordHash: string } | null> {
  const row = await db<PersonRow>('people').where({ name }).first();
  return row ? { id: row.id, passwordHash: row.password_hash } : null;
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
