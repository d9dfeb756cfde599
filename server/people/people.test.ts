import { addToDate } from '#core/grammar';
import { LABEL_SHEETS } from '#core/label';
import type { Role } from '#core/rights';
import { ALL_WORK, whyNot } from '#core/rights';
import { hash } from '@node-rs/argon2';
import type { Test } from 'supertest';
import request from 'supertest';
import { v7 as uuidv7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, test, vi } from 'vitest';
import type { PersonState } from '#core/people';
import type { ListAnswer, NewFact, Problem, SessionAnswer } from '#contract';
import type { TestDatabase } from '../test-support/database';
import { createTestDatabase } from '../test-support/database';
import type { Client, TestApp, TestLaboratory } from '../test-support/laboratory';
import {
  foundTestLaboratory,
  proposeFact,
  startRun,
  startTestApp,
  stockLaboratory,
  weighed,
} from '../test-support/laboratory';
import { verifyAudit } from '../audit/verify';
import { migrate } from '../database/migrate';
import { foundLaboratory } from '../ledger/append';
import { listStrayProjections } from '../ledger/project';
import { addPerson, issueFirstAccountCode, signInWithPassword } from './accounts';
import { prune } from './queries';

let laboratory: TestLaboratory;
let empty: TestDatabase;

beforeAll(async () => {
  [laboratory, empty] = await Promise.all([foundTestLaboratory(), createTestDatabase()]);
});
afterAll(() => Promise.all([laboratory.close(), empty.drop()]));

test('nobody reads or writes without a session', async () => {
  const visitor = laboratory.visitor();
  for (const path of ['/api/records/bottle', '/api/records/person', '/api/runs/x']) {
    const answer = await visitor.get(path).expect(401);
    expect(answer.headers['content-type']).toMatch(/problem\+json/);
  }
  const { id } = laboratory.analyst;
  const fact = proposeFact(weighed(1, '0.4'), id, id);
  await visitor.post('/api/facts').send(fact).expect(401);
});

test('a wrong password and an unknown name look the same', async () => {
  const attempt = (name: string) =>
    laboratory.visitor().post('/api/session').send({ name, password: 'wrong password' });
  const [known, unknown] = await Promise.all([attempt('Oda Lind'), attempt('Nobody Here')]);
  expect(known.status).toBe(401);
  expect((known.body as Problem).title).toBe((unknown.body as Problem).title);
});

test('a session is made to last longer once in a quarter of an hour, not with each request', async () => {
  let now = Date.now();
  const app = await startTestApp(laboratory.database, {
    services: { db: laboratory.database.db, now: () => new Date(now) },
  });
  const agent = request.agent(app.server);
  const password = 'a long enough secret';
  await agent.post('/api/session').send({ name: 'Oda Lind', password }).expect(201);
  const isRenewed = async (): Promise<boolean> => {
    const answer = await agent.get('/api/session').expect(200);
    return answer.headers['set-cookie'] !== undefined;
  };
  // The first request of the quarter has it written; the next ones do not.
  await isRenewed();
  expect(await isRenewed()).toBe(false);
  now += 15 * 60_000;
  expect([await isRenewed(), await isRenewed()]).toEqual([true, false]);
  await app.close();
});

test('the session lives in a guarded cookie, and changes need its token and our own origin', async () => {
  const agent = laboratory.visitor();
  const answer = await agent
    .post('/api/session')
    .send({ name: 'Oda Lind', password: 'a long enough secret' })
    .expect(201);
  const cookies = answer.headers['set-cookie'] as unknown as string[];
  expect(cookies.map((cookie) => cookie.split('=')[0])).toEqual(['vine.device', 'vine.session']);
  for (const cookie of cookies) {
    expect(cookie).toMatch(/HttpOnly/);
    expect(cookie).toMatch(/SameSite=Strict/);
  }
  const { csrfToken } = answer.body as Extract<SessionAnswer, { kind: 'signed-in' }>;
  const person = {
    name: 'Nils Ahm',
    password: 'long enough too',
    roles: ['analyst'],
    auditsUntil: null,
  };
  const withoutToken = await agent.post('/api/people').send(person).expect(403);
  expect((withoutToken.body as Problem).code).toBe('wrong-origin');
  await agent
    .post('/api/people')
    .set('x-csrf-token', 'x'.repeat(csrfToken.length))
    .send(person)
    .expect(403);
  await agent
    .post('/api/people')
    .set('x-csrf-token', csrfToken)
    .set('origin', 'http://elsewhere.example')
    .send(person)
    .expect(403);
  await agent.post('/api/people').set('x-csrf-token', csrfToken).send(person).expect(201);
  const twice = await agent
    .post('/api/people')
    .set('x-csrf-token', csrfToken)
    .send(person)
    .expect(409);
  expect((twice.body as Problem).fields[0]?.field).toBe('name');
  await agent.delete('/api/session').set('x-csrf-token', csrfToken).expect(204);
  await agent.get('/api/records/person').expect(401);
});

