export type { Colour, Method } from './methods';
export { findMethod, methodsForTitrant } from './methods';
export type { MolarMass } from './molarMass';
export { molarMass } from './molarMass';
export type { Substance } from './substances';
export { findSubstance, SUBSTANCES } from './substances';
