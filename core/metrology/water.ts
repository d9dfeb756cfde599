import { Unanswerable } from '../problem';

/** Temperature for which volumetric glassware is calibrated, °C. Source: ISO 384. */
export const REFERENCE_TEMPERATURE_C = 20;

/**
 * Density of air-free water in kg/m³ at t in °C.
 * Source: M. Tanaka et al., Metrologia 38 (2001) 301.
 *
 * @throws Unanswerable `temperature-out-of-range` outside 0 to 40 °C, where the formula was fitted.
 */
export function waterDensityKgPerM3(temperatureC: number): number {
  if (!(temperatureC >= 0 && temperatureC <= 40)) {
    throw new Unanswerable(
      'temperature-out-of-range',
      'temperatureC',
      'The density of water is known here from 0 to 40 °C.',
    );
  }
  const t = temperatureC;
  return 999.97495 * (1 - ((t - 3.983035) ** 2 * (t + 301.797)) / (522528.9 * (t + 69.34881)));
}

/** Cubic expansion of glass, 1/K. Source: ISO 4787. */
export const GLASS_CUBIC_EXPANSION_PER_K = {
  borosilicate: 9.9e-6,
  sodaLime: 2.7e-5,
} as const;

/** Volume of a glass vessel at t whose volume at 20 °C is given: V = V20 (1 + gamma (t - 20)), in mL. */
export function glassVolumeMl(
  volumeAt20Ml: number,
  temperatureC: number,
  cubicExpansionPerK: number,
): number {
  return volumeAt20Ml * (1 + cubicExpansionPerK * (temperatureC - REFERENCE_TEMPERATURE_C));
}

/**
 * Volume at 20 °C of a dilute aqueous solution measured at t in glass calibrated at 20 °C: V20 = V rho(t) / rho(20), with V
 * the volume that the glass holds at t.
 *
 * @throws Unanswerable `temperature-out-of-range`.
 */
export function solutionVolumeAt20Ml(
  indicatedVolumeMl: number,
  temperatureC: number,
  cubicExpansionPerK: number,
): number {
  return (
    (glassVolumeMl(indicatedVolumeMl, temperatureC, cubicExpansionPerK) *
      waterDensityKgPerM3(temperatureC)) /
    waterDensityKgPerM3(REFERENCE_TEMPERATURE_C)
  );
}
