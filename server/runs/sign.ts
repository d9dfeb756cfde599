import type { Knex } from 'knex';
import type { Id } from '#core/grammar';
import type { Fact } from '#core/record';
import type { PersonState } from '#core/people';
import { authorOf } from '#core/people';
import type { Author } from '#core/rights';
import type { Signing } from '#core/titration/judging';
import { signatoriesOf, signingFindings, signingOf } from '#core/titration/judging';
import type { RunState, SignatureMeaning } from '#core/titration/run';
import type { SignRequest } from '#contract';
import { durably } from '../database/durably';
import { AppError, factIdReused } from '../http/appError';
import {
  lockAndOpen,
  makeServerFact,
  refuseStale,
  refuseUnexplained,
  storeNext,
} from '../ledger/append';
import { foldLoaded, recordOf } from '../ledger/references';
import { confirmSigner } from '../people/accounts';
import { listHere } from '../people/queries';
import type { Services } from '../services';

/** What speaks against signing can give way to no reason. */
const NO_REASON = { reason: null };

/**
 * Signs that a run was performed or checked, by somebody who gives their password, for the draft that they were shown.
 *
 * @throws AppError when the password is wrong, the run is another by now, or core has something against it.
 */
export async function signRun(
  services: Services,
  person: PersonState,
  runId: Id,
  { means, draft, password, factId, basedOn, ...device }: SignRequest,
): Promise<void> {
  await confirmSigner(services, person, password);
  const author = authorOf(person);
  await durably(services.db, async (tx) => {
    const inside = { ...services, db: tx };
    const opened = await lockAndOpen(inside, [{ id: runId, kind: 'run' }]);
    const run = foldLoaded(recordOf(opened.records, runId));
    if (!run) throw new AppError('not-found', 'There is no such run.');
    const sentBefore = run.facts.find(({ id }) => id === factId);
    if (sentBefore) {
      if (isSame(sentBefore, person, means, draft)) return;
      throw factIdReused();
    }
    refuseStale(basedOn, run.state.version);
    await signingNow(tx, run.state, { means, draft, author });
    const fact = makeServerFact(services, person.id, {
      ...device,
      id: factId,
      recordId: runId,
      recordKind: 'run',
      kind: `run.${means}`,
      body: { draft },
      basedOn,
    });
    await storeNext(inside, author, [fact], opened);
  });
}

/** The same signature, sent again after its answer was lost. */
function isSame(
  { kind, authorId, body }: Fact,
  { id }: PersonState,
  means: SignatureMeaning,
  draft: string,
): boolean {
  return kind === `run.${means}` && authorId === id && (body as { draft: string }).draft === draft;
}

/**
 * Where the signatures of a run stand, when somebody may sign it now.
 *
 * @throws AppError when core has something against it, or the draft that they were shown is another than the present one
 */
export async function signingNow(
  tx: Knex,
  run: RunState,
  { means, draft, author }: { means: SignatureMeaning; draft: string; author: Author },
): Promise<Signing> {
  const signing = signingOf(run, signatoriesOf(await listHere(tx)));
  refuseUnexplained(signingFindings(run, signing, means, author), NO_REASON);
  if (signing?.draft !== draft) {
    throw new AppError(
      'stale-version',
      'The run is another than the one you were shown. Look at it again.',
    );
  }
  return signing;
}
