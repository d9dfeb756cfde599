import { requirePositive, Unanswerable } from '../problem';
import { summarize, twoSidedT } from '../statistics';
import { AIR_DENSITY_KG_PER_M3, WEIGHTS_DENSITY_KG_PER_M3 } from './buoyancy';
import { GLASS_CUBIC_EXPANSION_PER_K, REFERENCE_TEMPERATURE_C, waterDensityKgPerM3 } from './water';

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

/** A value that goes with another, as a calibration or a table gives them. */
export interface TablePoint {
  readonly at: number;
  readonly value: number;
}

/** The value at a place between the points of a table, linear between two; null beyond them. */
export function interpolated(points: readonly TablePoint[], at: number): number | null {
  const known = points.toSorted((a, b) => a.at - b.at);
  const upper = known.findIndex((point) => point.at >= at);
  const to = known[upper];
  if (!to || to.at === at) return to?.value ?? null;
  const from = known[upper - 1];
  if (!from) return null;
  return from.value + ((at - from.at) / (to.at - from.at)) * (to.value - from.value);
}

/**
 * Correction at a reading, linear between the points and from zero at zero.
 *
 * @throws Unanswerable `outside-calibration` below zero or beyond the last point.
 */
export function correctionAtMl(points: readonly CorrectionPoint[], readingMl: number): number {
  const above = points.filter((point) => point.readingMl > 0);
  const known = above.map((point) => ({ at: point.readingMl, value: point.correctionMl }));
  const correctionMl = interpolated([{ at: 0, value: 0 }, ...known], readingMl);
  if (correctionMl !== null) return correctionMl;
  throw new Unanswerable(
    'outside-calibration',
    'readingMl',
    `The burette was calibrated from 0 to ${String(Math.max(0, ...known.map(({ at }) => at)))} mL; ${String(readingMl)} mL lies outside.`,
  );
}

/** Half-width of what the temperature of the water is known to, K, rectangular. */
const WATER_TEMPERATURE_K = 0.5;

/** A volume that was calibrated: what it really is, at 20 °C. */
export interface CalibratedVolume {
  readonly nominalMl: number;
  /** True volume minus nominal. */
  readonly deviationMl: number;
  /** Of the deviation, k = 2 or by Student's t. */
  readonly expandedUncertaintyMl: number;
  /** Standard deviation of one filling. */
  readonly repeatabilityMl: number;
}

/**
 * The deviation of a volume from weighings of water, with its uncertainty: scatter of the mean by Student's t at 95 %, and the
 * temperature of the water (k = 2). The balance's own part is small beside them and left out.
 * Source: ISO 4787:2021 for the volume; JCGM 100:2008, 4.2.3 and G.3 for the scatter.
 *
 * @throws Unanswerable `too-few-values` below two weighings, and as `calibrateGravimetrically`.
 */
export function calibratedVolume(
  nominalMl: number,
  temperatureC: number,
  weighingsG: readonly number[],
): CalibratedVolume {
  const at = (waterC: number): CalibrationResult =>
    calibrateGravimetrically({
      nominalVolumeMl: nominalMl,
      temperatureC: waterC,
      weighingsG,
      cubicExpansionPerK: GLASS_CUBIC_EXPANSION_PER_K.borosilicate,
    });
  const { meanVolumeMl, systematicErrorMl, sampleSdMl } = at(temperatureC);
  if (sampleSdMl === null) {
    const message = 'Weigh it at least twice: one weighing says nothing about its scatter.';
    throw new Unanswerable('too-few-values', 'weighingsG', message);
  }
  const n = weighingsG.length;
  const scatterMl = (twoSidedT(0.95, n - 1) * sampleSdMl) / Math.sqrt(n);
  const shiftMl = at(temperatureC + WATER_TEMPERATURE_K).meanVolumeMl - meanVolumeMl;
  return {
    nominalMl,
    deviationMl: systematicErrorMl,
    expandedUncertaintyMl: Math.hypot(scatterMl, (2 * shiftMl) / Math.sqrt(3)),
    repeatabilityMl: sampleSdMl,
  };
}
