export type { FindingCode, FindingValues } from './findings';
export { findingText } from './findings';
export type { OutcomeSaid } from './outcomes';
export { CURVE_WAYS, outcomeText } from './outcomes';
export { PLACE_NAMES } from './places';
export type { SlipSaid } from './slips';
export { slipQuestion } from './slips';
export type { Heating, SeriesFault, StepCode, StepSaid, StepValues, WhyAnother } from './steps';
export { faultText, STEP_CODES, stepText } from './steps';
