import { appendFileSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pino } from 'pino';
import { v7 as uuidv7 } from 'uuid';
import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest';
import type { Fact } from '#core/record';
import { idOf } from '../../core/test-support/stored';
import { durably } from '../database/durably';
import { appendFact } from '../ledger/append';
import type { Client, StockIds, TestLaboratory } from '../test-support/laboratory';
import {
  foundTestLaboratory,
  proposeFact,
  startRun,
  stockLaboratory,
  titrateSeries,
  weighed,
} from '../test-support/laboratory';
import { DIGEST_VERSION, digestVersionOf } from './digests';
import type { AuditEntry } from './entry';
import { auditEntryOfFact } from './entry';
import type { NotedHead } from './heads';
import { HeadNotes, readHeadNotes } from './heads';
import { canonicalText, sha256 } from './text';
import { appendAudit, getAuditHead, listAuditAfter } from './queries';
import { verifyAudit } from './verify';

let laboratory: TestLaboratory;
let client: Client;
let ids: StockIds;
beforeAll(async () => {
  laboratory = await foundTestLaboratory();
  client = await laboratory.signIn(laboratory.chief);
  ids = await stockLaboratory(client, laboratory.today);
  await titrateSeries(client, await startRun(client, ids));
});
afterAll(() => laboratory.close());

async function entriesAfter(sequence: number): Promise<AuditEntry[]> {
  const entries = await listAuditAfter(laboratory.database.db, sequence, 1_000);
  return entries.map(({ text }) => JSON.parse(text) as AuditEntry);
}

test('the canonical text of a value does not depend on the order of its keys (RFC 8785, section 3.2.2)', () => {
  const given = {
    numbers: [333333333.3333333, 1e30, 4.5, 2e-3, 0.000000000000000000000000001],
    string: '€$\u000F\u000aA\'\u0042\u0022\u005c\\"/',
    literals: [null, true, false],
  };
  expect(canonicalText(given)).toBe(
    '{"literals":[null,true,false],"numbers":[333333333.3333333,1e+30,4.5,0.002,1e-27],"string":"€$\\u000f\\nA\'B\\"\\\\\\\\\\"/"}',
  );
});

describe('the log', () => {
  let before = 0;
  beforeEach(async () => {
    before = (await getAuditHead(laboratory.database.db)).sequence;
  });

  test('has everything that happened, each entry chained to the one before, and is whole', async () => {
    const kinds = (await entriesAfter(0)).map((entry) => entry.kind);
    // Two people joined, the second added by the first; the laboratory with its rules, five records and a run of thirteen facts.
    expect(kinds.filter((kind) => kind === 'account-made')).toHaveLength(2);
    expect(kinds.filter((kind) => kind === 'fact')).toHaveLength(2 + 2 + 5 + 13);
    const verdict = await verifyAudit(laboratory.database.db);
    expect(verdict).toMatchObject({ kind: 'whole', entries: before });
    const [first, second] = await listAuditAfter(laboratory.database.db, 0, 2);
    expect(second?.hash).toBe(sha256(`${first?.hash ?? ''} 2 ${second?.text ?? ''}`));
  });

  test('takes in sign-ins, failures without the name that was typed, sign-outs and prints', async () => {
    const visitor = laboratory.visitor();
    const attempt = { name: 'my secret by mistake', password: 'whatever it was' };
    await visitor.post('/api/session').send(attempt).expect(401);
    await visitor
      .post('/api/session')
      .send({ ...attempt, name: 'Oda Lind' })
      .expect(401);
    const analyst = await laboratory.signIn(laboratory.analyst);
    const path = `/bottles/${ids.bottle}/label`;
    await analyst.post('/api/prints', { path }).expect(204);
    for (const other of ['elsewhere', '/bottles/1/label', '/no/such/page', '/runs/../people']) {
      await analyst.post('/api/prints', { path: other }).expect(400);
    }
    await analyst.delete('/api/session').expect(204);
    const entries = await entriesAfter(before);
    const { id } = laboratory.analyst;
    expect(entries).toMatchObject([
      { kind: 'sign-in-failed', personId: null },
      { kind: 'sign-in-failed', personId: laboratory.chief.id },
      { kind: 'signed-in', by: id, way: 'password' },
      { kind: 'printed', by: id, path },
      { kind: 'signed-out', by: id },
    ]);
    expect(JSON.stringify(entries)).not.toMatch(/secret|whatever/);
  });

  test('keeps its order and loses nothing when many write at once', async () => {
    const { db } = laboratory.database;
    const at = new Date().toISOString();
    await Promise.all(
      Array.from({ length: 40 }, (_, i) =>
        durably(db, (tx) =>
          appendAudit(tx, { kind: 'printed', at, by: laboratory.chief.id, path: `/${String(i)}` }),
        ),
      ),
    );
    expect(await entriesAfter(before)).toHaveLength(40);
    expect((await verifyAudit(db)).kind).toBe('whole');
  });

  test('a refused fact leaves no entry', async () => {
    await client.send({ kind: 'run.abandoned', body: { reason: 'no such run' } }, client.person.id);
    expect(await entriesAfter(before)).toEqual([]);
  });
});

