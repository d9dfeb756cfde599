import { upperFQuantile } from './distributions';

/** A standard deviation of single values, with its degrees of freedom. */
export interface KnownScatter {
  readonly sd: number;
  readonly degreesOfFreedom: number;
}

/** A scatter pooled with the one that was known before. */
export interface PooledScatter extends KnownScatter {
  /** (n - 1) s^2 / s0^2, and what it may be at 95 %; null for a single value. */
  readonly chiSquared: { readonly statistic: number; readonly critical: number } | null;
  /** Whether the values scatter more than what was known allows, so that they are not of its kind. */
  readonly isTooLarge: boolean;
}

/** Confidence of the test that comes before pooling. */
const CONFIDENCE = 0.95;

/** Degrees of freedom that stand for endless ones in the table of F. */
const ENDLESS = 1e9;

/** Critical chi-squared: nu times F of nu and endless degrees of freedom. */
function upperChiSquared(degreesOfFreedom: number): number {
  return degreesOfFreedom * upperFQuantile(1 - CONFIDENCE, degreesOfFreedom, ENDLESS);
}

/**
 * Pools the scatter of n values with one known before: s_p^2 = (nu0 s0^2 + (n - 1) s^2) / (nu0 + n - 1), of nu0 + n - 1 degrees of
 * freedom. `sd` is null for a single value, of which nothing is known but s0.
 * Source: pooled variance, JCGM 100:2008, H.3.6 and 4.2.4; chi-squared test of a variance, one-sided.
 */
export function poolScatter(
  { sd: known, degreesOfFreedom: freedom }: KnownScatter,
  sd: number | null,
  n: number,
): PooledScatter {
  if (sd === null || n < 2) {
    return { sd: known, degreesOfFreedom: freedom, chiSquared: null, isTooLarge: false };
  }
  const own = n - 1;
  const chiSquared = { statistic: (own * sd ** 2) / known ** 2, critical: upperChiSquared(own) };
  return {
    sd: Math.sqrt((freedom * known ** 2 + own * sd ** 2) / (freedom + own)),
    degreesOfFreedom: freedom + own,
    chiSquared,
    isTooLarge: chiSquared.statistic > chiSquared.critical,
  };
}
