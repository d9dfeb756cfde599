export type { Colour, Method } from './methods';
export { findMethod, methodsForTitrant } from './methods';
export type { MolarMass } from './molarMass';
export { molarMass } from './molarMass';
export { findSubstance, SUBSTANCES } from './substances';
