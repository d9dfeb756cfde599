/** Why a question has no answer. */
export type ProblemKind =
  // formulas and equations
  | 'empty'
  | 'syntax'
  | 'unbalanced-brackets'
  | 'unknown-element'
  | 'no-atomic-weight'
  | 'no-solution'
  | 'multiple-solutions'
  | 'too-large'
  // quantities
  | 'non-positive'
  | 'out-of-range'
  | 'cannot-concentrate'
  | 'incompatible-units'
  // titrations
  | 'negative-titre'
  | 'no-net-titre'
  | 'no-reagent-consumed'
  // statistics and curves
  | 'too-few-values'
  | 'too-many-values'
  | 'zero-range'
  | 'zero-variance'
  | 'too-few-groups'
  | 'no-replication'
  | 'too-few-points'
  | 'no-usable-inflection'
  // metrology
  | 'temperature-out-of-range'
  | 'outside-calibration';

/**
 * A question that has no answer: the kind of reason, the input at fault, and a sentence that whoever asked can act
 * on. Thrown by the computing functions for what a user may well enter; broken promises between functions throw a
 * plain `RangeError`.
 */
export class Unanswerable extends Error {
  override readonly name = 'Unanswerable';
  readonly kind: ProblemKind;
  /** The input at fault, by the name under which it was given. */
  readonly field: string;

  constructor(kind: ProblemKind, field: string, sentence: string) {
    super(sentence);
    this.kind = kind;
    this.field = field;
  }
}

/** @throws Unanswerable `non-positive` unless the value is a number above zero. */
export function requirePositive(value: number, field: string): void {
  if (!(value > 0)) {
    throw new Unanswerable('non-positive', field, `It must be above zero, not ${String(value)}.`);
  }
}

/** @throws Unanswerable `non-positive` for a negative value. */
export function requireNotNegative(value: number, field: string): void {
  if (!(value >= 0)) {
    throw new Unanswerable(
      'non-positive',
      field,
      `It must not be negative; ${String(value)} was given.`,
    );
  }
}

/** @throws Unanswerable unless the purity is a mass fraction above 0, up to 1. */
export function requirePurity(purity: number): void {
  requirePositive(purity, 'purity');
  if (purity > 1) {
    throw new Unanswerable('out-of-range', 'purity', 'A purity cannot exceed 100 %.');
  }
}

/** Below this part of the whole, a percentage was probably given as a fraction: 0.9998 % for 99.98 %. */
const LEAST_PART = 0.01;

/** @throws Unanswerable `out-of-range` for a part, as a fraction, that was probably meant a hundred times as large. */
export function requirePercentage(part: number, field: string): void {
  if (!(part > 0 && part <= LEAST_PART)) return;
  const percent = String(Number((100 * part).toPrecision(6)));
  const sentence = `${percent} % is next to nothing. If a fraction was meant, multiply it by 100.`;
  throw new Unanswerable('out-of-range', field, sentence);
}

/** @throws Unanswerable `syntax` where two of the things that are told apart by name have the same; `what` are they? */
export function requireDistinct(names: readonly string[], field: string, what: string): void {
  const twice = names.find((name, i) => names.indexOf(name) !== i);
  if (twice !== undefined) {
    throw new Unanswerable('syntax', field, `Two ${what} are called ${twice}.`);
  }
}
