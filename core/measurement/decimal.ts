import Big from 'big.js';
import type { Stored } from '../grammar';

/** A number as a person typed it: digits with an optional point, such as `7.10`. */
export type DecimalText = Stored<'decimal'>;

const PLAIN_DECIMAL = /^-?\d{1,12}(\.\d{1,12})?$/;

/**
 * Reads a number as typed. Accepts a decimal comma, surrounding blanks and leading zeros; keeps every digit after them, so
 * that `07,10` becomes `7.10`. Gives null for anything else, exponents and thousands separators included.
 */
export function parseDecimal(typed: string): DecimalText | null {
  const text = typed.trim().replace(',', '.').replace(/^\+/, '').replace(/^\./, '0.');
  if (!PLAIN_DECIMAL.test(text)) return null;
  // Zeros before the number say nothing, nor does a sign before nothing; those after it say how finely it was read.
  const plain = text.replace(/^(-?)0+(?=\d)/, '$1');
  return (Number(plain) === 0 ? plain.replace('-', '') : plain) as DecimalText;
}

/** A number that stands in the program itself. @throws RangeError when it is not one as a person would type it */
export function decimalText(text: string): DecimalText {
  const decimal = parseDecimal(text);
  if (decimal !== text) throw new RangeError(`${text} is no plain number`);
  return decimal;
}

export const ZERO = decimalText('0');

/** A number as it would be typed, in all its digits and without exponent. @throws RangeError when it is not finite */
export function decimalOf(value: number): DecimalText {
  if (!Number.isFinite(value)) throw new RangeError(`${String(value)} cannot be written down`);
  return new Big(value).toFixed() as DecimalText;
}

/** What the arithmetic library writes with so many digits after the point is such a number. */
function written(value: Big, places: number): DecimalText {
  return value.toFixed(places) as DecimalText;
}

/** The number of digits after the point: 2 for `7.10`. */
export function decimalPlaces(text: string): number {
  return text.split('.')[1]?.length ?? 0;
}

/** Exact decimal difference, with the decimals of the finer operand: 22.49 - 0.38 is 22.11. */
export function subtractDecimals(minuend: DecimalText, subtrahend: DecimalText): DecimalText {
  const places = Math.max(decimalPlaces(minuend), decimalPlaces(subtrahend));
  return written(new Big(minuend).minus(subtrahend), places);
}

/** Exact decimal sum, with the decimals of the finer operand. */
export function addDecimals(one: DecimalText, other: DecimalText): DecimalText {
  const places = Math.max(decimalPlaces(one), decimalPlaces(other));
  return written(new Big(one).plus(other), places);
}

/** A percentage as the part of 1 that it is, with all its digits: 99.98 is 0.9998, 100.00 is 1.0000. */
export function fractionOfPercent(percent: DecimalText): DecimalText {
  return written(new Big(percent).div(100), decimalPlaces(percent) + 2);
}

/** A part of 1 in per cent, with all its digits: 0.9998 is 99.98. */
export function percentOfFraction(fraction: DecimalText): DecimalText {
  return written(new Big(fraction).times(100), Math.max(0, decimalPlaces(fraction) - 2));
}

/** Rounds half to even on the decimal digits of the number, to `places` digits after the point. */
export function roundHalfEven(value: number | DecimalText, places: number): DecimalText {
  return written(new Big(value).round(places, Big.roundHalfEven), Math.max(0, places));
}

/** Sum of numbers as people write them, exact in their decimals: 24.6, -24.5 gives 0.1. */
export function sumDecimals(values: readonly number[]): number {
  return values.reduce((total, value) => total.plus(value), new Big(0)).toNumber();
}
