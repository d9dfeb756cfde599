import type { Evaluation } from './propagate';
import type { Simulation } from './simulate';

/** Whether the law of propagation may be trusted for a measurement, by a simulation of it. */
export interface Validation {
  /** Differences between the ends of y ± U and of the symmetric interval, in the unit of the result. */
  readonly differences: readonly [low: number, high: number];
  /** What they may be: half a unit in the second significant figure of u. */
  readonly tolerance: number;
  readonly isValidated: boolean;
}

/**
 * Compares y ± U with the coverage interval that the Monte Carlo method gives.
 * Source: JCGM 101:2008, 8.1.3; numerical tolerance by 7.9.2 with two significant figures.
 */
export function validate(evaluation: Evaluation, simulation: Simulation): Validation {
  const { value, expandedUncertainty, combinedStandardUncertainty } = evaluation;
  const [low, high] = simulation.symmetricInterval;
  const leading = Math.floor(Math.log10(combinedStandardUncertainty));
  const tolerance = 10 ** (leading - 1) / 2;
  const differences = [
    Math.abs(value - expandedUncertainty - low),
    Math.abs(value + expandedUncertainty - high),
  ] as const;
  return { differences, tolerance, isValidated: Math.max(...differences) <= tolerance };
}
