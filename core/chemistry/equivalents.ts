import { CATALOGUE } from './catalogue';
import type { Method } from './catalogue/entries';
import { equivalentsOfTitrant, moleRatioOfMethod } from './lookUp';

/** How many equivalents a mole of a substance has in a reaction. */
export interface Equivalents {
  readonly perMole: number;
  /** The method whose reaction it is, `permanganate by sodium oxalate`. */
  readonly reaction: string;
}

/** Equivalents in a mole of the standard: as many as in the titrant that it takes. */
function equivalentsOfStandard(method: Method): number {
  return equivalentsOfTitrant(method) * moleRatioOfMethod(method);
}

/**
 * Equivalents in a mole of a substance, for the reactions in which the methods titrate it or titrate with it; each number once, the
 * first method's first. Empty where no method says: a normality without its reaction says nothing.
 */
export function equivalentsIn(substanceId: string): readonly Equivalents[] {
  const found = new Map<number, Equivalents>();
  for (const method of CATALOGUE.methods) {
    const isTitrant = method.titrantIds.includes(substanceId);
    if (!isTitrant && method.standardId !== substanceId) continue;
    const exact = isTitrant ? equivalentsOfTitrant(method) : equivalentsOfStandard(method);
    // A ratio such as 2/5 leaves its trace in the last digit.
    const perMole = Number(exact.toPrecision(12));
    if (!found.has(perMole)) found.set(perMole, { perMole, reaction: method.name });
  }
  return [...found.values()];
}
