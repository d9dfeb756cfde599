import type { Expression } from '../measurement';
import { commonInput, exact, figureText, minus, plus, quotient, sum, UNITS } from '../measurement';
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

/** Half-width of the density of air that nobody measured, kg/m³, rectangular: from the coast to a thousand metres, any weather. */
const ANY_AIR_KG_PER_M3 = 0.12;

/** Half-width of one that was measured by temperature, pressure and humidity, kg/m³, rectangular. */
const MEASURED_AIR_KG_PER_M3 = 0.01;

/**
 * The same factor as part of a measurement equation: corrected, with what is not known of the air (its density in kg/m³, null where
 * nobody measured it); or of value 1, with the size of what is not corrected in its uncertainty.
 */
export function buoyancyExpression(
  sampleDensityKgPerM3: number,
  measuredAirKgPerM3: number | null,
  isCorrected: boolean,
): Expression {
  const airDensity = measuredAirKgPerM3 ?? AIR_DENSITY_KG_PER_M3;
  if (!isCorrected) {
    const factor = buoyancyFactor({ sampleDensityKgPerM3, airDensityKgPerM3: airDensity });
    const lift = commonInput({
      id: `buoyancy@${String(sampleDensityKgPerM3)}`,
      symbol: 'δ_b',
      name: 'lift of the air, not corrected',
      effect: 'Buoyancy',
      value: 0,
      unit: UNITS.one,
      components: [
        { name: 'not corrected', standardUncertainty: Math.abs(factor - 1), isUncorrected: true },
      ],
      source: `density ${String(sampleDensityKgPerM3)} kg/m³`,
    });
    return sum([plus(exact(1)), plus(lift)]);
  }
  const air = commonInput({
    id: 'air/density',
    symbol: 'ρ_air',
    name: 'density of the air',
    effect: 'Buoyancy',
    value: airDensity,
    unit: UNITS.gramPerLitre,
    components: [
      {
        name: measuredAirKgPerM3 === null ? 'not measured' : 'as measured',
        distribution: 'rectangular',
        halfWidth: measuredAirKgPerM3 === null ? ANY_AIR_KG_PER_M3 : MEASURED_AIR_KG_PER_M3,
      },
    ],
    source: measuredAirKgPerM3 === null ? `conventional, ${figureText(1.2)} kg/m³` : 'measured',
  });
  const outside = (densityKgPerM3: number): Expression =>
    sum([plus(exact(1)), minus(quotient(air, exact(densityKgPerM3, UNITS.gramPerLitre)))]);
  return quotient(outside(WEIGHTS_DENSITY_KG_PER_M3), outside(sampleDensityKgPerM3));
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
  const sentence = `A density of ${String(density)} kg/m3 is too low for anything that is weighed. If it is in g/mL, multiply it by 1000.`;
  throw new Unanswerable('out-of-range', field, sentence);
}
