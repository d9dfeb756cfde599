import fCdf from '@stdlib/stats-base-dists-f-cdf';
import fQuantileOf from '@stdlib/stats-base-dists-f-quantile';
import normalCdfOf from '@stdlib/stats-base-dists-normal-cdf';
import normalQuantileOf from '@stdlib/stats-base-dists-normal-quantile';
import tCdf from '@stdlib/stats-base-dists-t-cdf';
import tQuantile from '@stdlib/stats-base-dists-t-quantile';

/** The library has no answer at Infinity; here t(0.975) is within 3e-10 of the normal quantile. */
const PRACTICALLY_INFINITE = 1e10;

/**
 * Quantile of Student's t distribution: the t that is not exceeded with `probability` (0 to 1, one
 * tail). Infinite degrees of freedom give the normal quantile.
 *
 * @throws RangeError unless 0 < probability < 1 and degreesOfFreedom > 0.
 */
export function studentTQuantile(probability: number, degreesOfFreedom: number): number {
  requireProbability(probability);
  if (!(degreesOfFreedom > 0)) {
    throw new RangeError(`degreesOfFreedom must be positive, got ${String(degreesOfFreedom)}`);
  }
  return tQuantile(probability, Math.min(degreesOfFreedom, PRACTICALLY_INFINITE));
}

/** The t that |t| does not exceed with `confidence` (0 to 1). */
export function twoSidedT(confidence: number, degreesOfFreedom: number): number {
  return studentTQuantile((1 + confidence) / 2, degreesOfFreedom);
}

/** Probability of a |t| at least this large by chance. */
export function twoSidedTProbability(t: number, degreesOfFreedom: number): number {
  return 2 * tCdf(-Math.abs(t), degreesOfFreedom);
}

/** Probability that a variable of Student's t distribution does not exceed t. Infinite degrees of freedom give the normal one. */
export function studentTCdf(t: number, degreesOfFreedom: number): number {
  return Number.isFinite(degreesOfFreedom) ? tCdf(t, degreesOfFreedom) : normalCdf(t);
}

/** Quantile of the standard normal distribution. @throws RangeError unless 0 < probability < 1. */
export function normalQuantile(probability: number): number {
  requireProbability(probability);
  return normalQuantileOf(probability, 0, 1);
}

/** Probability that a standard normal variable does not exceed z. */
export function normalCdf(z: number): number {
  return normalCdfOf(z, 0, 1);
}

/** The F that is exceeded with probability `upperTail`. */
export function upperFQuantile(upperTail: number, numerator: number, denominator: number): number {
  requireProbability(upperTail);
  return fQuantileOf(1 - upperTail, numerator, denominator);
}

/** Probability of an F at least this large by chance: that of its inverse staying below, which keeps small ones exact. */
export function upperFProbability(f: number, numerator: number, denominator: number): number {
  return fCdf(1 / f, denominator, numerator);
}

function requireProbability(probability: number): void {
  if (!(probability > 0 && probability < 1)) {
    throw new RangeError(`probability must lie between 0 and 1, got ${String(probability)}`);
  }
}
