import { v7 as uuidv7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { findMethod } from '#core/chemistry';
import { addToDate } from '#core/grammar';
import { DEFAULT_HOUSE_RULES, UNWRITTEN_RULES } from '#core/laboratory';
import type { RunSummary } from '#core/ledger';
import type { StoredFile } from '#core/record';
import { currentSchemaVersion } from '#core/ledger';
import { ALL_WORK } from '#core/rights';
import { foldRun } from '#core/titration/record';
import { openConflicts } from '#core/titration/run';
import type { NewFact, Problem, RunAnswer } from '#contract';
import { newId } from '#contract';
import { verifyAudit } from '../audit/verify';
import { NO_SURROUNDINGS } from './around';
import { up } from '../database/migrations/007_rules';
import { findStrayFile } from '../files/queries';
import { addPerson } from '../people/accounts';
import { createTestDatabase } from '../test-support/database';
import type { Client, StockIds, TestLaboratory } from '../test-support/laboratory';
import {
  bottleBody,
  foundTestLaboratory,
  lotBody,
  proposeFact,
  read,
  runSetUp,
  startRun,
  stockLaboratory,
  titrateSeries,
  weighed,
} from '../test-support/laboratory';
import { makeServerFact, storeNext } from './append';
import { Batch } from './batch';
import { listStrayProjections, rebuildProjections } from './project';
import { findLaboratory, findProjection } from './queries';

let laboratory: TestLaboratory;
let client: Client;
let ids: StockIds;

beforeAll(async () => {
  laboratory = await foundTestLaboratory();
  client = await laboratory.signIn(laboratory.analyst);
  ids = await stockLaboratory(client, laboratory.today);
});
afterAll(() => laboratory.close());

async function factsOf(runId: string): Promise<RunAnswer['facts']> {
  const answer = await client.get(`/api/runs/${runId}`).expect(200);
  return (answer.body as RunAnswer).facts;
}

function problemOf(answer: { body: unknown; headers: Record<string, string> }): Problem {
  expect(answer.headers['content-type']).toMatch(/^application\/problem\+json/);
  return answer.body as Problem;
}

describe('appending', () => {
  test('facts are numbered without gaps and stamped by the server', async () => {
    const runId = await startRun(client, ids);
    await client.send(weighed(1, '0.4802'), runId).expect(201);
    const deviceTime = '2020-01-01T00:00:00.000Z';
    await client.send(read(1, 'initial', '0.10'), runId, { deviceTime }).expect(201);
    const facts = await factsOf(runId);
    expect(facts.map((fact) => fact.sequence)).toEqual([1, 2, 3]);
    expect(facts[2]?.deviceTime).toBe(deviceTime);
    expect(facts[2]?.recordedAt?.slice(0, 4)).not.toBe('2020');
    expect(facts[2]?.body).toMatchObject({ readingMl: '0.10' });
  });

  test('a fact sent twice is stored once; its id with other content is refused', async () => {
    const runId = await startRun(client, ids);
    const id = uuidv7();
    const deviceTime = new Date().toISOString();
    const first = await client.send(weighed(1, '0.4802'), runId, { id, deviceTime }).expect(201);
    const again = await client.send(weighed(1, '0.4802'), runId, { id, deviceTime }).expect(200);
    expect(again.body).toEqual(first.body);
    const other = await client.send(weighed(1, '0.4803'), runId, { id, deviceTime }).expect(409);
    expect(problemOf(other).code).toBe('fact-id-reused');
    const elsewhere = await startRun(client, ids);
    await client.send(weighed(1, '0.4802'), elsewhere, { id, deviceTime }).expect(409);
    expect(await factsOf(runId)).toHaveLength(2);
    expect(await factsOf(elsewhere)).toHaveLength(1);
  });

  test('many at once: each stored once, no gap, no duplicate', async () => {
    const runId = await startRun(client, ids);
    const sent = Array.from({ length: 12 }, (_, i) => {
      const fact = proposeFact(weighed(i + 1, '0.4802'), runId, client.person.id);
      return [client.post('/api/facts', fact), client.post('/api/facts', fact)];
    });
    const statuses = (await Promise.all(sent.flat())).map((answer) => answer.status).toSorted();
    expect(statuses).toEqual([...Array<number>(12).fill(200), ...Array<number>(12).fill(201)]);
    const sequences = (await factsOf(runId)).map((fact) => fact.sequence);
    expect(sequences).toEqual(Array.from({ length: 13 }, (_, i) => i + 1));
  });

  test('one that the database refuses takes down none of those that it shares a batch with', async () => {
    const runId = await startRun(client, ids);
    const batch = new Batch({ db: laboratory.database.db, now: () => new Date() });
    const append = (flask: number, basedOn: number | null) => {
      const changes = { basedOn };
      const fact = proposeFact(weighed(flask, '0.4802'), runId, client.person.id, changes);
      return batch.append(client.person, fact);
    };
    // More than the column holds; the contract would have stopped it.
    const settled = await Promise.allSettled(
      Array.from({ length: 40 }, (_, i) => append(i + 1, i === 7 ? 3_000_000_000 : null)),
    );
    expect(settled.filter(({ status }) => status === 'rejected')).toHaveLength(1);
    expect(settled[7]?.status).toBe('rejected');
    expect((await factsOf(runId)).map(({ sequence }) => sequence)).toEqual(
      Array.from({ length: 40 }, (_, i) => i + 1),
    );
  });

  test('what waited on a device through an upgrade is taken in the shape of today', async () => {
    const { rules, method, standard, excess: _excess, ...rest } = runSetUp(ids);
    const body = { ...rest, method, standard, rules };
    const older = { ...proposeFact(weighed(1, '0.48'), uuidv7(), client.person.id), body };
    const started = { ...older, kind: 'run.started', schemaVersion: 2 };
    const first = await client.post('/api/facts', started).expect(201);
    expect(first.body).toMatchObject({ schemaVersion: currentSchemaVersion('run.started') });
    expect((await client.post('/api/facts', started).expect(200)).body).toEqual(first.body);
    for (const hostile of [null, 'x', [], { rules: null }, { rules: 7, excess: {} }]) {
      for (const kind of ['run.started', 'lot.registered', '__proto__', 'constructor']) {
        const answer = await client.post('/api/facts', {
          ...{ ...started, id: uuidv7(), kind, schemaVersion: 1, body: hostile },
        });
        expect(answer.status).toBe(400);
      }
    }
    const newer = { ...started, id: uuidv7(), schemaVersion: 99 };
    const answer = await client.post('/api/facts', newer).expect(409);
    expect(problemOf(answer).code).toBe('other-version');
  });

  test('a decision on a stale version is refused, a reading never is', async () => {
    const runId = await startRun(client, ids);
    await client.send(weighed(1, '0.4802'), runId).expect(201);
    await client.send(weighed(2, '0.4795'), runId).expect(201);
    const voided = { kind: 'run.flask-voided', body: { flask: 1, reason: 'spilt' } } as const;
    const stale = await client.send(voided, runId, { basedOn: 2 }).expect(409);
    expect(problemOf(stale)).toMatchObject({ code: 'stale-version', status: 409 });
    await client.send(voided, runId, { basedOn: null }).expect(409);
    await client.send(read(2, 'initial', '0.10'), runId, { basedOn: 1 }).expect(201);
    await client.send(voided, runId, { basedOn: 4 }).expect(201);
  });
});

describe('an observation is never refused because somebody else was quicker', () => {
  const TABLET = uuidv7();
  const DESK = uuidv7();

  test('two readings of one place are kept as a conflict, which a decision settles', async () => {
    const runId = await startRun(client, ids);
    await client.send(weighed(1, '0.4802'), runId).expect(201);
    await client.send(read(1, 'initial', '0.10'), runId).expect(201);
    const seen = { basedOn: 3 };
    await client.send(read(1, 'final', '23.60'), runId, { ...seen, deviceId: TABLET }).expect(201);
    const other = await client
      .send(read(1, 'final', '23.65'), runId, { ...seen, deviceId: DESK })
      .expect(201);
    // The tablet knows its own reading: a second one from there is a correction.
    const again = { ...seen, deviceId: TABLET };
    expect(problemOf(await client.send(read(1, 'final', '23.70'), runId, again)).code).toBe(
      'impossible-entry',
    );
    const run = async () => {
      const { facts, references } = (await client.get(`/api/runs/${runId}`)).body as RunAnswer;
      const state = foldRun(facts, references);
      if (!state) throw new Error('the run is gone');
      return state;
    };
    expect(openConflicts(await run())).toEqual([{ flask: 1, place: { at: 'final' } }]);
    const keeps = (other.body as { id: string }).id;
    const settled = {
      kind: 'run.conflict-settled',
      body: { keeps, reason: 'read again by both' },
    } as const;
    await client.send(settled, runId, { basedOn: 4 }).expect(409);
    await client.send(settled, runId, { basedOn: 5 }).expect(201);
    expect((await run()).flasks[0]?.final?.value).toBe('23.65');
  });

  test('nor because the run was closed, or the flask voided, meanwhile', async () => {
    const runId = await startRun(client, ids);
    await client.send(weighed(1, '0.4802'), runId).expect(201);
    await client.send(read(1, 'initial', '0.10'), runId).expect(201);
    const gone = { kind: 'run.abandoned', body: { reason: 'the stopcock leaks' } } as const;
    await client.send(gone, runId, { basedOn: 3 }).expect(201);
    await client.send(read(1, 'final', '23.60'), runId, { basedOn: 3 }).expect(201);
    await client.send(read(1, 'final', '23.60'), runId, { basedOn: 4 }).expect(422);
    expect(await factsOf(runId)).toHaveLength(5);
  });
});

describe('refusing', () => {
  test.each([
    ['letters', { readingMl: 'abc' }, 400, 'body.readingMl'],
    ['an exponent', { readingMl: '1e2' }, 400, 'body.readingMl'],
    ['a number instead of text', { readingMl: 7.1 }, 400, 'body.readingMl'],
    ['a missing field', { moment: undefined }, 400, 'body.moment'],
    ['an unknown field', { extra: 1 }, 400, 'body.extra'],
    ['51 mL in a 50 mL burette', { readingMl: '51.00' }, 422, 'body.readingMl'],
    ['a negative reading', { readingMl: '-1.00' }, 422, 'body.readingMl'],
    ['an unknown flask', { flask: 9 }, 422, 'body.flask'],
  ])('%s', async (_, changes, status, field) => {
    const runId = await startRun(client, ids);
    await client.send(weighed(1, '0.4802'), runId).expect(201);
    const fact = proposeFact(read(1, 'initial', '0.10'), runId, client.person.id);
    const body = { ...fact.body, ...changes };
    const answer = await client.post('/api/facts', { ...fact, body });
    expect(answer.status).toBe(status);
    expect(problemOf(answer).fields.map((item) => item.field)).toContain(field);
    expect(await factsOf(runId)).toHaveLength(2);
  });

  test('an unlikely entry needs a reason and is kept with it', async () => {
    const runId = await startRun(client, ids);
    const answer = await client.send(weighed(1, '40.0000'), runId).expect(422);
    expect(problemOf(answer).code).toBe('reason-needed');
    await client.send(weighed(1, '40.0000', 'a test of the balance'), runId).expect(201);
  });

  test('what is too large, no JSON, or cannot be written down', async () => {
    const runId = await startRun(client, ids);
    const large = await client.send(weighed(1, '1'.repeat(200_000)), runId).expect(413);
    expect(problemOf(large).code).toBe('too-large');
    const broken = await client
      .post('/api/facts', undefined)
      .set('content-type', 'application/json')
      .send('{"id":');
    expect(problemOf(broken).code).toBe('invalid-request');
    const plain = await client.post('/api/facts', undefined).type('text/plain').send('0.48');
    expect(plain.status).toBe(415);
    for (const reason of ['nul \u0000 in it', 'half \ud800 of a pair']) {
      await client.send(weighed(1, '40.0000', reason), runId).expect(400);
    }
  });

  test('unknown records, other kinds and somebody else’s name', async () => {
    const nowhere = await client.send(weighed(1, '0.4802'), uuidv7()).expect(404);
    expect(problemOf(nowhere).code).toBe('not-found');
    await client.get(`/api/runs/${uuidv7()}`).expect(404);
    await client.get('/api/runs/not-an-id').expect(404);
    for (const none of ['secrets', 'constructor', 'toString']) {
      await client.get(`/api/records/${none}`).expect(404);
    }
    const onBottle = await client.send(weighed(1, '0.4802'), ids.bottle).expect(422);
    expect(problemOf(onBottle).code).toBe('unknown-reference');
    const runId = await startRun(client, ids);
    const forged = { authorId: laboratory.chief.id };
    const answer = await client.send(weighed(1, '0.4802'), runId, forged).expect(403);
    expect(problemOf(answer).code).toBe('wrong-author');
  });

  test('a lot whose molar mass is that of another form, and glassware that is all tolerance', async () => {
    const lot = {
      ...lotBody(laboratory.today),
      substanceId: 'oxalic-acid-anhydrous',
      lotNumber: 'O-1',
    };
    const stated = (valueGPerMol: string) => ({
      kind: 'lot.registered' as const,
      body: { ...lot, statedMolarMass: { valueGPerMol, standardUncertaintyGPerMol: '0.003' } },
    });
    const confused = await client.send(stated('126.06'), uuidv7()).expect(422);
    expect(problemOf(confused).fields[0]).toMatchObject({ field: 'body.substanceId' });
    expect(problemOf(confused).fields[0]?.message).toContain('of oxalic acid dihydrate');
    await client.send(stated('90.03'), uuidv7()).expect(201);
    const flask = (toleranceMl: string) => ({
      kind: 'equipment.registered' as const,
      body: {
        type: 'glassware',
        kind: 'volumetric-flask',
        name: 'F1',
        volumeMl: '100',
        toleranceMl,
        toleranceDistribution: 'triangular',
        calibrationDue: null,
      } as const,
    });
    await client.send(flask('90'), uuidv7()).expect(422);
    await client.send(flask('0.1'), uuidv7()).expect(201);
  });

  test('a bottle of a taken code, of a wrong lot, or from the future', async () => {
    const { today } = laboratory;
    const prepared = (changes: object) => ({
      kind: 'bottle.prepared' as const,
      body: { ...bottleBody('0099', ids.naoh, client, today), ...changes },
    });
    const taken = await client.send(prepared({ code: '0001' }), uuidv7()).expect(409);
    expect(problemOf(taken).fields[0]?.field).toBe('body.code');
    await client.send(prepared({ parents: [{ kind: 'lot', id: ids.khp }] }), uuidv7()).expect(422);
    await client.send(prepared({ parents: [{ kind: 'lot', id: uuidv7() }] }), uuidv7()).expect(422);
    await client.send(prepared({ preparedOn: '2999-01-01' }), uuidv7()).expect(422);
    await client.send(prepared({ preparedOn: '2026-02-30' }), uuidv7()).expect(400);
    await client.send(prepared({ nominalMolarity: '0' }), uuidv7()).expect(400);
    await client.send(prepared({}), ids.bottle).expect(422);
  });
});

describe('the database', () => {
  test('the application cannot change or delete a fact, and its owner is stopped too', async () => {
    const { db, owner } = laboratory.database;
    for (const statement of [
      `UPDATE facts SET body = '{}'`,
      'DELETE FROM facts',
      'TRUNCATE facts CASCADE',
      'DROP TABLE facts',
      'ALTER TABLE facts DISABLE TRIGGER ALL',
    ]) {
      await expect(db.raw(statement)).rejects.toThrow(/permission denied|must be owner/);
    }
    await expect(owner.raw('DELETE FROM facts')).rejects.toThrow(/appended, never changed/);
  });

  test('projections remade from the facts equal the live ones', async () => {
    const runId = await startRun(client, ids);
    await titrateSeries(client, runId);
    const { db } = laboratory.database;
    const snapshot = () => db('projections').orderBy('record_id').select();
    const live: unknown = await snapshot();
    await db('projections').where({ record_id: runId }).delete();
    expect(await rebuildProjections(db)).toBeGreaterThan(5);
    expect(await snapshot()).toEqual(live);
  });

  test('the browser folds to what the server has in its list', async () => {
    const runId = await startRun(client, ids);
    await titrateSeries(client, runId);
    const { facts, references } = (await client.get(`/api/runs/${runId}`)).body as RunAnswer;
    const list = (await client.get('/api/records/run')).body as {
      records: RunSummary[];
    };
    const summary = list.records.find((run) => run.id === runId);
    expect(foldRun(facts, references)?.version).toBe(summary?.version);
    // Three rinses of 4 mL and four fillings.
    expect(summary?.taken.find(({ id }) => id === ids.bottle)?.amount).toBeCloseTo(
      12 + 4 * 50 - 0.25,
      9,
    );
  });

  test('a fact of an older program keeps its text and is read in the shape of today', async () => {
    const { db } = laboratory.database;
    const recordId = uuidv7();
    const preparedBy = laboratory.chief.id;
    const old = { code: 'OLD', lotId: ids.naoh, substanceId: 'sodium-hydroxide' };
    const asMade = { nominalMolarity: '0.1', volumeMl: '1000', preparedOn: '2026-03-02' };
    const body = { ...old, ...asMade, preparedBy };
    await db('records').insert({ id: recordId, kind: 'bottle', version: 1 });
    const now = new Date().toISOString();
    await db('facts').insert({
      id: uuidv7(),
      record_id: recordId,
      sequence: 1,
      kind: 'bottle.prepared',
      schema_version: 1,
      body,
      author_id: laboratory.chief.id,
      device_time: now,
      recorded_at: now,
    });
    await rebuildProjections(db);
    expect(await findProjection(db, 'bottle', recordId)).toMatchObject({
      code: 'OLD',
      purpose: 'titrant',
      parents: [{ kind: 'lot', id: ids.naoh }],
      withdrawn: null,
    });
    expect(await db('facts').where({ record_id: recordId }).first('body')).toEqual({ body });
  });
});

test('what a record rests on is kept as an edge with the fact that says so', async () => {
  const { db } = laboratory.database;
  const runId = await startRun(client, ids);
  const parents = async (child: string) =>
    ((await db('edges').where({ child })) as { parent: string; version: number | null }[])
      .map(({ parent, version }) => [parent, version] as const)
      .toSorted();
  const at = (id: string, version: number | null) => [id, version] as const;
  const setUp = [at(ids.bottle, 1), at(ids.khp, 1), at(ids.balance, 1), at(ids.burette, 1)];
  expect(await parents(runId)).toEqual(setUp.toSorted());
  expect(await parents(ids.bottle)).toEqual(
    [at(ids.naoh, null), at(client.person.id, null)].toSorted(),
  );
  // Who abandons a pause to somebody that never was, and who refers to a version that never was, gets an answer and leaves no edge.
  const nowhere = { toId: uuidv7(), remark: '' };
  const pause = client.send({ kind: 'run.paused', body: nowhere }, runId, { basedOn: 1 });
  expect(problemOf(await pause.expect(422)).code).toBe('unknown-reference');
  expect(await parents(runId)).toHaveLength(4);
});

test('two devices that put one lot into the oven without knowing of each other are both taken, and it lies there once', async () => {
  const put = (temperatureC: string, basedOn: number) =>
    client.send({ kind: 'lot.put-to-dry', body: { temperatureC } }, ids.khp, { basedOn });
  const { version = 0 } = (await findProjection(laboratory.database.db, 'lot', ids.khp)) ?? {};
  await put('115', version).expect(201);
  await put('120', version).expect(201);
  await put('125', version + 2).expect(422);
  const lot = await findProjection(laboratory.database.db, 'lot', ids.khp);
  expect(lot?.drying).toMatchObject([{ temperatureC: '115', takenOut: null }]);
  await client.send({ kind: 'lot.taken-out', body: {} }, ids.khp).expect(201);
});

test('a photograph is kept with its flask; what is no picture, or comes too late, is refused', async () => {
  const PNG = Buffer.from(
    'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
    'base64',
  );
  const runId = await startRun(client, ids);
  await client.send(weighed(1, '0.4802'), runId).expect(201);
  const attach = (flask: string, type: string, content: Buffer) =>
    client.agent
      .post(`/api/runs/${runId}/flasks/${flask}/photographs`)
      .query({ name: 'shade.png' })
      .set('x-csrf-token', client.headers['x-csrf-token'])
      .set('content-type', type)
      .send(content);
  const answer = await attach('1', 'image/png', PNG).expect(201);
  const { fileId } = answer.body as StoredFile;
  const { facts, references } = (await client.get(`/api/runs/${runId}`)).body as RunAnswer;
  expect(foldRun(facts, references)?.flasks[0]?.photographs).toMatchObject([{ fileId }]);
  expect((await client.get(`/api/files/${fileId}`).expect(200)).headers['content-type']).toBe(
    'image/png',
  );
  await attach('2', 'image/png', PNG).expect(422);
  await attach('one', 'image/png', PNG).expect(404);
  await attach('1', 'image/png', Buffer.from('%PDF-1.7\n%%EOF\n')).expect(415);
  await attach('1', 'application/pdf', PNG).expect(415);
  const abandoned = { kind: 'run.abandoned', body: { reason: 'out of titrant' } } as const;
  await client.send(abandoned, runId, { basedOn: 3 }).expect(201);
  const late = await attach('1', 'image/png', PNG).expect(422);
  expect((late.body as Problem).title).toBe(
    'This run is abandoned; its figures are frozen and nothing can be added.',
  );
  expect(await findStrayFile(laboratory.database.db)).toBeNull();
});

test('house rules and methods are set by who may manage, as far as they make sense', async () => {
  const laboratoryId = (
    (await client.get('/api/records/laboratory')).body as { records: { id: string }[] }
  ).records[0]?.id;
  const chief = await laboratory.signIn(laboratory.chief);
  const rules = { ...DEFAULT_HOUSE_RULES, agreeAtLeast: 2 };
  const set = (by: Client, changes: object, basedOn: number) =>
    by.send(
      {
        kind: 'laboratory.rules-set',
        body: { rules: { ...rules, ...changes }, reason: 'as we do it' },
      },
      laboratoryId ?? '',
      { basedOn },
    );
  await set(client, {}, 2).expect(403);
  const elsewhere = {
    kind: 'laboratory.rules-set',
    body: { rules, reason: 'as we do it' },
  } as const;
  await chief.send(elsewhere, uuidv7(), { basedOn: 0 }).expect(404);
  await set(chief, { titrationsAtMost: 1 }, 2).expect(422);
  await set(chief, { farFromNominalReasonPercent: '1000' }, 2).expect(422);
  await set(chief, { rinses: -1 }, 2).expect(400);
  await set(chief, {}, 2).expect(201);
  await set(chief, {}, 2).expect(409);
  const method = findMethod('naoh-by-khp');
  if (!method) throw new Error('the catalogue lacks the method');
  const write = (by: Client, changes: object, id = uuidv7()) =>
    by.send(
      {
        kind: 'method.written',
        body: { method: { ...method, ...changes }, reason: 'our school' },
      } as unknown as NewFact,
      id,
      { basedOn: 0 },
    );
  await write(client, {}).expect(403);
  await write(chief, { equations: ['H^+ -> H2O'] }).expect(422);
  await write(chief, { rules: { agreeAtLeast: 1 } }).expect(400);
  const id = uuidv7();
  await write(chief, { name: 'our way', rules: { persistenceS: 45 } }, id).expect(201);
  const setUp = {
    ...runSetUp(ids),
    method: { kind: 'own', id, version: 1 } as const,
    rules: { ...rules, persistenceS: 45 },
  };
  const runId = uuidv7();
  await client.send({ kind: 'run.started', body: setUp }, runId).expect(201);
  const { references } = (await client.get(`/api/runs/${runId}`)).body as RunAnswer;
  expect(references.method).toMatchObject({ name: 'our way', rules: { persistenceS: 45 } });
  const withdrawn = { kind: 'method.withdrawn', body: { reason: 'given up' } } as const;
  await client.send(withdrawn, id, { basedOn: 1 }).expect(403);
  await chief.send(withdrawn, id, { basedOn: 1 }).expect(201);
  await client.send({ kind: 'run.started', body: setUp }, uuidv7()).expect(422);
});

test('house rules bind: other ones take a right, lie within bounds, and are told', async () => {
  const lab = await foundTestLaboratory();
  const chief = await lab.signIn(lab.chief);
  const analyst = await lab.signIn(lab.analyst);
  const stocked = await stockLaboratory(analyst, lab.today);
  const begin = (by: Client, rules: object, changes: object = {}, runId = uuidv7()) => {
    const body = { ...runSetUp(stocked), rules: { ...DEFAULT_HOUSE_RULES, ...rules } };
    return by.send({ kind: 'run.started', body }, runId, changes);
  };
  const lax = { agreeAtLeast: 2, farFromNominalAskPercent: '8' };
  const refused = await begin(analyst, lax).expect(403);
  expect(problemOf(refused).title).toContain('2 titrations (house rule: 3 titrations)');
  // The same figure in another spelling is the same rule.
  await begin(analyst, { farFromNominalAskPercent: '5.0' }).expect(201);
  await begin(chief, { agreeAtLeast: 1 }).expect(400);
  await begin(chief, { farFromNominalReasonPercent: '1000' }).expect(422);
  for (const methodRepeatabilityPercent of ['0.000000000001', '1000000000000']) {
    const body = { ...runSetUp(stocked), methodRepeatabilityPercent };
    await chief.send({ kind: 'run.started', body }, uuidv7()).expect(400);
  }
  const runId = uuidv7();
  await begin(chief, lax, {}, runId).expect(201);
  const { references } = (await analyst.get(`/api/runs/${runId}`)).body as RunAnswer;
  expect(references.rulesInForce).toEqual(DEFAULT_HOUSE_RULES);

  const laboratoryId = (
    (await chief.get('/api/records/laboratory')).body as { records: { id: string }[] }
  ).records[0]?.id;
  const before = new Date().toISOString();
  const set = {
    kind: 'laboratory.rules-set',
    body: { rules: { ...DEFAULT_HOUSE_RULES, rinses: 5 }, reason: 'as we do it' },
  } as const;
  await chief.send(set, laboratoryId ?? '', { basedOn: 2 }).expect(201);
  await begin(analyst, {}).expect(403);
  await begin(analyst, { rinses: 5 }).expect(201);
  // A device that was away began by what was in force then; its clock is set right before it is believed.
  await begin(analyst, {}, { deviceTime: before, clockOffsetMs: 0 }).expect(201);
  await begin(analyst, {}, { deviceTime: before, clockOffsetMs: 120_000 }).expect(403);
  // An instrument that was calibrated again is chosen again.
  const calibrated = {
    kind: 'equipment.calibrated',
    body: {
      ...{ calibratedOn: lab.today, due: null, certificate: 'K-7' },
      found: {
        kind: 'points',
        points: [{ nominal: '25', deviation: '0.01', expandedUncertainty: '0.01' }],
      },
    },
  } as const;
  await analyst.send(calibrated, stocked.burette, { basedOn: 1 }).expect(201);
  const stale = problemOf(await begin(analyst, { rinses: 5 }).expect(422));
  expect(stale.fields).toContainEqual({
    field: 'body.burette',
    message: 'This burette has been changed since: choose it again.',
  });
  // A device that was away when it was calibrated could not know.
  await begin(analyst, {}, { deviceTime: before, clockOffsetMs: 0 }).expect(201);
  await lab.close();
});

test.each([
  ['received in a year to come', 'receivedOn', '2099-01-01'],
  ['received in another century', 'receivedOn', '1926-01-01'],
  ['opened tomorrow', 'openedOn', 'tomorrow'],
  ['good for ever', 'useBy', '2999-01-01'],
])('a lot %s is mistyped', async (_, field, typed) => {
  const date = typed === 'tomorrow' ? addToDate(laboratory.today, { days: 1 }) : typed;
  const lot = {
    ...lotBody(laboratory.today),
    substanceId: 'sodium-chloride',
    lotNumber: 'X-1',
    useBy: null,
  };
  const registered = { kind: 'lot.registered', body: { ...lot, [field]: date } } as const;
  const answer = problemOf(await client.send(registered, uuidv7()).expect(422));
  expect(answer.fields.map((item) => item.field)).toContain(`body.${field}`);
});

test.each([Number.NaN, 'NaN', '-Infinity', Number.POSITIVE_INFINITY])(
  'what the server makes itself holds no %s either',
  (volumeMl) => {
    const services = { db: laboratory.database.db, now: () => new Date() };
    const record = { recordId: newId(), recordKind: 'bottle', kind: 'bottle.prepared' } as const;
    const make = (body: object) => makeServerFact(services, client.person.id, { ...record, body });
    expect(() => make({ volumeMl, parts: [] })).toThrow(RangeError);
    expect(() => make({ parts: [{ deep: volumeMl }] })).toThrow(RangeError);
    expect(make({ volumeMl: '250', note: 'NaN is no figure' })).toMatchObject({ sequence: null });
  },
);

test('a laboratory that never set any rules gets those it worked by as a fact, once', async () => {
  const database = await createTestDatabase();
  const { owner, db } = database;
  const services = { db, now: () => new Date() };
  const account = { name: 'Oda', password: 'a long secret', roles: ALL_WORK, auditsUntil: null };
  const { id: authorId } = await addPerson(services, null, account);
  const made = makeServerFact(services, authorId, {
    ...{ recordId: newId(), recordKind: 'laboratory', kind: 'laboratory.founded' },
    body: { name: 'Of before', timeZone: 'Europe/Vienna' },
  });
  const before = { id: made.recordId, kind: 'laboratory', facts: [], references: null } as const;
  const opened = { records: new Map([[made.recordId, before]]), surroundings: NO_SURROUNDINGS };
  await storeNext(services, { id: authorId, roles: [] }, [made], opened);
  await up(owner);
  await up(owner);
  // As every start does where the shape has changed since.
  await rebuildProjections(owner);
  expect(await findLaboratory(db)).toMatchObject({ version: 2, rules: UNWRITTEN_RULES });
  expect(await verifyAudit(db)).toMatchObject({ kind: 'whole', entries: 5 });
  expect(await listStrayProjections(db)).toEqual([]);
  await database.drop();
});
