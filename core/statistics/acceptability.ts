import type { Concordance } from './concordance';
import { meanOf } from './summary';

/** Critical range of n results under repeatability conditions in repeatability standard deviations, 95 %. Source: ISO 5725-6:1994, table 1. */
const CRITICAL_RANGE = new Map([
  [2, 2.8],
  [3, 3.3],
  [4, 3.6],
  [5, 3.9],
  [6, 4.0],
  [7, 4.2],
  [8, 4.3],
  [9, 4.4],
  [10, 4.5],
]);

/**
 * Which of several results are averaged, where the repeatability limit r is known (% of the mean): all where their range is no wider
 * than its critical one; of two or three that are wider none yet, since further results are asked for; of four or more those in the middle,
 * whose mean is the median.
 * Source: ISO 5725-6:1994, 5.2.2.
 */
export function acceptedResults(
  values: readonly number[],
  rPercent: number,
): Pick<Concordance, 'indices'> | null {
  const n = values.length;
  if (n < 2) return null;
  const sd = ((rPercent / 2.8) * Math.abs(meanOf(values))) / 100;
  const critical = (CRITICAL_RANGE.get(Math.min(n, 10)) ?? 4.5) * sd;
  const range = Math.max(...values) - Math.min(...values);
  if (range <= critical * (1 + 1e-12)) {
    return { indices: values.map((_, i) => i) };
  }
  if (n < 4) return null;
  const order = values.map((_, i) => i).toSorted((a, b) => (values[a] ?? 0) - (values[b] ?? 0));
  const middle = order.slice(Math.ceil(n / 2) - 1, Math.floor(n / 2) + 1);
  return { indices: middle.toSorted((a, b) => a - b) };
}
