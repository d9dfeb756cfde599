import { studentTQuantile } from './studentT';

/** The usual figures of a series of replicates, in the unit of the values. */
export interface Summary {
  readonly n: number;
  readonly mean: number;
  /** Sample standard deviation (divisor n - 1); null for a single value. */
  readonly sampleSd: number | null;
  readonly relativeSdPercent: number | null;
  readonly range: number;
  readonly relativeRangePercent: number;
  /** Half-width of the t-interval of the mean at 95 %; null for a single value. */
  readonly confidenceHalfWidth: number | null;
}

/**
 * Mean, s (n - 1), RSD, range and t-interval of a series; null for an empty one.
 * Source: JCGM 100:2008, 4.2.1 to 4.2.3 and G.3.
 */
export function summarize(values: readonly number[], confidence = 0.95): Summary | null {
  const n = values.length;
  if (n === 0) return null;
  const mean = values.reduce((total, value) => total + value, 0) / n;
  const range = Math.max(...values) - Math.min(...values);
  const sampleSd = n > 1 ? sampleStandardDeviation(values, mean) : null;
  return {
    n,
    mean,
    sampleSd,
    relativeSdPercent: sampleSd === null ? null : (100 * sampleSd) / Math.abs(mean),
    range,
    relativeRangePercent: (100 * range) / Math.abs(mean),
    confidenceHalfWidth:
      sampleSd === null
        ? null
        : (studentTQuantile((1 + confidence) / 2, n - 1) * sampleSd) / Math.sqrt(n),
  };
}

/** Square root of the sum of squared deviations from the mean over n - 1. */
function sampleStandardDeviation(values: readonly number[], mean: number): number {
  const squares = values.reduce((total, value) => total + (value - mean) ** 2, 0);
  return Math.sqrt(squares / (values.length - 1));
}
