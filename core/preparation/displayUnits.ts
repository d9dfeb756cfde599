import type { RoundedResult } from '../measurement';
import { roundToUncertainty } from '../measurement';
import { requirePositive, Unanswerable } from '../problem';

/** Units in which a concentration may be shown. */
export const CONCENTRATION_UNITS = [
  'mol/L',
  'mmol/L',
  'mol/dm3',
  'M',
  'N',
  'g/L',
  'mg/L',
  '% m/m',
  '% m/V',
] as const;
export type ConcentrationUnit = (typeof CONCENTRATION_UNITS)[number];

/** What a unit needs beside the molarity. */
export interface SolutionFacts {
  readonly molarMassGPerMol?: number;
  readonly densityGPerMl?: number;
  readonly equivalentsPerMole?: number;
}

/** How many of a unit make one mol/L: every unit of concentration is proportional to the molarity. */
function perMolPerL(unit: ConcentrationUnit, facts: SolutionFacts): number {
  const need = (name: keyof SolutionFacts, what: string): number => {
    const value = facts[name];
    if (value === undefined) {
      throw new Unanswerable('empty', name, `A concentration in ${unit} needs the ${what}.`);
    }
    requirePositive(value, name);
    return value;
  };
  const molarMass = (): number => need('molarMassGPerMol', 'molar mass');
  switch (unit) {
    case 'mol/L':
    case 'mol/dm3':
    case 'M':
      return 1;
    case 'mmol/L':
      return 1000;
    case 'N':
      return need('equivalentsPerMole', 'equivalents per mole');
    case 'g/L':
      return molarMass();
    case 'mg/L':
      return 1000 * molarMass();
    case '% m/V':
      return molarMass() / 10;
    case '% m/m':
      return molarMass() / (10 * need('densityGPerMl', 'density of the solution'));
  }
}

/**
 * A concentration in another unit: N = z c; g/L = c M; % m/V = c M / 10; % m/m = c M / (10 rho), rho in g/mL.
 *
 * @throws Unanswerable `empty` when molar mass, density or equivalents are needed and not given.
 */
export function convertConcentration(
  value: number,
  from: ConcentrationUnit,
  to: ConcentrationUnit,
  facts: SolutionFacts = {},
): number {
  return (value / perMolPerL(from, facts)) * perMolPerL(to, facts);
}

/** A molarity with its uncertainty, shown in a unit: converted first and rounded once. @throws Unanswerable */
export function showConcentration(
  molarityMolPerL: number,
  uncertaintyMolPerL: number,
  unit: ConcentrationUnit,
  facts: SolutionFacts = {},
): RoundedResult {
  const factor = perMolPerL(unit, facts);
  return roundToUncertainty(molarityMolPerL * factor, uncertaintyMolPerL * factor);
}