test('the application can append and nothing else', async () => {
  const { db } = laboratory.database;
  for (const sql of [
    `INSERT INTO audit (sequence, hash, entry) VALUES (99999, 'x', '{}')`,
    `UPDATE audit SET entry = '{}'`,
    'DELETE FROM audit',
    'TRUNCATE audit',
    'UPDATE audit_head SET sequence = 0',
    `UPDATE facts SET body = '{}'`,
    'DELETE FROM facts',
    `UPDATE people SET created_at = now()`,
    `UPDATE passwords SET hash = 'x'`,
    'ALTER TABLE audit DISABLE TRIGGER audit_append_only',
  ]) {
    await expect(db.raw(sql), sql).rejects.toThrow(/permission denied|must be owner/);
  }
  // Nor can its owner by mistake.
  for (const table of ['audit', 'facts', 'files', 'passwords', 'people']) {
    const deleting = laboratory.database.owner.raw(`DELETE FROM ${table}`);
    await expect(deleting, table).rejects.toThrow(/appended/);
  }
});

/** What somebody with every right on the database does behind the program's back, and takes back afterwards. */
describe('a break is found and named', () => {
  async function tamperWith(
    sql: string,
    after?: string,
    noted: readonly NotedHead[] = [],
  ): Promise<{ sequence: number; why: string }> {
    const { owner } = laboratory.database;
    const rollback = new Error('taken back');
    let found: Awaited<ReturnType<typeof verifyAudit>> | undefined;
    const tampering = owner.transaction(async (tx) => {
      await tx.raw(
        ['audit', 'facts', 'files', 'people', 'passwords']
          .map((table) => `ALTER TABLE ${table} DISABLE TRIGGER USER`)
          .join(';'),
      );
      await tx.raw(sql);
      await tx.raw(
        ['audit', 'facts', 'files', 'people', 'passwords']
          .map((table) => `ALTER TABLE ${table} ENABLE TRIGGER USER`)
          .join(';'),
      );
      if (after) await tx.raw(after);
      found = await verifyAudit(tx, null, noted);
      throw rollback;
    });
    await expect(tampering).rejects.toBe(rollback);
    if (found?.kind !== 'broken') throw new Error('the break was not found');
    return found;
  }

  test.each([
    [
      `UPDATE audit SET entry = replace(entry, 'signed-in', 'signed-up') WHERE sequence = 9`,
      9,
      'hash',
    ],
    ['DELETE FROM audit WHERE sequence = 7', 8, 'entry 7 is missing'],
    ['DELETE FROM audit WHERE sequence >= 20', 0, 'it ends with 19'],
    [
      `UPDATE facts SET body = jsonb_set(body, '{readingMl}', '"23.61"')
       WHERE kind = 'run.burette-read' AND body->>'readingMl' = '23.60'`,
      expect.any(Number),
      'not what it was',
    ],
    [
      `UPDATE facts SET device_time = device_time + interval '1 ms' WHERE sequence = 4`,
      expect.any(Number),
      'not what',
    ],
    [`DELETE FROM facts WHERE kind = 'run.burette-read'`, expect.any(Number), 'is gone'],
    [
      `INSERT INTO facts SELECT gen_random_uuid(), record_id, 99, kind, schema_version, body, author_id,
         based_on, device_time, recorded_at, device_id, clock_offset_ms FROM facts WHERE sequence = 4`,
      0,
      'facts are stored',
    ],
    [`UPDATE people SET created_at = now()`, expect.any(Number), 'account'],
    [
      `UPDATE facts SET body = jsonb_set(body, '{rights}', '["manage"]') WHERE kind = 'person.joined'`,
      expect.any(Number),
      'not what it was',
    ],
    [
      `INSERT INTO people (id, created_at) VALUES (gen_random_uuid(), now())`,
      0,
      'does not know of the account',
    ],
    [
      `INSERT INTO files SELECT gen_random_uuid(), record_id, 'kp.pdf', 'application/pdf', 'x', 'forged'
       FROM facts LIMIT 1`,
      0,
      'is not what it was when it was attached',
    ],
    [
      `INSERT INTO passwords (person_id, hash, set_at)
       SELECT person_id, hash, now() FROM passwords WHERE id = 1`,
      0,
      'is not one that was set here',
    ],
    [`UPDATE passwords SET hash = hash || 'x'`, 0, 'is not one that was set here'],
    [
      'DELETE FROM passwords WHERE id = (SELECT max(id) FROM passwords)',
      0,
      'password that was set',
    ],
    [
      `INSERT INTO sessions SELECT 'forged', sess, expire FROM sessions LIMIT 1`,
      0,
      'nobody began by signing in',
    ],
  ])('%s', async (sql, sequence, why) => {
    const found = await tamperWith(sql);
    expect(found.sequence).toEqual(sequence);
    expect(found.why).toContain(why);
  });

  test.each([
    [
      'ALTER TABLE facts DISABLE TRIGGER facts_append_only',
      'guards the table facts is gone or off',
    ],
    ['DROP TRIGGER people_append_only ON people', 'guards the table people is gone or off'],
    [
      `CREATE TRIGGER other BEFORE INSERT ON facts FOR EACH ROW EXECUTE FUNCTION refuse_change()`,
      'a trigger is there that was not made here: facts other',
    ],
    ['GRANT UPDATE ON facts TO vine_app', 'vine_app may UPDATE on the table facts'],
    ['GRANT INSERT ON audit TO PUBLIC', 'PUBLIC may INSERT on the table audit'],
    ['GRANT UPDATE (body) ON facts TO vine_app', 'vine_app may UPDATE on the table facts'],
    [
      `CREATE OR REPLACE FUNCTION refuse_change() RETURNS trigger LANGUAGE plpgsql AS
       $x$ BEGIN RETURN NULL; END $x$`,
      'the function refuse_change is not the one',
    ],
    [
      `CREATE OR REPLACE FUNCTION append_audit(entries text[]) RETURNS bigint LANGUAGE plpgsql
       SECURITY DEFINER AS $x$ BEGIN RETURN 0; END $x$`,
      'the function append_audit is not the one',
    ],
  ])('a guard of the database that is loose: %s', async (sql, why) => {
    const found = await tamperWith('SELECT 1', sql);
    expect(found).toMatchObject({ sequence: 0, why: expect.stringContaining(why) as string });
  });

  test('entries taken back at the end are missed by what was noted outside, and by nothing else', async () => {
    const { db } = laboratory.database;
    const folder = mkdtempSync(join(tmpdir(), 'vine-heads-'));
    const file = join(folder, 'heads.log');
    const notes = new HeadNotes(db, file, pino({ level: 'silent' }));
    await notes.note();
    await notes.note();
    // A line that a crash cut off.
    appendFileSync(file, '2026-03-02T08:00:00.000Z 12');
    const noted = await readHeadNotes(file);
    expect(noted).toEqual([await getAuditHead(db)]);
    expect((await verifyAudit(db, null, noted)).kind).toBe('whole');
    const last = noted[0]?.sequence ?? 0;
    // As its owner would, with the head set back to match.
    const takeBack = `
      DELETE FROM audit WHERE sequence = ${String(last)};
      UPDATE audit_head SET (sequence, hash) =
        (SELECT sequence, hash FROM audit ORDER BY sequence DESC LIMIT 1)`;
    const withoutNotes = tamperWith(takeBack);
    await expect(withoutNotes).rejects.toThrow('the break was not found');
    const found = await tamperWith(takeBack, undefined, noted);
    expect(found.why).toContain(`entry ${String(last)} was noted outside the database`);
    rmSync(folder, { recursive: true });
  });

  test('a log written again from the start does not have the hash that was noted', async () => {
    const { db } = laboratory.database;
    const { hash } = await getAuditHead(db);
    expect((await verifyAudit(db, hash)).kind).toBe('whole');
    expect(await verifyAudit(db, 'f'.repeat(64))).toMatchObject({
      kind: 'broken',
      why: expect.stringContaining('no entry has the hash') as string,
    });
  });
});

