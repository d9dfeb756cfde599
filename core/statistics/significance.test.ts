import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import {
  controlChart,
  dixonQ,
  fTest,
  grubbs,
  normalizedError,
  oneWayAnova,
  regress,
  weightedMean,
  welch,
} from './index';

const value = fc.integer({ min: 9000, max: 11_000 }).map((n) => n / 1e5);
const varied = (least: number, most: number) =>
  fc
    .array(value, { minLength: least, maxLength: most })
    .filter((values) => new Set(values).size > 1);
/** The same series in another unit and from another zero. */
const moved = (values: readonly number[]): number[] => values.map((x) => 1000 * x + 7);

describe('outliers', () => {
  test('neither unit nor zero matters, and the suspect is the value furthest out', () => {
    fc.assert(
      fc.property(varied(3, 10), (values) => {
        const q = dixonQ(values);
        expect(dixonQ(moved(values)).q).toBeCloseTo(q.q, 6);
        expect(q.q).toBeLessThanOrEqual(1);
        const g = grubbs(values, 0.95);
        expect(grubbs(moved(values), 0.95).g).toBeCloseTo(g.g, 6);
        // No value of n can lie further than (n - 1) / sqrt n standard deviations from the mean.
        expect(g.g).toBeLessThanOrEqual((values.length - 1) / Math.sqrt(values.length) + 1e-9);
        const far = Math.abs((values[g.suspectIndex] ?? 0) - g.mean);
        for (const x of values) expect(Math.abs(x - g.mean)).toBeLessThanOrEqual(far + 1e-12);
      }),
    );
  });

  test.each([
    [[1, 2], 'too-few-values'],
    [[1, 1, 1], 'zero-range'],
    [Array.from({ length: 11 }, (_, i) => i), 'too-many-values'],
  ])('%j is refused: %s', (values, kind) => {
    expect(() => dixonQ(values)).toThrow(expect.objectContaining({ kind }));
  });
});

describe('agreement', () => {
  test('comparing the other way round changes the sign and no more', () => {
    fc.assert(
      fc.property(varied(2, 8), varied(2, 8), (a, b) => {
        const one = welch(a, b, 0.95);
        const other = welch(b, a, 0.95);
        expect(other.t).toBeCloseTo(-one.t, 9);
        expect(other.probability).toBeCloseTo(one.probability, 9);
        expect(one.isSignificant).toBe(Math.abs(one.t) > one.criticalT);
        // The interval leaves out zero exactly when the difference is significant.
        expect(one.interval[0] > 0 || one.interval[1] < 0).toBe(one.isSignificant);
        expect(fTest(a, b, 0.95).isSignificant).toBe(fTest(b, a, 0.95).isSignificant);
        const least = Math.min(a.length, b.length) - 1;
        expect(one.degreesOfFreedom).toBeGreaterThanOrEqual(least - 1e-9);
        expect(one.degreesOfFreedom).toBeLessThanOrEqual(a.length + b.length - 2 + 1e-9);
      }),
    );
  });

  test('a weighted mean lies between its results, and the surest one draws it most', () => {
    const result = fc.record({
      value,
      standardUncertainty: fc.double({ min: 1e-5, max: 1e-3, noNaN: true }),
    });
    fc.assert(
      fc.property(fc.array(result, { minLength: 2, maxLength: 6 }), (results) => {
        const found = weightedMean(results);
        const values = results.map((one) => one.value);
        expect(found.mean).toBeGreaterThanOrEqual(Math.min(...values) - 1e-12);
        expect(found.mean).toBeLessThanOrEqual(Math.max(...values) + 1e-12);
        const surest = Math.min(...results.map((one) => one.standardUncertainty));
        expect(found.standardUncertainty).toBeLessThanOrEqual(surest + 1e-15);
      }),
    );
    const stated = (x: number, expandedUncertainty: number) => ({ value: x, expandedUncertainty });
    expect(normalizedError(stated(0.1003, 0.0003), stated(0.1, 0.0004))).toBeCloseTo(0.6, 9);
  });
});

