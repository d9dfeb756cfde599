import { requirePositive, Unanswerable } from '../problem';

/** Conventional density of weights, kg/m³. Source: OIML D 28. */
export const WEIGHTS_DENSITY_KG_PER_M3 = 8000;

/** Conventional density of air, kg/m³. Source: OIML D 28. */
export const AIR_DENSITY_KG_PER_M3 = 1.2;

/** Densities that decide how much air lifts a sample more than the weights. */
export interface Buoyancy {
  readonly sampleDensityKgPerM3: number;
  readonly airDensityKgPerM3?: number;
  readonly weightsDensityKgPerM3?: number;
}

/**
 * Factor from a balance's indication to mass: b = (1 - air/weights) / (1 - air/sample).
 * Source: EURACHEM/CITAC Guide CG 4, appendix G.
 *
 * @throws Unanswerable `non-positive`, or `out-of-range` for a sample no denser than air.
 */
export function buoyancyFactor({
  sampleDensityKgPerM3,
  airDensityKgPerM3 = AIR_DENSITY_KG_PER_M3,
  weightsDensityKgPerM3 = WEIGHTS_DENSITY_KG_PER_M3,
}: Buoyancy): number {
  requirePositive(sampleDensityKgPerM3, 'sampleDensityKgPerM3');
  requirePositive(weightsDensityKgPerM3, 'weightsDensityKgPerM3');
  requirePositive(airDensityKgPerM3, 'airDensityKgPerM3');
  requireKgPerM3(sampleDensityKgPerM3, 'sampleDensityKgPerM3');
  requireKgPerM3(weightsDensityKgPerM3, 'weightsDensityKgPerM3');
  if (sampleDensityKgPerM3 <= airDensityKgPerM3) {
    throw new Unanswerable(
      'out-of-range',
      'sampleDensityKgPerM3',
      'The sample must be denser than air.',
    );
  }
  return (
    (1 - airDensityKgPerM3 / weightsDensityKgPerM3) / (1 - airDensityKgPerM3 / sampleDensityKgPerM3)
  );
}

/**
 * Density of moist air in kg/m³ from t in °C, p in hPa and the relative humidity in percent:
 * (0.34844 p + h (0.020582 - 0.00252 t)) / (t + 273.15).
 * Source: ISO 4787:2021, simplified formula.
 *
 * @throws Unanswerable `non-positive` or `out-of-range`.
 */
export function airDensityKgPerM3(
  temperatureC: number,
  pressureHpa: number,
  relativeHumidityPercent: number,
): number {
  requirePositive(pressureHpa, 'pressureHpa');
  if (!(relativeHumidityPercent >= 0 && relativeHumidityPercent <= 100)) {
    throw new Unanswerable(
      'out-of-range',
      'relativeHumidityPercent',
      'Relative humidity lies between 0 and 100 %.',
    );
  }
  return (
    (0.34844 * pressureHpa + relativeHumidityPercent * (0.020582 - 0.00252 * temperatureC)) /
    (temperatureC + 273.15)
  );
}

/** No liquid or solid that is weighed is lighter, kg/m3; what is a thousandth of that was given in g/mL. */
const LIGHTEST_KG_PER_M3 = 100;

function requireKgPerM3(density: number, field: string): void {
  if (density >= LIGHTEST_KG_PER_M3) return;
  const sentence = `A density of ${String(density)} kg/m3 cannot be weighed so: it may be meant in g/mL, of which 1 is 1000 kg/m3.`;
  throw new Unanswerable('out-of-range', field, sentence);
}
