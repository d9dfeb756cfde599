import type { Finding } from '../../record';
import { impossible } from '../../record';
import type { RunState } from '../run';
import type { RunFact } from './facts';
import { laterFact, RUN_RECORD } from './facts';

/**
 * Checks the next fact of an open run against the run so far. The same function guards the entry fields in the
 * browser and the record on the server.
 */
export function checkRunFact(run: RunState, fact: RunFact): readonly Finding[] {
  const closed = RUN_RECORD.closed(run);
  if (closed.length > 0) return closed;
  return laterFact(fact.kind)?.check(fact, run, null) ?? [impossible('already-started', 'run')];
}
