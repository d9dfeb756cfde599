import fc from 'fast-check';
import type { Knex } from 'knex';
import { v7 as uuidv7 } from 'uuid';
import { afterAll, beforeAll, expect, test } from 'vitest';
import type { ListAnswer, Problem, RecordAnswer, StockAnswer } from '#contract';
import { addToDate } from '#core/grammar';
import { stockLeft } from '#core/ledger';
import type { Counted, Standing } from '#core/record';
import { standingOn } from '#core/record';
import type { Client, StockIds, TestLaboratory } from '../test-support/laboratory';
import {
  bottleBody,
  foundTestLaboratory,
  read,
  startRun,
  stockLaboratory,
  titrateSeries,
  weighed,
} from '../test-support/laboratory';
import type { ProjectionRow } from './queries';
import { listLeft, listPage, writeProjections } from './queries';

let laboratory: TestLaboratory;
let client: Client;
let chief: Client;
let ids: StockIds;

/** More than two pages. */
const MANY = 205;

beforeAll(async () => {
  laboratory = await foundTestLaboratory();
  chief = await laboratory.signIn(laboratory.chief);
  client = await laboratory.signIn(laboratory.analyst);
  ids = await stockLaboratory(client, laboratory.today);
  for (let i = 0; i < MANY; i += 1) {
    const code = `M${String(i).padStart(3, '0')}`;
    const body = bottleBody(code, ids.naoh, client, laboratory.today);
    await client.send({ kind: 'bottle.prepared', body }, uuidv7()).expect(201);
  }
}, 240_000);

afterAll(() => laboratory.close());

async function page(query: string): Promise<ListAnswer<'bottle'>> {
  return (await client.get(`/api/records/bottle?${query}`).expect(200))
    .body as ListAnswer<'bottle'>;
}

/** All codes of a list, page after page. */
async function codesOf(query: string): Promise<string[]> {
  const codes: string[] = [];
  for (let after: string | null = ''; after !== null;) {
    const { records, next }: ListAnswer<'bottle'> = await page(
      `${query}${after === '' ? '' : `&after=${after}`}`,
    );
    expect(records.length).toBeLessThanOrEqual(100);
    codes.push(...records.map(({ code }) => code));
    after = next;
  }
  return codes;
}

test('a list comes in pages, each record once, in its order', async () => {
  const all = [...Array.from({ length: MANY }, (_, i) => `M${String(i).padStart(3, '0')}`), '0001'];
  expect(await codesOf('order=name')).toEqual(all.toSorted());
  const newest = await codesOf('order=newest');
  expect(newest.toSorted()).toEqual(all.toSorted());
  expect([newest.at(0), newest.at(-1)]).toEqual(['M204', '0001']);
  // A page ends the list when it is just full.
  expect((await page('order=name&search=m1')).next).toBeNull();
  expect(await codesOf('order=name&search=m1')).toHaveLength(100);
});

test('a list that changes while it is read shows each of its records once', async () => {
  const first = await page('order=newest&search=sodium');
  const body = bottleBody('N001', ids.naoh, client, laboratory.today);
  await client.send({ kind: 'bottle.prepared', body }, uuidv7()).expect(201);
  const second = await page(`order=newest&search=sodium&after=${first.next ?? ''}`);
  const codes = [...first.records, ...second.records].map(({ code }) => code);
  expect(new Set(codes).size).toBe(codes.length);
  expect(codes).not.toContain('N001');
});

test('a place belongs to its list; one made up by hand, or of another list, is refused', async () => {
  const { next } = await page('order=name');
  const place = (value: unknown): string =>
    Buffer.from(JSON.stringify(value)).toString('base64url');
  const real = JSON.parse(Buffer.from(next ?? '', 'base64url').toString()) as {
    list: object;
    place: object;
  };
  for (const query of [
    `order=newest&after=${next ?? ''}`,
    `order=name&search=m1&after=${next ?? ''}`,
    `order=name&standing=certified&after=${next ?? ''}`,
    `order=name&atHand=yes&after=${next ?? ''}`,
    'order=name&after=made-up',
    `order=name&after=${place({ ...real, place: { key: 'M', id: '1; DROP TABLE facts' } })}`,
    `order=name&after=${place({ ...real, place: { key: 'M\0', id: ids.khp } })}`,
    `order=newest&after=${place({ list: { ...real.list, order: 'newest' }, place: { key: 'M', id: ids.khp } })}`,
    'order=oldest',
    'about=nobody',
    'restsOn=nothing',
    `order=name&restsOn=${ids.naoh}&after=${next ?? ''}`,
  ]) {
    const answer = await client.get(`/api/records/bottle?${query}`).expect(400);
    expect((answer.body as Problem).code).toBe('invalid-request');
  }
  const beyond = place({ ...real, place: { key: 'ZZZ', id: ids.khp } });
  expect(await page(`order=name&after=${beyond}`)).toMatchObject({ records: [], next: null });
  expect(await page('search=nothing+of+the+kind')).toMatchObject({ records: [], next: null });
  // What means something to the database is searched for as it stands.
  expect(await page('search=%25')).toMatchObject({ records: [] });
  expect(await page('search=%5C')).toMatchObject({ records: [] });
});