test('a weighted mean by hand: 225 / u², and the Birge ratio of three that hardly agree', () => {
  const result = (x: number, standardUncertainty: number) => ({ value: x, standardUncertainty });
  const results = [result(10, 0.1), result(10.3, 0.1), result(10.1, 0.2)];
  const found = weightedMean(results);
  const mean = (1000 + 1030 + 252.5) / 225;
  expect(found.mean).toBeCloseTo(mean, 12);
  expect(found.standardUncertainty).toBeCloseTo(1 / 15, 12);
  const chiSquared = 100 * (10 - mean) ** 2 + 100 * (10.3 - mean) ** 2 + 25 * (10.1 - mean) ** 2;
  expect(found.birgeRatio).toBeCloseTo(Math.sqrt(chiSquared / 2), 12);
  expect(weightedMean(results.slice(0, 2)).birgeRatio).toBeCloseTo(0.3 / (0.1 * Math.SQRT2), 12);
  expect(weightedMean(results.slice(0, 1))).toEqual({
    ...{ mean: 10, birgeRatio: 0 },
    standardUncertainty: expect.closeTo(0.1, 12) as number,
  });
  expect(() => weightedMean([])).toThrow(expect.objectContaining({ kind: 'too-few-values' }));
  expect(() => weightedMean([result(10, 0)])).toThrow(
    expect.objectContaining({ kind: 'non-positive' }),
  );
});

test.each([
  [[1], [1, 2], 'too-few-values', 'a'],
  [[1, 2], [1], 'too-few-values', 'b'],
  [[1, 1], [2, 2], 'zero-variance', 'a'],
] as const)('%j against %j is not compared: %s', (a, b, kind, field) => {
  const refused: unknown = expect.objectContaining({ kind, field });
  expect(() => welch(a, b, 0.95)).toThrow(refused);
  expect(() => fTest(a, b, 0.95)).toThrow(refused);
});

test('one series that does not scatter is compared by its mean, and by its variance not', () => {
  expect(welch([1, 1], [2, 2.1], 0.95).standardError).toBeCloseTo(0.05, 12);
  expect(() => fTest([1, 2], [3, 3], 0.95)).toThrow(
    expect.objectContaining({ kind: 'zero-variance', field: 'b' }),
  );
});

test('an analysis of variance splits the sum of squares without a rest', () => {
  const groups = fc.array(varied(2, 5), { minLength: 2, maxLength: 5 });
  fc.assert(
    fc.property(groups, (days) => {
      const found = oneWayAnova(days, 0.95);
      const all = days.flat();
      const total = all.reduce((sum, x) => sum + (x - found.grandMean) ** 2, 0);
      const parts =
        found.meanSquareBetween * found.degreesOfFreedomBetween +
        found.meanSquareWithin * found.degreesOfFreedomWithin;
      expect(parts / total).toBeCloseTo(1, 9);
      expect(found.degreesOfFreedomBetween + found.degreesOfFreedomWithin).toBe(all.length - 1);
      expect(found.intermediatePrecisionSd).toBeCloseTo(
        Math.hypot(found.repeatabilitySd, found.betweenSd),
        12,
      );
      const reversed = oneWayAnova(days.toReversed(), 0.95);
      expect(reversed.f).toBeCloseTo(found.f, 6);
    }),
  );
});

test('a regression finds the line that the points were made from, and none in a flat one', () => {
  const points = fc.uniqueArray(fc.integer({ min: 0, max: 365 }), { minLength: 4, maxLength: 12 });
  const slope = fc.double({ min: -1e-4, max: 1e-4, noNaN: true });
  fc.assert(
    fc.property(points, slope, (days, perDay) => {
      // A zigzag that no straight line can follow.
      const y = days.map((day, i) => 0.1 + perDay * day + (i % 2 === 0 ? 1e-6 : -1e-6));
      const line = regress(days, y, 0.95);
      expect(Math.abs(line.slope - perDay)).toBeLessThan(1e-5);
      expect(line.isSlopeSignificant).toBe(line.slopeInterval[0] > 0 || line.slopeInterval[1] < 0);
      const shifted = regress(
        days.map((day) => day + 100),
        y,
        0.95,
      );
      expect(shifted.slope).toBeCloseTo(line.slope, 12);
      expect(shifted.residualSd).toBeCloseTo(line.residualSd, 12);
    }),
  );
  expect(() => regress([1, 1, 1], [1, 2, 3], 0.95)).toThrow(/same x/);
});

test('a control chart warns at two and acts at three standard deviations', () => {
  const baseline = [0.1, 0.1002, 0.0998, 0.1001, 0.0999];
  const { sigma, centre } = controlChart(baseline, [], 'sample-sd');
  const at = (k: number): number => centre + k * sigma;
  const chart = controlChart(
    baseline,
    [1.9, 2.1, -3.1, 0.5, 0.5, 0.5, 0.5, -1].map(at),
    'sample-sd',
  );
  expect(chart.beyondWarning).toEqual([1, 2]);
  expect(chart.beyondAction).toEqual([2]);
  expect(chart.longestRunOneSide).toBe(4);
  expect(controlChart(baseline, [], 'moving-range').sigma).toBeGreaterThan(sigma);
});
