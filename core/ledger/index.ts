export type { PlainRecordKind, PlainStates } from './fold';
export { foldRecord } from './fold';
export { areSolutionsRelated } from './related';
export type { RunSummary } from './summary';
export { summarizeRun } from './summary';
export type { StockRecords } from './stock';
export { stockLeft } from './stock';
