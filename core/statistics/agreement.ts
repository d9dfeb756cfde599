import { requirePositive, Unanswerable } from '../problem';
import {
  twoSidedT,
  twoSidedTProbability,
  upperFProbability,
  upperFQuantile,
} from './distributions';
import { isConstant, meanOf, sampleVariance } from './summary';

/** Comparison of two means without assuming equal variances. */
export interface WelchTest {
  readonly difference: number;
  readonly standardError: number;
  readonly t: number;
  readonly degreesOfFreedom: number;
  readonly probability: number;
  readonly criticalT: number;
  readonly interval: readonly [number, number];
  readonly isSignificant: boolean;
}

/**
 * Welch's t test of mean(a) - mean(b), two-sided, degrees of freedom after Satterthwaite, not rounded.
 *
 * @throws Unanswerable `too-few-values` below 2 in a series, `zero-variance` when neither scatters.
 */
export function welch(a: readonly number[], b: readonly number[], confidence: number): WelchTest {
  requireScatter(a, 'a');
  requireScatter(b, 'b');
  if (isConstant(a) && isConstant(b)) {
    throw new Unanswerable(
      'zero-variance',
      'a',
      'Neither series scatters, so a difference cannot be judged.',
    );
  }
  const parts = [a, b].map((values) => ({
    variance: sampleVariance(values) / values.length,
    freedom: values.length - 1,
  }));
  const variance = parts.reduce((total, part) => total + part.variance, 0);
  const degreesOfFreedom =
    variance ** 2 / parts.reduce((total, part) => total + part.variance ** 2 / part.freedom, 0);
  const difference = meanOf(a) - meanOf(b);
  const standardError = Math.sqrt(variance);
  const t = difference / standardError;
  const criticalT = twoSidedT(confidence, degreesOfFreedom);
  const reach = criticalT * standardError;
  return {
    difference,
    standardError,
    t,
    degreesOfFreedom,
    probability: twoSidedTProbability(t, degreesOfFreedom),
    criticalT,
    interval: [difference - reach, difference + reach],
    isSignificant: Math.abs(t) > criticalT,
  };
}

/** Comparison of two variances. */
export interface FTest {
  readonly f: number;
  readonly numeratorDegreesOfFreedom: number;
  readonly denominatorDegreesOfFreedom: number;
  readonly probability: number;
  readonly criticalF: number;
  readonly isSignificant: boolean;
}

/**
 * F test of two variances, the larger over the smaller, two-sided.
 *
 * @throws Unanswerable `too-few-values` below 2 in a series, `zero-variance` when one does not scatter.
 */
export function fTest(a: readonly number[], b: readonly number[], confidence: number): FTest {
  requireScatter(a, 'a');
  requireScatter(b, 'b');
  for (const [values, field] of [
    [a, 'a'],
    [b, 'b'],
  ] as const) {
    if (isConstant(values)) {
      throw new Unanswerable(
        'zero-variance',
        field,
        'These values do not scatter, so the ratio of variances is not defined.',
      );
    }
  }
  const sides = [a, b]
    .map((values) => ({ variance: sampleVariance(values), freedom: values.length - 1 }))
    .toSorted((one, other) => other.variance - one.variance);
  const [larger, smaller] = sides as [(typeof sides)[0], (typeof sides)[0]];
  const f = larger.variance / smaller.variance;
  const criticalF = upperFQuantile((1 - confidence) / 2, larger.freedom, smaller.freedom);
  return {
    f,
    numeratorDegreesOfFreedom: larger.freedom,
    denominatorDegreesOfFreedom: smaller.freedom,
    probability: Math.min(1, 2 * upperFProbability(f, larger.freedom, smaller.freedom)),
    criticalF,
    isSignificant: f > criticalF,
  };
}

/** A result with its expanded uncertainty, both in one unit. */
export interface StatedResult {
  readonly value: number;
  readonly expandedUncertainty: number;
}

/**
 * The E_n number |x1 - x2| / sqrt(U1² + U2²) of independent results; they agree at 1 or below. What both share (a
 * standard, a burette) cancels in the difference and has to be left out of both uncertainties.
 * Source: ISO 13528:2022, 9.7.
 *
 * @throws Unanswerable `non-positive` when neither has an uncertainty.
 */
export function normalizedError(a: StatedResult, b: StatedResult): number {
  const uncertainty = Math.hypot(a.expandedUncertainty, b.expandedUncertainty);
  requirePositive(uncertainty, 'expandedUncertainty');
  return Math.abs(a.value - b.value) / uncertainty;
}

/** A weighted mean with both accounts of its standard uncertainty. */
export interface WeightedMean {
  readonly mean: number;
  /** From the uncertainties given. */
  readonly standardUncertainty: number;
  /** Birge ratio: how much more the values scatter than their uncertainties allow; above 1 they contradict each other. */
  readonly birgeRatio: number;
}

/**
 * Mean weighted by 1/u².
 *
 * @throws Unanswerable `too-few-values` for none, `non-positive` for an uncertainty that is not above zero.
 */
export function weightedMean(
  results: readonly { readonly value: number; readonly standardUncertainty: number }[],
): WeightedMean {
  if (results.length === 0) {
    throw new Unanswerable('too-few-values', 'results', 'There is nothing to average.');
  }
  results.forEach((result) => {
    requirePositive(result.standardUncertainty, 'standardUncertainty');
  });
  const weights = results.map((result) => result.standardUncertainty ** -2);
  const total = weights.reduce((sum, weight) => sum + weight, 0);
  const mean =
    results.reduce((sum, result, i) => sum + (weights[i] ?? 0) * result.value, 0) / total;
  const chiSquared = results.reduce(
    (sum, result, i) => sum + (weights[i] ?? 0) * (result.value - mean) ** 2,
    0,
  );
  return {
    mean,
    standardUncertainty: total ** -0.5,
    birgeRatio: results.length > 1 ? Math.sqrt(chiSquared / (results.length - 1)) : 0,
  };
}

function requireScatter(values: readonly number[], field: string): void {
  if (values.length < 2) {
    throw new Unanswerable(
      'too-few-values',
      field,
      'At least 2 values are needed to know their scatter.',
    );
  }
}
