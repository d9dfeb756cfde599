export { largestConcordantSet } from './concordance';
export { studentTQuantile } from './studentT';
export type { Summary } from './summary';
export { summarize } from './summary';
