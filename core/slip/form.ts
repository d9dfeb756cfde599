import type { Own, Substance } from '../chemistry';
import { findSubstance, molarMass } from '../chemistry';

/** Two molar masses this close, relative, are of one substance. */
const SAME = 0.005;

/**
 * The form that a stated molar mass belongs to, when it is not that of the substance chosen: the anhydrous form for the hydrate, or
 * another salt of the same name. Null when it fits, or fits nothing that is easily mistaken for it.
 */
export function suspectForm(
  statedGPerMol: number,
  substance: Substance,
  own: Own = [],
): Substance | null {
  const fits = ({ formula }: Substance): boolean =>
    Math.abs(statedGPerMol / molarMass(formula).valueGPerMol - 1) <= SAME;
  if (fits(substance)) return null;
  return (
    substance.mistakenFor
      .map((id) => findSubstance(id, own))
      .find((other) => other !== undefined && fits(other)) ?? null
  );
}
