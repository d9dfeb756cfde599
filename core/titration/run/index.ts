export type { Certificate } from './certificate';
export { certificateLink } from './certificate';
export type { Conflict } from './conflicts';
export { entriesAt, openConflicts } from './conflicts';
export {
  flaskOf,
  flaskUnderBurette,
  isBlank,
  openRefill,
  pauseOf,
  readingToCarryOver,
} from './flasks';
export {
  endsDelivery,
  FINAL,
  FIRST_END,
  INITIAL,
  isSamePlace,
  placeKey,
  placeName,
  readingAt,
  readingsOf,
  rivalsOf,
} from './places';
export type { Portion } from './portion';
export { portionAmount, portionText } from './portion';
export type { Report, ReportedPart, ReportedResult, ReportForm } from './report';
export { REPORT_FORMS, reportLink } from './report';
export type { Return, Signature, SignatureMeaning } from './signature';
export { referencesFor, sampleIdOf, seriesOf, seriesWith } from './series';
export type { AnalysisRun, StandardizationRun } from './kinds';
export { analysisOf, isAnalysisRun, isStandardization, standardizationOf } from './kinds';
export { openReturn, SIGNATURE_MEANINGS } from './signature';
export type {
  BuretteLook,
  BuretteMoment,
  ElectrodeQuantity,
  ElectrodeReading,
  EndPointGrade,
  Entry,
  Flask,
  Issued,
  IssuedCertificate,
  IssuedReport,
  MeasuredIncident,
  NotedIncident,
  Pause,
  Place,
  Reading,
  ReadingPlace,
  Refill,
  RefillMoment,
  RunState,
} from './state';
export { takenBy, titrantTakenMl } from './taken';
export {
  deliveriesMl,
  startsOf,
  stretchesOf,
  stretchesToFirstEnd,
  titreMl,
  titreToFirstEndMl,
} from './titre';
