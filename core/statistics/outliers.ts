import { Unanswerable } from '../problem';
import { normalCdf, studentTQuantile } from './distributions';
import { isConstant, meanOf, rangeOf, sampleVariance } from './summary';

/** Confidence levels, in percent, for which Dixon's table has critical values. */
export type DixonConfidence = 90 | 95 | 99;

/** Smallest series of the table. */
const DIXON_FROM = 3;

/**
 * Two-sided critical values of Dixon's r10 for n from 3 to 10.
 * Source: D. B. Rorabacher, Anal. Chem. 63 (1991) 139.
 */
const DIXON_CRITICAL: Readonly<Record<DixonConfidence, readonly number[]>> = {
  90: [0.941, 0.765, 0.642, 0.56, 0.507, 0.468, 0.437, 0.412],
  95: [0.97, 0.829, 0.71, 0.625, 0.568, 0.526, 0.493, 0.466],
  99: [0.994, 0.926, 0.821, 0.74, 0.68, 0.634, 0.598, 0.568],
};

/** Largest series of the table. */
export const DIXON_UP_TO = DIXON_FROM + DIXON_CRITICAL[95].length - 1;

/** Dixon's ratio of a series at both ends. */
export interface DixonTest {
  readonly n: number;
  readonly qLow: number;
  readonly qHigh: number;
  readonly q: number;
  /** Position of the value in question; null when both ends stand out equally. */
  readonly suspectIndex: number | null;
}

/**
 * Dixon's Q (r10): the gap at an end of the ordered series over its range, the larger of the two ends.
 *
 * @throws Unanswerable `too-few-values` below 3, `too-many-values` above 10, `zero-range` when all are equal.
 */
export function dixonQ(values: readonly number[]): DixonTest {
  requireDixonSize(values.length);
  if (isConstant(values)) {
    throw new Unanswerable('zero-range', 'values', 'All values are equal: none stands out.');
  }
  const order = values.map((_, i) => i).toSorted((a, b) => (values[a] ?? 0) - (values[b] ?? 0));
  const at = (place: number): number => values[order.at(place) ?? 0] ?? 0;
  const range = rangeOf(values);
  const qLow = (at(1) - at(0)) / range;
  const qHigh = (at(-1) - at(-2)) / range;
  const isTie = Math.abs(qLow - qHigh) < 1e-9;
  return {
    n: values.length,
    qLow,
    qHigh,
    q: Math.max(qLow, qHigh),
    suspectIndex: isTie ? null : ((qLow > qHigh ? order[0] : order.at(-1)) ?? null),
  };
}

/** Critical value of Dixon's Q. @throws Unanswerable outside n = 3 to 10. */
export function dixonCritical(n: number, confidencePercent: DixonConfidence): number {
  requireDixonSize(n);
  return DIXON_CRITICAL[confidencePercent][n - DIXON_FROM] ?? Number.NaN;
}

function requireDixonSize(n: number): void {
  if (n < DIXON_FROM) {
    throw new Unanswerable(
      'too-few-values',
      'values',
      `Dixon's test needs at least ${String(DIXON_FROM)} values.`,
    );
  }
  if (n > DIXON_UP_TO) {
    throw new Unanswerable(
      'too-many-values',
      'values',
      `Dixon's test in this form serves up to ${String(DIXON_UP_TO)} values; take Grubbs' test for more.`,
    );
  }
}

/**
 * The critical value of r10 for normal data by integration, to check the table: the q with P(r10 > q) = alpha / 2 at
 * one end.
 */
export function dixonCriticalByIntegration(n: number, confidencePercent: number): number {
  const tail = (1 - confidencePercent / 100) / 2;
  let low = 0;
  let high = 1;
  while (high - low > 1e-6) {
    const middle = (low + high) / 2;
    if (dixonUpperTail(n, middle) > tail) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

/**
 * P(r10 > q) = n (n - 1) ∫∫ φ(y) φ(y + d) [Φ(y + d (1 - q)) - Φ(y)]^(n-2) dd dy at the upper end, with y the smallest value
 * and d >= 0 the range: the trapezoidal rule in y, where everything dies out at both limits, Simpson's in d.
 */
function dixonUpperTail(n: number, q: number): number {
  const yStep = 0.3;
  const dStep = 0.125;
  const dSteps = 80;
  let total = 0;
  for (let y = -7.5; y <= 6; y += yStep) {
    const below = normalCdf(y);
    for (let i = 0; i <= dSteps; i += 1) {
      const d = i * dStep;
      const weight = i === 0 || i === dSteps ? 1 : i % 2 === 1 ? 4 : 2;
      const density = Math.exp(-(y * y + (y + d) ** 2) / 2) / (2 * Math.PI);
      if (density < 1e-14) continue;
      total += weight * density * (normalCdf(y + d * (1 - q)) - below) ** (n - 2);
    }
  }
  return (n * (n - 1) * total * yStep * dStep) / 3;
}

/** Grubbs' test of the value farthest from the mean. */
export interface GrubbsTest {
  readonly n: number;
  readonly mean: number;
  readonly sampleSd: number;
  readonly g: number;
  readonly suspectIndex: number;
  readonly critical: number;
  readonly isOutlier: boolean;
}

/**
 * Grubbs' test, two-sided: the largest deviation from the mean over s.
 * Source: F. E. Grubbs, Technometrics 11 (1969) 1.
 *
 * @throws Unanswerable `too-few-values` below 3, `zero-variance` when all are equal.
 */
export function grubbs(values: readonly number[], confidence: number): GrubbsTest {
  const critical = grubbsCritical(values.length, confidence);
  if (isConstant(values)) {
    throw new Unanswerable('zero-variance', 'values', 'All values are equal: none stands out.');
  }
  const mean = meanOf(values);
  const sampleSd = Math.sqrt(sampleVariance(values));
  const deviations = values.map((value) => Math.abs(value - mean) / sampleSd);
  const g = Math.max(...deviations);
  return {
    n: values.length,
    mean,
    sampleSd,
    g,
    // The first of equals, whatever binary noise says.
    suspectIndex: deviations.findIndex((deviation) => deviation > g * (1 - 1e-9)),
    critical,
    isOutlier: g > critical,
  };
}

/**
 * Critical value of Grubbs' test from Student's t at alpha / (2 n) with n - 2 degrees of freedom.
 *
 * @throws Unanswerable `too-few-values` below 3.
 */
export function grubbsCritical(n: number, confidence: number): number {
  if (n < 3) {
    throw new Unanswerable('too-few-values', 'values', "Grubbs' test needs at least 3 values.");
  }
  const t = studentTQuantile(1 - (1 - confidence) / (2 * n), n - 2);
  return ((n - 1) / Math.sqrt(n)) * Math.sqrt(t ** 2 / (n - 2 + t ** 2));
}
