export type { BottleState, Parent, PreparedBottle, Purpose } from './bottle';
export { foldBottle, nominalMolPerL } from './bottle';
export type { Dryness } from './drying';
export { COOLING_MINUTES, dryness } from './drying';
export type { Freshness, KnownMolarity } from './freshness';
export { freshnessOf, knownMolarity, mayBeUsed, suggestValidUntil } from './freshness';
export { bottleMolarityInput, lotMolarMassInput, lotPurityInput } from './inputs';
export type { Lot, LotFact, LotFactBodies, LotState } from './lot';
export { foldLot, isLotExpired, lotMolarity, lotMolarMass, lotPurityComponent } from './lot';
