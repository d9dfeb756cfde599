export type { FindingCode, FindingValues } from './findings';
export { findingText } from './findings';
export { PLACE_NAMES } from './places';
export type { Heating, SeriesFault, StepCode, StepSaid, StepValues, WhyAnother } from './steps';
export { faultText, STEP_CODES, stepText } from './steps';
