import { twoSidedT } from './distributions';

/** The usual figures of a series of replicates, in the unit of the values. */
export interface Summary {
  readonly n: number;
  readonly mean: number;
  /** Sample standard deviation (divisor n - 1); null for a single value. */
  readonly sampleSd: number | null;
  readonly relativeSdPercent: number | null;
  readonly range: number;
  readonly relativeRangePercent: number;
  /** Half-width of the t-interval of the mean; null for a single value. */
  readonly confidenceHalfWidth: number | null;
}

/**
 * Mean, s (n - 1), RSD, range and t-interval of a series; null for an empty one.
 * Source: JCGM 100:2008, 4.2.1 to 4.2.3 and G.3.
 */
export function summarize(values: readonly number[], confidence = 0.95): Summary | null {
  const n = values.length;
  if (n === 0) return null;
  const mean = meanOf(values);
  const range = rangeOf(values);
  const sampleSd = n > 1 ? Math.sqrt(sampleVariance(values)) : null;
  return {
    n,
    mean,
    sampleSd,
    relativeSdPercent: sampleSd === null ? null : (100 * sampleSd) / Math.abs(mean),
    range,
    relativeRangePercent: (100 * range) / Math.abs(mean),
    confidenceHalfWidth:
      sampleSd === null ? null : (twoSidedT(confidence, n - 1) * sampleSd) / Math.sqrt(n),
  };
}

/** Arithmetic mean; NaN for no values. */
export function meanOf(values: readonly number[]): number {
  return values.reduce((total, value) => total + value, 0) / values.length;
}

/** Highest minus lowest. */
export function rangeOf(values: readonly number[]): number {
  return Math.max(...values) - Math.min(...values);
}

/** Sum of squared deviations from the mean, over n - 1. */
export function sampleVariance(values: readonly number[]): number {
  return squaredDeviations(values) / (values.length - 1);
}

/** Sum of squared deviations from the mean. */
export function squaredDeviations(values: readonly number[]): number {
  const mean = meanOf(values);
  return values.reduce((total, value) => total + (value - mean) ** 2, 0);
}

/**
 * Whether values as people write them are all the same: their range is nothing but binary noise, one part in 10¹² of
 * the largest.
 */
export function isConstant(values: readonly number[]): boolean {
  return rangeOf(values) <= 1e-12 * Math.max(...values.map(Math.abs));
}
