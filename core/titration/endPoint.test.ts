import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { AcidBaseCurve } from '../equilibrium';
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
    ['volumes that go back', [0, 10, 24, 23, 25, 26], 'out-of-range'],
  ])('%s supports none', (_, volumes, kind) => {
    expect(() => inflection(readings(0.05, 4.76, volumes))).toThrow(
      expect.objectContaining({ kind }),
    );
  });
});
