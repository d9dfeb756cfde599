import type { Own, Substance } from '../chemistry';
import { molarMass, lookalikesOf } from '../chemistry';

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
  return lookalikesOf(substance, own).find(fits) ?? null;
}
