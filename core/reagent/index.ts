export type {
  BottleFact,
  BottleFactBodies,
  BottleState,
  CertifiedMolarity,
  Container,
  PreparedBottle,
} from './bottle';
export { foldBottle } from './bottle';
export type { Freshness } from './freshness';
export { freshnessOf, keepingOf, suggestValidUntil } from './freshness';
export type { Lot, LotFact, LotFactBodies, LotState } from './lot';
export { foldLot, isLotExpired, lotMolarMass } from './lot';
