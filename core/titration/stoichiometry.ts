/**
 * The arithmetic between a portion in the flask, the titre and the titrant's molarity. With the titrant in the
 * burette, c V = s x; with the standard solution there, c x = s V, or c x = e - s V where it titrates what is left of an
 * excess; x is the portion (g or mL), V the titre (mL).
 */
export interface Stoichiometry {
  readonly inBurette: 'titrant' | 'standard';
  /** s: of a weighed standard 1000 nu P / M, in mol/L mL/g; of a standard solution nu c_s, in mol/L. */
  readonly strength: number;
  /** e: what the excess can take of what is in the flask, mmol of that; null without an excess. */
  readonly excessMmol: number | null;
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

/** Titre in mL that a portion asks for, at a molarity of the titrant in mol/L; not above 0 where it uses up the excess. */
export function expectedTitreMl(
  { inBurette, strength, excessMmol }: Stoichiometry,
  portion: number,
  molarityMolPerL: number,
): number {
  if (inBurette === 'titrant') return (strength * portion) / molarityMolPerL;
  const consumedMl = (molarityMolPerL * portion) / strength;
  return excessMmol === null ? consumedMl : excessMmol / strength - consumedMl;
}

/** Portion (g or mL) for a titre in mL. */
export function portionForTitre(
  { inBurette, strength, excessMmol }: Stoichiometry,
  titreMl: number,
  molarityMolPerL: number,
): number {
  if (inBurette === 'titrant') return (titreMl * molarityMolPerL) / strength;
  const titrated = titreMl * strength;
  return (excessMmol === null ? titrated : excessMmol - titrated) / molarityMolPerL;
}

/** Molarity of the titrant, mol/L, from a portion and its titre in mL; not above 0 where more was left than added. */
export function molarityFromTitre(
  { inBurette, strength, excessMmol }: Stoichiometry,
  portion: number,
  titreMl: number,
): number {
  if (inBurette === 'titrant') return (strength * portion) / titreMl;
  const titrated = strength * titreMl;
  return (excessMmol === null ? titrated : excessMmol - titrated) / portion;
}

/**
 * What a millilitre more or less of a titre is worth, relative to the molarity: 1 / V, or s / (e - s V) where an excess is
 * titrated back.
 */
export function relativePerMl({ strength, excessMmol }: Stoichiometry, titreMl: number): number {
  return 1 / (excessMmol === null ? titreMl : excessMmol / strength - titreMl);
}
