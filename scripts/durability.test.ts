import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import request from 'supertest';
import { afterAll, beforeAll, expect, test } from 'vitest';
import type { RunAnswer, SessionAnswer } from '../contract/index';
import { proposeFact, read } from '../server/test-support/laboratory';
import { prepareDatabase, runBuilt, startAppServer } from './lib/app.mjs';
import { freePort, startCluster } from './lib/cluster.mjs';
import { ROOT } from './lib/place.mjs';

type Cluster = Awaited<ReturnType<typeof startCluster>>;
type AppServer = Awaited<ReturnType<typeof startAppServer>>;

const folder = mkdtempSync(join(tmpdir(), 'vine-durability-'));
let cluster: Cluster;
let server: AppServer;
let base: string;

async function start(): Promise<void> {
  cluster = await startCluster(folder);
  const env = {
    DATABASE_URL: cluster.webUrl('postgres'),
    DATABASE_OWNER_URL: cluster.ownerUrl('postgres'),
  };
  const { hasPeople } = await prepareDatabase(ROOT, env);
  if (!hasPeople) await runBuilt(ROOT, 'Loading the demo', ['demo'], env);
  const port = String(await freePort());
  server = await startAppServer(ROOT, {
    ...env,
    PORT: port,
    HOST: '127.0.0.1',
    LOG_LEVEL: 'silent',
  });
  base = `http://127.0.0.1:${port}`;
}

/** Signs in as the analyst whose run is half done. */
async function signIn() {
  const agent = request.agent(base);
  const offer = (await agent.get('/api/session')).body as Extract<
    SessionAnswer,
    { kind: 'signed-out' }
  >;
  const personId = offer.demoPeople[1]?.id ?? '';
  const answer = await agent.post('/api/session/demo').send({ personId }).expect(201);
  return { agent, session: answer.body as Extract<SessionAnswer, { kind: 'signed-in' }> };
}

beforeAll(start);
afterAll(async () => {
  await server.stop();
  await cluster.stop();
  rmSync(folder, { recursive: true, force: true });
});

test('kill -9 of the app server and of PostgreSQL between two readings loses no acknowledged one', async () => {
  const before = await signIn();
  const runs = (await before.agent.get('/api/records/run')).body as {
    records: { id: string; status: string }[];
  };
  const runId = runs.records.find((run) => run.status === 'open')?.id ?? '';
  const initial = proposeFact(read(3, 'initial', '0.12'), runId, before.session.person.id);
  const token = before.session.csrfToken;
  await before.agent.post('/api/facts').set('x-csrf-token', token).send(initial).expect(201);

  process.kill(cluster.pid, 'SIGKILL');
  await cluster.ended;
  const away = await before.agent.post('/api/facts').set('x-csrf-token', token).send(initial);
  expect(away.status).toBe(503);
  expect(away.headers['content-type']).toMatch(/problem\+json/);
  process.kill(server.pid, 'SIGKILL');
  await server.ended;
  await sleep(100);
  await start();

  const after = await signIn();
  const { facts } = (await after.agent.get(`/api/runs/${runId}`).expect(200)).body as RunAnswer;
  const stored = facts.filter((fact) => fact.id === initial.id);
  expect(stored).toHaveLength(1);
  expect(stored[0]?.body).toMatchObject({ readingMl: '0.12' });
  expect(facts.map((fact) => fact.sequence)).toEqual(facts.map((_, i) => i + 1));
  const final = proposeFact(
    read(3, 'final', '23.80', 'read after the restart'),
    runId,
    after.session.person.id,
  );
  const { csrfToken } = after.session;
  await after.agent.post('/api/facts').set('x-csrf-token', csrfToken).send(final).expect(201);
});