test('what is left follows from the facts of the moment, and a run is found by its bottle', async () => {
  const runId = await startRun(client, ids);
  await titrateSeries(client, runId);
  const answer = await client.get('/api/records/run?search=0001').expect(200);
  const runs = answer.body as ListAnswer<'run'>;
  expect(runs.records.map(({ id }) => id)).toEqual([runId]);
  expect(runs.names).toEqual({ [ids.bottle]: '0001' });
  expect((await client.get('/api/records/run?search=M001').expect(200)).body).toMatchObject({
    records: [],
  });
  // 0.4802 + 0.4795 + 0.4811 + 0.4788 g; of the titrant what was rinsed and filled with, too.
  const titrant = runs.records[0]?.taken.find(({ id }) => id === ids.bottle)?.amount ?? 0;
  expect(titrant).toBeGreaterThan(93.73);
  const { left } = (await client.get('/api/stock').expect(200)).body as StockAnswer;
  expect(left[ids.khp]).toBeCloseTo(500 - 1.9196, 9);
  expect(left[ids.bottle]).toBeCloseTo(1000 - titrant, 9);
  await client.send(weighed(5, '0.4790'), runId).expect(201);
  await client.send(read(5, 'initial', '0.00'), runId).expect(201);
  const one = await client.get(`/api/records/lot/${ids.khp}`).expect(200);
  expect((one.body as RecordAnswer<'lot'>).left).toBeCloseTo(500 - 2.3986, 9);
  const bottle = await client.get(`/api/records/bottle/${ids.bottle}`).expect(200);
  expect((bottle.body as RecordAnswer<'bottle'>).names).toMatchObject({ [ids.naoh]: 'N-1' });
  await client.get(`/api/records/bottle/${ids.khp}`).expect(404);
});

test('a lot leads to what was made of it and titrated with it, and to nothing else', async () => {
  const on = async (kind: string, id: string, search = ''): Promise<readonly string[]> => {
    const answer = await client
      .get(`/api/records/${kind}?restsOn=${id}&search=${search}`)
      .expect(200);
    return (answer.body as ListAnswer<'run'>).records.map((record) => record.id);
  };
  expect(await on('bottle', ids.naoh, '0001')).toEqual([ids.bottle]);
  expect(await on('run', ids.khp)).toHaveLength(1);
  expect(await on('run', ids.bottle)).toEqual(await on('run', ids.khp));
  expect(await on('bottle', ids.khp)).toEqual([]);
  expect(await on('run', ids.naoh)).toEqual([]);
});

test('what is at hand is neither withdrawn nor long over', async () => {
  const [record] = (await page('order=name&search=M010')).records;
  await chief
    .send({ kind: 'bottle.withdrawn', body: { reason: 'it was empty' } }, record?.id ?? '', {
      basedOn: 1,
    })
    .expect(201);
  expect(await codesOf('order=name&atHand=yes')).not.toContain('M010');
  expect(await codesOf('order=name&standing=withdrawn')).toEqual(['M010']);
  expect(await codesOf('standing=not-standardized')).toHaveLength(MANY + 1);
});

/** Rows of projections that exist for their stock and standing only. */
function rowOf(changes: Partial<ProjectionRow> & Pick<ProjectionRow, 'recordId'>): ProjectionRow {
  return {
    ...{ kind: 'method', version: 1, state: {} as ProjectionRow['state'], name: '', words: '' },
    ...{ aboutId: null, begunAt: '2026-03-01T00:00:00.000Z', standing: 'in-use', lastDay: null },
    ...{ standingAfter: 'in-use', warningDays: null, atHandUntil: 'infinity' },
    ...{ counted: null, taken: [] },
    ...changes,
  };
}

