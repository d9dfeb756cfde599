import type { Finding } from '../../record';
import type { RunReferences } from '../setUp';
import { withAdopted } from '../setUp';
import type { RunFact } from './facts';
import type { AroundRun } from './start';
import { resolveRun } from './start';

/**
 * The records that a run rests on, at the versions that its start names or that it has adopted since; else what is not there. Null
 * before its first fact.
 */
export function restedOnBy(
  facts: readonly RunFact[],
  around: AroundRun,
): RunReferences | Finding | null {
  const start = facts.find((fact) => fact.kind === 'run.started');
  if (!start) return null;
  const adopted = facts.flatMap((fact) => (fact.kind === 'run.record-adopted' ? [fact.body] : []));
  return resolveRun({ ...start, body: withAdopted(start.body, adopted) }, around);
}
