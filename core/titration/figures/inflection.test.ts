import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { AcidBaseCurve } from '../../equilibrium';
import type { GranKind, TitrationData } from './index';
import { granIntercept, inflection } from './index';

/** A weak acid with hydroxide, read at the volumes given. */
function readings(molarity: number, pKa: number, volumesMl: readonly number[]) {
  const curve = new AcidBaseCurve({
    flask: {
      volumeMl: 50,
      systems: [
        {
          name: 'acid',
          totalMolPerL: molarity,
          pKa: [pKa],
          chargeFullyProtonated: 0,
          protonsAtStart: 1,
        },
      ],
    },
    titrant: { kind: 'strong-base', molarityMolPerL: 0.1 },
    kw: 1e-14,
    activity: { kind: 'ideal' },
  });
  return {
    initialVolumeMl: 50,
    volumesMl,
    readings: volumesMl.map((volume) => curve.at(volume).pH),
  };
}

/** Coarse far from the end, fine near it, as it is done. */
function steps(endMl: number): number[] {
  const coarse = Array.from({ length: Math.floor(endMl - 1) }, (_, i) => i);
  const fine = Array.from({ length: 31 }, (_, i) => endMl - 1.53 + i * 0.1);
  const after = [1, 2, 3, 4, 5].map((past) => endMl + 1.6 + past);
  return [...coarse.filter((volume) => volume < endMl - 1.6), ...fine, ...after];
}

describe('the end point of a curve', () => {
  test('lies at the equivalence within its stated uncertainty, whatever the acid', () => {
    const molarity = fc.double({ min: 0.02, max: 0.08, noNaN: true });
    const pKa = fc.double({ min: 3, max: 6, noNaN: true });
    fc.assert(
      fc.property(molarity, pKa, (c, k) => {
        const endMl = (c * 50) / 0.1;
        const found = inflection(readings(c, k, steps(endMl)));
        const allowed = 3 * found.standardUncertaintyMl;
        expect(Math.abs(found.firstDerivativeMaxMl - endMl)).toBeLessThan(allowed);
        expect(Math.abs(found.secondDerivativeZeroMl - endMl)).toBeLessThan(allowed);
        const after = granIntercept(readings(c, k, steps(endMl)), 'base-after', [
          endMl + 1,
          endMl + 9,
        ]);
        expect(Math.abs(after.volumeMl - endMl)).toBeLessThan(0.05);
      }),
      { numRuns: 40 },
    );
  });

  test.each([
    [
      'a curve that ends before its inflection',
      steps(25).filter((volume) => volume < 24),
      'no-usable-inflection',
    ],
    ['four points', [0, 10, 20, 30], 'too-few-points'],
  ])('%s supports none', (_, volumes, kind) => {
    expect(() => inflection(readings(0.05, 4.76, volumes))).toThrow(
      expect.objectContaining({ kind }),
    );
  });
});

/** Slopes 1, 2, 20, 10 and 2 for each mL, as they stand in a table. */
const TABLE: TitrationData = {
  initialVolumeMl: 75,
  volumesMl: [24, 24.1, 24.2, 24.3, 24.4, 24.5],
  readings: [5, 5.1, 5.3, 7.3, 8.3, 8.5],
};

