export { appearanceOf } from './appearance';
export type {
  BottleFactBodies,
  BottleState,
  CertifiedCorrections,
  CertifiedMolarity,
  CorrectedBottle,
  Parent,
  PreparedBottle,
  Purpose,
  StatedMolarity,
  UnroundedMolarity,
} from './bottle';
export { correctable, nominalMolPerL } from './bottle';
export type { AroundBottle } from './bottleRecord';
export { BOTTLE_RECORD, takeFromRun } from './bottleRecord';
export type { Dryness } from './drying';
export { COOLING_MINUTES, dryness } from './drying';
export type { Freshness, KnownMolarity } from './freshness';
export {
  bottleStanding,
  certificateInForce,
  freshnessOf,
  isLabelOld,
  knownMolarity,
  labelledMolarity,
  mayBeUsed,
  lastsUntil,
  readyFrom,
  suggestValidUntil,
} from './freshness';
export { historyOf } from './history';
export { bottleMolarityInput, lotMolarMassInput, lotPurityInput, statedMolarity } from './inputs';
export type { Lot, LotFact, LotFactBodies, LotState } from './lot';
export {
  isLotExpired,
  gramsPerLitreOfContent,
  lotMolarity,
  purityText,
  lotMolarMass,
  lotPurityComponent,
  unitOfLot,
} from './lot';
export { LOT_RECORD } from './lotRecord';
export { whyKept, whyLeft } from './why';