async function inRecords<T>(count: number, work: (tx: Knex, ids: string[]) => Promise<T>) {
  const undo = new Error('undo');
  const some = Array.from({ length: count }, () => uuidv7());
  await laboratory.database.owner
    .transaction(async (tx) => {
      await tx('records').insert(some.map((id) => ({ id, kind: 'method', version: 0 })));
      await work(tx, some);
      throw undo;
    })
    .catch((error: unknown) => {
      if (error !== undo) throw error;
    });
}

test('what is left, summed by the database, is what a reckoning from scratch gives: late arrivals and counts too', async () => {
  const time = fc
    .integer({ min: 0, max: 40 })
    .map((hours) => new Date(Date.UTC(2026, 2, 1, hours)).toISOString());
  const amount = fc.integer({ min: 0, max: 100_000 }).map((n) => n / 1000);
  const PARENTS = 3;
  const SOURCES = 4;
  const write = fc.oneof(
    fc.record({
      parent: fc.nat(PARENTS - 1),
      counted: fc.option(fc.record({ amount, at: fc.option(time) })),
    }),
    fc.record({
      source: fc.nat(SOURCES - 1),
      at: time,
      taken: fc.array(fc.record({ from: fc.nat(PARENTS - 1), amount }), { maxLength: 3 }),
    }),
  );
  await fc.assert(
    fc.asyncProperty(fc.array(write, { maxLength: 25 }), async (writes) => {
      await inRecords(PARENTS + SOURCES, async (tx, all) => {
        const idOf = (n: number): string => all[n] ?? '';
        const counts = new Map<string, Counted>();
        const taken = new Map<string, { id: string; amount: number; at: string }[]>();
        for (const one of writes) {
          if ('parent' in one) {
            const { parent, counted } = one;
            if (counted) counts.set(idOf(parent), counted);
            else counts.delete(idOf(parent));
            const kept = counted && { ...counted, at: counted.at ?? '-infinity' };
            await writeProjections(tx, [rowOf({ recordId: idOf(parent), counted: kept })]);
          } else {
            const recordId = idOf(PARENTS + one.source);
            const from = one.taken.map((each) => ({
              ...{ id: idOf(each.from), amount: each.amount, at: one.at },
            }));
            taken.set(recordId, from);
            await writeProjections(tx, [rowOf({ recordId, taken: from })]);
          }
        }
        const expected = stockLeft(counts, [...taken.values()].flat());
        const found = await listLeft(tx, all);
        expect([...found.keys()].toSorted()).toEqual([...expected.keys()].toSorted());
        for (const [id, left] of expected) expect(found.get(id)).toBeCloseTo(left, 6);
      });
    }),
    { numRuns: 40 },
  );
});

test('where a record stands on a day, compared by the database, is what core says', async () => {
  const days = fc.integer({ min: -20, max: 20 });
  const standing = fc.record({
    lastDay: fc.option(days),
    warningDays: fc.option(fc.integer({ min: 0, max: 30 })),
  });
  const standings = fc.array(standing, { minLength: 1, maxLength: 20 });
  const { today } = laboratory;
  await fc.assert(
    fc.asyncProperty(standings, fc.integer({ min: 1, max: 30 }), async (some, warnsDays) => {
      const made = some.map(({ lastDay, warningDays }): Standing => ({
        ...{ now: 'in-use', after: 'over', warningDays },
        lastDay: lastDay === null ? null : addToDate(today, { days: lastDay }),
      }));
      await inRecords(made.length, async (tx, all) => {
        await writeProjections(
          tx,
          made.map(({ now, lastDay, after, warningDays }, i) =>
            rowOf({
              ...{ recordId: all[i] ?? '', standing: now, lastDay, standingAfter: after },
              warningDays,
            }),
          ),
        );
        for (const word of ['in-use', 'due-soon', 'over']) {
          const wanted = {
            kind: 'method',
            order: 'newest',
            terms: [],
            aboutId: null,
            restsOnId: null,
          } as const;
          const asked = {
            ...wanted,
            standing: [word],
            isAtHand: false,
            today,
            warningDays: warnsDays,
          };
          const found = (await listPage(tx, asked, null, 100)).map(({ id }) => id);
          const expected = all.filter(
            (_, i) => made[i] && standingOn(made[i], today, warnsDays) === word,
          );
          expect(found.toSorted()).toEqual(expected.toSorted());
        }
      });
    }),
    { numRuns: 25 },
  );
});
