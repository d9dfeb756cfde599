import type { RunSummary } from '#core/ledger';
import type { BottleState, Freshness } from '#core/reagent';
import { freshnessOf } from '#core/reagent';

/** A bottle with what the shelf says of it today. */
export interface ShelfItem {
  readonly bottle: BottleState;
  readonly freshness: Freshness;
  readonly leftMl: number;
  /** What is left, 0 to 1. */
  readonly fill: number;
  readonly openRun: RunSummary | null;
}

/** Bottles with their level and freshness: what may be used first, then what needs work. */
export function shelfItems(
  bottles: readonly BottleState[],
  runs: readonly RunSummary[],
  today: string,
): readonly ShelfItem[] {
  const rank: Readonly<Record<Freshness['kind'], number>> = {
    certified: 0,
    'due-soon': 1,
    'not-standardized': 2,
    overdue: 3,
  };
  return bottles
    .map((bottle) => {
      const ofBottle = runs.filter((run) => run.bottleId === bottle.id);
      const taken = ofBottle.reduce((total, run) => total + run.titrantTakenMl, 0);
      const leftMl = Math.max(0, Number(bottle.volumeMl) - taken);
      return {
        bottle,
        freshness: freshnessOf(bottle, today),
        leftMl,
        fill: leftMl / Number(bottle.volumeMl),
        openRun: ofBottle.find((run) => run.status === 'open') ?? null,
      };
    })
    .toSorted(
      (a, b) =>
        rank[a.freshness.kind] - rank[b.freshness.kind] ||
        b.bottle.code.localeCompare(a.bottle.code),
    );
}
