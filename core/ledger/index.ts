export { controlPoints, controlSaid } from './controlPoints';
export { applyToRecord, foldRecord } from './fold';
export { countedOf, listingOf, takenOf } from './listing';
export { areSolutionsRelated } from './related';
export type {
  AroundFact,
  ClientFactKind,
  FactBodies,
  FactKind,
  PlainRecordKind,
  PlainStates,
  RecordKind,
} from './registry';
export {
  asksFor,
  beginsRecord,
  checkEntering,
  checkFact,
  currentSchemaVersion,
  FACT_KINDS,
  FILE_KINDS,
  isObservation,
  isReadable,
  isRecordKind,
  isSigned,
  RECORD_KINDS,
  recordKindOf,
  referencesOf,
  restsOn,
  sentenceOf,
  upcast,
} from './registry';
export type { RunSummary } from './summary';
export { listedRun, summarizeRun, takenByRun } from './summary';
export { stockLeft } from './stock';
