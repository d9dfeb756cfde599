/** How the possible values of an effect are taken to be spread. */
export type Distribution = 'normal' | 'rectangular' | 'triangular';

/**
 * One effect on an input, in the input's unit: either a half-width with its distribution (for
 * normal: the half-width of a 95 % interval) or a standard uncertainty.
 */
export type Component =
  | { readonly name: string; readonly distribution: Distribution; readonly halfWidth: number }
  | { readonly name: string; readonly standardUncertainty: number };

/** Two-sided 95 % quantile of the normal distribution. */
const NORMAL_95 = 1.959963984540054;

const DIVISORS: Readonly<Record<Distribution, number>> = {
  normal: NORMAL_95,
  rectangular: Math.sqrt(3),
  triangular: Math.sqrt(6),
};

/**
 * Standard uncertainty of one effect: half-width divided by sqrt 3 (rectangular), sqrt 6 (triangular) or 1.96
 * (normal, 95 %). Source: JCGM 100:2008, 4.3.4, 4.3.7, 4.3.9.
 */
function componentUncertainty(component: Component): number {
  return 'halfWidth' in component
    ? component.halfWidth / DIVISORS[component.distribution]
    : component.standardUncertainty;
}

/** Standard uncertainty of an input from its independent effects: the root of the sum of squares. */
export function combineComponents(components: readonly Component[]): number {
  return Math.hypot(...components.map(componentUncertainty));
}
