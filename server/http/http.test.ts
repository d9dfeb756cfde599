import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { brotliCompressSync } from 'node:zlib';
import type { Router } from 'express';
import express from 'express';
import fc from 'fast-check';
import pg from 'pg';
import { pino } from 'pino';
import request from 'supertest';
import { afterAll, afterEach, beforeAll, describe, expect, test, vi } from 'vitest';
import { LABEL_SHEETS } from '#core/label';
import type { Problem } from '#contract';
import type { Client, TestLaboratory } from '../test-support/laboratory';
import { auditRoutes } from '../audit/routes';
import { verifyAudit } from '../audit/verify';
import { connectAsOwner } from '../database/connection';
import { migrate } from '../database/migrate';
import { fileRoutes } from '../files/routes';
import { Printer } from '../print/printer';
import { labelRoutes } from '../labels/routes';
import { listStrayProjections } from '../ledger/project';
import { countRecords } from '../ledger/queries';
import { ledgerRoutes } from '../ledger/routes';
import { peopleRoutes } from '../people/routes';
import { preparationRoutes } from '../preparations/routes';
import { runRoutes } from '../runs/routes';
import {
  foundTestLaboratory,
  PRINT_WORKER,
  sessionCookieOf,
  startRun,
  startTestApp,
  stockLaboratory,
} from '../test-support/laboratory';
import { AppError, toAppError } from './appError';
import { makeLogger } from './logger';
import { answerProblem } from './problems';
import { requestLog } from './requestLog';

let laboratory: TestLaboratory;
let client: Client;
let runId: string;
beforeAll(async () => {
  laboratory = await foundTestLaboratory();
  client = await laboratory.signIn(laboratory.chief);
  runId = await startRun(client, await stockLaboratory(client, laboratory.today));
});
// What the fuzz fails to sign in with must not lock out the tests after it, whatever the seed.
afterEach(() => laboratory.database.owner('attempts').delete());
afterAll(() => laboratory.close());

describe('anything thrown becomes a problem', () => {
  test.each([
    [new AppError('not-found', 'There is nothing.'), 'not-found', 404],
    [{ constraint: 'facts_pkey' }, 'fact-id-reused', 409],
    [{ constraint: 'people_name_unique' }, 'already-exists', 409],
    [{ constraint: 'bottle_code_unique' }, 'already-exists', 409],
    [{ constraint: 'laboratory_only_one' }, 'already-exists', 409],
    [{ status: 413, type: 'entity.too.large' }, 'too-large', 413],
    [{ status: 415 }, 'unsupported-media-type', 415],
    [{ status: 400, type: 'entity.parse.failed' }, 'invalid-request', 400],
    [{ code: '57P01' }, 'unavailable', 503],
    [{ code: '53300' }, 'unavailable', 503],
    [{ code: '53100' }, 'disk-full', 507],
    [{ code: 'ENOSPC' }, 'disk-full', 507],
    [new Error('timeout exceeded when trying to connect'), 'unavailable', 503],
    [
      new Error('Knex: Timeout acquiring a connection. The pool is probably full.'),
      'unavailable',
      503,
    ],
    [{ code: 'ECONNREFUSED' }, 'unavailable', 503],
    [new Error('Connection terminated unexpectedly'), 'unavailable', 503],
    [new Error('a secret path'), 'internal', 500],
    ['a text', 'internal', 500],
    [null, 'internal', 500],
    [undefined, 'internal', 500],
  ])('%o', (thrown, code, status) => {
    const error = toAppError(thrown);
    expect(error).toMatchObject({ code, status });
    expect(error.message).toMatch(/^[A-Z].*\.$/);
    expect(error.message).not.toContain('secret');
  });
});

/** A problem in the agreed form, whose texts give nothing away of the inside. */
function expectProblem(answer: {
  status: number;
  headers: Record<string, string>;
  body: unknown;
}): void {
  expect(answer.headers['content-type']).toMatch(/^application\/problem\+json/);
  const problem = answer.body as Problem;
  expect(problem.status).toBe(answer.status);
  expect(problem.type).toBe(`urn:vine-measure:problem:${problem.code}`);
  expect(problem.requestId).toMatch(/^[0-9a-f-]{36}$/);
  expect(JSON.stringify(problem)).not.toMatch(
    /node_modules|\bat \/|select |insert |password_hash/i,
  );
}

