import { Unanswerable } from '../../problem';
import { fitLine, meanOf, squaredDeviations } from '../../statistics';

/** A series of readings of an electrode against the volume added. */
export interface TitrationData {
  /** In the vessel at the start, water included, mL. */
  readonly initialVolumeMl: number;
  readonly volumesMl: readonly number[];
  /** pH or potential, one for each volume. */
  readonly readings: readonly number[];
  /** Standard deviation of a reading; estimated from the data when not given. */
  readonly noiseSd?: number;
}

/** A range of volumes, both ends included, mL. */
export type VolumeWindow = readonly [from: number, to: number];

/** Where the curve is steepest. */
export interface Inflection {
  /** Middle of the interval with the steepest slope, mL. */
  readonly firstDerivativeMaxMl: number;
  /** Where the second derivative passes zero, mL. */
  readonly secondDerivativeZeroMl: number;
  /** Of either: half the steepest interval, taken as rectangular, mL. */
  readonly standardUncertaintyMl: number;
}

/** Fewest points that show a slope rise and fall again. */
const FEWEST_POINTS = 5;

/** The steepest slope has to rise above the usual one by so many standard deviations of a slope. */
const SIGNIFICANT = 5;

/**
 * The end point of a curve by differences, as a laboratory would take them from a table: the interval with the
 * steepest slope, and the zero of the second derivative by a straight line between the two values on either side.
 *
 * @throws Unanswerable `too-few-points`, or `no-usable-inflection` when the steepest interval lies at an edge or its
 *   slope does not stand out of the noise.
 */
export function inflection(data: TitrationData, window?: VolumeWindow): Inflection {
  const points = pointsIn(data, window);
  if (points.length < FEWEST_POINTS) {
    throw new Unanswerable(
      'too-few-points',
      'volumesMl',
      `An inflection needs at least ${String(FEWEST_POINTS)} points; here are ${String(points.length)}.`,
    );
  }
  const intervals = points.slice(1).map((point, i) => {
    const before = points[i] ?? point;
    const width = point.volume - before.volume;
    return {
      width,
      middle: (point.volume + before.volume) / 2,
      slope: (point.reading - before.reading) / width,
    };
  });
  const steepest = intervals.reduce((a, b) => (Math.abs(b.slope) > Math.abs(a.slope) ? b : a));
  const place = intervals.indexOf(steepest);
  const before = intervals[place - 1];
  const after = intervals[place + 1];
  if (!before || !after) {
    throw new Unanswerable(
      'no-usable-inflection',
      'readings',
      'The curve is steepest at the edge of the data: the end point lies beyond it, or does not exist.',
    );
  }
  const usual = median(intervals.map((interval) => Math.abs(interval.slope)));
  const noiseOfSlope = (Math.SQRT2 * (data.noiseSd ?? estimateNoise(points))) / steepest.width;
  if (Math.abs(steepest.slope) - usual <= SIGNIFICANT * noiseOfSlope) {
    throw new Unanswerable(
      'no-usable-inflection',
      'readings',
      'The steepest interval does not stand out from the noise. Take closer points near the end, or another method.',
    );
  }
  const curvature = (a: typeof steepest, b: typeof steepest): { at: number; value: number } => ({
    at: (a.middle + b.middle) / 2,
    value: (b.slope - a.slope) / (b.middle - a.middle),
  });
  const left = curvature(before, steepest);
  const right = curvature(steepest, after);
  return {
    firstDerivativeMaxMl: steepest.middle,
    secondDerivativeZeroMl:
      left.at - (left.value * (right.at - left.at)) / (right.value - left.value),
    standardUncertaintyMl: steepest.width / 2 / Math.sqrt(3),
  };
}

/** Which Gran function a line is drawn through: what is in the flask before, or in excess after. */
export type GranKind =
  | 'strong-acid-before'
  | 'weak-acid-before'
  | 'strong-base-before'
  | 'weak-base-before'
  | 'acid-after'
  | 'base-after';