test('only those who manage add people; real people are never offered for one click', async () => {
  const analyst = await laboratory.signIn(laboratory.analyst);
  const person = {
    name: 'Eve',
    password: 'long enough too',
    roles: ['authorized-signatory', 'technical-manager'],
    auditsUntil: null,
  };
  await analyst.post('/api/people', person).expect(403);
  const offer = (await laboratory.visitor().get('/api/session')).body as SessionAnswer;
  expect(offer).toMatchObject({ kind: 'signed-out', demoPeople: [] });
  await laboratory
    .visitor()
    .post('/api/session/demo')
    .send({ personId: analyst.person.id })
    .expect(403);
});

test('security headers allow no outside origin', async () => {
  const { headers } = await laboratory.visitor().get('/api/session');
  const policy = headers['content-security-policy'] ?? '';
  expect(policy).toContain("default-src 'self'");
  expect(policy).not.toMatch(/https?:|\*/);
  expect(headers).toMatchObject({
    'x-content-type-options': 'nosniff',
    'cache-control': 'no-store',
  });
  expect(headers['x-powered-by']).toBeUndefined();
});

test('the first account takes the code from the terminal, which works once', async () => {
  const services = { db: empty.db, now: () => new Date() };
  const app = await startTestApp(empty);
  const agent = request.agent(app.server);
  expect((await agent.get('/api/session')).body).toMatchObject({ needsFirstAccount: true });
  const old = (await issueFirstAccountCode(services)) ?? '';
  const code = (await issueFirstAccountCode(services)) ?? '';
  expect(code).toMatch(/^[A-Z2-9]{4}-[A-Z2-9]{4}$/);
  const account = (given: string) => ({
    code: given,
    name: 'Oda Lind',
    password: 'long enough too',
    laboratory: { name: 'Cellar laboratory', timeZone: 'Europe/Vienna' },
  });
  await agent.post('/api/first-account').send(account(old)).expect(403);
  const badZone = { ...account(code), laboratory: { name: 'x', timeZone: 'Mars/Olympus' } };
  await agent.post('/api/first-account').send(badZone).expect(400);
  const answer = await agent
    .post('/api/first-account')
    .send(account(code.toLowerCase()))
    .expect(201);
  expect(answer.body).toMatchObject({
    kind: 'signed-in',
    person: { roles: ALL_WORK },
  });
  await request(app.server).post('/api/first-account').send(account(code)).expect(403);
  expect(await issueFirstAccountCode(services)).toBeNull();
  await app.close();
});

test('the demo is open to whoever sits at this machine, and to nobody behind a proxy or a borrowed name', async () => {
  const services = { db: laboratory.database.db, now: () => new Date() };
  const given = { roles: ['analyst'], auditsUntil: null } as const;
  const made = await addPerson(
    services,
    null,
    { name: 'Made Up', password: 'nobody knows it', ...given },
    true,
  );
  const offered = async (headers: Record<string, string>): Promise<number> => {
    const answer = await laboratory.visitor().get('/api/session').set(headers).expect(200);
    return (answer.body as Extract<SessionAnswer, { kind: 'signed-out' }>).demoPeople.length;
  };
  expect(await offered({})).toBe(1);
  expect(await offered({ host: 'localhost:4680' })).toBe(1);
  expect(await offered({ host: 'rebound.example' })).toBe(0);
  for (const said of ['x-forwarded-for', 'x-forwarded-proto', 'forwarded', 'via', 'x-real-ip']) {
    expect(await offered({ [said]: '10.0.0.7' }), said).toBe(0);
  }
  const visitor = laboratory.visitor();
  await visitor
    .post('/api/session/demo')
    .set('x-forwarded-for', '10.0.0.7')
    .send({ personId: made.id })
    .expect(403);
  const answer = await visitor.post('/api/session/demo').send({ personId: made.id }).expect(201);
  expect(answer.body).toMatchObject({ kind: 'signed-in', person: { name: 'Made Up' } });
  // Nor where the server is meant for others too, whatever the request says.
  const open = await startTestApp(laboratory.database, { isOfThisMachine: false });
  const offer = (await request(open.server).get('/api/session')).body as SessionAnswer;
  expect(offer).toMatchObject({ kind: 'signed-out', demoPeople: [] });
  await request(open.server).post('/api/session/demo').send({ personId: made.id }).expect(403);
  await open.close();
});