/** The part of the description that the fuzz reads. */
interface Described {
  readonly paths: Readonly<Record<string, Readonly<Record<string, Operation>>>>;
}
interface Operation {
  readonly parameters: readonly { readonly name: string; readonly in: string }[];
  readonly requestBody?: {
    readonly content: { readonly 'application/json': { readonly schema: JsonSchema } };
  };
  readonly responses: Readonly<Record<string, unknown>>;
}
interface JsonSchema {
  readonly type?: string;
  readonly const?: unknown;
  readonly enum?: readonly unknown[];
  readonly format?: string;
  readonly anyOf?: readonly JsonSchema[];
  readonly oneOf?: readonly JsonSchema[];
  readonly properties?: Readonly<Record<string, JsonSchema>>;
}

/** Values that a schema describes, as far as JSON Schema can say; the rest is for the server to refuse. */
function described(schema: JsonSchema): fc.Arbitrary<unknown> {
  const choices = schema.anyOf ?? schema.oneOf;
  if (choices) return fc.oneof(...choices.map(described));
  if ('const' in schema) return fc.constant(schema.const);
  if (schema.enum) return fc.constantFrom(...schema.enum);
  if (schema.properties) {
    return fc.record(
      Object.fromEntries(Object.entries(schema.properties).map(([k, of]) => [k, described(of)])),
    );
  }
  if (schema.type === 'integer' || schema.type === 'number') {
    return fc.oneof(fc.integer({ min: -2, max: 100 }), fc.double());
  }
  if (schema.type === 'boolean') return fc.boolean();
  if (schema.type === 'null') return fc.constant(null);
  if (schema.format === 'uuid') return fc.oneof(fc.uuid(), fc.constant(laboratory.chief.id));
  const texts = ['0.4802', '-1', '1e5', '2026-03-02', '2026-03-02T08:00:00.000Z', '\u202e', "';--"];
  return fc.oneof(fc.string({ unit: 'binary', maxLength: 40 }), fc.constantFrom(...texts));
}

const anything = fc.oneof(fc.anything({ maxDepth: 2 }), fc.constant('x'.repeat(70_000)));

/** A described value with a field missing, one too many, or one of another type. */
function damaged(schema: JsonSchema): fc.Arbitrary<unknown> {
  return fc
    .tuple(
      described(schema),
      fc.nat(20),
      fc.constantFrom('lose', 'add', 'change', 'keep'),
      anything,
    )
    .map(([value, which, what, other]) => {
      if (typeof value !== 'object' || value === null) return other;
      const keys = Object.keys(value);
      const key = keys[which % keys.length] ?? 'extra';
      if (what === 'lose') return { ...value, [key]: undefined };
      if (what === 'add') return { ...value, ['__proto__x']: other };
      return what === 'change' ? { ...value, [key]: other } : value;
    });
}

const ENCODINGS = [
  'application/json',
  'application/json; charset=utf-16',
  'application/json; charset=nonsense',
  'text/plain',
  'multipart/form-data; boundary=x',
];

