import { once } from 'node:events';
import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import { pino } from 'pino';
import request from 'supertest';
import type TestAgent from 'supertest/lib/agent';
import { v7 as uuidv7 } from 'uuid';
import type { Plain, PlainDate } from '#core/grammar';
import { addToDate, plainDateAt } from '#core/grammar';
import { DEFAULT_HOUSE_RULES } from '#core/laboratory';
import { currentSchemaVersion, recordKindOf } from '#core/ledger';
import { ALL_WORK } from '#core/rights';
import type { PersonState } from '#core/people';
import type { ClientFactBody, NewFact, ProposedFact, SessionAnswer } from '#contract';
import { newId } from '#contract';
import type { AppParts } from '../parts';
import { createApp } from '../http/app';
import { foundLaboratory } from '../ledger/append';
import { Printer } from '../print/printer';
import { Feed } from '../live/feed';
import { addPerson } from '../people/accounts';
import type { TestDatabase } from './database';
import { createTestDatabase } from './database';
import { asDescribed } from './described';

export const PASSWORD = 'a long enough secret';

/** A thread runs what has been built; the test command builds first. */
export const PRINT_WORKER = join(import.meta.dirname, '../../dist/server/printWorker.js');

/** A founded laboratory with two people, driven through HTTP as the browser does. */
export interface TestLaboratory {
  readonly database: TestDatabase;
  readonly chief: PersonState;
  readonly analyst: PersonState;
  readonly today: PlainDate;
  readonly url: string;
  readonly feed: Feed;
  /** A browser without a session. */
  readonly visitor: () => TestAgent;
  readonly signIn: (person: PersonState) => Promise<Client>;
  /** Ends its server and drops its database, unless that is to be kept. */
  readonly close: (options?: { keepDatabase?: boolean }) => Promise<void>;
}

/** A signed-in browser. */
export interface Client {
  readonly person: PersonState;
  /** Cookie and token, for requests made by other means. */
  readonly headers: { readonly cookie: string; readonly 'x-csrf-token': string };
  readonly agent: TestAgent;
  readonly get: (path: string) => request.Test;
  readonly post: (path: string, body: unknown) => request.Test;
  readonly delete: (path: string) => request.Test;
  readonly send: (fact: NewFact, recordId: string, changes?: FactChanges) => request.Test;
}

/** What a test sends otherwise than a browser would. */
type FactChanges = Readonly<Partial<Record<keyof ProposedFact, unknown>>>;

export function proposeFact(
  fact: NewFact,
  recordId: string,
  authorId: string,
  changes: FactChanges = {},
): ProposedFact {
  const proposed = {
    ...fact,
    id: uuidv7(),
    recordId,
    recordKind: recordKindOf(fact.kind),
    schemaVersion: currentSchemaVersion(fact.kind),
    authorId,
    deviceId: null,
    deviceTime: new Date().toISOString(),
    clockOffsetMs: null,
    basedOn: null,
    ...changes,
  };
  // Kind and body are a pair of the union, which the compiler would compare with every other pair.
  return proposed as unknown as ProposedFact;
}

/** The cookie of the session that an answer began. */
export function sessionCookieOf(answer: { readonly headers: Readonly<Record<string, string>> }) {
  const set = (answer.headers['set-cookie'] ?? []) as unknown as readonly string[];
  return set.find((cookie) => cookie.startsWith('vine.session='))?.split(';')[0] ?? '';
}

/** An app server on a test database: one process of several, as the database sees it. */
export interface TestApp {
  readonly server: Server;
  readonly feed: Feed;
  readonly url: string;
  readonly close: () => Promise<void>;
}

export async function startTestApp(
  { db, url, pool }: Pick<TestDatabase, 'db' | 'url' | 'pool'>,
  changes: Partial<AppParts> = {},
): Promise<TestApp> {
  const logger = pino({ level: 'silent' });
  const feed = new Feed(db, url, logger);
  await feed.start();
  const printer = new Printer(PRINT_WORKER);
  const app = createApp({
    services: { db, now: () => new Date() },
    feed,
    printer,
    pulse: { isBeating: true },
    sessionPool: pool,
    sessionSigningKey: 'test key',
    logger,
    webFolder: null,
    publicUrl: null,
    isSecure: false,
    isOfThisMachine: true,
    auditHeadsFile: null,
    fileQuotaBytes: 64 * 1024 * 1024,
    pause: () => Promise.resolve(),
    requestsPerMinute: 100_000,
    ...changes,
  });
  const server = app.listen(0, '127.0.0.1');
  await once(server, 'listening');
  const { port } = server.address() as AddressInfo;
  return {
    server,
    feed,
    url: `http://127.0.0.1:${String(port)}`,
    close: async () => {
      await Promise.all([feed.stop(), printer.close()]);
      server.closeAllConnections();
      await new Promise((resolve) => server.close(resolve));
    },
  };
}

