import { massForSolutionG } from '../preparation';

/** What a weighed standard and a titrant are, for the arithmetic between them. */
export interface WeighedStandard {
  /** nu, moles of titrant per mole of standard. */
  readonly moleRatio: number;
  /** P, mass fraction. */
  readonly purity: number;
  /** M, g/mol. */
  readonly molarMassGPerMol: number;
}

/** Titre that a mass of standard asks for: V = 1000 nu m P / (M c), in mL, m in g, c in mol/L. */
export function expectedTitreMl(
  standard: WeighedStandard,
  massG: number,
  molarityMolPerL: number,
): number {
  return (
    (1000 * standard.moleRatio * massG * standard.purity) /
    (standard.molarMassGPerMol * molarityMolPerL)
  );
}

/** Mass of standard for a titre: m = c V M / (1000 P nu), in g, V in mL, c in mol/L. */
export function massForTitreG(
  standard: WeighedStandard,
  titreMl: number,
  molarityMolPerL: number,
): number {
  const { molarMassGPerMol, purity, moleRatio: ratio } = standard;
  const massG = massForSolutionG(molarityMolPerL, titreMl, { molarMassGPerMol, purity });
  return massG / ratio;
}