test('guessing is slowed down for every app process, and time forgives', async () => {
  // Later than whatever the other tests tried.
  let now = Date.now() + 3_600_000;
  const services = { db: empty.db, now: () => new Date(now) };
  const [first, second] = await Promise.all([
    startTestApp(empty, { services }),
    startTestApp(empty, { services }),
  ]);
  const attempt = (turn: number, name: string, password: string) =>
    request((turn % 2 === 0 ? first : second).server)
      .post('/api/session')
      .send({ name, password });
  const statuses: number[] = [];
  for (let turn = 0; turn < 12; turn += 1) {
    statuses.push((await attempt(turn, 'Oda Lind', 'wrong')).status);
  }
  expect(statuses).toEqual([...Array<number>(10).fill(401), 429, 429]);
  const refused = await attempt(0, 'Oda Lind', 'long enough too').expect(429);
  expect(refused.body).toMatchObject({ code: 'too-many-requests' });
  expect(Number(refused.headers['retry-after'])).toBeGreaterThan(0);
  // Another name is not locked out by it.
  expect((await attempt(0, 'Somebody Else', 'wrong')).status).toBe(401);
  now += 16 * 60_000;
  // The right password does not count as a failure, however often.
  for (let turn = 0; turn < 12; turn += 1) {
    await attempt(turn, 'Oda Lind', 'long enough too').expect(201);
  }
  await Promise.all([first.close(), second.close()]);
});

test('names are compared by what is seen of them', async () => {
  const chief = await laboratory.signIn(laboratory.chief);
  const person = { password: 'clouds under the ladder', roles: ['analyst'], auditsUntil: null };
  await chief.post('/api/people', { ...person, name: 'Žana  Krüger' }).expect(201);
  const signIn = (name: string, password = person.password) =>
    laboratory.visitor().post('/api/session').send({ name, password });
  for (const same of ['žana krüger', ' ŽANA KRÜGER ', 'Žana\u00a0Krüger', 'Ža\u200bna Krüger']) {
    await signIn(same).expect(201);
    await chief.post('/api/people', { ...person, name: same }).expect(409);
  }
  await signIn('Zana Kruger').expect(401);
});

test('two accounts of before whose names have become the same both stay, each by its exact spelling', async () => {
  const old = await createTestDatabase('007_rules');
  const hashed = (password: string): Promise<string> => hash(password);
  for (const [name, password] of [
    ['Ines', 'clouds under the ladder'],
    ['INES', 'ladders over the cloud'],
  ] as const) {
    await old.owner('people').insert({
      ...{ id: uuidv7(), name, password_hash: await hashed(password), created_at: new Date() },
      ...{ may_certify: false, may_manage: true, is_demo: false },
    });
  }
  await old.owner('sessions').insert({ sid: 'of before', sess: '{}', expire: new Date(9e12) });
  await migrate(old.owner);
  const services = { db: old.db, now: () => new Date() };
  const idOf = (name: string, password: string) => signInWithPassword(services, name, password);
  const [first, second] = [
    await idOf('Ines', 'clouds under the ladder'),
    await idOf('INES', 'ladders over the cloud'),
  ];
  expect(first).not.toBe(second);
  await expect(idOf('ines', 'clouds under the ladder')).rejects.toMatchObject({ status: 401 });
  await expect(idOf('Ines', 'ladders over the cloud')).rejects.toMatchObject({ status: 401 });
  expect(await old.db('sessions').select()).toEqual([]);
  await old.drop();
});

