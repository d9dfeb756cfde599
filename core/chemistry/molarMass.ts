import { Unanswerable } from '../problem';
import type { AtomicWeightTable } from './elements';
import { atomicWeight } from './elements';
import { parseFormula } from './formula';

/** Molar mass of a substance. */
export interface MolarMass {
  readonly valueGPerMol: number;
  readonly standardUncertaintyGPerMol: number;
}

/**
 * Molar mass of a formula. The atoms of one element share its atomic weight, so their uncertainties add
 * linearly; elements add in quadrature; half-widths are rectangular. The mass of electrons gained or lost is not
 * counted.
 * Source: EURACHEM/CITAC Guide CG 4, example A2, step 3.
 *
 * @throws Unanswerable when the formula cannot be read or names an element without a standard atomic weight.
 */
export function molarMass(formula: string, table: AtomicWeightTable = 'standard'): MolarMass {
  let valueGPerMol = 0;
  let variance = 0;
  for (const [element, exactCount] of parseFormula(formula).counts) {
    const weight = atomicWeight(element, table);
    if (!weight) {
      throw new Unanswerable(
        'no-atomic-weight',
        'formula',
        `${element} has no standard atomic weight: state the molar mass of the material at hand.`,
      );
    }
    const count = exactCount.valueOf();
    valueGPerMol += count * weight.value;
    variance += (count * weight.halfWidth) ** 2 / 3;
  }
  return { valueGPerMol, standardUncertaintyGPerMol: Math.sqrt(variance) };
}
