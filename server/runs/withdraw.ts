import type { Id } from '#core/grammar';
import type { PersonState } from '#core/people';
import { authorOf } from '#core/people';
import type { Fact, Finding } from '#core/record';
import type { Author } from '#core/rights';
import { checkWithdrawing, checkWithdrawingReport } from '#core/titration/record';
import type { RunState } from '#core/titration/run';
import type { WithdrawReportRequest, WithdrawRequest } from '#contract';
import { durably } from '../database/durably';
import { AppError, factIdReused } from '../http/appError';
import {
  deviceOf,
  makeServerFact,
  refuseStale,
  refuseUnexplained,
  storeNext,
} from '../ledger/append';
import { confirmSigner } from '../people/accounts';
import type { Services } from '../services';
import { certifiable, lockWith, openRun, reportable } from './openRun';

/** How something that was issued of a run is withdrawn, and what is written beside the run. */
interface Withdrawal<Request> {
  readonly kind: 'run.certificate-withdrawn' | 'run.report-withdrawn';
  readonly also: (
    run: RunState,
  ) => readonly { readonly id: Id; readonly kind: 'bottle' | 'sample' }[];
  readonly check: (run: RunState, number: string, author: Author) => readonly Finding[];
  readonly beside: (services: Services, author: Author, run: RunState, request: Request) => Fact[];
}

/** The molarity of the bottle holds no longer either. */
export const OF_CERTIFICATE: Withdrawal<WithdrawRequest> = {
  kind: 'run.certificate-withdrawn',
  also: (run) => [{ id: certifiable(run).setUp.bottle.id, kind: 'bottle' }],
  check: checkWithdrawing,
  beside: (services, author, run, { bottleFactId, number, reason, ...request }) => [
    makeServerFact(services, author.id, {
      ...deviceOf(request),
      id: bottleFactId,
      recordId: certifiable(run).setUp.bottle.id,
      recordKind: 'bottle',
      kind: 'bottle.certificate-withdrawn',
      body: { runId: run.id, certificateNumber: number, reason },
    }),
  ],
};

/** What was stated of each sample holds no longer either. */
export const OF_REPORT: Withdrawal<WithdrawReportRequest> = {
  kind: 'run.report-withdrawn',
  also: (run) =>
    reportable(run).setUp.samples.map(({ sample }) => ({ id: sample.id, kind: 'sample' })),
  check: checkWithdrawingReport,
  beside: (services, author, run, { number, reason, ...request }) =>
    (run.report?.results ?? []).map(({ sampleId }) =>
      makeServerFact(services, author.id, {
        ...deviceOf(request),
        recordId: sampleId,
        recordKind: 'sample',
        kind: 'sample.report-withdrawn',
        body: { runId: run.id, reportNumber: number, reason },
      }),
    ),
};

/**
 * Withdraws what is in force of a run, by somebody who gives their password: it holds no longer, on the run and beside it, both or
 * neither, and the run is open again.
 *
 * @throws AppError when the password is wrong, the run has moved on, or core has something against it.
 */
export async function withdraw<Request extends WithdrawReportRequest>(
  { kind, also, check, beside }: Withdrawal<Request>,
  services: Services,
  person: PersonState,
  runId: Id,
  request: Request,
): Promise<void> {
  const { factId, number, reason, password, basedOn } = request;
  await confirmSigner(services, person, password);
  const author = authorOf(person);
  const before = await openRun(services, runId);
  if (!before) throw new AppError('not-found', 'There is no such run.');
  const others = also(before.state);
  await durably(services.db, async (tx) => {
    const inside = { ...services, db: tx };
    const { run, opened } = await lockWith(inside, runId, others);
    const known = run.facts.find(({ id }) => id === factId);
    if (known) {
      const body = known.body as { readonly number?: string; readonly reason?: string };
      const isSame =
        known.kind === kind &&
        known.authorId === person.id &&
        body.number === number &&
        body.reason === reason;
      if (isSame) return;
      throw factIdReused();
    }
    refuseStale(basedOn, run.state.version);
    refuseUnexplained(check(run.state, number, author), { reason });
    const withdrawn = makeServerFact(services, person.id, {
      ...deviceOf(request),
      id: factId,
      recordId: runId,
      recordKind: 'run',
      kind,
      body: { number, reason },
      basedOn,
    });
    const facts = [withdrawn, ...beside(inside, author, run.state, request)];
    await storeNext(inside, author, facts, opened);
  });
}