test('every route is described, and no request made from the description brings a 5xx or gives anything away', async () => {
  const visitor = laboratory.visitor();
  const { paths } = (await visitor.get('/api/openapi.json').expect(200)).body as Described;
  const operations = Object.entries(paths).flatMap(([path, methods]) =>
    Object.entries(methods).map(([method, operation]) => ({ path, method, operation })),
  );
  expect(operations.map(({ method, path }) => `${method} ${path}`).toSorted()).toEqual(
    routesOf(createRouters()),
  );
  for (const { path, method, operation } of operations) {
    // An endless answer has its own tests; signing out would end the session that the fuzz works under.
    if (path === '/events' || (path === '/session' && method === 'delete')) continue;
    const schema = operation.requestBody?.content['application/json'].schema;
    const body = schema ? fc.oneof(damaged(schema), anything) : anything;
    const parameter = fc.oneof(
      fc.constantFrom(laboratory.chief.id, runId, 'run', '__proto__', '..%2f..%2fetc', '%E0%A4%A'),
      fc.uuid(),
    );
    const who = fc.constantFrom('nobody', 'somebody', 'wrong token', 'wrong origin');
    const type = fc.constantFrom(...ENCODINGS);
    await fc.assert(
      fc.asyncProperty(body, parameter, who, type, async (value, given, asked, contentType) => {
        const address = `/api${path.replace(/\{\w+\}/g, given)}`;
        const agent = asked === 'nobody' ? laboratory.visitor() : client.agent;
        const asking = (method === 'get' ? agent.get(address) : agent.post(address))
          .set('x-csrf-token', asked === 'wrong token' ? 'x' : client.headers['x-csrf-token'])
          .set(asked === 'wrong origin' ? { origin: 'http://elsewhere.example' } : {})
          .ok(() => true);
        const text = method === 'get' ? undefined : (JSON.stringify(value) as string | undefined);
        const answer = await (text === undefined
          ? asking
          : asking
              .set('content-type', contentType)
              .serialize((kept: unknown) => kept as string)
              .send(text));
        const status = String(answer.status);
        expect(answer.status).toBeLessThan(500);
        expect(Object.keys(operation.responses), `${method} ${path} ${status}`).toContain(status);
        if (answer.status >= 400) expectProblem(answer);
        else expect(JSON.stringify(answer.body)).not.toMatch(/argon2|passwordHash|signing/);
      }),
      { numRuns: 60 },
    );
  }
  // A fuzzed certificate or account may have been made: the log is whole all the same.
  expect((await verifyAudit(laboratory.database.db)).kind).toBe('whole');
});

/** The addresses that the routers really have, in the description's words. */
function createRouters(): readonly Router[] {
  const services = { db: laboratory.database.db, now: () => new Date() };
  const parts = [ledgerRoutes, preparationRoutes];
  const printer = new Printer(PRINT_WORKER);
  const open = { publicUrl: null, isSecure: false, isOfThisMachine: true };
  const limits = { sessionSigningKey: 'test key', pause: () => Promise.resolve() };
  return [
    ...parts.map((routes) => routes(services)),
    peopleRoutes({ services, ...open, ...limits }),
    auditRoutes({ services, auditHeadsFile: null }),
    runRoutes({ services, printer, ...open, ...limits }),
    fileRoutes({ services, printer, fileQuotaBytes: 0 }),
    labelRoutes({ services, printer, publicUrl: null }),
  ];
}

function routesOf(routers: readonly Router[]): string[] {
  interface Layer {
    readonly route?: { readonly path: string; readonly methods: Readonly<Record<string, boolean>> };
  }
  const found = routers.flatMap((router) =>
    (router.stack as unknown as readonly Layer[]).flatMap(({ route }) =>
      Object.keys(route?.methods ?? {}).map(
        (method) => `${method} ${(route?.path ?? '').replace(/:(\w+)/g, '{$1}')}`,
      ),
    ),
  );
  return [...found, 'get /events', 'get /openapi.json'].toSorted();
}

test('answers and program files come compressed to whoever takes them; the stream of events does not', async () => {
  const encodingOf = async (
    path: string,
    headers: Record<string, string>,
    url = laboratory.url,
  ) => {
    const leaving = new AbortController();
    const answer = await fetch(`${url}${path}`, { headers, signal: leaving.signal });
    leaving.abort();
    return answer.headers.get('content-encoding');
  };
  const { cookie } = client.headers;
  const takes = { cookie, 'accept-encoding': 'gzip, br' };
  expect(await encodingOf('/api/openapi.json', takes)).toBe('br');
  expect(await encodingOf('/api/openapi.json', { ...takes, 'accept-encoding': 'gzip' })).toBe(
    'gzip',
  );
  expect(await encodingOf('/api/openapi.json', { 'accept-encoding': 'identity' })).toBeNull();
  expect(await encodingOf('/api/events', takes)).toBeNull();
  const webFolder = mkdtempSync(join(tmpdir(), 'vine-web-'));
  mkdirSync(join(webFolder, 'assets'));
  writeFileSync(join(webFolder, 'assets', 'page.js'), 'export const page = 1;');
  writeFileSync(
    join(webFolder, 'assets', 'page.js.br'),
    brotliCompressSync('export const page = 1;'),
  );
  const app = await startTestApp(laboratory.database, { webFolder });
  expect(await encodingOf('/assets/page.js', takes, app.url)).toBe('br');
  const plain = await fetch(`${app.url}/assets/page.js`, { headers: takes });
  expect(await plain.text()).toBe('export const page = 1;');
  expect(plain.headers.get('cache-control')).toContain('immutable');
  await app.close();
  rmSync(webFolder, { recursive: true });
});

