import fc from 'fast-check';
import { v7 as uuidv7 } from 'uuid';
import { afterAll, beforeAll, expect, test } from 'vitest';
import type { NewFact } from '#contract';
import { verifyAudit } from '../audit/verify';
import type { Client, StockIds, TestLaboratory } from '../test-support/laboratory';
import {
  foundTestLaboratory,
  proposeFact,
  startRun,
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

const ODD_TIMES = [
  '2026-01-01T24:00:00.000Z',
  '2026-02-30T08:00:00.000Z',
  '0000-01-01T00:00:00.000Z',
  '1900-01-01T00:00:00.000Z',
  '9999-12-31T23:59:59.999Z',
  '2026-03-02T08:00:00.000+00:00',
  '2026-03-29T02:30:00.000Z',
];
const time = fc.oneof(
  fc.date({ noInvalidDate: true }).map((date) => date.toISOString()),
  fc.constantFrom(...ODD_TIMES),
);
const id = fc
  .tuple(fc.uuid(), fc.constantFrom('lower', 'UPPER'))
  .map(([made, way]) => (way === 'lower' ? made : made.toUpperCase()));
const integer = fc.oneof(
  fc.integer({ min: -3, max: 40 }),
  fc.constantFrom(-0, 2_147_483_647, 2_147_483_648, 3_000_000_000, Number.MAX_SAFE_INTEGER, 1.5),
);
const words = fc.oneof(
  fc.string({ unit: 'binary', maxLength: 30 }),
  fc.string({ unit: 'grapheme', maxLength: 30 }),
  fc.constantFrom(
    'e\u0301 or \u00e9',
    '\u202eright to left',
    '\ufeffmarked',
    'back\\slash "quoted"',
  ),
);
const decimal = fc.constantFrom('0.4800', '0.48', '00.48', '-0.00', '0.4802', '1e-3', '');

/** Spellings of what a thermometer's registration says, in its envelope or in its body. */
const odd = fc.oneof(
  fc.record({ id }),
  fc.record({ recordId: id }),
  fc.record({ deviceId: fc.option(id) }),
  fc.record({ deviceTime: time }),
  fc.record({ clockOffsetMs: fc.option(integer) }),
  fc.record({ basedOn: fc.option(integer) }),
  fc.record({ schemaVersion: integer }),
  fc.record({ name: words }),
  fc.record({ resolutionK: decimal }),
);

type Odd = Readonly<Record<string, unknown>>;

/** JSON with its -0, which JSON.stringify would lose. */
function textOf(value: unknown): string {
  return JSON.stringify(value, (_, part: unknown) =>
    Object.is(part, -0) ? '\u0000-0' : part,
  ).replaceAll('"\\u0000-0"', '-0');
}

function post(body: string) {
  return client.agent
    .post('/api/facts')
    .set('x-csrf-token', client.headers['x-csrf-token'])
    .set('content-type', 'application/json')
    .send(body);
}

test('whatever is accepted, the log holds, and the same fact sent again is the same fact', async () => {
  let accepted = 0;
  await fc.assert(
    fc.asyncProperty(odd, odd, async (one, other) => {
      const { name = 'T1', resolutionK = '0.1', ...envelope } = { ...one, ...other } as Odd;
      const body = {
        type: 'thermometer',
        name,
        resolutionK,
        toleranceK: '1',
        calibrationDue: null,
      };
      const registered = { kind: 'equipment.registered', body } as NewFact;
      const made = proposeFact(registered, uuidv7(), client.person.id);
      const text = textOf({ ...made, ...envelope });
      const first = await post(text);
      // 409: made by a newer program.
      expect([201, 400, 409]).toContain(first.status);
      if (first.status !== 201) return;
      accepted += 1;
      const again = await post(text);
      expect([again.status, again.body]).toEqual([200, first.body]);
    }),
    { numRuns: 1_000, endOnFailure: true },
  );
  expect(accepted).toBeGreaterThan(50);
  expect(await verifyAudit(laboratory.database.db)).toMatchObject({
    kind: 'whole',
    otherSpellings: 0,
  });
});

test('trailing zeros stay: they say how finely it was read', async () => {
  const runId = await startRun(client, ids);
  const answer = await client.send(weighed(1, '0.4800'), runId, { id: uuidv7() }).expect(201);
  expect(answer.body).toMatchObject({ body: { weighing: { massG: '0.4800' } } });
});
