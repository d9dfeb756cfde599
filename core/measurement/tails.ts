/**
 * A copy in which the `tail` smallest values stand in order at the front and the `tail` largest in order at the end; what lies
 * between is in no order. Sorting a million trials takes longer than drawing them.
 */
export function withTailsInOrder(values: Float64Array, tail: number): Float64Array {
  const copy = values.slice();
  // NaN has no place in an order that comparisons make.
  if (2 * tail >= copy.length || copy.some(Number.isNaN)) return copy.sort();
  select(copy, tail - 1, 0, copy.length - 1);
  select(copy, copy.length - tail, tail, copy.length - 1);
  copy.subarray(0, tail).sort();
  copy.subarray(copy.length - tail).sort();
  return copy;
}

/** Puts the value of a rank in its place, smaller ones before it. Source: C. A. R. Hoare, Algorithm 65 (Find), 1961. */
function select(values: Float64Array, rank: number, from: number, to: number): void {
  let low = from;
  let high = to;
  while (low < high) {
    const pivot = values[(low + high) >> 1] as number;
    let i = low;
    let j = high;
    while (i <= j) {
      while ((values[i] as number) < pivot) i += 1;
      while ((values[j] as number) > pivot) j -= 1;
      if (i <= j) {
        const kept = values[i] as number;
        values[i] = values[j] as number;
        values[j] = kept;
        i += 1;
        j -= 1;
      }
    }
    if (rank <= j) high = j;
    else if (rank >= i) low = i;
    else return;
  }
}
