import type { PlainDate } from '#core/grammar';
import type { RunSummary } from '#core/ledger';
import type { BottleState, Freshness } from '#core/reagent';
import { freshnessOf } from '#core/reagent';
import type { Stock } from '../app/stock';

/** A bottle with what the shelf says of it today. */
export interface ShelfItem {
  readonly bottle: BottleState;
  readonly freshness: Freshness;
  readonly leftMl: number;
  /** What is left, 0 to 1. */
  readonly fill: number;
  readonly openRun: RunSummary | null;
}

const RANK: Readonly<Record<Freshness['kind'], number>> = {
  certified: 0,
  'due-soon': 1,
  'not-standardized': 2,
  auxiliary: 3,
  overdue: 4,
  expired: 5,
  withdrawn: 6,
};

/** Bottles with their level and freshness: what may be used first, then what needs work. */
export function shelfItems(
  { bottles, left }: Pick<Stock, 'bottles' | 'left'>,
  openRuns: readonly RunSummary[],
  today: PlainDate,
  warningDays: number,
): readonly ShelfItem[] {
  return bottles
    .map((bottle) => {
      const leftMl = Math.max(0, left.get(bottle.id) ?? 0);
      return {
        bottle,
        freshness: freshnessOf(bottle, today, warningDays),
        leftMl,
        fill: Math.min(1, leftMl / Number(bottle.volumeMl)),
        openRun: openRuns.find((run) => run.bottleId === bottle.id) ?? null,
      };
    })
    .toSorted(
      (a, b) =>
        RANK[a.freshness.kind] - RANK[b.freshness.kind] ||
        newestCodeFirst(a.bottle.code, b.bottle.code),
    );
}

/** By the letters alone: a collator takes longer to load than the shelf to draw. Two devices may have given one code. */
function newestCodeFirst(code: string, other: string): number {
  if (code === other) return 0;
  return code < other ? 1 : -1;
}