test('a server says that it lives, and that it is ready only with its database', async () => {
  const visitor = laboratory.visitor();
  await visitor.get('/healthz').expect(200, 'ok\n');
  await visitor.get('/readyz').expect(200, 'ready\n');
  const { owner } = laboratory.database;
  await owner('knex_migrations').insert({
    name: '999_later',
    batch: 9,
    migration_time: new Date(),
  });
  await visitor.get('/readyz').expect(503);
  await expect(migrate(owner)).rejects.toThrow(/newer version.*999_later/);
  await owner('knex_migrations').where({ name: '999_later' }).delete();
  await visitor.get('/readyz').expect(200);
});

test('lists that another program folded are folded again at the next start, and until then the server is not ready', async () => {
  const { owner, db } = laboratory.database;
  await owner('projections_shape').update({ version: 0 });
  await owner('projections').update({ state: owner.raw(`state || '{"of": "before"}'`) });
  await laboratory.visitor().get('/readyz').expect(503);
  const told: (readonly [number, number])[] = [];
  await migrate(owner, { onProgress: (done, total) => told.push([done, total]) });
  await laboratory.visitor().get('/readyz').expect(200);
  expect(await listStrayProjections(db)).toEqual([]);
  expect(told[0]).toEqual([0, await countRecords(db)]);
  const again: unknown[] = [];
  await migrate(owner, { onProgress: () => again.push(null) });
  expect(again).toEqual([]);
});

test('a killed migration leaves no lock behind, and several that start at once take turns', async () => {
  const { owner } = laboratory.database;
  await owner('knex_migrations_lock').update({ is_locked: 1 });
  const others = [connectAsOwner(laboratory.database.url), connectAsOwner(laboratory.database.url)];
  await Promise.all([owner, ...others].map((one) => migrate(one)));
  expect(await owner('knex_migrations_lock').first('is_locked')).toEqual({ is_locked: 0 });
  await Promise.all(others.map((other) => other.destroy()));
});

test('a log line has the id that the answer has, and neither password, cookie nor token', async () => {
  const lines: string[] = [];
  const logger = pino({ level: 'info' }, { write: (line: string) => lines.push(line) });
  const app = await startTestApp(laboratory.database, { logger });
  const body = { name: 'Oda Lind', password: 'a long enough secret' };
  const answer = await request(app.server).post('/api/session').send(body).expect(201);
  await request(app.server)
    .get('/api/records/person')
    .set('cookie', sessionCookieOf(answer))
    .set('x-csrf-token', 'the-token')
    .expect(200);
  const text = lines.join('');
  expect(text).toContain(`"id":"${answer.headers['x-request-id'] ?? '?'}"`);
  expect(text).toContain('"url":"/api/records/person"');
  expect(text).not.toMatch(/long enough|vine\.session|the-token|Oda/);
  await app.close();
});

test('what the database says of a refused row is not written down: it quotes the row', async () => {
  const lines: string[] = [];
  const logger = makeLogger('info', (line) => lines.push(line));
  const { db } = laboratory.database;
  const secret = '$argon2id$v=19$m=19456,t=2,p=1$c2VjcmV0';
  const statements = [
    db('people').insert({ id: laboratory.chief.id, created_at: secret }),
    db('facts').insert({ id: secret, body: JSON.stringify({ secret }) }),
    db.raw('SELECT ?::uuid', [secret]),
  ];
  for (const statement of statements) {
    const error: unknown = await statement.then(
      () => null,
      (thrown: unknown) => thrown,
    );
    expect(error).toBeInstanceOf(Error);
    logger.error({ err: error }, 'the server failed');
    const failing = express();
    failing.use(requestLog(logger), () => {
      throw error as Error;
    });
    failing.use(answerProblem);
    await request(failing).get('/').expect(500);
  }
  const text = lines.join('');
  expect(text).not.toMatch(/argon2|c2VjcmV0|insert into|\$1/);
  expect(text).toContain('"code":"22P02"');
});

