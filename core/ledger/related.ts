import type { BottleState } from '../reagent';
import type { StandardizationReferences } from '../titration/setUp';
import type { RunSummary } from './summary';

/**
 * Whether of the two solutions of a back-titration one was standardized against the other, directly. Then both molarities are
 * off together, and what is left of an excess takes that off again: counted as independent, they make U too large.
 */
export function areSolutionsRelated(
  { standard, excess }: Pick<StandardizationReferences, 'standard' | 'excess'>,
  runs: readonly RunSummary[],
): boolean {
  if (standard.kind !== 'bottle' || !excess) return false;
  const isAgainst = (one: BottleState, other: BottleState): boolean => {
    const runId = one.certified.at(-1)?.runId;
    return runs.some(({ id, taken }) => id === runId && taken.some((part) => part.id === other.id));
  };
  return isAgainst(excess.bottle, standard.bottle) || isAgainst(standard.bottle, excess.bottle);
}
