export type { FindingCode, FindingValues } from './findings';
export { findingText } from './findings';
export { PLACE_NAMES } from './places';