test('a device that signed in before is not locked out by what others fail at', async () => {
  const database = await createTestDatabase();
  const services = { db: database.db, now: () => new Date() };
  const roles = ['authorized-signatory', 'technical-manager'] as const;
  const password = 'clouds under the ladder';
  const chief = await addPerson(services, null, { name: 'Oda Lind', password, roles });
  const { id } = chief;
  await foundLaboratory(services, id, { name: 'Locked', timeZone: 'Europe/Vienna' });
  const pauses: number[] = [];
  const app = await startTestApp(database, {
    pause: (ms) => Promise.resolve(pauses.push(ms)),
  });
  const known = request.agent(app.server);
  const attempt = (agent: Pick<typeof known, 'post'>, given: string, name = 'Oda Lind') =>
    agent.post('/api/session').send({ name, password: given });
  const signOut = (answer: { body: unknown }) => {
    const { csrfToken } = answer.body as { csrfToken: string };
    return known.delete('/api/session').set('x-csrf-token', csrfToken).expect(204);
  };
  await signOut(await attempt(known, password).expect(201));
  pauses.length = 0;
  const stranger = () => request(app.server);
  for (let turn = 0; turn < 10; turn += 1) await attempt(stranger(), 'wrong').expect(401);
  // In other letters it is the same name.
  await attempt(stranger(), password, 'ODA  LIND').expect(429);
  expect(pauses).toEqual([0, 0, 0, 200, 400, 800, 1_600, 3_000, 3_000, 3_000]);
  await signOut(await attempt(known, password).expect(201));
  // A mark that nobody signed is none.
  const forged = { cookie: `vine.device=${'a'.repeat(32)}.${'b'.repeat(64)}` };
  await attempt(stranger(), password).set(forged).expect(429);
  // Nor is one on which somebody else has signed in: a trainee's tablet tries no more of the chief's passwords.
  const trainee = { name: 'Tam Berg', password, roles: ['analyst'] as const };
  await addPerson(services, chief, trainee);
  const theirs = request.agent(app.server);
  const { csrfToken } = (await attempt(theirs, password, 'Tam Berg').expect(201)).body as {
    csrfToken: string;
  };
  await theirs.delete('/api/session').set('x-csrf-token', csrfToken).expect(204);
  await attempt(theirs, password).expect(429);
  // Both are known on a device that they share.
  await signOut(await attempt(known, password, 'Tam Berg').expect(201));
  await signOut(await attempt(known, password).expect(201));
  // It is locked by its own failures, though.
  for (let turn = 0; turn < 10; turn += 1) await attempt(known, 'wrong').expect(401);
  await attempt(known, password).expect(429);
  await app.close();
  await database.drop();
});

test('one’s own password is changed, and one’s other sessions end', async () => {
  const chief = await laboratory.signIn(laboratory.chief);
  const password = 'clouds under the ladder';
  const given = { roles: ['analyst'], auditsUntil: null } as const;
  await chief.post('/api/people', { name: 'Nela', password, ...given }).expect(201);
  const signIn = async (given: string) => {
    const agent = laboratory.visitor();
    const answer = await agent.post('/api/session').send({ name: 'Nela', password: given });
    const { csrfToken = '' } = answer.body as { csrfToken?: string };
    return { agent, status: answer.status, csrfToken };
  };
  const [here, there] = [await signIn(password), await signIn(password)];
  const change = (body: object) =>
    here.agent.post('/api/account/password').set('x-csrf-token', here.csrfToken).send(body);
  const next = 'ladders over the cloud';
  const refused = await change({ current: 'not this one', password: next }).expect(401);
  expect((refused.body as Problem).fields[0]?.field).toBe('current');
  await change({ current: password, password: 'Password123!' }).expect(400);
  await there.agent.get('/api/records/person').expect(200);
  await change({ current: password, password: next }).expect(204);
  await here.agent.get('/api/records/person').expect(200);
  await there.agent.get('/api/records/person').expect(401);
  expect([(await signIn(password)).status, (await signIn(next)).status]).toEqual([401, 201]);
  const ended = await here.agent
    .delete('/api/account/sessions')
    .set('x-csrf-token', here.csrfToken);
  expect(ended.body).toEqual({ ended: 1 });
  expect((await verifyAudit(laboratory.database.db)).kind).toBe('whole');
});

test('sessions and attempts that have run out are forgotten, others are not', async () => {
  const { db } = laboratory.database;
  const now = new Date();
  const [past, future] = [-1, 1].map((sign) => new Date(now.getTime() + sign * 60_000));
  await db('sessions').insert({ sid: 'over', sess: '{}', expire: past });
  await db('attempts').insert([
    { key: 'over', hits: 3, expires_at: past },
    { key: 'counts', hits: 3, expires_at: future },
  ]);
  const others = Number((await db('sessions').count())[0]?.count) - 1;
  await prune(db, now);
  expect(Number((await db('sessions').count())[0]?.count)).toBe(others);
  expect(await db('attempts').whereIn('key', ['over', 'counts']).select('key')).toEqual([
    { key: 'counts' },
  ]);
});

