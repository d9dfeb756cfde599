import { afterAll, beforeAll, expect, test } from 'vitest';
import { addToDate, plainDateAt } from '#core/grammar';
import { isSigned } from '#core/ledger';
import type { HistoryAnswer, Problem } from '#contract';
import type { Client, StockIds, TestLaboratory } from '../test-support/laboratory';
import { foundStockedLaboratory, startRun, titrateSeries } from '../test-support/laboratory';
import { signatureOf } from '../test-support/signing';

let laboratory: TestLaboratory;
let analyst: Client;
let chief: Client;
let ids: StockIds;
let runId: string;

beforeAll(async () => {
  ({ laboratory, analyst, chief, ids } = await foundStockedLaboratory());
  for (let made = 0; made < 4; made += 1) {
    runId = await startRun(made % 2 === 0 ? analyst : chief, ids);
    await titrateSeries(analyst, runId);
  }
  await analyst
    .post(`/api/runs/${runId}/signatures`, await signatureOf(laboratory, runId))
    .expect(204);
});
afterAll(() => laboratory.close());

async function history(query = ''): Promise<HistoryAnswer> {
  return (await chief.get(`/api/history?${query}`).expect(200)).body as HistoryAnswer;
}

/** Every line of a question, page after page. */
async function all(query = ''): Promise<HistoryAnswer['lines']> {
  const lines: HistoryAnswer['lines'][number][] = [];
  for (let after = ''; ;) {
    const page = await history(
      after === '' ? query : `${query}&after=${encodeURIComponent(after)}`,
    );
    lines.push(...page.lines);
    if (page.next === null) return lines;
    expect(page.lines).toHaveLength(50);
    after = page.next;
  }
}

test('the history is every fact once, the newest first', async () => {
  const lines = await all();
  const stored = await laboratory.database.db('facts').count<{ count: string }[]>();
  expect(lines).toHaveLength(Number(stored[0]?.count));
  expect(lines.length).toBeGreaterThan(50);
  expect(new Set(lines.map(({ fact }) => fact.id)).size).toBe(lines.length);
  const times = lines.map(({ fact }) => fact.recordedAt ?? '');
  expect(times).toEqual(times.toSorted().toReversed());
  const onRun = lines.find(({ fact }) => fact.recordId === runId);
  expect(onRun).toMatchObject({ name: '', about: '0001' });
});

test('it is narrowed by record, kind, person, signatures and days', async () => {
  const lines = await all();
  const same = async (
    query: string,
    isAsked: (line: HistoryAnswer['lines'][number]) => boolean,
  ) => {
    const found = await all(query);
    expect(found.length).toBeGreaterThan(0);
    expect(found).toEqual(lines.filter(isAsked));
  };
  await same(`recordId=${runId}`, ({ fact }) => fact.recordId === runId);
  await same('recordKind=lot', ({ fact }) => fact.recordKind === 'lot');
  await same(`by=${chief.person.id}`, ({ fact }) => fact.authorId === chief.person.id);
  await same('signed=yes', ({ fact }) => isSigned(fact.kind));
  await same(
    `recordKind=run&by=${analyst.person.id}`,
    ({ fact }) => fact.recordKind === 'run' && fact.authorId === analyst.person.id,
  );
  const { today } = laboratory;
  const yesterday = addToDate(today, { days: -1 });
  const tomorrow = addToDate(today, { days: 1 });
  await same(
    `from=${today}&to=${today}`,
    ({ fact }) => plainDateAt(fact.recordedAt ?? '', 'Europe/Vienna') === today,
  );
  expect(await all(`to=${yesterday}`)).toEqual([]);
  expect(await all(`from=${tomorrow}`)).toEqual([]);
});

test('a place that is none, and a kind that is none, are the request’s fault', async () => {
  for (const query of [
    'after=nowhere',
    'after={"at":"x","id":"y"}',
    'recordKind=wine',
    'from=2026-13-01',
  ]) {
    const refused = await chief.get(`/api/history?${query}`).expect(400);
    expect((refused.body as Problem).code).toBe('invalid-request');
  }
});

test('who may has the log verified from the screen; the first break is named', async () => {
  const verify = (by: Client) => by.post('/api/audit/verification', {});
  expect(((await verify(analyst).expect(403)).body as Problem).code).toBe('not-allowed');
  expect((await verify(chief).expect(200)).body).toMatchObject({ kind: 'whole' });
  const { owner } = laboratory.database;
  const at = async (kind: string): Promise<{ id: string }> =>
    await owner('facts').where({ kind }).first<{ id: string }>('id');
  await owner.raw('ALTER TABLE facts DISABLE TRIGGER USER');
  const { id } = await at('lot.registered');
  await owner('facts')
    .where({ id })
    .update({ device_time: new Date(0) });
  await owner.raw('ALTER TABLE facts ENABLE TRIGGER USER');
  const broken = (await verify(chief).expect(200)).body as { why: string; sequence: number };
  expect(broken).toMatchObject({ kind: 'broken' });
  expect(broken.why).toContain(id);
  expect(broken.sequence).toBeGreaterThan(0);
});
