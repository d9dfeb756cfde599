import type { Expression } from '../measurement';
import { minus, plus, product, quotient, sum } from '../measurement';

/** How quantities of one kind are calculated with: plain numbers, measured quantities, or numbers with their slope. */
export interface Arithmetic<Q> {
  readonly product: (factors: readonly Q[]) => Q;
  readonly quotient: (numerator: Q, denominator: Q) => Q;
  readonly difference: (whole: Q, part: Q) => Q;
}

/** Numbers in coherent units: g, mol and L. */
export const NUMBERS: Arithmetic<number> = {
  product: (factors) => factors.reduce((total, factor) => total * factor, 1),
  quotient: (numerator, denominator) => numerator / denominator,
  difference: (whole, part) => whole - part,
};

/** Measured quantities, each with its unit and its uncertainty. */
export const EXPRESSIONS: Arithmetic<Expression> = {
  product: (factors) => {
    const [only, ...others] = factors;
    return only && others.length === 0 ? only : product(factors);
  },
  quotient,
  difference: (whole, part) => sum([plus(whole), minus(part)]),
};

/** A number and how fast it changes with one of those that it is made of. */
export interface Sloped {
  readonly value: number;
  readonly slope: number;
}

/** The rules of differentiation: product, quotient and sum. */
export const SLOPED: Arithmetic<Sloped> = {
  product: (factors) =>
    factors.reduce(
      (a, b) => ({ value: a.value * b.value, slope: a.slope * b.value + a.value * b.slope }),
      { value: 1, slope: 0 },
    ),
  quotient: (a, b) => ({
    value: a.value / b.value,
    slope: (a.slope * b.value - a.value * b.slope) / b.value ** 2,
  }),
  difference: (a, b) => ({ value: a.value - b.value, slope: a.slope - b.slope }),
};
