import { v7 as uuidv7 } from 'uuid';
import type { Test } from 'supertest';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { decimalText } from '#core/measurement';
import type { Role } from '#core/rights';
import { addToDate, plainDate } from '#core/grammar';
import type { BottleState } from '#core/reagent';
import type { Certificate } from '#core/titration/run';
import { issueCertificate, judgeRun } from '#core/titration/judging';
import type { CertifyRequest, NewFact, Problem, SignRequest } from '#contract';
import { newId } from '#contract';
import { idOf } from '../../core/test-support/stored';
import { reproduce } from '../../calc/reproduce';
import { listAuditAfter } from '../audit/queries';
import { findProjection } from '../ledger/queries';
import { findRun } from '../ledger/references';
import type { Client, StockIds, TestLaboratory } from '../test-support/laboratory';
import {
  foundStockedLaboratory,
  startRun,
  titrateSeries,
  weighed,
} from '../test-support/laboratory';
import { decisionOf, runNow, signatureOf } from '../test-support/signing';

let laboratory: TestLaboratory;
let analyst: Client;
let chief: Client;
let ids: StockIds;

beforeAll(async () => {
  ({ laboratory, analyst, chief, ids } = await foundStockedLaboratory());
});
afterAll(() => laboratory.close());

const services = () => ({ db: laboratory.database.db, now: () => new Date() });

const signature = (runId: string, changes: Partial<SignRequest> = {}) =>
  signatureOf(laboratory, runId, changes);
const decision = (runId: string, changes: Partial<CertifyRequest> = {}) =>
  decisionOf(laboratory, runId, changes);

/** A series that its analyst has signed for; gives the run. */
async function performedRun(): Promise<string> {
  const runId = await startRun(analyst, ids);
  await titrateSeries(analyst, runId);
  await analyst.post(`/api/runs/${runId}/signatures`, await signature(runId)).expect(204);
  return runId;
}

async function bottle(): Promise<BottleState | undefined> {
  const answer = await analyst.get('/api/records/bottle').expect(200);
  return (answer.body as { records: BottleState[] }).records.find(({ id }) => id === ids.bottle);
}