/** A reading as it was once taken and digested: in whatever spelling it was sent. */
async function storeAsOnceSent(changes: Partial<Fact>): Promise<void> {
  const { owner, db } = laboratory.database;
  const recordId = changes.recordId ?? (await startRun(client, ids));
  const fact: Fact = {
    ...proposeFact(weighed(1, '0.4802'), recordId, client.person.id),
    sequence: 2,
    recordedAt: new Date().toISOString(),
    ...changes,
  };
  await owner('facts').insert({
    id: fact.id,
    record_id: fact.recordId,
    sequence: fact.sequence,
    kind: fact.kind,
    schema_version: fact.schemaVersion,
    body: JSON.stringify(fact.body),
    author_id: fact.authorId,
    based_on: fact.basedOn,
    device_id: fact.deviceId,
    device_time: fact.deviceTime,
    clock_offset_ms: fact.clockOffsetMs,
    recorded_at: fact.recordedAt,
  });
  await owner('records').where({ id: fact.recordId }).update({ version: 2 });
  await db.raw('SELECT append_audit(?::text[])', [[auditEntryOfFact(fact, 1)]]);
}

test('what was once taken in a spelling that PostgreSQL does not keep is still the same fact', async () => {
  const { db } = laboratory.database;
  const runId = await startRun(client, ids);
  await storeAsOnceSent({ id: idOf(uuidv7().toUpperCase()) });
  await storeAsOnceSent({
    recordId: idOf(runId.toUpperCase()),
    deviceId: idOf(uuidv7().toUpperCase()),
  });
  await storeAsOnceSent({ deviceTime: '2026-01-01T24:00:00.000Z' });
  await storeAsOnceSent({ deviceTime: '2026-01-02T00:00:00.000Z' });
  expect(await verifyAudit(db)).toMatchObject({ kind: 'whole', otherSpellings: 3 });
});

