import { v7 as uuidv7 } from 'uuid';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { addToDate, plainDate } from '#core/grammar';
import type { BottleState } from '#core/reagent';
import type { Certificate } from '#core/titration/run';
import { issueCertificate, judgeRun } from '#core/titration/judging';
import type { CertifyRequest, Problem } from '#contract';
import { newId } from '#contract';
import { idOf } from '../../core/test-support/stored';
import { findProjection } from '../ledger/queries';
import { findRun } from '../ledger/references';
import type { Client, StockIds, TestLaboratory } from '../test-support/laboratory';
import {
  foundTestLaboratory,
  startRun,
  stockLaboratory,
  titrateSeries,
  weighed,
} from '../test-support/laboratory';

let laboratory: TestLaboratory;
let analyst: Client;
let chief: Client;
let ids: StockIds;

beforeAll(async () => {
  laboratory = await foundTestLaboratory();
  analyst = await laboratory.signIn(laboratory.analyst);
  chief = await laboratory.signIn(laboratory.chief);
  ids = await stockLaboratory(analyst, laboratory.today);
});
afterAll(() => laboratory.close());

const services = () => ({ db: laboratory.database.db, now: () => new Date() });

function decision(changes: Partial<CertifyRequest> = {}): CertifyRequest {
  return {
    factId: newId(),
    bottleFactId: newId(),
    deviceId: null,
    deviceTime: new Date().toISOString(),
    clockOffsetMs: null,
    basedOn: 13,
    validUntil: addToDate(laboratory.today, { months: 1 }),
    reason: null,
    ...changes,
  };
}

async function bottle(): Promise<BottleState | undefined> {
  const answer = await analyst.get('/api/records/bottle').expect(200);
  return (answer.body as { records: BottleState[] }).records.find(({ id }) => id === ids.bottle);
}

test('a certificate freezes the run and marks the bottle, once', async () => {
  const runId = await startRun(analyst, ids);
  await titrateSeries(analyst, runId);
  const path = `/api/runs/${runId}/certificate`;
  const request = decision();

  await chief.post(`/api/runs/${uuidv7()}/certificate`, request).expect(404);
  await chief.post(`/api/runs/${ids.bottle}/certificate`, request).expect(404);
  const unsigned = await analyst.post(path, request).expect(403);
  expect((unsigned.body as Problem).code).toBe('not-allowed');
  await chief.post(path, decision({ basedOn: 12 })).expect(409);
  await chief.post(path, decision({ validUntil: plainDate('2020-01-01') })).expect(422);
  const long = decision({ validUntil: addToDate(laboratory.today, { months: 2 }) });
  expect(((await chief.post(path, long)).body as Problem).code).toBe('reason-needed');
  expect((await bottle())?.certified).toEqual([]);

  const issued = (await chief.post(path, request).expect(201)).body as Certificate;
  expect(issued).toMatchObject({
    number: '0001-1',
    replicatesAveraged: 3,
    replicatesMade: 4,
    analystIds: [analyst.person.id],
    certifiedById: chief.person.id,
  });
  expect((await chief.post(path, request).expect(201)).body).toEqual(issued);
  // The same id is the same decision, or none.
  for (const other of [{ validUntil: addToDate(laboratory.today, { days: 3 }) }, { basedOn: 12 }]) {
    const reused = await chief.post(path, { ...request, ...other }).expect(409);
    expect((reused.body as Problem).code).toBe('fact-id-reused');
  }
  expect((await bottle())?.certified).toMatchObject([
    { runId, molarity: issued.molarity, validUntil: request.validUntil },
  ]);

  await chief.post(path, decision({ basedOn: 14 })).expect(422);
  const late = await analyst.send(weighed(5, '0.4800'), runId).expect(422);
  expect((late.body as Problem).title).toContain('frozen');

  const stored = await findRun(services(), runId);
  if (!stored) throw new Error('the run is gone');
  expect(judgeRun(stored.state).result?.evaluation.value).toBe(issued.unrounded.molarity);
});