/** Sign of the pH in the exponent, and whether the total volume or the volume added stands before it. */
const GRAN: Readonly<Record<GranKind, { sign: 1 | -1; volume: 'total' | 'added' }>> = {
  'strong-acid-before': { sign: -1, volume: 'total' },
  'weak-acid-before': { sign: -1, volume: 'added' },
  'strong-base-before': { sign: 1, volume: 'total' },
  'weak-base-before': { sign: 1, volume: 'added' },
  'acid-after': { sign: -1, volume: 'total' },
  'base-after': { sign: 1, volume: 'total' },
};

/** An equivalence volume by extrapolation, mL. */
export interface GranIntercept {
  readonly volumeMl: number;
  readonly standardUncertaintyMl: number;
}

/**
 * Equivalence volume as the zero of a Gran function, (V0 + V) 10^∓pH or V 10^∓pH, by least squares within a window.
 * Source: G. Gran, Analyst 77 (1952) 661; F. J. C. Rossotti and H. Rossotti, J. Chem. Educ. 42 (1965) 375.
 *
 * @throws Unanswerable `too-few-points` below 3 in the window.
 */
export function granIntercept(
  data: TitrationData,
  kind: GranKind,
  window: VolumeWindow,
): GranIntercept {
  const points = pointsIn(data, window);
  if (points.length < 3) {
    throw new Unanswerable(
      'too-few-points',
      'windowMl',
      'A Gran line needs at least 3 points in its window.',
    );
  }
  const { sign, volume: factor } = GRAN[kind];
  const x = points.map((point) => point.volume);
  const y = points.map(
    ({ volume, reading }) =>
      (factor === 'total' ? data.initialVolumeMl + volume : volume) * 10 ** (sign * reading),
  );
  const { slope, intercept } = fitLine(x, y);
  const volumeMl = -intercept / slope;
  const residuals = x.reduce((sum, xi, i) => sum + ((y[i] ?? 0) - intercept - slope * xi) ** 2, 0);
  const middle = meanOf(x);
  const spread = squaredDeviations(x);
  const residualSd = Math.sqrt(residuals / (x.length - 2));
  return {
    volumeMl,
    standardUncertaintyMl:
      Math.abs(residualSd / slope) * Math.sqrt(1 / x.length + (volumeMl - middle) ** 2 / spread),
  };
}

interface Point {
  readonly volume: number;
  readonly reading: number;
}

/**
 * The points within a window in the order of their volumes, whatever the order in which they were read. Readings repeated at one
 * volume are one point, their mean.
 */
function pointsIn(data: TitrationData, window?: VolumeWindow): Point[] {
  if (data.readings.length !== data.volumesMl.length) {
    throw new Unanswerable('too-few-points', 'readings', 'Every volume needs its reading.');
  }
  const [from, to] = window ?? [Number.NEGATIVE_INFINITY, Number.POSITIVE_INFINITY];
  const readingsAt = new Map<number, number[]>();
  data.volumesMl.forEach((volume, i) => {
    if (volume < from || volume > to) return;
    readingsAt.set(volume, [...(readingsAt.get(volume) ?? []), data.readings[i] ?? Number.NaN]);
  });
  return [...readingsAt]
    .map(([volume, at]) => ({ volume, reading: meanOf(at) }))
    .toSorted((a, b) => a.volume - b.volume);
}

/**
 * Noise of a reading from how far each point lies from the line between its neighbours: for three equal and independent
 * errors that distance scatters by sqrt(3/2) of one. The median keeps the inflection itself out.
 */
function estimateNoise(points: readonly Point[]): number {
  const distances = points.slice(1, -1).map((point, i) => {
    const before = points[i] ?? point;
    const after = points[i + 2] ?? point;
    const part = (point.volume - before.volume) / (after.volume - before.volume);
    return Math.abs(point.reading - before.reading - part * (after.reading - before.reading));
  });
  return (1.4826 * median(distances)) / Math.sqrt(1.5);
}

function median(values: readonly number[]): number {
  const sorted = values.toSorted((a, b) => a - b);
  const middle = Math.floor(sorted.length / 2);
  return sorted.length % 2 === 1
    ? (sorted[middle] ?? 0)
    : ((sorted[middle - 1] ?? 0) + (sorted[middle] ?? 0)) / 2;
}
