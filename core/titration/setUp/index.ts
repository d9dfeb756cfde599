export type { Arrangement } from './arrangement';
export {
  arrangementOf,
  describeInstruments,
  describeStandard,
  describeTitrant,
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
export type {
  AnalysisReferences,
  Portioning,
  RunReferences,
  RunSample,
  RunStandard,
  StandardizationReferences,
} from './references';
export { isAnalysis, takesWholeUnits } from './references';
export type {
  Adopted,
  AnalysisSetUp,
  CalculatedMolarity,
  EarlierSeries,
  MethodChoice,
  PortioningChoice,
  RunSetUp,
  SampleChoice,
  StandardChoice,
  StandardizationSetUp,
} from './setUp';
export {
  asCalculated,
  bottleIdOf,
  FLASKS_AT_MOST,
  inRuns,
  samplesPerRun,
  withAdopted,
} from './setUp';
export {
  contentFromUsual,
  ofPart,
  partAsked,
  sampleOf,
  soughtOf,
  statedBy,
  unitMassG,
} from './sought';
