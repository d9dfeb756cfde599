import { normalQuantile } from '../statistics';

/** How the possible values of an effect are taken to be spread within known limits. */
export type Distribution = 'normal' | 'rectangular' | 'triangular' | 'arcsine';

interface Named {
  readonly name: string;
  /** Infinite unless given. */
  readonly degreesOfFreedom?: number;
  /** A difference that is known and was not corrected: it counts in u, and makes nothing else surer. */
  readonly isUncorrected?: true;
}

/**
 * One effect on an input, in the input's unit: a half-width with its distribution (for normal: the half-width of an
 * interval of `confidence`, 0.95 unless given), a standard uncertainty (normal unless a distribution is given;
 * `student` for a mean of few readings, with their degrees of freedom), or an expanded uncertainty with its factor.
 */
export type Component = Named &
  (
    | {
        readonly distribution: Distribution;
        readonly halfWidth: number;
        readonly confidence?: number;
      }
    | {
        readonly standardUncertainty: number;
        readonly distribution?: Distribution | 'student';
      }
    | { readonly expandedUncertainty: number; readonly coverageFactor: number }
  );

/** Half-width of a distribution for each unit of standard uncertainty; of the normal one, at 1 standard deviation. */
export const HALF_WIDTHS: Readonly<Record<Distribution, number>> = {
  normal: 1,
  rectangular: Math.sqrt(3),
  triangular: Math.sqrt(6),
  arcsine: Math.SQRT2,
};

/**
 * Standard uncertainty of one effect: half-width divided by sqrt 3 (rectangular), sqrt 6 (triangular), sqrt 2
 * (arcsine) or the two-sided quantile (normal); expanded uncertainty divided by its factor.
 * Source: JCGM 100:2008, 4.3.3 to 4.3.9; JCGM 101:2008, 6.4.6 for arcsine.
 */
export function componentUncertainty(component: Component): number {
  if ('standardUncertainty' in component) return component.standardUncertainty;
  if ('expandedUncertainty' in component) {
    return component.expandedUncertainty / component.coverageFactor;
  }
  const { distribution, halfWidth, confidence = 0.95 } = component;
  return distribution === 'normal'
    ? halfWidth / normalQuantile((1 + confidence) / 2)
    : halfWidth / HALF_WIDTHS[distribution];
}

/** How an effect is drawn in a simulation. */
export function componentDistribution(component: Component): Distribution | 'student' {
  return 'distribution' in component ? (component.distribution ?? 'normal') : 'normal';
}

/** The effects that are not known; what is known and was not corrected has no degrees of freedom. */
export function unknownComponents(components: readonly Component[]): readonly Component[] {
  return components.filter(({ isUncorrected }) => !isUncorrected);
}

/** Standard uncertainty of an input from its independent effects: the root of the sum of squares. */
export function combineComponents(components: readonly Component[]): number {
  return Math.hypot(...components.map(componentUncertainty));
}
