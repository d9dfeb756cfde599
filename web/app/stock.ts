import { useMemo } from 'react';
import type { PlainStates } from '#core/ledger';
import type { PreparationState } from '#core/preparation';
import { takenFor } from '#core/preparation';
import { useAtHand, useRecords, useStockLeft } from './records';

/** What may come to hand of the shelves, with what is left of it (g of solids, mL of solutions). */
export interface Stock {
  readonly lots: readonly PlainStates['lot'][];
  readonly bottles: readonly PlainStates['bottle'][];
  readonly equipment: readonly PlainStates['equipment'][];
  readonly preparations: readonly PlainStates['preparation'][];
  readonly left: ReadonlyMap<string, number>;
}

/** The laboratory's stock; undefined while it is on its way. */
export function useStock(): Stock | undefined {
  const lots = useRecords('lot');
  const bottles = useRecords('bottle');
  const equipment = useRecords('equipment');
  const preparations = useRecords('preparation');
  const told = useAtHand('preparation')?.records;
  const leftThere = useStockLeft();
  return useMemo(() => {
    if (!lots || !bottles || !equipment || !preparations || !told || !leftThere) return undefined;
    const left = new Map(leftThere);
    const take = (from: readonly PreparationState[], sign: number): void => {
      for (const { parent, amount } of from.flatMap((one) => takenFor(one, equipment))) {
        const there = left.get(parent.id);
        if (there !== undefined) left.set(parent.id, there - sign * amount);
      }
    };
    // What waits on this device has taken more than the server knows.
    const waiting = preparations.filter((one) => !told.includes(one));
    take(waiting, 1);
    take(
      told.filter(({ id }) => waiting.some((one) => one.id === id)),
      -1,
    );
    return { lots, bottles, equipment, preparations, left };
  }, [lots, bottles, equipment, preparations, told, leftThere]);
}
