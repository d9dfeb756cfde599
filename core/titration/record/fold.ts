import { provenance } from '../../record';
import type { RunState } from '../run';
import type { RunReferences } from '../setUp';
import { finish, newDraft } from './draft';
import type { RunFact } from './facts';
import { laterFact } from './facts';
import { SIGNING_FACTS } from './signing';

/**
 * Folds a run's facts into its state; null before `run.started`. Facts come in the order of the record. A fact
 * that appears twice counts once; one that refers to nothing known changes nothing.
 */
export function foldRun(facts: readonly RunFact[], references: RunReferences): RunState | null {
  const byId = new Map<string, RunFact>();
  for (const fact of facts) byId.set(fact.id, fact);
  const unique = [...byId.values()];
  const start = unique.find((fact) => fact.kind === 'run.started');
  if (!start) return null;
  const draft = newDraft(unique);
  for (const fact of unique) {
    if (!Object.hasOwn(SIGNING_FACTS, fact.kind)) draft.entries += 1;
    const definition = laterFact(fact.kind);
    if (draft.status !== 'open' && definition?.nature === 'observation') draft.late.push(fact);
    else definition?.apply(draft, fact);
  }
  return finish(draft, start.recordId, provenance(start), start.body, references);
}
