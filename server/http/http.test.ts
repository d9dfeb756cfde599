import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import type { Problem } from '#contract';
import type { Client, TestLaboratory } from '../test-support/laboratory';
import { foundTestLaboratory } from '../test-support/laboratory';
import { AppError, toAppError } from './appError';

let laboratory: TestLaboratory;
let client: Client;
beforeAll(async () => {
  laboratory = await foundTestLaboratory();
  client = await laboratory.signIn(laboratory.chief);
});
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

test('no request that anybody could think of brings the server down or makes it answer 5xx', async () => {
  const paths = [
    '/api/session',
    '/api/session/demo',
    '/api/first-account',
    '/api/people',
    '/api/facts',
    '/api/records/run',
    '/api/runs/x/certificate',
    `/api/runs/${laboratory.chief.id}/certificate`,
    '/api/nothing',
    '/api/%E0%A4%A',
    '/api/records/__proto__',
    '/api/runs/..%2f..%2fetc',
  ];
  const body = fc.oneof(
    fc.anything({ maxDepth: 3 }).map((value) => JSON.stringify(value) as string | undefined),
    fc.string({ unit: 'binary', maxLength: 200 }),
    fc.constant('{"kind":"run.burette-read","__proto__":{"a":1}}'),
    fc.constant('['.repeat(5_000)),
  );
  const type = fc.constantFrom(
    'application/json',
    'application/json; charset=utf-16',
    'text/plain',
    'x/y',
  );
  await fc.assert(
    fc.asyncProperty(fc.constantFrom(...paths), body, type, async (path, text, contentType) => {
      const answer = await client
        .post(path, undefined)
        .set('content-type', contentType)
        .send(text ?? '');
      expect(answer.status).toBeLessThan(500);
      if (answer.status >= 400) expectProblem(answer);
    }),
    { numRuns: 150 },
  );
  await client.get('/api/people').expect(200);
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
