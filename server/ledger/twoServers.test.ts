import request from 'supertest';
import { v7 as uuidv7 } from 'uuid';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { foldRun } from '#core/titration/record';
import { openConflicts } from '#core/titration/run';
import type { RunAnswer, SessionAnswer } from '#contract';
import { connectAsApplication, sessionPool } from '../database/connection';
import { migrate } from '../database/migrate';
import type { Client, StockIds, TestLaboratory } from '../test-support/laboratory';
import {
  foundTestLaboratory,
  proposeFact,
  read,
  runSetUp,
  sessionCookieOf,
  startRun,
  startTestApp,
  stockLaboratory,
  weighed,
} from '../test-support/laboratory';

let laboratory: TestLaboratory;
let client: Client;
let ids: StockIds;
beforeAll(async () => {
  laboratory = await foundTestLaboratory();
  client = await laboratory.signIn(laboratory.analyst);
  ids = await stockLaboratory(client, laboratory.today);
});
afterAll(() => laboratory.close());

test('a second app process on the same database knows the session and every fact', async () => {
  const db = connectAsApplication(laboratory.database.url);
  const pool = sessionPool(laboratory.database.url);
  const app = await startTestApp({ db, pool, url: laboratory.database.url });
  const second = app.server;
  const signIn = await request(second)
    .post('/api/session')
    .send({ name: laboratory.analyst.name, password: 'a long enough secret' })
    .expect(201);
  const session = signIn.body as Extract<SessionAnswer, { kind: 'signed-in' }>;
  const cookie = sessionCookieOf(signIn);

  const runId = await startRun(client, ids);
  const send = (fact: Parameters<typeof proposeFact>[0], changes = {}) =>
    request(second)
      .post('/api/facts')
      .set('cookie', cookie)
      .set('x-csrf-token', session.csrfToken)
      .send(proposeFact(fact, runId, laboratory.analyst.id, changes));
  await send(weighed(1, '0.4802')).expect(201);
  await client.send(read(1, 'initial', '0.10'), runId).expect(201);
  await send(read(1, 'final', '23.60')).expect(201);
  const { facts } = (await client.get(`/api/runs/${runId}`)).body as RunAnswer;
  expect(facts.map((fact) => fact.sequence)).toEqual([1, 2, 3, 4]);

  // Both at once, through both processes, on one record, neither having seen the other's: all are kept.
  const pairs = Array.from({ length: 6 }, (_, i) => i + 2);
  const seen = { basedOn: 4 };
  const answers = await Promise.all([
    ...pairs.map((flask) => send(weighed(flask, '0.4800'), seen)),
    ...pairs.map((flask) => client.send(weighed(flask, '0.4810'), runId, seen)),
  ]);
  expect(answers.map((answer) => answer.status)).toEqual(Array<number>(12).fill(201));
  const after = (await client.get(`/api/runs/${runId}`)).body as RunAnswer;
  expect(after.facts.map((fact) => fact.sequence)).toEqual(after.facts.map((_, i) => i + 1));
  const run = foldRun(after.facts, after.references);
  expect(run && openConflicts(run)).toEqual(
    pairs.map((flask) => ({ flask, place: { at: 'portion' } })),
  );
  await app.close();
  await Promise.all([db.destroy(), pool.end()]);
});

test('migrating again changes nothing', async () => {
  const { owner, db } = laboratory.database;
  const countFacts = async (): Promise<unknown> => db('facts').count();
  const before = await countFacts();
  await migrate(owner);
  expect(await countFacts()).toEqual(before);
});

test('a run names the versions it rests on: another version, or another kind, is refused', async () => {
  const at = (id: string, version = 1) => ({ id, version });
  const run = (changes: object) =>
    client.send({ kind: 'run.started', body: { ...runSetUp(ids), ...changes } }, uuidv7());
  await run({}).expect(201);
  for (const changes of [
    { method: { kind: 'catalogue', id: 'by-magic' } },
    { method: { kind: 'own', ...at(ids.khp) } },
    { standard: { kind: 'lot', lot: at(ids.khp, 2), balance: at(ids.balance) } },
    { standard: { kind: 'lot', lot: at(uuidv7()), balance: at(ids.balance) } },
    { standard: { kind: 'lot', lot: at(ids.bottle), balance: at(ids.balance) } },
    { standard: { kind: 'lot', lot: at(ids.naoh), balance: at(ids.balance) } },
    { standard: { kind: 'lot', lot: at(ids.khp), balance: at(ids.burette) } },
    { standard: { kind: 'bottle', bottle: at(ids.bottle), vessel: at(ids.burette) } },
    { standard: { kind: 'bottle', bottle: at(ids.bottle), vessel: at(ids.balance) } },
    { burette: at(ids.balance) },
    { excess: { bottle: at(ids.bottle), vessel: at(ids.burette) } },
    { excess: { bottle: at(uuidv7()), vessel: at(ids.burette) } },
    { method: { kind: 'catalogue', id: 'ammonia-by-excess-of-acid' } },
  ]) {
    await run(changes).expect(422);
  }
  await run({ temperatureC: '90' }).expect(400);
  await run({ bottle: at(ids.bottle, 0) }).expect(400);
});
