export type { BuretteCheck } from './buretteCheck';
export { buretteChecks } from './buretteCheck';
export type { Certificate } from './certificate';
export { certificationFindings, issueCertificate, percentFromNominal } from './certificate';
export { checkRunFact, checkRunStart } from './checks';
export type {
  ConcordanceRule,
  Determination,
  DeterminationResult,
  ExpectedEnd,
  ForecastBasis,
  Ratio,
  ReplicateOutcome,
  Standard,
  Statement,
  TitrationReplicate,
} from './determination';
export { determine, expectedEnd } from './determination';
export type { DilutionStep } from '../preparation';
export type { GranKind, TitrationData, VolumeWindow } from './endPoint';
export { granIntercept, inflection } from './endPoint';
export type { ResultQuantity } from './equations';
export type {
  MeasuredIncident,
  Observation,
  RecordVersion,
  RunFact,
  RunFactBodies,
  RunSetUp,
} from './facts';
export { isObservation } from './facts';
export type { Forecast } from './forecast';
export { forecastTitre, standardOf } from './forecast';
export type { Judgement, Replicate, Result } from './judge';
export { judgeRun } from './judge';
export type { NextStep } from './next';
export { nextStep, titrateStep, weighStep } from './next';
export { planSeries, suggestAliquots, titrantNeed } from './plan';
export { assessFlaskIncident, incidentsOf, unresolvedIncidents } from './incidents';
export { factsSeenBy, restsOn } from './order';
export type { Conflict, Entry, Flask, RunReferences, RunState } from './run';
export {
  flaskUnderBurette,
  foldRun,
  openConflicts,
  placeName,
  readingToCarryOver,
  titrantTakenMl,
  titreMl,
} from './run';
export { expectedTitreMl } from './stoichiometry';
