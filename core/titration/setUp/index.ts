export type { Arrangement } from './arrangement';
export {
  arrangementOf,
  describeInstruments,
  describeStandard,
  fillVerb,
  standardLookalikes,
  pipetteVolumeMl,
  soughtIn,
  standardSubstance,
  standardSubstanceId,
} from './arrangement';
export { buretteChecks } from './buretteCheck';
export type { BuretteLiquid } from './buretteLiquid';
export { buretteLiquid } from './buretteLiquid';
export { namedRecords } from './namedRecords';
export type { RunReferences, RunStandard } from './references';
export type { Adopted, EarlierSeries, MethodChoice, RunSetUp, StandardChoice } from './setUp';
export { withAdopted } from './setUp';
export { soughtOf } from './sought';
