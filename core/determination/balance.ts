import type { Expression } from '../measurement';
import { coherentValue } from '../measurement';
import type { Arithmetic, Sloped } from './arithmetic';
import { NUMBERS, SLOPED } from './arithmetic';

/** What is open in a balance until it is measured or computed; any one of them follows from the others. */
export type Open = 'sought' | 'titre' | 'portion';

/** A factor of an amount, or a divisor of it: a quantity that is known, or one that is open. */
export interface Factor<Q> {
  readonly of: Q | Open;
  readonly divides: boolean;
}

/**
 * The amounts that are equal at the end point, all in moles of what is sought: what is sought itself, and what is known;
 * or, where an excess is titrated back, what is sought and the excess less what is known.
 */
export interface Balance<Q> {
  readonly sought: readonly Factor<Q>[];
  readonly known: readonly Factor<Q>[];
  /** Null without an excess. */
  readonly excess: readonly Factor<Q>[] | null;
  readonly arithmetic: Arithmetic<Q>;
}

/** What is given of a titration: all that is open but one. */
export type Given<Q> = Readonly<Partial<Record<Open, Q>>>;

/** A quantity that multiplies an amount. */
export function times(of: Expression | Open): Factor<Expression> {
  return { of, divides: false };
}

/** A quantity by which an amount is divided. */
export function over(of: Expression | Open): Factor<Expression> {
  return { of, divides: true };
}

/**
 * The one open quantity that a balance and the given ones determine: what is sought by a titration, the titre that a portion
 * will take, or the portion for a titre. Titre and portion are net: blank and dilutions taken into account.
 */
export function solve<Q>(balance: Balance<Q>, open: Open, given: Given<Q>): Q {
  const { sought, known, excess } = balance;
  const isOpen = ({ of }: Factor<Q>): boolean => of === open;
  const isInSought = sought.some(isOpen);
  const own = isInSought ? sought : known;
  const other = isInSought ? known : sought;
  const rest = own.filter((factor) => !isOpen(factor));
  const isDivisor = own.some((factor) => isOpen(factor) && factor.divides);
  const whole = excess === null ? other : [leftOf(balance, excess, other, given)];
  return amountOf(
    balance,
    isDivisor ? [...rest, ...inverted(whole)] : [...whole, ...inverted(rest)],
    given,
  );
}

/** What of an excess the other amount leaves. */
function leftOf<Q>(
  balance: Balance<Q>,
  excess: readonly Factor<Q>[],
  other: readonly Factor<Q>[],
  given: Given<Q>,
): Factor<Q> {
  const all = amountOf(balance, excess, given);
  const used = amountOf(balance, other, given);
  return { of: balance.arithmetic.difference(all, used), divides: false };
}

function inverted<Q>(factors: readonly Factor<Q>[]): readonly Factor<Q>[] {
  return factors.map(({ of, divides }) => ({ of, divides: !divides }));
}

/** The product of the factors over that of the divisors. */
function amountOf<Q>(
  { arithmetic }: Balance<Q>,
  factors: readonly Factor<Q>[],
  given: Given<Q>,
): Q {
  const valuesOf = (divides: boolean): readonly Q[] =>
    factors.flatMap((factor) => {
      if (factor.divides !== divides) return [];
      if (!isOpenName(factor.of)) return [factor.of];
      const value = given[factor.of];
      if (value === undefined) throw new RangeError(`the ${factor.of} of a titration is not given`);
      return [value];
    });
  const divisors = valuesOf(true);
  const numerator = arithmetic.product(valuesOf(false));
  return divisors.length === 0
    ? numerator
    : arithmetic.quotient(numerator, arithmetic.product(divisors));
}

/** A quantity is a number or an object, so that what is a string is a name. */
function isOpenName(of: unknown): of is Open {
  return typeof of === 'string';
}

function converted<P, Q>(
  balance: Balance<P>,
  arithmetic: Arithmetic<Q>,
  convert: (quantity: P) => Q,
): Balance<Q> {
  const factorsOf = (factors: readonly Factor<P>[]): readonly Factor<Q>[] =>
    factors.map(({ of, divides }) => ({ of: isOpenName(of) ? of : convert(of), divides }));
  return {
    sought: factorsOf(balance.sought),
    known: factorsOf(balance.known),
    excess: balance.excess && factorsOf(balance.excess),
    arithmetic,
  };
}

/** The balance in plain numbers, in g, mol and L: what is asked at every key is answered by it. */
export function inNumbers(balance: Balance<Expression>): Balance<number> {
  return converted(balance, NUMBERS, coherentValue);
}

/**
 * What a litre more of a titre is worth, relative to what is sought: the logarithmic derivative of the solved balance, with its
 * sign. 1/V in size, or s / (e - s V) where an excess is titrated back; the portion cancels.
 */
export function relativePerLitre(balance: Balance<number>, titreL: number): number {
  const sloped = converted(balance, SLOPED, (value): Sloped => ({ value, slope: 0 }));
  const { value, slope } = solve(sloped, 'sought', {
    titre: { value: titreL, slope: 1 },
    portion: { value: 1, slope: 0 },
  });
  return slope / value;
}
