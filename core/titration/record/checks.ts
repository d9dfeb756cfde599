import type { Around, Finding } from '../../record';
import { impossible } from '../../record';
import type { RunState } from '../run';
import type { RunFact } from './facts';
import { laterFact, RUN_RECORD } from './facts';

/**
 * Checks the next fact of an open run against the run so far. The same function guards the entry fields in the
 * browser and the record on the server.
 *
 * @param around who enters it; null where that is not asked
 */
export function checkRunFact(
  run: RunState,
  fact: RunFact,
  around: Pick<Around, 'author'> | null = null,
): readonly Finding[] {
  const closed = RUN_RECORD.closed(run);
  if (closed.length > 0) return closed;
  return laterFact(fact.kind)?.check(fact, run, around) ?? [impossible('already-started', 'run')];
}
