import type { Knex } from 'knex';
import type { PersonState } from '#core/people';
import { nameKey } from '#core/people';
import type { EarlierPersonRow, PersonRow } from '../audit/digests';
import { findProjection } from '../ledger/queries';

/** A password as it was set; a person's last one counts. */
export interface PasswordRow {
  readonly id: string;
  readonly person_id: string;
  readonly hash: string;
  readonly set_at: Date;
}

/** Somebody who works here, or did; null when there is nobody of that id. */
export async function findPerson(db: Knex, id: string): Promise<PersonState | null> {
  return findProjection(db, 'person', id);
}

/** People by their ids, in one question. */
export async function listPeople(
  db: Knex,
  ids: readonly string[],
): Promise<ReadonlyMap<string, PersonState>> {
  const rows: { state: PersonState }[] = await db('projections')
    .where({ kind: 'person' })
    .whereIn('record_id', ids)
    .select('state');
  return new Map(rows.map(({ state }) => [state.id, state]));
}

/** Everybody who works here: few, and asked for where something hangs on who there is. */
export async function listHere(db: Knex): Promise<PersonState[]> {
  const rows: { state: PersonState }[] = await db('projections')
    .where({ kind: 'person' })
    .whereRaw(`state->'left' = 'null'::jsonb`)
    .select('state');
  return rows.map(({ state }) => state);
}

/** Accounts as their rows are, with what was said of their people when they joined, for the audit; the oldest first. */
export async function listAccounts(db: Knex): Promise<EarlierPersonRow[]> {
  interface Row extends PersonRow {
    /** Accounts of before there were roles had rights. */
    readonly body: { name: string; rights?: readonly string[]; isDemo: boolean } | null;
  }
  const rows: Row[] = await db('people')
    .leftJoin('facts', (join) => {
      join.on('facts.record_id', 'people.id').andOnVal('facts.sequence', 1);
    })
    .orderBy('people.created_at')
    .select('people.*', 'facts.body');
  return rows.map(({ body, ...row }) => ({
    ...row,
    name: body?.name ?? '',
    may_certify: body?.rights?.includes('certify') ?? false,
    may_manage: body?.rights?.includes('manage') ?? false,
    is_demo: body?.isDemo ?? false,
  }));
}

/** The people who have a name in whatever spelling. */
async function listNamed(db: Knex, name: string): Promise<PersonState[]> {
  const rows: { state: PersonState }[] = await db('projections')
    .where({ kind: 'person' })
    .whereRaw(`state->>'nameKey' = ?`, [nameKey(name)])
    .select('state');
  return rows.map(({ state }) => state);
}

/**
 * Who is meant by a name: whoever has it in any spelling; where two accounts of before have the same, the one with this
 * very spelling.
 */
export async function findCredentials(
  db: Knex,
  name: string,
): Promise<{ person: PersonState; passwordHash: string } | null> {
  const named = await listNamed(db, name);
  const person = named.length > 1 ? named.find((one) => one.name === name) : named[0];
  const passwordHash = person && (await findPasswordHash(db, person.id));
  return person && passwordHash ? { person, passwordHash } : null;
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

/** Who has this name in whatever spelling; nobody else can take it before the transaction ends. */
export async function findNamed(tx: Knex, name: string): Promise<string | null> {
  await tx.raw('SELECT pg_advisory_xact_lock(hashtextextended(?, 1))', [nameKey(name)]);
  return (await listNamed(tx, name))[0]?.id ?? null;
}

/** Ends somebody's sessions, all or all but one; gives how many there were. */
export async function deleteSessions(db: Knex, personId: string, exceptSid = ''): Promise<number> {
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

/** The made-up people of the demo who work here, the first to join first. */
export async function listDemoPeople(db: Knex): Promise<PersonState[]> {
  const rows: { state: PersonState }[] = await db('projections')
    .where({ kind: 'person' })
    .whereRaw(`(state->>'isDemo')::boolean`)
    .orderBy('record_id')
    .select('state');
  return rows.map(({ state }) => state).filter(({ left }) => left === null);
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