test('an entry is verified by the version that it was written with', async () => {
  const texts = (await listAuditAfter(laboratory.database.db, 0, 1_000)).map(({ text }) => text);
  const versions = texts
    .map((text) => JSON.parse(text) as AuditEntry)
    .filter((entry) => entry.kind === 'fact')
    .map(digestVersionOf);
  // Those of the test before name none; all others the newest.
  expect(versions.filter((version) => version === 1)).toHaveLength(4);
  expect(versions.filter((version) => version === DIGEST_VERSION).length).toBeGreaterThan(19);
});

test('a fact that would not be kept just as it was sent is not kept at all', async () => {
  const { db } = laboratory.database;
  const services = { db, now: () => new Date() };
  const runId = await startRun(client, ids);
  const head = await getAuditHead(db);
  const odd = { deviceId: uuidv7().toUpperCase() };
  const proposed = proposeFact(weighed(1, '0.4802'), runId, client.person.id, odd);
  await expect(appendFact(services, client.person, proposed)).rejects.toMatchObject({
    status: 400,
  });
  expect(await getAuditHead(db)).toEqual(head);
  expect((await client.get(`/api/runs/${runId}`)).body).toMatchObject({ facts: [{ sequence: 1 }] });
});

test('a break is accepted as it was found, and no other at the same place', async () => {
  const { owner } = laboratory.database;
  const rollback = new Error('taken back');
  const accepting = owner.transaction(async (tx) => {
    const change = async (massG: string): Promise<void> => {
      await tx.raw('ALTER TABLE facts DISABLE TRIGGER USER');
      await tx.raw(
        `UPDATE facts SET body = jsonb_set(body, '{weighing,massG}', to_jsonb(?::text))
         WHERE kind = 'run.flask-weighed' AND body->>'flask' = '3'`,
        [massG],
      );
      await tx.raw('ALTER TABLE facts ENABLE TRIGGER USER');
    };
    await change('0.4999');
    const broken = await verifyAudit(tx);
    if (broken.kind !== 'broken') throw new Error('the break was not found');
    const { sequence, found } = broken;
    const at = new Date().toISOString();
    await appendAudit(tx, {
      ...{ kind: 'break-accepted', at, by: 'Oda', reason: 'the notebook says so' },
      ...{ sequence, found },
    });
    expect(await verifyAudit(tx)).toMatchObject({ kind: 'whole', acceptedBreaks: 1 });
    await change('0.5999');
    expect(await verifyAudit(tx)).toMatchObject({ kind: 'broken', sequence });
    throw rollback;
  });
  await expect(accepting).rejects.toBe(rollback);
});
