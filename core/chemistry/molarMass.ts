import { ATOMIC_WEIGHTS } from './atomicWeights';
import { parseFormula } from './formula';

/** Molar mass of a substance. */
export interface MolarMass {
  readonly valueGPerMol: number;
  readonly standardUncertaintyGPerMol: number;
}

/**
 * Molar mass of a formula. The atoms of one element share its atomic weight, so their uncertainties add
 * linearly; elements add in quadrature; half-widths are rectangular.
 * Source: EURACHEM/CITAC Guide CG 4, example A2, step 3.
 *
 * @throws RangeError when the formula cannot be read or names an element without an atomic weight.
 */
export function molarMass(formula: string): MolarMass {
  let valueGPerMol = 0;
  let variance = 0;
  for (const [element, count] of parseFormula(formula)) {
    const weight = ATOMIC_WEIGHTS[element];
    if (!weight) throw new RangeError(`no atomic weight for ${element} in ${formula}`);
    valueGPerMol += count * weight.value;
    variance += (count * weight.halfWidth) ** 2 / 3;
  }
  return { valueGPerMol, standardUncertaintyGPerMol: Math.sqrt(variance) };
}
