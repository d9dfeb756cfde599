export type {
  ConcentrateOnShelf,
  MeasuringVessel,
  PlannedQuantity,
  PlannerShelf,
  Route,
  SolidOnShelf,
  SolutionOnShelf,
  Wish,
} from './planner';
export { planRoutes } from './planner';
export type { PercentMeaning, Records } from './shelf';
export { plannerShelf } from './shelf';
export type { ConcentrationUnit, SolutionFacts } from './displayUnits';
export { CONCENTRATION_UNITS, convertConcentration, showConcentration } from './displayUnits';
export type {
  ActualConcentration,
  Concentrate,
  DilutionStep,
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
  serialDilution,
  solventToAddMl,
} from './solution';