test('one browser cannot take the whole server', async () => {
  const app = await startTestApp(empty, { requestsPerMinute: 5 });
  const statuses: number[] = [];
  for (let turn = 0; turn < 7; turn += 1) {
    statuses.push((await request(app.server).get('/api/session')).status);
  }
  expect(statuses).toEqual([200, 200, 200, 200, 200, 429, 429]);
  await app.close();
});

test('app processes count the requests of a browser together', async () => {
  const address = '203.0.113.9';
  const behindProxy = { requestsPerMinute: 8, publicUrl: 'https://bench.example' };
  const [first, second] = await Promise.all([
    startTestApp(empty, behindProxy),
    startTestApp(empty, behindProxy),
  ]);

  const ask = async ({ server }: TestApp): Promise<number> =>
    (await request(server).get('/api/session').set('x-forwarded-for', address)).status;
  const told = (hits: number) =>
    vi.waitFor(
      async () => {
        const rows = empty.db('attempts').where({ key: `requests:${address}` });
        expect(await rows.select('hits')).toEqual([{ hits }]);
      },
      { timeout: 30_000 },
    );
  for (let turn = 0; turn < 4; turn += 1) expect(await ask(first)).toBe(200);
  await told(4);
  for (let turn = 0; turn < 3; turn += 1) expect(await ask(second)).toBe(200);
  await told(7);
  // Seven of eight are known to the second, four of them the first's.
  expect([await ask(second), await ask(second)]).toEqual([200, 429]);
  await told(9);
  expect(await ask(first)).toBe(200);
  await told(10);
  expect(await ask(first)).toBe(429);
  await Promise.all([first.close(), second.close()]);
});

test('behind a proxy that ends TLS: secure cookies, its origin accepted, no one-click sign-in', async () => {
  const app = await startTestApp(laboratory.database, {
    publicUrl: 'https://bench.example/',
    isSecure: true,
  });
  const proxied = {
    host: 'bench.example',
    'x-forwarded-proto': 'https',
    'x-forwarded-for': '10.0.0.7',
  };
  const signIn = (headers: object) =>
    request(app.server)
      .post('/api/session')
      .set({ ...proxied, ...headers })
      .send({ name: 'Oda Lind', password: 'a long enough secret' });
  const answer = await signIn({ origin: 'https://bench.example' }).expect(201);
  for (const cookie of answer.headers['set-cookie'] as unknown as string[]) {
    expect(cookie).toMatch(/; Secure/);
  }
  expect(answer.headers['strict-transport-security']).toBeDefined();
  await signIn({ origin: 'https://elsewhere.example' }).expect(403);
  await signIn({ origin: 'http://bench.example' }).expect(403);
  const silent = await signIn({ 'x-forwarded-proto': 'http' }).expect(400);
  expect((silent.body as Problem).title).toContain('X-Forwarded-Proto');
  const offer = await request(app.server).get('/api/session').set(proxied);
  expect(offer.body).toMatchObject({ kind: 'signed-out', demoPeople: [] });
  await app.close();
});

