import type { Counted, Taken } from '../record';

/**
 * What is left of each record (g of a solid, mL of a solution), by id: what there was at the last count, less what was begun since
 * and has taken from it. What nobody counts is absent; below 0 the count was wrong.
 */
export function stockLeft(
  counts: ReadonlyMap<string, Counted>,
  takings: readonly Taken[],
): ReadonlyMap<string, number> {
  const left = new Map([...counts].map(([id, { amount }]) => [id, amount]));
  for (const { id, amount, at } of takings) {
    const there = left.get(id);
    if (there !== undefined && at > (counts.get(id)?.at ?? '')) left.set(id, there - amount);
  }
  return left;
}
