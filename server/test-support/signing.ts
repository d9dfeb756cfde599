import { addToDate } from '#core/grammar';
import { draftDigest } from '#core/titration/judging';
import type { RunState } from '#core/titration/run';
import type { CertifyRequest, ReportRequest, SignRequest } from '#contract';
import { newId } from '#contract';
import { findRun } from '../ledger/references';
import type { TestLaboratory } from './laboratory';
import { PASSWORD } from './laboratory';

type Where = Pick<TestLaboratory, 'database' | 'today'>;

/** A run as the server has it. */
export async function runNow({ database }: Pick<Where, 'database'>, id: string): Promise<RunState> {
  const run = await findRun({ db: database.db, now: () => new Date() }, id);
  if (!run) throw new Error('the run is gone');
  return run.state;
}

/** What signs that a run, as it stands now, was performed. */
export async function signatureOf(
  where: Where,
  runId: string,
  changes: Partial<SignRequest> = {},
): Promise<SignRequest> {
  const run = await runNow(where, runId);
  return {
    ...{ factId: newId(), password: PASSWORD, draft: draftDigest(run) ?? '' },
    ...{ deviceId: null, deviceTime: new Date().toISOString(), clockOffsetMs: null },
    means: 'performed',
    basedOn: run.version,
    ...changes,
  };
}

/** What certifies a run as it stands now, for a month. */
export async function decisionOf(
  where: Where,
  runId: string,
  changes: Partial<CertifyRequest> = {},
): Promise<CertifyRequest> {
  const { means: _, ...signed } = await signatureOf(where, runId);
  const validUntil = addToDate(where.today, { months: 1 });
  return { ...signed, bottleFactId: newId(), validUntil, reason: null, ...changes };
}

/** What reports the samples of a run as it stands now. */
export async function reportOf(
  where: Where,
  runId: string,
  changes: Partial<ReportRequest> = {},
): Promise<ReportRequest> {
  const { means: _, ...signed } = await signatureOf(where, runId);
  return { ...signed, form: 'batch', reason: null, ...changes };
}
