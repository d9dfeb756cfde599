/** What a solution is made from and shall become. */
export interface SolutionByMass {
  readonly molarityMolPerL: number;
  readonly volumeMl: number;
  readonly molarMassGPerMol: number;
  /** Mass fraction, above 0 up to 1. */
  readonly purity: number;
}

/**
 * Mass to weigh for a solution: m = c V M / (1000 P), in g, with c in mol/L, V in mL, M in g/mol.
 *
 * @throws RangeError unless the purity is above 0 and at most 1.
 */
export function massForSolutionG(solution: SolutionByMass): number {
  const { molarityMolPerL, volumeMl, molarMassGPerMol, purity } = solution;
  if (!(purity > 0 && purity <= 1)) {
    throw new RangeError(`purity must be above 0 and at most 1, got ${String(purity)}`);
  }
  return (molarityMolPerL * volumeMl * molarMassGPerMol) / (1000 * purity);
}
