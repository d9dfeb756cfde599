import { afterAll, beforeAll, expect, test } from 'vitest';
import type { Problem } from '#contract';
import { findLaboratory } from '../ledger/queries';
import type { Client, TestLaboratory } from '../test-support/laboratory';
import { foundTestLaboratory } from '../test-support/laboratory';

let laboratory: TestLaboratory;
let chief: Client;
let analyst: Client;

beforeAll(async () => {
  laboratory = await foundTestLaboratory();
  chief = await laboratory.signIn(laboratory.chief);
  analyst = await laboratory.signIn(laboratory.analyst);
});
afterAll(() => laboratory.close());

/** A picture of one pixel. */
const PIXEL = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
  'base64',
);
const SVG = Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" onload="alert(1)"/>');

const sent = (by: Client, name: string, type: string, content: Buffer) =>
  by.agent
    .post(`/api/laboratory/logo?name=${name}`)
    .set(by.headers)
    .set('content-type', type)
    .send(content);

test('a logo is a raster picture of at most 1 MB that prints, set by who manages the laboratory', async () => {
  const refused = async (answer: ReturnType<typeof sent>, status: number): Promise<string> =>
    ((await answer.expect(status)).body as Problem).code;
  const wrong = 'unsupported-media-type';
  expect(await refused(sent(chief, 'logo.svg', 'image/svg+xml', SVG), 415)).toBe(wrong);
  expect(await refused(sent(chief, 'logo.png', 'image/png', SVG), 415)).toBe(wrong);
  // A picture by its first bytes, and no more.
  expect(await refused(sent(chief, 'logo.png', 'image/png', PIXEL.subarray(0, 40)), 415)).toBe(
    wrong,
  );
  const large = Buffer.concat([PIXEL, Buffer.alloc(20 * 1024 * 1024)]);
  expect(await refused(sent(chief, 'logo.png', 'image/png', large), 413)).toBe('too-large');
  const atLimit = Buffer.concat([PIXEL, Buffer.alloc(1024 * 1024 - PIXEL.length)]);
  const beyond = Buffer.concat([atLimit, Buffer.alloc(1)]);
  expect(await refused(sent(chief, 'logo.png', 'image/png', beyond), 413)).toBe('too-large');
  expect(await refused(sent(analyst, 'logo.png', 'image/png', PIXEL), 403)).toBe('not-allowed');
  expect((await findLaboratory(laboratory.database.db))?.logo).toBeNull();

  await sent(chief, 'logo.png', 'image/png', atLimit).expect(201);
  await sent(chief, 'other.png', 'image/png', PIXEL).expect(201);
  const now = await findLaboratory(laboratory.database.db);
  expect(now?.logo).toMatchObject({ name: 'other.png', sizeBytes: PIXEL.length });
  const removed = { kind: 'laboratory.logo-removed', body: { reason: 'not ours' } } as const;
  await chief.send(removed, now?.id ?? '', { basedOn: now?.version ?? 0 }).expect(201);
  expect((await findLaboratory(laboratory.database.db))?.logo).toBeNull();
});
