export type { Diagnosis, Explanation, Tolerances } from './explain';
export { explain } from './explain';
export type { Suspect, Suspected, Surroundings } from './hypotheses';
