import { useMemo } from 'react';
import type { StockRecords } from '#core/ledger';
import { stockLeft } from '#core/ledger';
import { useRecords, useRuns } from './records';

/** What is on the shelves, with what is left of it (g of solids, mL of solutions). */
export interface Stock extends StockRecords {
  readonly left: ReadonlyMap<string, number>;
}

/** The laboratory's stock; undefined while it is on its way. */
export function useStock(): Stock | undefined {
  const lots = useRecords('lot');
  const bottles = useRecords('bottle');
  const equipment = useRecords('equipment');
  const preparations = useRecords('preparation');
  const runs = useRuns();
  return useMemo(() => {
    if (!lots || !bottles || !equipment || !preparations || !runs) return undefined;
    const records = { lots, bottles, equipment, preparations, runs };
    return { ...records, left: stockLeft(records) };
  }, [lots, bottles, equipment, preparations, runs]);
}
