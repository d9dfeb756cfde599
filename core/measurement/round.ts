import type { DecimalText } from './decimal';
import { roundHalfEven, ZERO } from './decimal';

/** A value and its uncertainty, both rounded for display. */
export interface RoundedResult {
  readonly value: DecimalText;
  readonly uncertainty: DecimalText;
}

/** Position of the leading digit: -4 for 0.00021. */
function leadingExponent(value: number): number {
  return Number(value.toExponential().split('e')[1]);
}

/**
 * Rounds for display: the uncertainty to `significantFigures`, the value to the same decimal place.
 * Half to even, once. A zero or missing uncertainty leaves six significant figures.
 * Source: JCGM 100:2008, 7.2.6.
 */
export function roundToUncertainty(
  value: number,
  uncertainty: number,
  significantFigures = 2,
): RoundedResult {
  if (!(uncertainty > 0)) {
    return { value: roundSignificant(value, 6), uncertainty: ZERO };
  }
  let places = significantFigures - 1 - leadingExponent(uncertainty);
  // 0.000996 rounds up to 0.0010, which has gained a figure: step one place back.
  if (leadingExponent(Number(roundHalfEven(uncertainty, places))) > leadingExponent(uncertainty)) {
    places -= 1;
  }
  return { value: roundHalfEven(value, places), uncertainty: roundHalfEven(uncertainty, places) };
}

/** Rounds to a number of significant figures, half to even, without exponent. */
export function roundSignificant(value: number, figures: number): DecimalText {
  if (value === 0) return ZERO;
  return roundHalfEven(value, figures - 1 - leadingExponent(value));
}
