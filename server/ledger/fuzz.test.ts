import fc from 'fast-check';
import { v7 as uuidv7 } from 'uuid';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { foldRun } from '#core/titration/record';
import type { NewFact, Problem, RecordAnswer, RunAnswer } from '#contract';
import type { Attempt } from '../../core/test-support/attempts';
import { attempts, bodyOf } from '../../core/test-support/attempts';
import type { Client, StockIds, TestLaboratory } from '../test-support/laboratory';
import { foundTestLaboratory, startRun, stockLaboratory } from '../test-support/laboratory';
import { listStrayProjections } from './project';

let laboratory: TestLaboratory;
let client: Client;
let ids: StockIds;

beforeAll(async () => {
  laboratory = await foundTestLaboratory();
  client = await laboratory.signIn(laboratory.analyst);
  ids = await stockLaboratory(client, laboratory.today);
});
afterAll(() => laboratory.close());

/** Ten analysts at once, twenty times: the server takes what arrives together in one go. */
const AT_ONCE = 10;
const TIMES = 20;

/** Sends attempts to a run of their own; gives the run and the facts that were taken. */
async function sendAll(
  given: readonly Attempt[],
): Promise<{ readonly runId: string; readonly version: number }> {
  const runId = await startRun(client, ids);
  const answer = (await client.get(`/api/runs/${runId}`)).body as RunAnswer;
  const facts = [...answer.facts];
  for (const one of given) {
    const run = foldRun(facts, answer.references);
    if (!run) throw new Error('the run was not started');
    const body = bodyOf(
      one,
      run,
      facts.map(({ id }) => id),
    );
    // What is made of an attempt need not fit the contract: the server has to say so.
    const fact = { kind: one.kind, body } as unknown as NewFact;
    const sent = await client.send(fact, runId, { id: uuidv7(), basedOn: facts.length });
    if (sent.status === 201) facts.push(sent.body as (typeof facts)[number]);
    else {
      expect([400, 409, 422]).toContain(sent.status);
      expect((sent.body as Problem).title).toMatch(/[.?]$/);
    }
  }
  const after = (await client.get(`/api/runs/${runId}`)).body as RunAnswer;
  expect(after.facts).toEqual(facts);
  return { runId, version: facts.length };
}

test('200 sequences of entries, sensible or not: each is taken or refused in words, and what was taken folds', async () => {
  const series = fc.array(attempts, { minLength: 3, maxLength: 9 });
  const runs: Awaited<ReturnType<typeof sendAll>>[] = [];
  await fc.assert(
    fc.asyncProperty(fc.array(series, { minLength: AT_ONCE, maxLength: AT_ONCE }), async (all) => {
      runs.push(...(await Promise.all(all.map(sendAll))));
    }),
    { numRuns: TIMES, endOnFailure: true },
  );
  for (const { runId, version } of runs) {
    const answer = await client.get(`/api/records/run/${runId}`);
    expect((answer.body as RecordAnswer<'run'>).record.version).toBe(version);
  }
  expect(await listStrayProjections(laboratory.database.db)).toEqual([]);
}, 300_000);
