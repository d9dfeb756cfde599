import type { Component } from '../measurement';
import type { CalibratedThermometer } from './equipment';
import { certifiedAt } from './equipment';
import {
  GLASS_CUBIC_EXPANSION_PER_K,
  glassVolumeMl,
  REFERENCE_TEMPERATURE_C,
  waterDensityKgPerM3,
} from './water';

/**
 * Deviation of the laboratory's temperature from the reference, in K, when volumes are not corrected for it: its
 * variation (half-width of a 95 % interval) and the known, uncorrected difference itself.
 */
export function temperatureDeviation(
  temperatureC: number,
  variationHalfWidthK: number,
  referenceC = REFERENCE_TEMPERATURE_C,
): readonly Component[] {
  const uncorrected = Math.abs(temperatureC - referenceC);
  return [
    { name: 'variation', distribution: 'normal', halfWidth: variationHalfWidthK },
    ...(uncorrected > 0
      ? [
          {
            name: `not corrected to ${String(referenceC)} °C`,
            standardUncertainty: uncorrected,
            isUncorrected: true as const,
          },
        ]
      : []),
  ];
}

/** A temperature as a thermometer's certificate corrects it, °C. */
export function correctedTemperatureC(thermometer: CalibratedThermometer, readC: number): number {
  return readC + (certifiedAt(thermometer.calibration, readC)?.deviation ?? 0);
}

/** What is not known of a temperature that a thermometer read, K: how even it was (95 %), the step shown, and the thermometer. */
export function thermometerReading(
  thermometer: CalibratedThermometer,
  readC: number,
  variationHalfWidthK: number,
): readonly Component[] {
  const certified = certifiedAt(thermometer.calibration, readC);
  return [
    { name: 'variation', distribution: 'normal', halfWidth: variationHalfWidthK },
    {
      name: 'step shown',
      distribution: 'rectangular',
      halfWidth: Number(thermometer.resolutionK) / 2,
    },
    certified
      ? {
          name: 'certificate',
          expandedUncertainty: certified.expandedUncertainty,
          coverageFactor: 2,
        }
      : {
          name: 'tolerance',
          distribution: 'rectangular',
          halfWidth: Number(thermometer.toleranceK),
        },
  ];
}

/** A liquid, as far as its volume goes with its temperature. */
export interface Liquid {
  readonly cubicExpansionPerK: number;
  /** A dilute solution in water, of which the density is known at every temperature. */
  readonly isWater: boolean;
}

/**
 * What a volume read at t, in glass that was calibrated at 20 °C, is at the reference temperature, for each mL:
 * (1 + gamma_glass (t - 20)) rho(t) / rho(t_ref) for water, (1 + gamma_glass (t - 20)) (1 - gamma (t - t_ref)) for other liquids.
 * Source: ISO 4787:2021; density of water after Tanaka.
 *
 * @throws Unanswerable `temperature-out-of-range` for water beyond 0 to 40 °C
 */
export function volumeAtReference(
  { cubicExpansionPerK, isWater }: Liquid,
  temperatureC: number,
  referenceC: number,
): number {
  const inGlass = glassVolumeMl(1, temperatureC, GLASS_CUBIC_EXPANSION_PER_K.borosilicate);
  const shrinks = isWater
    ? waterDensityKgPerM3(temperatureC) / waterDensityKgPerM3(referenceC)
    : 1 - cubicExpansionPerK * (temperatureC - referenceC);
  return inGlass * shrinks;
}

/** How much smaller that gets for each kelvin, relative, 1/K. */
export function shrinkagePerK(liquid: Liquid, temperatureC: number, referenceC: number): number {
  const at = (offsetK: number): number =>
    volumeAtReference(liquid, temperatureC + offsetK, referenceC);
  // Half a kelvin either way stays within what is known of water.
  const [low, high] = temperatureC < 1 ? [0, 0.5] : temperatureC > 39 ? [-0.5, 0] : [-0.5, 0.5];
  return -(Math.log(at(high)) - Math.log(at(low))) / (high - low);
}