test('what is no route answers a problem too', async () => {
  for (const path of ['/api', '/api/facts', '/elsewhere', '/assets/../package.json']) {
    const answer = await client.get(path);
    expect(answer.status).toBe(404);
    expectProblem(answer);
  }
});

test('a body that only claims to be huge is refused before it is read', async () => {
  const answer = await client
    .post('/api/facts', undefined)
    .set('content-type', 'application/json')
    .send(`{"note":"${'9'.repeat(1_000_000)}"}`);
  expect(answer.status).toBe(413);
  expectProblem(answer);
});

test('a compressed body that unfolds to more than the limit is refused', async () => {
  const { gzipSync } = await import('node:zlib');
  const bomb = gzipSync(JSON.stringify({ note: '9'.repeat(5_000_000) }));
  const request = client
    .post('/api/facts', undefined)
    .set('content-type', 'application/json')
    .set('content-encoding', 'gzip');
  const answer = await request
    .serialize((value: unknown) => value as string)
    .send(bomb as unknown as string);
  expect(answer.status).toBe(413);
});

test.each([
  ['a token beyond ASCII', { 'x-csrf-token': 'é'.repeat(32) }, 403],
  ['a token of another length', { 'x-csrf-token': 'x' }, 403],
  ['the scheme of another origin', { origin: 'https://127.0.0.1' }, 403],
  ['an origin that is none', { origin: 'null' }, 403],
])('%s is answered in words', async (_, headers, status) => {
  const answer = await client.post('/api/facts', {}).set(headers);
  expect(answer.status).toBe(status);
  expectProblem(answer);
});

test('a host of 4,000 characters, or an id in capitals, is the request’s fault', async () => {
  const { records } = (await client.get('/api/records/bottle')).body as {
    records: { id: string }[];
  };
  const bottleIds = records.map(({ id }) => id);
  const [sheet] = LABEL_SHEETS;
  const long = await client
    .post('/api/labels', { bottleIds, sheet, startAt: 0 })
    .set('host', 'x'.repeat(4_000));
  expect(long.status).toBe(400);
  const capitals = await client.get(`/api/runs/${runId.toUpperCase()}`);
  expect(capitals.status).toBe(404);
});

test('a session follows the changes in eight places at most', async () => {
  const opened = [];
  for (let turn = 0; turn < 8; turn += 1) {
    const leaving = new AbortController();
    const { cookie } = client.headers;
    const answer = await fetch(`${laboratory.url}/api/events`, {
      headers: { cookie },
      signal: leaving.signal,
    });
    opened.push({ answer, leaving });
  }
  expect(opened.map(({ answer }) => answer.status)).toEqual(Array<number>(8).fill(200));
  await client.get('/api/events').expect(429);
  for (const { leaving } of opened) leaving.abort();
  await vi.waitFor(async () => {
    const answer = await fetch(`${laboratory.url}/api/events`, {
      headers: { cookie: client.headers.cookie },
    });
    await answer.body?.cancel();
    expect(answer.status).toBe(200);
  });
});

test('more at once than there are connections is answered 503, and later well', async () => {
  const pool = new pg.Pool({
    connectionString: laboratory.database.url,
    max: 1,
    connectionTimeoutMillis: 200,
  });
  const app = await startTestApp({ ...laboratory.database, pool });
  const ask = () => request(app.server).get('/api/records/person').set(client.headers);
  const taken = await pool.connect();
  const answers = await Promise.all(Array.from({ length: 20 }, ask));
  expect(new Set(answers.map(({ status }) => status))).toEqual(new Set([503]));
  for (const answer of answers) expectProblem(answer);
  taken.release();
  await ask().expect(200);
  await app.close();
  await pool.end();
});
