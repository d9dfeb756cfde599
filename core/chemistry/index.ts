export { CATALOGUE } from './catalogue';
export type {
  Analysis,
  Catalogue,
  Colour,
  Concentrate,
  Container,
  Indicator,
  Keeping,
  Method,
  Preparation,
  Substance,
} from './catalogue/entries';
export type { HazardCode, Pictogram } from './catalogue/hazards';
export { HAZARD_STATEMENTS, hazardsAt } from './catalogue/hazards';
export type { AtomicWeightTable } from './elements';
export type { BalancedReaction, MoleRatio, Reaction } from './equation';
export { balance, chainMoleRatio, equivalentsOf, moleRatioOf, parseEquation } from './equation';
export type { Formula, FormulaPiece } from './formula';
export { parseFormula } from './formula';
export {
  checkCatalogue,
  describeDrying,
  describeEndPoint,
  extendCatalogue,
  findIndicator,
  findMethod,
  findSolvent,
  findSubstance,
  keepingOf,
  methodsAtBench,
  moleRatioOfMethod,
  ratioOfAnalysis,
} from './lookUp';
export type { MolarMass } from './molarMass';
export { molarMass } from './molarMass';