test('a certificate freezes the run and marks the bottle, once', async () => {
  const runId = await performedRun();
  const path = `/api/runs/${runId}/certificate`;
  const request = await decision(runId);

  await chief.post(`/api/runs/${uuidv7()}/certificate`, request).expect(404);
  await chief.post(`/api/runs/${ids.bottle}/certificate`, request).expect(404);
  const unsigned = await analyst.post(path, request).expect(403);
  expect((unsigned.body as Problem).code).toBe('not-allowed');
  await chief.post(path, { ...request, basedOn: 12 }).expect(409);
  await chief.post(path, { ...request, validUntil: plainDate('2020-01-01') }).expect(422);
  const long = { ...request, validUntil: addToDate(laboratory.today, { months: 2 }) };
  expect(((await chief.post(path, long)).body as Problem).code).toBe('reason-needed');
  expect((await bottle())?.certified).toEqual([]);

  const issued = (await chief.post(path, request).expect(201)).body as Certificate;
  expect(issued).toMatchObject({
    number: '0001-1',
    replicatesAveraged: 3,
    replicatesMade: 4,
    analystIds: [analyst.person.id],
    certifiedById: chief.person.id,
    signatures: [
      { means: 'performed', by: analyst.person.id },
      { means: 'authorized', by: chief.person.id },
    ],
    isIndependent: true,
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

  const { version } = await runNow(laboratory, runId);
  await chief.post(path, { ...request, factId: newId(), basedOn: version }).expect(422);
  const late = await analyst.send(weighed(5, '0.4800'), runId).expect(422);
  expect((late.body as Problem).title).toContain('frozen');

  const issuedPath = (id: string) => `/api/runs/${id}/certificates/0001-1`;
  const file = (await analyst.get(issuedPath(runId)).expect(200)).body as object;
  expect(reproduce(file)).toMatchObject({ kind: 'identical' });
  await analyst.get(issuedPath(await startRun(analyst, ids))).expect(404);

  const stored = await findRun(services(), runId);
  if (!stored) throw new Error('the run is gone');
  expect(judgeRun(stored.state).result?.evaluation.value).toBe(issued.unrounded.molarity);
});

test('the analyst of a run is whoever entered its readings, not whoever set it up', async () => {
  const runId = await startRun(chief, ids);
  await titrateSeries(analyst, runId);
  await analyst.post(`/api/runs/${runId}/signatures`, await signature(runId)).expect(204);
  const answer = await chief
    .post(`/api/runs/${runId}/certificate`, await decision(runId))
    .expect(201);
  expect((answer.body as Certificate).analystIds).toEqual([analyst.person.id]);
});

test('an id that is taken leaves neither half of a certificate behind', async () => {
  const runId = await performedRun();
  const before = await bottle();
  const taken = (await findRun(services(), runId))?.facts[0]?.id ?? '';
  const answer = await chief.post(
    `/api/runs/${runId}/certificate`,
    await decision(runId, { bottleFactId: idOf(taken) }),
  );
  expect((answer.body as Problem).code).toBe('fact-id-reused');
  expect(await bottle()).toEqual(before);
  expect((await findRun(services(), runId))?.state.status).toBe('open');
});

test('what has been taken out of use in mid-run is certified with a reason only', async () => {
  const runId = await performedRun();
  const path = `/api/runs/${runId}/certificate`;
  const outOfUse = { kind: 'lot.withdrawn', body: { reason: 'recalled by the maker' } } as const;
  await chief.send(outOfUse, ids.khp, { basedOn: 1 }).expect(201);
  const refused = (await chief.post(path, await decision(runId)).expect(422)).body as Problem;
  expect(refused).toMatchObject({ code: 'reason-needed' });
  expect(JSON.stringify(refused)).toContain('Lot K-1 is out of use: recalled by the maker');
  const reason = 'The recall concerns the packing, not the content.';
  const issued = await chief.post(path, await decision(runId, { reason })).expect(201);
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
  await analyst.post(`/api/runs/${runId}/signatures`, await signature(runId)).expect(204);
  const certified = await decision(runId);
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
  await adopt(before.version + 2, state.version).expect(422);
});

describe('signatures', () => {
  const returned = (remarks: string): NewFact => ({ kind: 'run.returned', body: { remarks } });
  const codeOf = async (answer: Test, status: number): Promise<string> => {
    const refused = await answer.expect(status);
    return (refused.body as Problem).code;
  };
  const sign = (client: Client, runId: string, request: SignRequest) =>
    client.post(`/api/runs/${runId}/signatures`, request);

  test('a wrong password signs nothing and is on record; what was shown must be what is there', async () => {
    const runId = await startRun(analyst, ids);
    await titrateSeries(analyst, runId);
    const right = await signature(runId);
    for (let attempt = 1; attempt <= 6; attempt += 1) {
      const wrong = { ...right, password: 'not the password' };
      expect(await codeOf(sign(analyst, runId, wrong), 401)).toBe('wrong-credentials');
    }
    const log = await listAuditAfter(laboratory.database.db, 0, 1_000);
    const failed = log.map(({ text }) => JSON.parse(text) as { kind: string; personId?: string });
    expect(failed.filter(({ kind }) => kind === 'sign-in-failed')).toEqual(
      Array.from(
        { length: 6 },
        () => expect.objectContaining({ personId: laboratory.analyst.id }) as unknown,
      ),
    );
    const other = { ...right, draft: 'a'.repeat(64) };
    expect(await codeOf(sign(analyst, runId, other), 409)).toBe('stale-version');
    // Whoever had no part in the work cannot say that they did it.
    expect(await codeOf(sign(chief, runId, right), 422)).toBe('impossible-entry');
    const [one, two] = await Promise.all([
      sign(analyst, runId, right),
      sign(analyst, runId, { ...right, factId: newId() }),
    ]);
    expect([one.status, two.status].toSorted()).toEqual([204, 409]);
    // An answer that was lost: the same is signed once.
    await sign(analyst, runId, right);
    expect((await runNow(laboratory, runId)).signatures).toHaveLength(1);
  });

  test('a signature counts for what was signed: a correction afterwards has it signed again', async () => {
    const runId = await performedRun();
    const run = await runNow(laboratory, runId);
    const final = run.flasks[3]?.final;
    const body = { corrects: final?.factId ?? idOf('none'), readingMl: decimalText('24.05') };
    const correction: NewFact = {
      kind: 'run.reading-corrected',
      body: { ...body, reason: 'read again with the card' },
    };
    await analyst.send(correction, runId, { basedOn: run.version }).expect(201);
    const path = `/api/runs/${runId}/certificate`;
    const request = await decision(runId, { reason: 'they scatter' });
    const refused = (await chief.post(path, request).expect(422)).body as Problem;
    expect(refused.title).toContain('still to be signed as performed');
    await sign(analyst, runId, await signature(runId)).expect(204);
    await chief.post(path, await decision(runId, { reason: 'they scatter' })).expect(201);
  });

  test('what was given back is answered before it goes on, and only whoever looks it through gives it back', async () => {
    const runId = await performedRun();
    const back = returned('Why is flask 2 so low?');
    await analyst.send(back, runId, { basedOn: 14 }).expect(403);
    await chief.send(back, runId, { basedOn: 14 }).expect(201);
    const path = `/api/runs/${runId}/certificate`;
    expect(await codeOf(chief.post(path, await decision(runId)), 422)).toBe('impossible-entry');
    const answer: NewFact = { kind: 'run.answered', body: { answer: 'A drop hung from the tip.' } };
    await analyst.send(answer, runId, { basedOn: 15 }).expect(201);
    await analyst.send(answer, runId, { basedOn: 16 }).expect(422);
    // The result is what it was, so the signature holds.
    await chief.post(path, await decision(runId)).expect(201);
  });

  test('what a trainee did is checked by somebody else; nobody authorizes their own work where another can', async () => {
    const runId = await performedRun();
    const roles = (person: Client, given: readonly Role[], basedOn: number) =>
      chief
        .send(
          {
            kind: 'person.rights-changed',
            body: { roles: given, auditsUntil: null, reason: 'as it is now' },
          },
          person.person.id,
          { basedOn },
        )
        .expect(201);
    await roles(analyst, ['trainee', 'storekeeper'], 1);
    const path = `/api/runs/${runId}/certificate`;
    const refused = (await chief.post(path, await decision(runId)).expect(422)).body as Problem;
    expect(refused.title).toContain('signed as checked');
    await roles(analyst, ['analyst', 'storekeeper', 'reviewer', 'authorized-signatory'], 2);
    const own = await signature(runId, { means: 'checked' });
    expect(await codeOf(sign(analyst, runId, own), 422)).toBe('impossible-entry');
    expect(await codeOf(analyst.post(path, await decision(runId)), 422)).toBe('impossible-entry');
    await sign(chief, runId, await signature(runId, { means: 'checked' })).expect(204);
    const issued = await chief.post(path, await decision(runId)).expect(201);
    expect((issued.body as Certificate).isIndependent).toBe(true);
  });
});
