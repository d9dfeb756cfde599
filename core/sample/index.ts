export type { ControlLimits, ControlPoint, ControlSaid, ControlStanding } from './control';
export { BASELINE_POINTS, CONTROL_VERDICTS, controlText, standingOfControl } from './control';
export type { Decision, Measured, OfAccepted, OfClaim, Verdict } from './decision';
export { decide, ofAccepted, ofClaim, probabilityOfConformity } from './decision';
export type { Held } from './held';
export { holdAgainst } from './held';
export { requirementText, RULE_WORDS } from './requirementText';
export type {
  DecisionRule,
  DilutionState,
  Requirement,
  PointsTakenOver,
  ReportedContent,
  Sample,
  SampleDilution,
  SampleFactBodies,
  SampleRequest,
  SampleState,
  Stated,
} from './sample';
export { DECISION_RULES, requestFor } from './sample';
export type { AroundSample } from './sampleRecord';
export {
  dilutionText,
  needsOf,
  SAMPLE_RECORD,
  SMALL_ALIQUOT_ML,
  statedWithin,
  takenText,
} from './sampleRecord';
