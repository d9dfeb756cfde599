import Fraction from 'fraction.js';
import { Unanswerable } from '../problem';
import type { Substance } from './catalogue/entries';
import type { Formula } from './formula';
import { parseFormula } from './formula';
import type { MolarMass } from './molarMass';
import { molarMass } from './molarMass';

const NONE = new Fraction(0);

/**
 * Molar mass of something that comes in a bottle, which has no charge.
 *
 * @throws Unanswerable for a formula that cannot be read, or that of an ion.
 */
export function substanceMass(formula: string): MolarMass {
  if (parseFormula(formula).charge !== 0) {
    throw new Unanswerable('syntax', 'formula', 'A substance that is weighed has no charge.');
  }
  return molarMass(formula);
}

/**
 * Molecules of water that a formula has more than another of the same substance: 2 of H2C2O4·2H2O against H2C2O4, 0 where they are
 * the same, less than 0 the other way round. Null where they differ by anything else.
 *
 * @throws Unanswerable for a formula that cannot be read.
 */
export function waterMoreThan(formula: string, other: string): number | null {
  return waterBetween(parseFormula(formula).counts, parseFormula(other).counts);
}

function waterBetween(counts: Formula['counts'], others: Formula['counts']): number | null {
  const more = (element: string): Fraction =>
    (counts.get(element) ?? NONE).sub(others.get(element) ?? NONE);
  const water = more('O');
  const isWater = [...new Set([...counts.keys(), ...others.keys()])].every((element) => {
    if (element === 'O') return true;
    return more(element).equals(element === 'H' ? water.mul(2) : NONE);
  });
  return isWater ? water.valueOf() : null;
}

/** The substances that a formula is also one of, with more water or less: a hydrate beside what is free of water. */
export function otherForms(
  formula: string,
  substances: readonly Substance[],
): readonly { readonly substance: Substance; readonly waterMore: number }[] {
  const { counts } = parseFormula(formula);
  return substances.flatMap((substance) => {
    const waterMore = waterBetween(parseFormula(substance.formula).counts, counts);
    return waterMore === null ? [] : [{ substance, waterMore }];
  });
}