export async function foundTestLaboratory(
  options: Partial<AppParts> = {},
): Promise<TestLaboratory> {
  const database = await createTestDatabase();
  const services = { db: database.db, now: () => new Date() };
  const chief = await addPerson(services, null, {
    name: 'Oda Lind',
    password: PASSWORD,
    roles: ALL_WORK,
  });
  const analyst = await addPerson(services, chief, {
    name: 'Tam Berg',
    password: PASSWORD,
    roles: ['analyst', 'storekeeper'],
  });
  const timeZone = 'Europe/Vienna';
  await foundLaboratory(services, chief.id, { name: 'Test bench', timeZone });
  const app = await startTestApp(database, options);
  const server = app.server;
  return {
    database,
    chief,
    analyst,
    url: app.url,
    feed: app.feed,
    today: plainDateAt(new Date().toISOString(), timeZone),
    visitor: () => request.agent(server),
    signIn: async (person) => {
      const agent = request.agent(server);
      const answer = await asDescribed(agent.post('/api/session'), 'post', '/api/session')
        .send({ name: person.name, password: PASSWORD })
        .expect(201);
      const session = answer.body as SessionAnswer;
      if (session.kind !== 'signed-in') throw new Error('the sign-in did not work');
      const post = (path: string, body: unknown): request.Test =>
        asDescribed(agent.post(path), 'post', path)
          .set('x-csrf-token', session.csrfToken)
          .send(body as object);
      return {
        person,
        agent,
        headers: {
          cookie: sessionCookieOf(answer),
          'x-csrf-token': session.csrfToken,
        },
        get: (path) => asDescribed(agent.get(path), 'get', path),
        post,
        delete: (path) =>
          asDescribed(agent.delete(path), 'delete', path).set('x-csrf-token', session.csrfToken),
        send: (fact, recordId, changes) =>
          post('/api/facts', proposeFact(fact, recordId, person.id, changes)),
      };
    },
    close: async ({ keepDatabase = false } = {}) => {
      await app.close();
      await (keepDatabase ? database.leave() : database.drop());
    },
  };
}

/** The records that a run rests on, registered through HTTP; gives their ids. */
export async function stockLaboratory(client: Client, today: PlainDate) {
  const ids = {
    khp: newId(),
    naoh: newId(),
    balance: newId(),
    burette: newId(),
    bottle: newId(),
  };
  const lot = lotBody(today);
  const facts: readonly (readonly [string, NewFact])[] = [
    [
      ids.khp,
      {
        kind: 'lot.registered',
        body: { ...lot, substanceId: 'potassium-hydrogen-phthalate', lotNumber: 'K-1' },
      },
    ],
    [
      ids.naoh,
      {
        kind: 'lot.registered',
        body: { ...lot, substanceId: 'sodium-hydroxide', lotNumber: 'N-1', purity: '0.98' },
      },
    ],
    [
      ids.balance,
      {
        kind: 'equipment.registered',
        body: {
          type: 'balance',
          name: 'A1',
          readabilityG: '0.0001',
          repeatabilityG: '0.0001',
          linearityG: '0.0002',
          maxLoadG: '220',
          calibrationDue: null,
        },
      },
    ],
    [
      ids.burette,
      {
        kind: 'equipment.registered',
        body: {
          type: 'burette',
          name: 'G1',
          construction: 'glass',
          capacityMl: '50',
          divisionMl: '0.1',
          toleranceMl: '0.05',
          toleranceDistribution: 'triangular',
          dropMl: '0.05',
          calibrationDue: null,
        },
      },
    ],
    [ids.bottle, { kind: 'bottle.prepared', body: bottleBody('0001', ids.naoh, client, today) }],
  ];
  for (const [recordId, fact] of facts) await client.send(fact, recordId).expect(201);
  return ids;
}

/** A lot as registered, of no substance yet. */
export function lotBody(today: PlainDate) {
  return {
    supplier: 'Cellar supply',
    purity: '0.9998',
    purityHalfWidth: '0.0005',
    purityDistribution: 'rectangular',
    dissolved: null,
    statedMolarMass: null,
    amountReceived: '500',
    store: 'cupboard 2',
    receivedOn: today,
    openedOn: null,
    useBy: addToDate(today, { months: 12 }),
  } as const;
}

export type StockIds = Awaited<ReturnType<typeof stockLaboratory>>;

