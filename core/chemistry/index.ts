export { CATALOGUE } from './catalogue';
export type {
  Addition,
  Analysis,
  Catalogue,
  Colour,
  Concentrate,
  Container,
  Drying,
  Indicator,
  Keeping,
  Method,
  NamedEntry,
  Own,
  OwnEntry,
  Part,
  Performance,
  Preparation,
  PreparationStep,
  Procedure,
  SolutionColour,
  Solvent,
  StatedAs,
  Substance,
  TwoEnds,
} from './catalogue/entries';
export type { HazardBand, HazardCode, Pictogram } from './catalogue/hazards';
export { HAZARD_STATEMENTS, hazardsAt, unionOf } from './catalogue/hazards';
export type { PrecautionCode } from './catalogue/precautions';
export { PRECAUTIONS, precautionsFor } from './catalogue/precautions';
export {
  INDICATOR_STEPS,
  intoFlask,
  RECIPE_EDITION,
  stepsByProcedure,
  usualSteps,
  withWaterBy,
} from './catalogue/preparations';
export { checkCatalogue } from './checkCatalogue';
export type { Equivalents } from './equivalents';
export { equivalentsIn } from './equivalents';
export type { AtomicWeightTable } from './elements';
export type { BalancedReaction, MoleRatio, Reaction } from './equation';
export {
  balance,
  chainMoleRatio,
  EQUATION_AT_MOST,
  equivalentsOf,
  moleRatioOf,
  parseEquation,
} from './equation';
export type { Formula, FormulaPiece } from './formula';
export { parseFormula } from './formula';
export type { Content } from './lookUp';
export {
  catalogueOf,
  describeDrying,
  describeEndPoint,
  describeIndicator,
  extendCatalogue,
  findContent,
  findAnalysis,
  findIndicator,
  findMethod,
  findSolvent,
  findSubstance,
  keepingOf,
  isAutocatalytic,
  methodsFor,
  moleRatioOfMethod,
  equivalentsOfTitrant,
  excessRatioOfMethod,
  NO_ENTRIES,
  partnerSpecies,
  partsOf,
  ratiosOfAnalysis,
  recipesOf,
  shortNameOf,
  solventOf,
  lookalikesOf,
  statedAsOf,
} from './lookUp';
export type { MolarMass } from './molarMass';
export { molarMass } from './molarMass';
export { otherForms, substanceMass, waterMoreThan } from './otherForms';
export type { AroundEntries, EntryFactBodies, EntryState } from './ownEntry';
export { catalogueWith, checkOwn, ENTRY_RECORD, headOfEntry, refersToOwn } from './ownEntry';
export type { Quantity, ResultUnit } from './resultUnits';
export { RESULT_UNIT_KEYS, RESULT_UNITS } from './resultUnits';
export type { MethodFactBodies, MethodState } from './ownMethod';
export { METHOD_RECORD } from './ownMethod';
