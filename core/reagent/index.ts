export type { BottleState, PreparedBottle } from './bottle';
export { foldBottle } from './bottle';
export type { Freshness } from './freshness';
export { freshnessOf, suggestValidUntil } from './freshness';
export type { Lot, LotState } from './lot';
export { foldLot, isLotExpired, lotMolarMass } from './lot';
