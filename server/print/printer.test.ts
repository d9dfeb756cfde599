import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, expect, test } from 'vitest';
import { LABEL_SHEETS } from '#core/label';
import { Printer } from './printer';
import type { PrintTask } from './printWorker';

let folder: string;
let file: string;
let printer: Printer;

/** A worker that hangs at sheets begun at label 13, and else gives back where the sheet was begun. */
const WORKER = `export default ({ startAt }) => {
  while (startAt === 13);
  return new Uint8Array([startAt]);
};`;

beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'vine-printer-'));
  file = join(folder, 'worker.mjs');
  writeFileSync(file, WORKER);
  printer = new Printer(file);
});
afterEach(async () => {
  await printer.close();
  rmSync(folder, { recursive: true, force: true });
});

function task(startAt: number): PrintTask {
  const [sheet] = LABEL_SHEETS;
  if (!sheet) throw new Error('there is no sheet');
  return { kind: 'labels', labels: [], sheet, startAt };
}

test('people take turns, whoever asked for how many', async () => {
  const order: string[] = [];
  const print = async (person: string, startAt: number): Promise<void> => {
    const [made] = await printer.print(person, task(startAt));
    order.push(`${person}${String(made)}`);
  };
  await Promise.all([
    ...[1, 2, 3].map((startAt) => print('a', startAt)),
    ...[1, 2].map((startAt) => print('b', startAt)),
    print('c', 1),
  ]);
  // The first is under way before anybody else has asked.
  expect(order).toEqual(['a1', 'a2', 'b1', 'c1', 'a3', 'b2']);
});

test('one that does not end is ended, and the next is made all the same', async () => {
  // Long enough for a thread to begin on a busy machine: the next sheet has the same limit.
  const impatient = new Printer(file, { labels: 3_000, document: 3_000, trial: 3_000 });
  const stuck = impatient.print('a', task(13));
  const next = impatient.print('b', task(7));
  await expect(stuck).rejects.toMatchObject({ code: 'too-large' });
  expect([...(await next)]).toEqual([7]);
  await impatient.close();
});

test('somebody with eight sheets waiting is told to wait; others are not', async () => {
  const waiting = Array.from({ length: 9 }, (_, i) => printer.print('a', task(i)));
  expect(() => printer.print('a', task(10))).toThrow('Wait for them first');
  await printer.print('b', task(1));
  expect((await Promise.all(waiting)).map(([made]) => made)).toEqual([0, 1, 2, 3, 4, 5, 6, 7, 8]);
});
