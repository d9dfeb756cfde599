import { requirePositive, Unanswerable } from '../problem';
import { summarize } from '../statistics';
import { AIR_DENSITY_KG_PER_M3, WEIGHTS_DENSITY_KG_PER_M3 } from './buoyancy';
import { REFERENCE_TEMPERATURE_C } from './temperature';
import { waterDensityKgPerM3 } from './water';

/** Weighings of the water that a vessel holds or delivers. */
export interface GravimetricCalibration {
  readonly nominalVolumeMl: number;
  readonly temperatureC: number;
  /** Net indications of the balance, g. */
  readonly weighingsG: readonly number[];
  readonly cubicExpansionPerK: number;
  readonly airDensityKgPerM3?: number;
  readonly weightsDensityKgPerM3?: number;
}

/** What a gravimetric calibration finds, at 20 °C. */
export interface CalibrationResult {
  readonly volumesMl: readonly number[];
  readonly meanVolumeMl: number;
  /** Mean volume minus nominal. */
  readonly systematicErrorMl: number;
  readonly systematicErrorPercent: number;
  /** Null for a single weighing. */
  readonly sampleSdMl: number | null;
  readonly coefficientOfVariationPercent: number | null;
  /** Z: millilitres at 20 °C for each gram of the balance's indication. */
  readonly zFactorMlPerG: number;
}

/**
 * Volume at 20 °C from the water weighed: V20 = W (1 - air/weights) / (water - air) (1 - gamma (t - 20)).
 * Source: ISO 4787:2021.
 *
 * @throws Unanswerable `too-few-values`, `non-positive`, `temperature-out-of-range`.
 */
export function calibrateGravimetrically(given: GravimetricCalibration): CalibrationResult {
  const { nominalVolumeMl, temperatureC, weighingsG, cubicExpansionPerK } = given;
  const air = given.airDensityKgPerM3 ?? AIR_DENSITY_KG_PER_M3;
  const weights = given.weightsDensityKgPerM3 ?? WEIGHTS_DENSITY_KG_PER_M3;
  requirePositive(nominalVolumeMl, 'nominalVolumeMl');
  requirePositive(weights, 'weightsDensityKgPerM3');
  weighingsG.forEach((weighing) => {
    requirePositive(weighing, 'weighingsG');
  });
  const water = waterDensityKgPerM3(temperatureC);
  // 1 kg/m³ is 0.001 g/mL.
  const zFactorMlPerG =
    ((1000 * (1 - air / weights)) / (water - air)) *
    (1 - cubicExpansionPerK * (temperatureC - REFERENCE_TEMPERATURE_C));
  const volumesMl = weighingsG.map((weighing) => weighing * zFactorMlPerG);
  const summary = summarize(volumesMl);
  if (!summary) {
    throw new Unanswerable(
      'too-few-values',
      'weighingsG',
      'A calibration needs at least one weighing.',
    );
  }
  const systematicErrorMl = summary.mean - nominalVolumeMl;
  return {
    volumesMl,
    meanVolumeMl: summary.mean,
    systematicErrorMl,
    systematicErrorPercent: (100 * systematicErrorMl) / nominalVolumeMl,
    sampleSdMl: summary.sampleSd,
    coefficientOfVariationPercent: summary.relativeSdPercent,
    zFactorMlPerG,
  };
}

/** Whether a vessel keeps its maximum permissible error; exactly at it is within. */
export function isWithinTolerance(
  result: CalibrationResult,
  maximumPermissibleErrorMl: number,
): boolean {
  return Math.abs(result.systematicErrorMl) <= maximumPermissibleErrorMl * (1 + 1e-12);
}

/** A point of a burette's calibration: true volume minus reading, from zero to that reading. */
export interface CorrectionPoint {
  readonly readingMl: number;
  readonly correctionMl: number;
}

/**
 * Correction at a reading, linear between the points and from zero at zero.
 *
 * @throws Unanswerable `outside-calibration` below zero or beyond the last point.
 */
export function correctionAtMl(points: readonly CorrectionPoint[], readingMl: number): number {
  const known = [{ readingMl: 0, correctionMl: 0 }, ...points]
    .filter((point, i) => i === 0 || point.readingMl > 0)
    .toSorted((a, b) => a.readingMl - b.readingMl);
  const upper = known.findIndex((point) => point.readingMl >= readingMl);
  const to = known[upper];
  if (!to || readingMl < 0) {
    throw new Unanswerable(
      'outside-calibration',
      'readingMl',
      `The burette was calibrated from 0 to ${String(known.at(-1)?.readingMl)} mL; ${String(readingMl)} mL lies outside.`,
    );
  }
  const from = known[upper - 1];
  if (!from) return to.correctionMl;
  const part = (readingMl - from.readingMl) / (to.readingMl - from.readingMl);
  return from.correctionMl + part * (to.correctionMl - from.correctionMl);
}
