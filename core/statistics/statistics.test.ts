import fc from 'fast-check';
import { expect, test } from 'vitest';
import { largestConcordantSet, studentTQuantile, summarize } from './index';

const relative = (maxRelativeRangePercent: number): { maxRelativeRangePercent: number } => ({
  maxRelativeRangePercent,
});

test('Student t agrees with the published table', () => {
  // Two-sided 95 %: nu = 1, 3, 10, infinity. Source: JCGM 100:2008, table G.2.
  const table = [1, 3, 10, Number.POSITIVE_INFINITY].map((nu) => studentTQuantile(0.975, nu));
  expect(table.map((t) => t.toFixed(2))).toEqual(['12.71', '3.18', '2.23', '1.96']);
  expect(() => studentTQuantile(1, 3)).toThrow(/probability/);
});

test('the summary of three values, of one and of none', () => {
  expect(summarize([1, 2, 3])).toMatchObject({ n: 3, mean: 2, sampleSd: 1, range: 2 });
  expect(summarize([1, 2, 3])?.confidenceHalfWidth).toBeCloseTo(4.30265 / Math.sqrt(3), 4);
  expect(summarize([5])).toMatchObject({ n: 1, sampleSd: null, confidenceHalfWidth: null });
  expect(summarize([])).toBeNull();
});

test('the concordant set is the largest, then the tightest', () => {
  expect(largestConcordantSet([100, 100.4, 100.5, 100.6], relative(0.3), 3)?.indices).toEqual([
    1, 2, 3,
  ]);
  expect(largestConcordantSet([100, 101, 102], relative(0.3), 2)).toBeNull();
  expect(largestConcordantSet([99.9, 100, 100, 100.1], relative(0.15), 3)?.indices).toEqual([
    0, 1, 2,
  ]);
});

test('values that meet the limit exactly agree, whatever binary noise says', () => {
  // 24.60 - 24.50 is 0.10, but 0.10000000000000142 in binary.
  expect(largestConcordantSet([24.5, 24.6], { maxRange: 0.1 }, 2)?.indices).toEqual([0, 1]);
});

test('no larger set agrees: compared with trying every subset', () => {
  const series = fc.array(fc.integer({ min: 990, max: 1010 }), { minLength: 1, maxLength: 7 });
  fc.assert(
    fc.property(series, (values) => {
      const agrees = (subset: readonly number[]): boolean => {
        const mean = subset.reduce((a, b) => a + b, 0) / subset.length;
        return (100 * (Math.max(...subset) - Math.min(...subset))) / mean <= 0.5 * (1 + 1e-9);
      };
      let largest = 0;
      for (let mask = 1; mask < 2 ** values.length; mask += 1) {
        const subset = values.filter((_, i) => (mask >> i) & 1);
        if (agrees(subset)) largest = Math.max(largest, subset.length);
      }
      expect(largestConcordantSet(values, relative(0.5), 1)?.indices.length ?? 0).toBe(largest);
    }),
  );
});
