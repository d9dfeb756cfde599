import request from 'supertest';
import { afterAll, beforeAll, expect, test } from 'vitest';
import type { Problem, SessionAnswer } from '#contract';
import type { TestDatabase } from '../test-support/database';
import { createTestDatabase } from '../test-support/database';
import type { TestLaboratory } from '../test-support/laboratory';
import {
  foundTestLaboratory,
  proposeFact,
  startTestApp,
  weighed,
} from '../test-support/laboratory';
import { addPerson, issueFirstAccountCode } from './accounts';

let laboratory: TestLaboratory;
let empty: TestDatabase;

beforeAll(async () => {
  [laboratory, empty] = await Promise.all([foundTestLaboratory(), createTestDatabase()]);
});
afterAll(() => Promise.all([laboratory.close(), empty.drop()]));

test('nobody reads or writes without a session', async () => {
  const visitor = laboratory.visitor();
  for (const path of ['/api/records/bottle', '/api/people', '/api/runs/x']) {
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

test('the session lives in a guarded cookie, and changes need its token and our own origin', async () => {
  const agent = laboratory.visitor();
  const answer = await agent
    .post('/api/session')
    .send({ name: 'Oda Lind', password: 'a long enough secret' })
    .expect(201);
  const [cookie = ''] = answer.headers['set-cookie'] as unknown as string[];
  expect(cookie).toMatch(/HttpOnly/);
  expect(cookie).toMatch(/SameSite=Strict/);
  const { csrfToken } = answer.body as Extract<SessionAnswer, { kind: 'signed-in' }>;
  const person = {
    name: 'Nils Ahm',
    password: 'long enough too',
    mayCertify: false,
    mayManage: false,
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
  await agent.get('/api/people').expect(401);
});

test('only those who manage add people; real people are never offered for one click', async () => {
  const analyst = await laboratory.signIn(laboratory.analyst);
  const person = { name: 'Eve', password: 'long enough too', mayCertify: true, mayManage: true };
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
    person: { mayCertify: true, mayManage: true },
  });
  await request(app.server).post('/api/first-account').send(account(code)).expect(403);
  expect(await issueFirstAccountCode(services)).toBeNull();
  await app.close();
});

test('the demo is open to whoever sits at this machine, and to nobody behind a proxy or a borrowed name', async () => {
  const services = { db: laboratory.database.db, now: () => new Date() };
  const rights = { mayCertify: false, mayManage: false };
  const made = await addPerson(
    services,
    null,
    { name: 'Made Up', password: 'nobody knows it', ...rights },
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

test('one browser cannot take the whole server', async () => {
  const app = await startTestApp(empty, { requestsPerMinute: 5 });
  const statuses: number[] = [];
  for (let turn = 0; turn < 7; turn += 1) {
    statuses.push((await request(app.server).get('/api/session')).status);
  }
  expect(statuses).toEqual([200, 200, 200, 200, 200, 429, 429]);
  await app.close();
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
  expect((answer.headers['set-cookie'] as unknown as string[])[0]).toMatch(/; Secure/);
  expect(answer.headers['strict-transport-security']).toBeDefined();
  await signIn({ origin: 'https://elsewhere.example' }).expect(403);
  await signIn({ origin: 'http://bench.example' }).expect(403);
  const silent = await signIn({ 'x-forwarded-proto': 'http' }).expect(400);
  expect((silent.body as Problem).title).toContain('X-Forwarded-Proto');
  const offer = await request(app.server).get('/api/session').set(proxied);
  expect(offer.body).toMatchObject({ kind: 'signed-out', demoPeople: [] });
  await app.close();
});
