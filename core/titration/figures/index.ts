export { agreementOf, areWholeUnits, repeatabilityLimitPercent } from './agreement';
export type { Corrections } from './corrections';
export { correctionsOf, plainMassFactor } from './corrections';
export type { CurvePoint } from './curve';
export { curveOf, electrodeQuantityOf } from './curve';
export { curveEndOf, curveEndsOf, endPointOf, isOvershot } from './endOfTitration';
export type { Forecast, TitratedToEnds } from './forecast';
export {
  awaitedFirstEnd,
  firstEndOf,
  forecastFirstEnd,
  forecastFlask,
  forecastNextEnd,
  forecastTitre,
} from './forecast';
export { halfEquivalenceOf } from './halfEquivalence';
export { assessOn, incidentCorrections } from './incidentCorrections';
export type { GranKind, TitrationData, VolumeWindow } from './inflection';
export { granIntercept, inflection } from './inflection';
export type { Repeatability } from './measurementModel';
export { isSeenInScatter, measurementModel } from './measurementModel';
export { amountIn, deliveredIn } from './portions';
export { determinationOf, plainDeterminationOf } from './runDetermination';
export { blankOf, flaskMolarity, netTitreMl, plainDeterminationOfRun } from './volumes';
