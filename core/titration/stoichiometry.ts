/**
 * The arithmetic between a portion in the flask, the titre and the titrant's molarity. With the titrant in the
 * burette, c V = s x; with the standard solution there, c x = s V; x is the portion (g or mL), V the titre (mL).
 */
export interface Stoichiometry {
  readonly inBurette: 'titrant' | 'standard';
  /** s: of a weighed standard 1000 nu P / M, in mol/L mL/g; of a standard solution nu c_s, in mol/L. */
  readonly strength: number;
}

/** A solid standard; nu is moles of titrant per mole of standard, P a mass fraction. */
export interface WeighedStandard {
  readonly moleRatio: number;
  readonly purity: number;
  readonly molarMassGPerMol: number;
}

/** The strength of a weighed standard in the flask: 1000 nu P / M. */
export function strengthOfWeighed({
  moleRatio,
  purity,
  molarMassGPerMol,
}: WeighedStandard): number {
  return (1000 * moleRatio * purity) / molarMassGPerMol;
}

/** Titre in mL that a portion asks for, at a molarity of the titrant in mol/L. */
export function expectedTitreMl(
  { inBurette, strength }: Stoichiometry,
  portion: number,
  molarityMolPerL: number,
): number {
  return inBurette === 'titrant'
    ? (strength * portion) / molarityMolPerL
    : (molarityMolPerL * portion) / strength;
}

/** Portion (g or mL) for a titre in mL. */
export function portionForTitre(
  { inBurette, strength }: Stoichiometry,
  titreMl: number,
  molarityMolPerL: number,
): number {
  return inBurette === 'titrant'
    ? (titreMl * molarityMolPerL) / strength
    : (titreMl * strength) / molarityMolPerL;
}

/** Molarity of the titrant, mol/L, from a portion and its titre in mL. */
export function molarityFromTitre(
  { inBurette, strength }: Stoichiometry,
  portion: number,
  titreMl: number,
): number {
  return inBurette === 'titrant' ? (strength * portion) / titreMl : (strength * titreMl) / portion;
}
