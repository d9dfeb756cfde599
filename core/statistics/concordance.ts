/** The concordant values of a series, as positions in it. */
export interface Concordance {
  readonly indices: readonly number[];
  readonly range: number;
}

/** How far apart concordant values may lie, in their own unit or relative to their mean; the limit itself is within. */
export type ConcordanceLimit =
  { readonly maxRange: number } | { readonly maxRelativeRangePercent: number };

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
      const mean = window.reduce((total, item) => total + item.value, 0) / window.length;
      const noise = Math.abs(mean) * 1e-9;
      const maxRange =
        'maxRange' in limit
          ? limit.maxRange
          : (Math.abs(mean) * limit.maxRelativeRangePercent) / 100;
      if (found.range <= maxRange + noise && (!best || isBetter(found, best, noise))) best = found;
    }
  }
  return best;
}

function isBetter(a: Concordance, b: Concordance, noise: number): boolean {
  if (a.indices.length !== b.indices.length) return a.indices.length > b.indices.length;
  if (Math.abs(a.range - b.range) > noise) return a.range < b.range;
  const firstDifference = a.indices.findIndex((index, i) => index !== b.indices[i]);
  return (
    firstDifference >= 0 && (a.indices[firstDifference] ?? 0) < (b.indices[firstDifference] ?? 0)
  );
}
