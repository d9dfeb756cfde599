import { once } from 'node:events';
import { request as httpRequest } from 'node:http';
import type { IncomingMessage } from 'node:http';
import { setTimeout as sleep } from 'node:timers/promises';
import { afterAll, afterEach, beforeAll, expect, test } from 'vitest';
import type { LiveEvent, SessionAnswer } from '#contract';
import { getAuditHead } from '../audit/queries';
import type { Client, StockIds, TestApp, TestLaboratory } from '../test-support/laboratory';
import {
  foundTestLaboratory,
  read,
  startRun,
  startTestApp,
  stockLaboratory,
  weighed,
} from '../test-support/laboratory';

let laboratory: TestLaboratory;
let second: TestApp;
let client: Client;
let ids: StockIds;
const open: { destroy: () => void }[] = [];

beforeAll(async () => {
  laboratory = await foundTestLaboratory();
  second = await startTestApp(laboratory.database);
  client = await laboratory.signIn(laboratory.analyst);
  ids = await stockLaboratory(client, laboratory.today);
});
afterEach(() => {
  for (const stream of open.splice(0)) stream.destroy();
});
afterAll(async () => {
  await second.close();
  await laboratory.close();
});

interface Received {
  readonly id: number;
  readonly event: LiveEvent;
}

/** A browser that listens; what it has received so far, and how to wait for more. */
async function listen(base: string, after: number, lastEventId?: number) {
  const headers = {
    cookie: client.headers.cookie,
    ...(lastEventId === undefined ? {} : { 'last-event-id': String(lastEventId) }),
  };
  const asking = httpRequest(`${base}/api/events?after=${String(after)}`, {
    headers,
    agent: false,
  });
  asking.end();
  const [answer] = (await once(asking, 'response')) as [IncomingMessage];
  open.push(answer);
  const received: Received[] = [];
  let lastId = after;
  let text = '';
  answer.setEncoding('utf8');
  answer.on('error', () => undefined);
  answer.on('data', (chunk: string) => {
    text += chunk;
    const blocks = text.split('\n\n');
    text = blocks.pop() ?? '';
    for (const block of blocks) {
      const id = /^id: (\d+)$/m.exec(block)?.[1];
      const data = /^data: (.*)$/m.exec(block)?.[1];
      if (id !== undefined) lastId = Number(id);
      if (data !== undefined) received.push({ id: lastId, event: JSON.parse(data) as LiveEvent });
    }
  });
  return {
    answer,
    received,
    lastId: () => lastId,
    until: async (count: number): Promise<readonly Received[]> => {
      for (let turn = 0; received.length < count && turn < 3_000; turn += 1) await sleep(10);
      return received;
    },
  };
}

async function headNow(): Promise<number> {
  return (await getAuditHead(laboratory.database.db)).sequence;
}

test('a change reaches the browsers of both app processes, in order, with the version it made', async () => {
  const runId = await startRun(client, ids);
  const after = await headNow();
  const browsers = await Promise.all([
    listen(laboratory.url, after),
    listen(second.url, after),
    listen(second.url, after),
  ]);
  for (const flask of [1, 2, 3]) await client.send(weighed(flask, '0.4800'), runId).expect(201);
  for (const browser of browsers) {
    expect((await browser.until(3)).map(({ event }) => event)).toEqual(
      [2, 3, 4].map((version) => ({ kind: 'fact', recordKind: 'run', recordId: runId, version })),
    );
    expect(browser.received.map(({ id }) => id)).toEqual([after + 1, after + 2, after + 3]);
  }
});

