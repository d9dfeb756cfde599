import type { Equivalents } from '../chemistry';
import { equivalentsIn } from '../chemistry';
import type { PaperUnits } from '../laboratory';
import type { DecimalText } from '../measurement';
import { decimalOf, decimalPlaces, figureText, roundHalfEven } from '../measurement';
import { molarityFromNormality, normality } from '../preparation';

/** A molarity as equivalents in a litre, for a reaction. */
export interface StatedNormality extends Equivalents {
  /** `0.1021 eq/L`. */
  readonly text: string;
}

/**
 * A molarity as the house rule has its normalities stated, with as many decimals, one for each reaction that counts otherwise. Empty
 * where the rule states none, there is no molarity, or no method says what reacts.
 */
export function normalitiesOf(
  substanceId: string,
  molarity: DecimalText | null,
  { normality: unit }: Pick<PaperUnits, 'normality'>,
): readonly StatedNormality[] {
  if (unit === null || molarity === null) return [];
  return equivalentsIn(substanceId).map((equivalents) => {
    const value = normality(Number(molarity), equivalents.perMole);
    return {
      ...equivalents,
      text: `${figureText(roundHalfEven(value, decimalPlaces(molarity)))} ${unit}`,
    };
  });
}

/** Significant digits of a molarity that follows from a normality: sixths and fifths do not end. */
const DIGITS = 8;

/** The molarity of a normality, mol/L. @throws Unanswerable for one that is not above 0 */
export function molarityOfNormality(normalityEqPerL: number, perMole: number): DecimalText {
  return decimalOf(Number(molarityFromNormality(normalityEqPerL, perMole).toPrecision(DIGITS)));
}
