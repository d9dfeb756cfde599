import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import {
  buoyancyFactor,
  calibratedVolume,
  calibrateGravimetrically,
  correctionAtMl,
  glasswareOf,
  glassVolumeMl,
  isWithinTolerance,
  solutionVolumeAt20Ml,
  waterDensityKgPerM3,
} from './index';

describe('volumes and masses', () => {
  test('water is densest near 4 °C and has no density here beyond 40 °C', () => {
    const temperatures = Array.from({ length: 81 }, (_, i) => i / 2);
    const densities = temperatures.map(waterDensityKgPerM3);
    expect(temperatures[densities.indexOf(Math.max(...densities))]).toBe(4);
    expect(() => waterDensityKgPerM3(40.1)).toThrow(/40/);
  });

  test('a vessel calibrated by its own water holds what it was made to hold', () => {
    const temperature = fc.double({ min: 15, max: 30, noNaN: true });
    const volume = fc.double({ min: 1, max: 1000, noNaN: true });
    fc.assert(
      fc.property(temperature, volume, (temperatureC, volumeMl) => {
        const cubicExpansionPerK = 1e-5;
        const held = glassVolumeMl(volumeMl, temperatureC, cubicExpansionPerK);
        const water = waterDensityKgPerM3(temperatureC);
        const massG = (held * water) / 1000;
        const indication =
          massG /
          buoyancyFactor({
            sampleDensityKgPerM3: water,
            airDensityKgPerM3: 1.2,
            weightsDensityKgPerM3: 8000,
          });
        const found = calibrateGravimetrically({
          nominalVolumeMl: volumeMl,
          temperatureC,
          weighingsG: [indication, indication],
          cubicExpansionPerK,
        });
        expect(found.meanVolumeMl / volumeMl).toBeCloseTo(1, 6);
        expect(found.sampleSdMl).toBe(0);
        expect(isWithinTolerance(found, volumeMl * 1e-4)).toBe(true);
      }),
    );
  });

  test('at 20 °C nothing is corrected; a warm solution shrinks', () => {
    expect(solutionVolumeAt20Ml(25, 20, 1e-5)).toBeCloseTo(25, 9);
    expect(solutionVolumeAt20Ml(25, 25, 1e-5)).toBeLessThan(25);
  });

  test('corrections are interpolated between the points of a certificate, and end with it', () => {
    const points = [
      { readingMl: 0, correctionMl: 0 },
      { readingMl: 10, correctionMl: 0.02 },
      { readingMl: 30, correctionMl: -0.02 },
    ];
    expect([0, 5, 10, 20, 30].map((reading) => correctionAtMl(points, reading))).toEqual([
      0, 0.01, 0.02, 0, -0.02,
    ]);
    expect(() => correctionAtMl(points, 31)).toThrow(
      expect.objectContaining({ kind: 'outside-calibration' }),
    );
  });

  test('class B may be twice as far off as class A, and larger ware further than smaller', () => {
    for (const kind of ['one-mark-pipette', 'volumetric-flask', 'measuring-cylinder'] as const) {
      const all = glasswareOf(kind);
      for (const standard of new Set(all.map((size) => size.standard))) {
        const sizes = all.filter((size) => size.standard === standard);
        sizes.forEach(({ toleranceMl: { A = 0, B = 0 } }, i) => {
          expect(B / A).toBeGreaterThan(1.4);
          expect(B / A).toBeLessThan(2.6);
          expect(A).toBeGreaterThanOrEqual(sizes[i - 1]?.toleranceMl.A ?? 0);
        });
      }
    }
  });
});

test('a vessel calibrated with water is what it was found to be, as sure as the weighings scatter', () => {
  const found = calibratedVolume(100, 21.3, [99.62, 99.66, 99.61]);
  // Mean 99.63 g times Z = 1.003117 mL/g; t = 4.303 of s = 0.0265 g over the root of 3.
  expect(found.deviationMl).toBeCloseTo(-0.0594, 4);
  expect(found.expandedUncertaintyMl).toBeCloseTo(0.067, 3);
  expect(() => calibratedVolume(100, 21.3, [99.62])).toThrow(/at least twice/);
  fc.assert(
    fc.property(fc.double({ min: 15, max: 30, noNaN: true }), (temperatureC) => {
      const calm = calibratedVolume(100, temperatureC, [99.7, 99.7, 99.7]);
      const wild = calibratedVolume(100, temperatureC, [99.6, 99.7, 99.8]);
      expect(calm.expandedUncertaintyMl).toBeLessThan(0.03);
      expect(wild.expandedUncertaintyMl).toBeGreaterThan(0.2);
      expect(wild.deviationMl).toBeCloseTo(calm.deviationMl, 9);
    }),
  );
});