/** A laboratory in which an analyst can standardize and a chief can certify. */
export interface StockedLaboratory {
  readonly laboratory: TestLaboratory;
  readonly analyst: Client;
  readonly chief: Client;
  readonly ids: StockIds;
}

/** Founds a laboratory, signs both of its people in, and registers what a standardization takes. */
export async function foundStockedLaboratory(): Promise<StockedLaboratory> {
  const laboratory = await foundTestLaboratory();
  const analyst = await laboratory.signIn(laboratory.analyst);
  const chief = await laboratory.signIn(laboratory.chief);
  const ids = await stockLaboratory(analyst, laboratory.today);
  return { laboratory, analyst, chief, ids };
}

/** A wine that is asked for its acidity. */
export function sampleBody(code: string, today: PlainDate) {
  return {
    code,
    description: 'white wine',
    source: 'tank 7',
    customer: 'cellar',
    sampledBy: '',
    sampledOn: null,
    receivedOn: today,
    condition: '',
    amount: { value: '100', unit: 'mL' },
    density: null,
    unitMass: null,
    store: '',
    keepUntil: null,
    requests: [
      {
        analysisId: 'titratable-acidity',
        unit: 'g/L',
        as: 'C4H6O6',
        expected: '6.2',
        requirement: { kind: 'limits', lower: '3.5', upper: null, rule: 'simple' },
      },
    ],
  } satisfies Plain<ClientFactBody<'sample.received'>>;
}

/** A pipette or a volumetric flask. */
export function wareBody(kind: 'one-mark-pipette' | 'volumetric-flask', volumeMl: string) {
  return {
    type: 'glassware',
    name: `${kind} of ${volumeMl} mL`,
    kind,
    volumeMl,
    toleranceMl: '0.02',
    toleranceDistribution: 'triangular',
    calibrationDue: null,
  } satisfies Plain<ClientFactBody<'equipment.registered'>>;
}

export function bottleBody(code: string, lotId: string, client: Client, today: PlainDate) {
  return {
    code,
    purpose: 'titrant',
    substanceId: 'sodium-hydroxide',
    nominalMolarity: '0.1',
    volumeMl: '1000',
    parents: [{ kind: 'lot', id: lotId }],
    preparationId: null,
    made: null,
    plausibleMolarity: null,
    dilutionFactor: null,
    preparedOn: today,
    preparedBy: client.person.id,
    useBy: null,
    container: 'plastic',
    note: '',
  } satisfies Plain<ClientFactBody<'bottle.prepared'>>;
}

/** What a run on the stocked records is set up with. */
export function runSetUp(ids: StockIds) {
  const at = (id: string) => ({ id, version: 1 });
  return {
    method: { kind: 'catalogue', id: 'naoh-by-khp' } as const,
    bottle: at(ids.bottle),
    standard: { kind: 'lot', lot: at(ids.khp), balance: at(ids.balance) } as const,
    excess: null,
    burette: at(ids.burette),
    rules: DEFAULT_HOUSE_RULES,
    temperatureC: '20',
    temperatureVariationK: '3',
    thermometer: null,
    airDensityKgPerM3: null,
    methodRepeatabilityPercent: null,
    earlierSeries: null,
    reason: null,
  };
}

/** Starts a run on the stocked records and gives its id. */
export async function startRun(client: Client, ids: StockIds): Promise<string> {
  const runId = uuidv7();
  await client.send({ kind: 'run.started', body: runSetUp(ids) }, runId).expect(201);
  return runId;
}

export function weighed(flask: number, massG: string, reason: string | null = null): NewFact {
  return {
    kind: 'run.flask-weighed',
    body: { flask, weighing: { mode: 'tared', massG }, reason },
  };
}

export function read(
  flask: number,
  moment: 'initial' | 'final',
  readingMl: string,
  reason: string | null = null,
): NewFact {
  return {
    kind: 'run.burette-read',
    body: { flask, moment, readingMl, carriedFrom: null, reason },
  };
}

/** A rough titration and three that agree. */
const SERIES = [
  ['0.4802', '0.10', '23.60'],
  ['0.4795', '0.05', '23.44'],
  ['0.4811', '0.10', '23.57'],
  ['0.4788', '0.00', '23.37'],
] as const;

/** Titrates the whole series. */
export async function titrateSeries(client: Client, runId: string): Promise<void> {
  for (const [i, [massG, initialMl, finalMl]] of SERIES.entries()) {
    await client.send(weighed(i + 1, massG), runId).expect(201);
    await client.send(read(i + 1, 'initial', initialMl), runId).expect(201);
    await client.send(read(i + 1, 'final', finalMl), runId).expect(201);
  }
}
