export type {
  ConcentrateOnShelf,
  MeasuringVessel,
  PlannedQuantity,
  PlannerShelf,
  Route,
  SolidOnShelf,
  SolutionOnShelf,
  Wish,
} from './route';
export { planRoutes, whatWouldHalve } from './planner';
export { plannerShelf } from './shelf';
export type { ConcentrationUnit, SolutionFacts } from './displayUnits';
export { CONCENTRATION_UNITS, convertConcentration, showConcentration } from './displayUnits';
export type {
  ActualConcentration,
  DilutionStep,
  LabelledConcentrate,
  SolutionPart,
  Solid,
} from './solution';
export {
  actualConcentration,
  concentrateMolarity,
  concentrateVolumeMl,
  dilutionFactor,
  equivalentMassG,
  finalVolumeMl,
  initialVolumeMl,
  massForSolutionG,
  mixSolutions,
  molarityFromMassPerVolume,
  molarityFromNormality,
  normality,
  overallDilutionFactor,
  requireLabel,
  serialDilution,
  solventToAddMl,
} from './solution';
export type { Left } from './startChecks';
export { checkPreparationStart, dissolvingOf, missingFor, needsOf } from './startChecks';
export { checkBottling } from './stepChecks';
export { pinsFor, PREPARATION_RECORD, recordsOf } from './preparationRecord';
export { dilutedMolarity, molarityOfSolution } from './equations';
export { PREPARATION_INCIDENTS } from './incidents';
export type {
  MeasuredEntry,
  Pin,
  PreparationFact,
  PreparationFactBodies,
  PreparationState,
  Quantity,
  StepState,
  Taking,
} from './record';
export { measuredIn, nextWork, spoiltBy, takenFor } from './record';
export type { PreparationRecords, PreparationResult } from './result';
export { resultOf } from './result';
export type { Measure, PreparationPlan, PreparationSource, Step } from './work';
export {
  isExact,
  parentsOf,
  recipeFits,
  recipeOf,
  stepsOf,
  volumetricFlaskOf,
  whyByProcedure,
} from './work';
export { bottleOf } from './bottling';
export type { Job, Limits, PaceSettings, Placed, Task } from './schedule';
export { durationsOf, scheduleBackwards, tasksOf } from './schedule';
