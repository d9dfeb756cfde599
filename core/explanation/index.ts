export type { Diagnosis, Explanation, Tolerances } from './explain';
export { explain } from './explain';
export { explainRun } from './fromRun';
export type { Suspect, Suspected, Surroundings } from './hypotheses';
