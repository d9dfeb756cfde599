import type { Knex } from 'knex';
import type { Person } from '#contract';

interface PersonRow {
  id: string;
  name: string;
  password_hash: string;
  may_certify: boolean;
  may_manage: boolean;
  is_demo: boolean;
  created_at: Date;
}

/** A new account. */
export interface NewAccount extends Person {
  readonly passwordHash: string;
  readonly isDemo: boolean;
  readonly createdAt: Date;
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

/** What the audit log vouches for of an account: who may do what. */
export async function findAccount(
  db: Knex,
  id: string,
): Promise<(Person & { isDemo: boolean }) | null> {
  const row = await db<PersonRow>('people').where({ id }).first();
  return row ? { ...toPerson(row), isDemo: row.is_demo } : null;
}

export async function listAccountIds(db: Knex): Promise<string[]> {
  const rows = await db<PersonRow>('people').orderBy('created_at').select('id');
  return rows.map(({ id }) => id);
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

export async function insertPerson(db: Knex, account: NewAccount): Promise<void> {
  await db<PersonRow>('people').insert({
    id: account.id,
    name: account.name,
    password_hash: account.passwordHash,
    may_certify: account.mayCertify,
    may_manage: account.mayManage,
    is_demo: account.isDemo,
    created_at: account.createdAt,
  });
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