test('who comes back hears what was missed, once; a stale page hears that it must read again', async () => {
  const runId = await startRun(client, ids);
  const first = await listen(laboratory.url, await headNow());
  await client.send(weighed(1, '0.4800'), runId).expect(201);
  await first.until(1);
  first.answer.destroy();
  await client.send(weighed(2, '0.4800'), runId).expect(201);
  await client.send(read(1, 'initial', '0.10'), runId).expect(201);
  // The browser says where it was by the header; the address still has the old number.
  const again = await listen(second.url, 0, first.lastId());
  await client.send(weighed(3, '0.4800'), runId).expect(201);
  expect((await again.until(3)).map(({ event }) => 'version' in event && event.version)).toEqual([
    3, 4, 5,
  ]);

  const { db } = laboratory.database;
  const by = laboratory.chief.id;
  const text = JSON.stringify({ at: '2026-03-02T08:00:00.000Z', by, kind: 'printed', path: '/' });
  const before = await headNow();
  await db.raw(`SELECT append_audit(array_fill(?::text, ARRAY[2100]))`, [text]);
  const stale = await listen(laboratory.url, before);
  expect(await stale.until(1)).toEqual([
    { id: expect.any(Number) as number, event: { kind: 'gap' } },
  ]);
});

test('a lost database connection is made again and nothing is missed', async () => {
  const runId = await startRun(client, ids);
  const browser = await listen(second.url, await headNow());
  await laboratory.database.owner.raw(
    `SELECT pg_terminate_backend(pid) FROM pg_stat_activity
     WHERE application_name = 'vine-measure live' AND datname = current_database()`,
  );
  await client.send(weighed(1, '0.4800'), runId).expect(201);
  expect((await browser.until(1)).map(({ event }) => event.kind)).toEqual(['fact']);
});

test('a new person is told; sign-ins move the number on without a word', async () => {
  const after = await headNow();
  const browser = await listen(laboratory.url, after);
  const chief = await laboratory.signIn(laboratory.chief);
  const person = { name: 'Nils Ahm', password: 'long enough too', roles: [], auditsUntil: null };
  await chief.post('/api/people', person).expect(201);
  expect(await browser.until(1)).toMatchObject([
    { id: after + 3, event: { kind: 'fact', recordKind: 'person', version: 1 } },
  ]);
});

test('a reader that does not read is dropped, not buffered for', async () => {
  const slow = await listen(second.url, await headNow());
  slow.answer.pause();
  const listenersBefore = second.feed.listeners;
  const { db } = laboratory.database;
  const entry = {
    kind: 'fact',
    at: '2026-03-02T08:00:00.000Z',
    by: laboratory.chief.id,
    factId: laboratory.chief.id,
    factKind: 'run.abandoned',
    recordId: laboratory.chief.id,
    // Only the length matters here.
    recordKind: 'x'.repeat(10_000),
    version: 1,
    digest: '',
  };
  for (let turn = 0; turn < 400 && second.feed.listeners === listenersBefore; turn += 1) {
    await db.raw(`SELECT append_audit(array_fill(?::text, ARRAY[200]))`, [JSON.stringify(entry)]);
    await sleep(5);
  }
  expect(second.feed.listeners).toBe(listenersBefore - 1);
  expect(process.memoryUsage().heapUsed).toBeLessThan(1e9);
});

test('nobody listens without a session, and the stream goes on from what the session answer says', async () => {
  await laboratory.visitor().get('/api/events').expect(401);
  const session = (await client.get('/api/session')).body as SessionAnswer;
  expect(session).toMatchObject({ kind: 'signed-in', liveAfter: await headNow() });
});

test('who leaves before the stream begins leaves nothing behind', async () => {
  const before = second.feed.listeners;
  for (let turn = 0; turn < 30; turn += 1) {
    const asking = httpRequest(`${second.url}/api/events?after=0`, {
      headers: { cookie: client.headers.cookie },
      agent: false,
    });
    asking.on('error', () => undefined);
    asking.end();
    await sleep(turn / 5);
    asking.destroy();
  }
  for (let turn = 0; second.feed.listeners > before && turn < 3_000; turn += 1) await sleep(10);
  expect(second.feed.listeners).toBe(before);
});

test('stopping a server ends its streams', async () => {
  const third = await startTestApp(laboratory.database);
  const browser = await listen(third.url, await headNow());
  const ended = once(browser.answer, 'end');
  browser.answer.resume();
  await third.close();
  await ended;
});
