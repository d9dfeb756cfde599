import { afterAll, beforeAll, expect, test } from 'vitest';
import { decimalText } from '#core/measurement';
import { freshnessOf, knownMolarity } from '#core/reagent';
import type { Certificate } from '#core/titration/run';
import type { CertificateFile, NewFact, Problem, WithdrawRequest } from '#contract';
import { newId } from '#contract';
import { idOf } from '../../core/test-support/stored';
import { reproduce } from '../../calc/reproduce';
import { findProjection } from '../ledger/queries';
import type { Client, StockIds, TestLaboratory } from '../test-support/laboratory';
import {
  foundStockedLaboratory,
  PASSWORD,
  startRun,
  titrateSeries,
} from '../test-support/laboratory';
import { decisionOf, runNow, signatureOf } from '../test-support/signing';

let laboratory: TestLaboratory;
let analyst: Client;
let chief: Client;
let ids: StockIds;
let runId: string;
let first: Certificate;

const path = (last: string): string => `/api/runs/${runId}/${last}`;

async function certified(): Promise<Certificate> {
  await analyst.post(path('signatures'), await signatureOf(laboratory, runId)).expect(204);
  const request = await decisionOf(laboratory, runId, { reason: 'they scatter' });
  return (await chief.post(path('certificate'), request).expect(201)).body as Certificate;
}

beforeAll(async () => {
  ({ laboratory, analyst, chief, ids } = await foundStockedLaboratory());
  runId = await startRun(analyst, ids);
  await titrateSeries(analyst, runId);
  first = await certified();
});
afterAll(() => laboratory.close());

async function withdrawal(changes: Partial<WithdrawRequest> = {}): Promise<WithdrawRequest> {
  const { version } = await runNow(laboratory, runId);
  return {
    ...{ factId: newId(), bottleFactId: newId(), password: PASSWORD },
    ...{ deviceId: null, deviceTime: new Date().toISOString(), clockOffsetMs: null },
    ...{ basedOn: version, number: first.number, reason: 'flask 4 was read at 23.95, not 23.59' },
    ...changes,
  };
}

const bottleNow = async () => {
  const bottle = await findProjection(laboratory.database.db, 'bottle', ids.bottle);
  if (!bottle) throw new Error('the bottle is gone');
  return bottle;
};

test('a fault found the day after: withdrawn, put right, signed anew; the old certificate stays to be read', async () => {
  const { today } = laboratory;
  const codeOf = async (request: WithdrawRequest, status: number, by = chief): Promise<string> => {
    const refused = await by.post(path('withdrawal'), request).expect(status);
    return (refused.body as Problem).code;
  };
  expect(await codeOf(await withdrawal({ password: 'a guess' }), 401)).toBe('wrong-credentials');
  expect(await codeOf(await withdrawal({ number: '0001-9' }), 422)).toBe('impossible-entry');
  expect(await codeOf(await withdrawal({ basedOn: 3 }), 409)).toBe('stale-version');
  expect(await codeOf(await withdrawal(), 403, analyst)).toBe('not-allowed');
  expect(freshnessOf(await bottleNow(), today).kind).toBe('certified');
  expect((await runNow(laboratory, runId)).status).toBe('certified');

  const request = await withdrawal();
  const two = await Promise.all([
    chief.post(path('withdrawal'), request),
    chief.post(path('withdrawal'), await withdrawal()),
  ]);
  expect(two.map(({ status }) => status).toSorted()).toEqual([204, 409]);
  // Its answer was lost: the same, once.
  if (two[0].status === 204) await chief.post(path('withdrawal'), request).expect(204);
  expect(knownMolarity(await bottleNow())).toBeNull();
  expect(freshnessOf(await bottleNow(), today).kind).toBe('not-standardized');
  const open = await runNow(laboratory, runId);
  expect(open).toMatchObject({ status: 'open', certificate: null });
  expect(open.certificates).toMatchObject([{ withdrawn: { reason: request.reason } }]);
  // What was signed before is signed for no longer.
  const decision = await decisionOf(laboratory, runId, { reason: 'as before' });
  const early = await chief.post(path('certificate'), decision).expect(422);
  expect((early.body as Problem).title).toContain('still to be signed as performed');

  const body = { corrects: open.flasks[3]?.final?.factId ?? idOf('none') };
  const correction: NewFact = {
    kind: 'run.reading-corrected',
    body: { ...body, readingMl: decimalText('23.95'), reason: 'two digits changed places' },
  };
  await analyst.send(correction, runId, { basedOn: open.version }).expect(201);
  const second = await certified();
  expect(second.number).toBe('0001-2');
  expect(second.molarity).not.toBe(first.molarity);
  expect(knownMolarity(await bottleNow())).toMatchObject({ certificateNumber: '0001-2' });

  const fileOf = async (number: string) =>
    (await analyst.get(path(`certificates/${number}`)).expect(200)).body as CertificateFile;
  const [old, now] = [await fileOf('0001-1'), await fileOf('0001-2')];
  expect(old.certificate).toEqual(first);
  for (const file of [old, now]) expect(reproduce(file)).toMatchObject({ kind: 'identical' });
  expect(JSON.stringify(now.document)).toContain('0001-1 of');
  expect(JSON.stringify(now.document)).toContain(request.reason);
  await analyst.get(path('certificates/0001-3')).expect(404);
});
