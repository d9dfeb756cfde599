import { Unanswerable } from '../problem';
import { twoSidedT, twoSidedTProbability } from './distributions';
import { isConstant, meanOf, squaredDeviations } from './summary';

/** A straight line through points, y = intercept + slope x. */
export interface Line {
  readonly slope: number;
  readonly intercept: number;
}

/** A straight line by least squares with what is known of its slope. */
export interface Regression extends Line {
  readonly n: number;
  readonly residualSd: number;
  readonly slopeStandardError: number;
  readonly interceptStandardError: number;
  readonly slopeInterval: readonly [number, number];
  /** Probability of a slope at least this far from zero by chance. */
  readonly slopeProbability: number;
  readonly isSlopeSignificant: boolean;
}

/** Straight line by unweighted least squares. @throws Unanswerable `zero-variance` when all x are the same. */
export function fitLine(x: readonly number[], y: readonly number[]): Line {
  if (isConstant(x)) {
    throw new Unanswerable(
      'zero-variance',
      'x',
      'All points have the same x, so no line can be laid through them.',
    );
  }
  const meanX = meanOf(x);
  const meanY = meanOf(y);
  const products = x.reduce((sum, xi, i) => sum + (xi - meanX) * ((y[i] ?? Number.NaN) - meanY), 0);
  const slope = products / squaredDeviations(x);
  return { slope, intercept: meanY - slope * meanX };
}

/**
 * Least squares with standard errors and the t-interval of the slope.
 *
 * @throws Unanswerable `too-few-values` below 3 points or with unequal lists, `zero-variance` when all x are the same.
 */
export function regress(
  x: readonly number[],
  y: readonly number[],
  confidence: number,
): Regression {
  const n = x.length;
  if (n < 3 || y.length !== n) {
    throw new Unanswerable(
      'too-few-values',
      'x',
      'A line with its uncertainty needs at least 3 points, each with x and y.',
    );
  }
  const line = fitLine(x, y);
  const degreesOfFreedom = n - 2;
  const residuals = x.reduce(
    (sum, xi, i) => sum + ((y[i] ?? 0) - line.intercept - line.slope * xi) ** 2,
    0,
  );
  const residualSd = Math.sqrt(residuals / degreesOfFreedom);
  const spread = squaredDeviations(x);
  const slopeStandardError = residualSd / Math.sqrt(spread);
  const reach = twoSidedT(confidence, degreesOfFreedom) * slopeStandardError;
  const slopeProbability =
    slopeStandardError > 0
      ? twoSidedTProbability(line.slope / slopeStandardError, degreesOfFreedom)
      : Number(line.slope === 0);
  return {
    ...line,
    n,
    residualSd,
    slopeStandardError,
    interceptStandardError: residualSd * Math.sqrt(1 / n + meanOf(x) ** 2 / spread),
    slopeInterval: [line.slope - reach, line.slope + reach],
    slopeProbability,
    isSlopeSignificant: slopeProbability < 1 - confidence,
  };
}
