import { meanOf, rangeOf, sampleVariance } from './summary';

/** The concordant values of a series, as positions in it. */
export interface Concordance {
  readonly indices: readonly number[];
  readonly range: number;
}

/** How far apart concordant values may lie, in their own unit or relative to their mean; the limit itself is within. */
export type ConcordanceLimit =
  | { readonly maxRange: number }
  | { readonly maxRelativeRangePercent: number }
  | { readonly maxRsdPercent: number };

/**
 * The largest set of values whose range stays within the rule. Ties: the
 * smallest range, then the earliest values. Null when fewer than `atLeast` agree.
 *
 * Ranges are compared to one part in 10⁹ of the values, so that binary noise decides nothing.
 */
export function largestConcordantSet(
  values: readonly number[],
  limit: ConcordanceLimit,
  atLeast: number,
): Concordance | null {
  const sorted = values
    .map((value, index) => ({ value, index }))
    .toSorted((a, b) => a.value - b.value);
  let best: Concordance | null = null;
  for (let from = 0; from < sorted.length; from += 1) {
    for (let to = from + Math.max(1, atLeast); to <= sorted.length; to += 1) {
      const window = sorted.slice(from, to);
      const found = {
        indices: window.map((item) => item.index).toSorted((a, b) => a - b),
        range: (window.at(-1)?.value ?? 0) - (window[0]?.value ?? 0),
      };
      const inWindow = window.map((item) => item.value);
      const noise = Math.abs(meanOf(inWindow)) * 1e-9;
      const isWithin = spreadOf(inWindow, limit) <= limitOf(inWindow, limit) + noise;
      if (isWithin && (!best || isBetter(found, best, noise))) best = found;
    }
  }
  return best;
}

/** What of a window is limited, in the unit of its values. */
function spreadOf(values: readonly number[], limit: ConcordanceLimit): number {
  if ('maxRsdPercent' in limit) return values.length < 2 ? 0 : Math.sqrt(sampleVariance(values));
  return rangeOf(values);
}

function limitOf(values: readonly number[], limit: ConcordanceLimit): number {
  if ('maxRange' in limit) return limit.maxRange;
  const percent = 'maxRsdPercent' in limit ? limit.maxRsdPercent : limit.maxRelativeRangePercent;
  return (Math.abs(meanOf(values)) * percent) / 100;
}

function isBetter(a: Concordance, b: Concordance, noise: number): boolean {
  if (a.indices.length !== b.indices.length) return a.indices.length > b.indices.length;
  if (Math.abs(a.range - b.range) > noise) return a.range < b.range;
  const firstDifference = a.indices.findIndex((index, i) => index !== b.indices[i]);
  return (
    firstDifference >= 0 && (a.indices[firstDifference] ?? 0) < (b.indices[firstDifference] ?? 0)
  );
}
