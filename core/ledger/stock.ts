import type { EquipmentState } from '../metrology';
import type { PreparationState } from '../preparation';
import { takenFor } from '../preparation';
import type { BottleState, LotState } from '../reagent';
import type { RunSummary } from './summary';

/** What stock is reckoned from. */
export interface StockRecords {
  readonly lots: readonly LotState[];
  readonly bottles: readonly BottleState[];
  readonly equipment: readonly EquipmentState[];
  readonly preparations: readonly PreparationState[];
  readonly runs: readonly RunSummary[];
}

/**
 * What is left of each lot (g of a solid, mL of a solution) and of each bottle (mL), by id: what there was at the last count, less
 * what preparations and titrations begun since have taken. A lot that nobody counts is absent; below 0 the count was wrong.
 */
export function stockLeft(records: StockRecords): ReadonlyMap<string, number> {
  const left = new Map<string, number>();
  const countedAt = new Map<string, string>();
  for (const { id, lot, counted } of records.lots) {
    const amount = counted?.amountLeft ?? lot.amountReceived;
    if (amount === null) continue;
    left.set(id, Number(amount));
    if (counted) countedAt.set(id, counted.at);
  }
  for (const { id, volumeMl } of records.bottles) left.set(id, Number(volumeMl));
  const take = (id: string, amount: number, at: string): void => {
    const there = left.get(id);
    if (there !== undefined && at > (countedAt.get(id) ?? '')) left.set(id, there - amount);
  };
  const volumes = new Map<string, number>(
    records.equipment.map(({ id, equipment }) => [
      id,
      equipment.type === 'glassware' ? Number(equipment.volumeMl) : 0,
    ]),
  );
  for (const preparation of records.preparations) {
    for (const taken of takenFor(preparation, (id) => volumes.get(id) ?? 0)) {
      take(taken.parent.id, taken.amount, preparation.started.at);
    }
  }
  for (const run of records.runs) {
    for (const { id, amount } of run.taken) take(id, amount, run.startedAt);
  }
  return left;
}
