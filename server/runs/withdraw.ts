import type { Id } from '#core/grammar';
import type { PersonState } from '#core/people';
import { authorOf } from '#core/people';
import { checkWithdrawing } from '#core/titration/record';
import type { WithdrawRequest } from '#contract';
import { durably } from '../database/durably';
import { AppError, factIdReused } from '../http/appError';
import { makeServerFact, refuseStale, refuseUnexplained, storeNext } from '../ledger/append';
import { confirmSigner } from '../people/accounts';
import type { Services } from '../services';
import { certifiable, lockWithBottle, openRun } from './openRun';

/**
 * Withdraws the certificate in force of a run, by somebody who gives their password: it holds no longer, on the run and on its
 * bottle, both or neither, and the run is open again.
 *
 * @throws AppError when the password is wrong, the run has moved on, or core has something against it.
 */
export async function withdrawCertificate(
  services: Services,
  person: PersonState,
  runId: Id,
  { factId, bottleFactId, number, reason, password, basedOn, ...device }: WithdrawRequest,
): Promise<void> {
  await confirmSigner(services, person, password);
  const author = authorOf(person);
  const before = await openRun(services, runId);
  if (!before) throw new AppError('not-found', 'There is no such run.');
  const standardization = certifiable(before.state);
  await durably(services.db, async (tx) => {
    const inside = { ...services, db: tx };
    const { run, opened } = await lockWithBottle(inside, standardization);
    const known = run.facts.find(({ id }) => id === factId);
    if (known) {
      const isSame =
        known.kind === 'run.certificate-withdrawn' &&
        known.authorId === person.id &&
        known.body.number === number &&
        known.body.reason === reason;
      if (isSame) return;
      throw factIdReused();
    }
    refuseStale(basedOn, run.state.version);
    refuseUnexplained(checkWithdrawing(run.state, number, author), { reason });
    const facts = [
      makeServerFact(services, person.id, {
        ...device,
        id: factId,
        recordId: runId,
        recordKind: 'run',
        kind: 'run.certificate-withdrawn',
        body: { number, reason },
        basedOn,
      }),
      makeServerFact(services, person.id, {
        ...device,
        id: bottleFactId,
        recordId: standardization.setUp.bottle.id,
        recordKind: 'bottle',
        kind: 'bottle.certificate-withdrawn',
        body: { runId, certificateNumber: number, reason },
      }),
    ];
    await storeNext(inside, author, facts, opened);
  });
}
