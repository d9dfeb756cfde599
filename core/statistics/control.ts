import { Unanswerable } from '../problem';
import { isConstant, meanOf, sampleVariance } from './summary';

/** Where the scatter of a control chart comes from. */
export type SigmaSource = 'sample-sd' | 'moving-range';

/** A control chart and what its values do. */
export interface ControlChart {
  readonly centre: number;
  readonly sigma: number;
  /** Centre minus and plus 2 sigma. */
  readonly warningLimits: readonly [number, number];
  /** Centre minus and plus 3 sigma. */
  readonly actionLimits: readonly [number, number];
  readonly beyondWarning: readonly number[];
  readonly beyondAction: readonly number[];
  /** Most values in a row on one side of the centre; one exactly on it breaks the row. */
  readonly longestRunOneSide: number;
}

/** Mean moving range of two normal values in units of their standard deviation (d2 for n = 2). Source: ISO 7870-2. */
const MOVING_RANGE_D2 = 1.128;

/**
 * Control limits from a baseline, and the positions of the values that lie strictly outside.
 *
 * @throws Unanswerable `too-few-values` below 2 in the baseline, `zero-variance` when it does not scatter.
 */
export function controlChart(
  baseline: readonly number[],
  values: readonly number[],
  sigmaFrom: SigmaSource,
): ControlChart {
  if (baseline.length < 2) {
    throw new Unanswerable(
      'too-few-values',
      'baseline',
      'A baseline needs at least 2 values to know their scatter.',
    );
  }
  if (isConstant(baseline)) {
    throw new Unanswerable(
      'zero-variance',
      'baseline',
      'The baseline does not scatter, so it sets no limits.',
    );
  }
  const centre = meanOf(baseline);
  const sigma =
    sigmaFrom === 'sample-sd'
      ? Math.sqrt(sampleVariance(baseline))
      : meanOf(baseline.slice(1).map((value, i) => Math.abs(value - (baseline[i] ?? 0)))) /
        MOVING_RANGE_D2;
  const noise = 1e-12 * Math.abs(centre);
  const beyond = (reach: number): number[] =>
    values.flatMap((value, i) => (Math.abs(value - centre) > reach + noise ? [i] : []));
  return {
    centre,
    sigma,
    warningLimits: [centre - 2 * sigma, centre + 2 * sigma],
    actionLimits: [centre - 3 * sigma, centre + 3 * sigma],
    beyondWarning: beyond(2 * sigma),
    beyondAction: beyond(3 * sigma),
    longestRunOneSide: longestRun(
      values.map((value) => (Math.abs(value - centre) <= noise ? 0 : Math.sign(value - centre))),
    ),
  };
}

/** Length of the longest row of equal signs other than zero. */
function longestRun(signs: readonly number[]): number {
  let longest = 0;
  let current = 0;
  signs.forEach((sign, i) => {
    current = sign === 0 ? 0 : sign === signs[i - 1] ? current + 1 : 1;
    longest = Math.max(longest, current);
  });
  return longest;
}

/** What a chart says of its latest value. */
export type ControlVerdict = 'in-control' | 'warned' | 'out';

/**
 * The run rules that are on unless a laboratory chooses others: one beyond 3 sigma is out of control; two of three in a row beyond
 * 2 sigma on one side warn. The last value of a series is judged.
 * Source: ISO 7870-2:2013, 7.3; Nordtest TR 569.
 */
export function controlVerdict(
  values: readonly number[],
  { centre, sigma }: Pick<ControlChart, 'centre' | 'sigma'>,
): ControlVerdict {
  const inSigmas = values.slice(-3).map((value) => (value - centre) / sigma);
  const last = inSigmas.at(-1) ?? 0;
  if (Math.abs(last) > 3) return 'out';
  const beyond = inSigmas.filter((one) => Math.abs(one) > 2 && Math.sign(one) === Math.sign(last));
  return Math.abs(last) > 2 && beyond.length >= 2 ? 'warned' : 'in-control';
}

/** Upper limit of the range of duplicates in mean ranges (D4 for n = 2). Source: ISO 7870-2:2013, table 2. */
export const RANGE_LIMIT_D4 = 3.267;
