export type { BuretteCheck } from './buretteCheck';
export { buretteChecks } from './buretteCheck';
export type { Certificate } from './certified';
export {
  certificationFindings,
  comesToTheSame,
  deviationsOf,
  issueCertificate,
  percentFromNominal,
} from './certificate';
export { checkRunFact } from './record/checks';
export { adviceAgainst, checkRunStart } from './startChecks';
export { cooledToC, lossPerMinute, minutesUntil } from './cooling';
export { determinationOf, plainDeterminationOf } from './runDetermination';
export {
  amountIn,
  blankOf,
  curveEndOf,
  curveEndsOf,
  deliveredIn,
  endPointOf,
  isOvershot,
} from './volumes';
export type { CurveEnds, CurvePoint } from './curve';
export { CURVE_WAYS, curveOf, electrodeQuantityOf } from './curve';
export type { DilutionStep } from '../preparation';
export type { GranKind, TitrationData, VolumeWindow } from './endPoint';
export { granIntercept, inflection } from './endPoint';
export type { RunFact, RunFactBodies } from './record/facts';
export { RUN_RECORD } from './record/facts';
export { foldRun } from './record/fold';
export type { AroundRun } from './record/start';
export { restedOnBy } from './record/rested';
export type { MethodChoice, RunSetUp, StandardChoice } from './setUp';
export type { Forecast } from './forecast';
export { forecastFlask, forecastTitre } from './forecast';
export type { Judgement, Replicate, Result } from './judge';
export { judgeRun } from './judge';
export type { NextStep } from './next';
export { blankStep, nextStep, portionStep, refillStep, titrateStep } from './next';
export type { CorrectedSince, RecordsNow } from './outOfUse';
export { partsOf } from './parts';
export { correctedSince, outOfUse, outOfUseFindings } from './outOfUse';
export { plannedTitrations, planRun, planSeries, suggestAliquots, titrantNeed } from './plan';
export { assessFlaskIncident, incidentsOf, unresolvedIncidents } from './incidents';
export type { SeriesFault } from './seriesFault';
export { seriesFault } from './seriesFault';
export type { Portion } from './portion';
export { portionAmount, portionText } from './portion';
export type { Conflict } from './run';
export type {
  ElectrodeQuantity,
  ElectrodeReading,
  EndPointGrade,
  Entry,
  Flask,
  MeasuredIncident,
  Moment,
  Place,
  Reading,
  ReadingPlace,
  RunExcess,
  RunReferences,
  RunStandard,
  RunState,
} from './state';
export {
  entriesAt,
  flaskOf,
  flaskUnderBurette,
  isBlank,
  openConflicts,
  openRefill,
  pauseOf,
  placeName,
  readingAt,
  readingsOf,
  refillPlace,
  readingToCarryOver,
  stretchesOf,
  takenBy,
  titrantTakenMl,
  titreMl,
} from './run';
export type { Arrangement, Ingredient } from './arrangement';
export {
  arrangementOf,
  describeInstruments,
  describeStandard,
  fillVerb,
  standardSubstanceId,
} from './arrangement';