describe('people are records', () => {
  let lab: TestLaboratory;
  let chief: Client;
  let trainee: Client;

  beforeAll(async () => {
    lab = await foundTestLaboratory();
    chief = await lab.signIn(lab.chief);
    const details = {
      name: 'Ula Prent',
      password: 'a long enough secret',
      roles: ['analyst'] as const,
      auditsUntil: null,
    };
    const added = (await chief.post('/api/people', details).expect(201)).body as PersonState;
    trainee = await lab.signIn(added);
  });
  afterAll(() => lab.close());

  const change = (
    by: Client,
    person: Pick<PersonState, 'id'>,
    fact: NewFact,
    basedOn: number,
  ): Test => by.send(fact, person.id, { basedOn });
  const balance = {
    kind: 'equipment.registered',
    body: {
      ...{ type: 'balance', name: 'Perfect', readabilityG: '0.00001', repeatabilityG: '0' },
      ...{ linearityG: '0', maxLoadG: '220', calibrationDue: null },
    },
  } as NewFact;
  const reason = 'has learnt it';

  test('who has no right to register makes no perfect balance, until somebody gives it', async () => {
    const refused = await trainee.send(balance, uuidv7()).expect(403);
    expect((refused.body as Problem).title).toMatch(/registered.* by storekeepers/);
    const rights: NewFact = {
      kind: 'person.rights-changed',
      body: { roles: ['storekeeper'], auditsUntil: null, reason },
    };
    await change(trainee, trainee.person, rights, 1).expect(403);
    await change(chief, trainee.person, rights, 0).expect(409);
    await change(chief, trainee.person, rights, 1).expect(201);
    await trainee.send(balance, uuidv7()).expect(201);
  });

  test('an auditor reads everything and enters nothing, up to and on their last day', async () => {
    const password = 'a long enough secret';
    const ask = (roles: readonly Role[], auditsUntil: string | null) =>
      chief.post('/api/people', { name: 'Ida Kern', password, roles, auditsUntil });
    await ask(['auditor'], null).expect(422);
    await ask(['analyst'], lab.today).expect(422);
    await ask(['analyst', 'auditor'], lab.today).expect(422);
    const added = (await ask(['auditor'], lab.today).expect(201)).body as PersonState;
    const auditor = await lab.signIn(added);
    await auditor.get('/api/records/bottle').expect(200);
    const refused = await auditor.send(balance, uuidv7()).expect(403);
    expect((refused.body as Problem).title).toBe(whyNot('enter'));
    const [sheet] = LABEL_SHEETS;
    await auditor.post('/api/labels', { bottleIds: [uuidv7()], sheet, startAt: 0 }).expect(403);
    const over: NewFact = {
      kind: 'person.rights-changed',
      body: { roles: ['auditor'], auditsUntil: addToDate(lab.today, { days: -1 }), reason },
    };
    await change(chief, added, over, 1).expect(201);
    await auditor.get('/api/records/bottle').expect(401);
    await lab.visitor().post('/api/session').send({ name: 'Ida Kern', password }).expect(401);
  });

  test('nobody takes a name that somebody has, nor shuts themselves out', async () => {
    const named = (name: string): NewFact => ({ kind: 'person.renamed', body: { name, reason } });
    await change(chief, trainee.person, named(' TAM  BERG'), 2).expect(422);
    await change(chief, trainee.person, named('Ula Prentt'), 2).expect(201);
    await lab.signIn({ ...trainee.person, name: 'ula prentt' });
    const none: NewFact = {
      kind: 'person.rights-changed',
      body: { roles: ['analyst'], auditsUntil: null, reason },
    };
    await change(chief, chief.person, none, 1).expect(422);
    await change(chief, chief.person, { kind: 'person.left', body: { reason } }, 1).expect(422);
  });

  test('whoever leaves in the middle of a run is signed out at once, signs nothing more and stays in the history', async () => {
    const ids = await stockLaboratory(chief, lab.today);
    const runId = await startRun(trainee, ids);
    const left: NewFact = { kind: 'person.left', body: { reason: 'went to another cellar' } };
    await change(chief, trainee.person, left, 3).expect(201);
    const waiting = await trainee.send(weighed(1, '0.4802'), runId).expect(401);
    expect((waiting.body as Problem).title).toMatch(/stays on this device/);
    const again = await lab
      .visitor()
      .post('/api/session')
      .send({ name: 'Ula Prentt', password: 'a long enough secret' })
      .expect(401);
    expect((again.body as Problem).title).toMatch(/This account is closed/);
    const { records } = (await chief.get('/api/records/run')).body as ListAnswer<'run'>;
    expect(records.find(({ id }) => id === runId)?.startedBy).toBe(trainee.person.id);
    // The run goes on in other hands; only those who may manage give it up.
    const analyst = await lab.signIn(lab.analyst);
    await analyst.send(weighed(1, '0.4802'), runId).expect(201);
    const give: NewFact = { kind: 'run.abandoned', body: { reason: 'nobody goes on with it' } };
    await analyst.send(give, runId, { basedOn: 2 }).expect(403);
    await chief.send(give, runId, { basedOn: 2 }).expect(201);
    await change(chief, trainee.person, { kind: 'person.returned', body: { reason } }, 4).expect(
      201,
    );
    await lab.signIn({ ...trainee.person, name: 'Ula Prentt' });
    expect(await verifyAudit(lab.database.db)).toMatchObject({ kind: 'whole' });
    expect(await listStrayProjections(lab.database.db)).toEqual([]);
  });
});
