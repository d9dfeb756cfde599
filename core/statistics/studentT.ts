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
  if (!(probability > 0 && probability < 1)) {
    throw new RangeError(`probability must lie between 0 and 1, got ${String(probability)}`);
  }
  if (!(degreesOfFreedom > 0)) {
    throw new RangeError(`degreesOfFreedom must be positive, got ${String(degreesOfFreedom)}`);
  }
  return tQuantile(probability, Math.min(degreesOfFreedom, PRACTICALLY_INFINITE));
}