test('the analyst of a run is whoever entered its readings, not whoever set it up', async () => {
  const runId = await startRun(chief, ids);
  await titrateSeries(analyst, runId);
  const answer = await chief.post(`/api/runs/${runId}/certificate`, decision()).expect(201);
  expect((answer.body as Certificate).analystIds).toEqual([analyst.person.id]);
});

test('an id that is taken leaves neither half of a certificate behind', async () => {
  const runId = await startRun(analyst, ids);
  await titrateSeries(analyst, runId);
  const before = await bottle();
  const taken = (await findRun(services(), runId))?.facts[0]?.id ?? '';
  const answer = await chief.post(
    `/api/runs/${runId}/certificate`,
    decision({ bottleFactId: idOf(taken) }),
  );
  expect((answer.body as Problem).code).toBe('fact-id-reused');
  expect(await bottle()).toEqual(before);
  expect((await findRun(services(), runId))?.state.status).toBe('open');
});

test('what has been taken out of use in mid-run is certified with a reason only', async () => {
  const runId = await startRun(analyst, ids);
  await titrateSeries(analyst, runId);
  const path = `/api/runs/${runId}/certificate`;
  const outOfUse = { kind: 'lot.withdrawn', body: { reason: 'recalled by the maker' } } as const;
  await chief.send(outOfUse, ids.khp, { basedOn: 1 }).expect(201);
  const refused = (await chief.post(path, decision()).expect(422)).body as Problem;
  expect(refused).toMatchObject({ code: 'reason-needed' });
  expect(JSON.stringify(refused)).toContain('Lot K-1 is out of use: recalled by the maker');
  const reason = 'The recall concerns the packing, not the content.';
  const issued = await chief.post(path, decision({ reason })).expect(201);
  expect((issued.body as Certificate).reason).toBe(reason);
});

test('a lot that was mistyped is put right once; an open run goes on with it, what was certified keeps what it had', async () => {
  const { khp } = ids;
  const { db } = laboratory.database;
  const lotNow = async () => findProjection(db, 'lot', khp);
  // Another test has taken it out of use.
  const back = { kind: 'lot.returned', body: { reason: 'it was only dust' } } as const;
  await chief.send(back, khp, { basedOn: (await lotNow())?.version ?? 0 }).expect(201);
  const before = await lotNow();
  if (!before) throw new Error('there is no lot');
  const runId = await startRun(analyst, ids);
  await titrateSeries(analyst, runId);
  const molarity = async () => (await findProjection(db, 'run', runId))?.molarity ?? Number.NaN;
  const asTyped = await molarity();

  const correct = (purity: string) =>
    chief.send(
      {
        kind: 'lot.corrected',
        body: { lot: { ...before.lot, purity }, reason: 'a digit was missing' },
      },
      khp,
      { basedOn: before.version },
    );
  const [first, second] = await Promise.all([correct('0.9950'), correct('0.9940')]);
  expect([first.status, second.status].toSorted()).toEqual([201, 409]);
  expect((await lotNow())?.corrections).toHaveLength(1);
  expect(await molarity()).toBe(asTyped);

  const adopt = (version: number, basedOn: number) =>
    analyst.send(
      {
        kind: 'run.record-adopted',
        body: { kind: 'lot', id: khp, version, reason: 'the lot was corrected' },
      },
      runId,
      { basedOn },
    );
  await adopt(before.version + 5, 13).expect(422);
  await adopt(before.version + 1, 13).expect(201);
  const purity = Number((await lotNow())?.lot.purity);
  expect((await molarity()) / asTyped).toBeCloseTo(purity / Number(before.lot.purity), 9);
  const certified = decision({ basedOn: 14 });
  const issued = (await chief.post(`/api/runs/${runId}/certificate`, certified).expect(201))
    .body as Certificate;
  const again = await lotNow();
  const body = { lot: before.lot, reason: 'it was right after all' };
  await chief
    .send({ kind: 'lot.corrected', body }, khp, { basedOn: again?.version ?? 0 })
    .expect(201);
  const state = (await findRun(services(), runId))?.state;
  if (!state) throw new Error('there is no run');
  expect(issueCertificate(state, judgeRun(state), issued).molarity).toBe(issued.molarity);
  await adopt(before.version + 2, 15).expect(422);
});
