import Big from 'big.js';

/** A number as a person typed it: digits with an optional point, such as `7.10`. */
export type DecimalText = string;

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
  return Number(plain) === 0 ? plain.replace('-', '') : plain;
}

/** The number of digits after the point: 2 for `7.10`. */
export function decimalPlaces(text: DecimalText): number {
  return text.split('.')[1]?.length ?? 0;
}

/** Exact decimal difference, with the decimals of the finer operand: 22.49 - 0.38 is 22.11. */
export function subtractDecimals(minuend: DecimalText, subtrahend: DecimalText): DecimalText {
  const places = Math.max(decimalPlaces(minuend), decimalPlaces(subtrahend));
  return new Big(minuend).minus(subtrahend).toFixed(places);
}

/** Exact decimal sum, with the decimals of the finer operand. */
export function addDecimals(one: DecimalText, other: DecimalText): DecimalText {
  const places = Math.max(decimalPlaces(one), decimalPlaces(other));
  return new Big(one).plus(other).toFixed(places);
}

/** Rounds half to even on the decimal digits of the number, to `places` digits after the point. */
export function roundHalfEven(value: number | DecimalText, places: number): DecimalText {
  return new Big(value).round(places, Big.roundHalfEven).toFixed(Math.max(0, places));
}

/** Sum of numbers as people write them, exact in their decimals: 24.6, -24.5 gives 0.1. */
export function sumDecimals(values: readonly number[]): number {
  return values.reduce((total, value) => total.plus(value), new Big(0)).toNumber();
}
