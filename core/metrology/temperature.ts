import type { Component } from '../measurement';

/** Temperature for which volumetric glassware is calibrated, °C. Source: ISO 384. */
export const REFERENCE_TEMPERATURE_C = 20;

/**
 * Deviation of the laboratory's temperature from 20 °C, in K, when volumes are not corrected for it: its
 * variation (half-width of a 95 % interval) and the known, uncorrected difference itself.
 */
export function temperatureDeviation(
  temperatureC: number,
  variationHalfWidthK: number,
): readonly Component[] {
  const uncorrected = Math.abs(temperatureC - REFERENCE_TEMPERATURE_C);
  return [
    { name: 'variation', distribution: 'normal', halfWidth: variationHalfWidthK },
    ...(uncorrected > 0
      ? [{ name: 'not corrected to 20 °C', standardUncertainty: uncorrected }]
      : []),
  ];
}
