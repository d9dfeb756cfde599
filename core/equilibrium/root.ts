/**
 * Where a function that never falls crosses zero between two places, by bisection to the last bits; null when it has
 * the same sign at both.
 */
export function crossing(
  risingFunction: (x: number) => number,
  from: number,
  to: number,
): number | null {
  let low = from;
  let high = to;
  if (risingFunction(low) > 0 || risingFunction(high) < 0) return null;
  for (;;) {
    const middle = (low + high) / 2;
    if (middle <= low || middle >= high) return middle;
    const value = risingFunction(middle);
    if (value === 0) return middle;
    if (value < 0) low = middle;
    else high = middle;
  }
}