describe('the inflection of a curve', () => {
  test('lies where a hand finds it in the table of differences', () => {
    const found = inflection({ ...TABLE, noiseSd: 0.02 });
    expect(found.firstDerivativeMaxMl).toBeCloseTo(24.25, 12);
    // From +180 at 24.20 mL to -100 at 24.30 mL.
    expect(found.secondDerivativeZeroMl).toBeCloseTo(24.2 + (0.1 * 180) / 280, 10);
    expect(found.standardUncertaintyMl).toBeCloseTo(0.05 / Math.sqrt(3), 12);
    // Read in another order, and one point twice, a little above and below.
    const volumesMl = [24, 24.2, 24.1, 24.5, 24.3, 24.4, 24.3];
    const again = { ...TABLE, volumesMl, readings: [5, 5.3, 5.1, 8.5, 7.31, 8.3, 7.29] };
    const same = inflection({ ...again, noiseSd: 0.02 });
    expect(same.firstDerivativeMaxMl).toBeCloseTo(found.firstDerivativeMaxMl, 9);
    expect(same.secondDerivativeZeroMl).toBeCloseTo(found.secondDerivativeZeroMl, 9);
  });

  test('of a falling curve is that of the rising one', () => {
    const readings = TABLE.readings.map((reading) => -reading);
    expect(inflection({ ...TABLE, readings, noiseSd: 0.02 })).toEqual(
      inflection({ ...TABLE, noiseSd: 0.02 }),
    );
  });

  test('stands out of the noise by five standard deviations of a slope, counted from the usual slope', () => {
    // 20 less the median 2: 18 = 5 sqrt(2) sd / 0.1.
    expect(() => inflection({ ...TABLE, noiseSd: 0.2545 })).not.toThrow();
    expect(() => inflection({ ...TABLE, noiseSd: 0.2546 })).toThrow(/from the noise/);
    // Slopes 1, 3, 20, 10, 2, 1: the median lies between 2 and 3.
    const six = {
      ...TABLE,
      volumesMl: [...TABLE.volumesMl, 24.6],
      readings: [5, 5.1, 5.4, 7.4, 8.4, 8.6, 8.7],
    };
    expect(() => inflection({ ...six, noiseSd: 0.2474 })).not.toThrow();
    expect(() => inflection({ ...six, noiseSd: 0.2475 })).toThrow(/from the noise/);
  });

  test('noise that nobody states is read from how far points lie from the line between their neighbours', () => {
    // A hundredth up and down in turn: each lies 0.02 off, which is 0.0242 as a standard deviation.
    const step = (height: number) => ({
      initialVolumeMl: 75,
      volumesMl: Array.from({ length: 20 }, (_, i) => 20 + i / 10),
      readings: Array.from(
        { length: 20 },
        (_, i) => (i % 2 ? 0.01 : -0.01) + (i > 10 ? height : 0),
      ),
    });
    const limit = (0.1 * 5 * Math.SQRT2 * 1.4826 * 0.02) / Math.sqrt(1.5) / 0.1;
    expect(() => inflection(step(limit - 0.002))).toThrow(/from the noise/);
    expect(inflection(step(limit + 0.002)).firstDerivativeMaxMl).toBeCloseTo(21.05, 10);
    // Points that are not equally far apart: on a straight line they have no noise.
    const volumesMl = [0, 1, 3, 4, 4.1, 5, 8, 9, 11];
    const bent = {
      initialVolumeMl: 75,
      volumesMl,
      readings: volumesMl.map((volume) => 0.1 * volume + (volume > 4 ? 0.1 : 0)),
    };
    expect(inflection(bent).firstDerivativeMaxMl).toBeCloseTo(4.05, 12);
  });

  test('takes five points within its window, ends included, and one on either side of the steepest interval', () => {
    const data = { ...TABLE, noiseSd: 0.02 };
    expect(inflection(data, [24, 24.4]).firstDerivativeMaxMl).toBeCloseTo(24.25, 12);
    expect(inflection(data, [24.1, 24.5]).firstDerivativeMaxMl).toBeCloseTo(24.25, 12);
    expect(() => inflection(data, [24.11, 24.5])).toThrow(/at least 5 points; here are 4/);
    expect(() => inflection(data, [24, 24.39])).toThrow(/at least 5 points; here are 4/);
    const rising = { ...data, readings: [1, 2, 4, 8, 16, 32] };
    expect(() => inflection(rising)).toThrow(/edge of the data/);
    expect(() => inflection({ ...data, readings: [1, 17, 25, 29, 31, 32] })).toThrow(/edge/);
  });

  test('needs a reading for each volume, and five volumes that differ', () => {
    expect(() => inflection({ ...TABLE, readings: [1, 2, 3] })).toThrow(/needs its reading/);
    const volumesMl = [24, 24.1, 24.2, 24.2, 24.4, 24.4];
    expect(() => inflection({ ...TABLE, volumesMl })).toThrow(/at least 5 points; here are 4/);
  });

  test('of two intervals that are equally steep the first counts', () => {
    const data = {
      ...TABLE,
      noiseSd: 0.001,
      volumesMl: [0, 1, 2, 3, 4, 5],
      readings: [0, 1, 3, 5, 6, 7],
    };
    expect(inflection(data).firstDerivativeMaxMl).toBe(1.5);
  });
});

describe('a Gran line', () => {
  /** Its values at 10, 12, 14 and 16 mL; by hand: y = 20.26 - 1.02 V, the rest 0.04, -0.12, 0.12 and -0.04. */
  const LINE = [10.1, 7.9, 6.1, 3.9];
  const VOLUMES = [10, 12, 14, 16];
  const readings = (sign: 1 | -1, factor: (volumeMl: number) => number): number[] =>
    LINE.map((y, i) => sign * Math.log10(y / factor(VOLUMES[i] ?? 0)));
  const total = (volumeMl: number): number => 50 + volumeMl;
  const added = (volumeMl: number): number => volumeMl;

  test.each<[GranKind, 1 | -1, (volumeMl: number) => number]>([
    ['strong-acid-before', -1, total],
    ['weak-acid-before', -1, added],
    ['strong-base-before', 1, total],
    ['weak-base-before', 1, added],
    ['acid-after', -1, total],
    ['base-after', 1, total],
  ])(
    '%s meets the axis where a hand draws it, as sure as its points lie on it',
    (kind, sign, factor) => {
      const data = { initialVolumeMl: 50, volumesMl: VOLUMES, readings: readings(sign, factor) };
      const found = granIntercept(data, kind, [10, 16]);
      const volumeMl = 20.26 / 1.02;
      expect(found.volumeMl).toBeCloseTo(volumeMl, 10);
      const residualSd = Math.sqrt((2 * 0.04 ** 2 + 2 * 0.12 ** 2) / 2);
      const reach = Math.sqrt(1 / 4 + (volumeMl - 13) ** 2 / 20);
      expect(found.standardUncertaintyMl).toBeCloseTo((residualSd / 1.02) * reach, 10);
    },
  );

  test('is drawn through three points or more', () => {
    const data = { initialVolumeMl: 50, volumesMl: VOLUMES, readings: readings(-1, total) };
    expect(() => granIntercept(data, 'strong-acid-before', [12, 16])).not.toThrow();
    expect(() => granIntercept(data, 'strong-acid-before', [12, 15])).toThrow(/at least 3 points/);
  });
});
