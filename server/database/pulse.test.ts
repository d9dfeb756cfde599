import type { AddressInfo, Server, Socket } from 'node:net';
import { connect, createServer } from 'node:net';
import { once } from 'node:events';
import { pino } from 'pino';
import request from 'supertest';
import { afterAll, beforeAll, expect, test } from 'vitest';
import type { Problem, RunAnswer } from '#contract';
import { verifyAudit } from '../audit/verify';
import type { Client, StockIds, TestApp, TestLaboratory } from '../test-support/laboratory';
import {
  foundTestLaboratory,
  proposeFact,
  startRun,
  startTestApp,
  stockLaboratory,
  weighed,
} from '../test-support/laboratory';
import { connectAsApplication, OpenConnections, sessionPool } from './connection';
import { Pulse } from './pulse';

/** A way to the database that can be frozen: nothing comes back, and nothing is refused. */
class FreezableWay {
  readonly #server: Server;
  readonly #sockets = new Set<Socket>();
  isFrozen = false;

  constructor(port: number, host: string) {
    this.#server = createServer((client) => {
      const database = connect(port, host);
      for (const socket of [client, database]) {
        this.#sockets.add(socket);
        socket.on('error', () => undefined);
        socket.on('close', () => {
          this.#sockets.delete(socket);
          client.destroy();
          database.destroy();
        });
      }
      client.on('data', (chunk) => database.write(chunk));
      // What is asked arrives; the answer stays away while it is frozen.
      database.on('data', (chunk) => {
        if (!this.isFrozen) client.write(chunk);
      });
    }).listen(0, '127.0.0.1');
  }

  async port(): Promise<number> {
    if (!this.#server.listening) await once(this.#server, 'listening');
    return (this.#server.address() as AddressInfo).port;
  }

  close(): void {
    this.#server.close();
    for (const socket of this.#sockets) socket.destroy();
  }
}

let laboratory: TestLaboratory;
let client: Client;
let ids: StockIds;
let way: FreezableWay;
let pulse: Pulse;
let app: TestApp;
let close: () => Promise<unknown>;

beforeAll(async () => {
  laboratory = await foundTestLaboratory();
  client = await laboratory.signIn(laboratory.analyst);
  ids = await stockLaboratory(client, laboratory.today);
  const url = new URL(laboratory.database.url);
  way = new FreezableWay(Number(url.port), url.hostname);
  url.port = String(await way.port());
  const connections = new OpenConnections();
  const db = connectAsApplication(url.href, connections);
  const pool = sessionPool(url.href, connections);
  pulse = new Pulse(url.href, connections, pino({ level: 'silent' }));
  pulse.start();
  app = await startTestApp({ db, url: laboratory.database.url, pool }, { pulse });
  close = async () => {
    await pulse.stop();
    await app.close();
    await Promise.all([db.destroy(), pool.end()]);
    way.close();
  };
});
afterAll(async () => {
  await close();
  await laboratory.close();
});

function post(fact: object) {
  return request(app.server).post('/api/facts').set(client.headers).send(fact);
}

async function untilItBeats(): Promise<void> {
  while (!pulse.isBeating) await new Promise((resolve) => setTimeout(resolve, 50));
}

test('a frozen database is said while it is frozen, and what was in doubt is neither lost nor doubled', async () => {
  const runId = await startRun(client, ids);
  const facts = [1, 2, 3, 4].map((flask) =>
    proposeFact(weighed(flask, '0.4802'), runId, client.person.id),
  );
  const [before, ...during] = facts;
  await post(before ?? {}).expect(201);
  way.isFrozen = true;
  // Sent while nothing comes back: stored or not, nobody can tell.
  const answers = await Promise.all(during.map(post));
  for (const { status, body } of answers) {
    expect([status, (body as Problem).code]).toEqual([503, 'unavailable']);
    expect((body as Problem).title).toContain('is sent again');
    expect((body as Problem).title).not.toMatch(/nothing was stored|not stored/);
  }
  await request(app.server).get('/readyz').expect(503);
  // Once it is known, nobody waits for it any more.
  expect(pulse.isBeating).toBe(false);
  await post(during[0] ?? {}).expect(503);

  way.isFrozen = false;
  await untilItBeats();
  await request(app.server).get('/readyz').expect(200);
  for (const fact of during) expect([200, 201]).toContain((await post(fact)).status);
  const run = (await client.get(`/api/runs/${runId}`)).body as RunAnswer;
  expect(
    run.facts
      .slice(1)
      .map(({ id }) => id)
      .toSorted(),
  ).toEqual(facts.map(({ id }) => id).toSorted());
  expect((await verifyAudit(laboratory.database.db)).kind).toBe('whole');
});

test('a query that is merely long goes on while the database answers others', async () => {
  await untilItBeats();
  const slow = connectAsApplication(laboratory.database.url);
  await expect(slow.raw('SELECT pg_sleep(3.5)')).resolves.toBeDefined();
  expect(pulse.isBeating).toBe(true);
  await slow.destroy();
});
