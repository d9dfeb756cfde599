import { normalizedError, studentTCdf } from '../statistics';
import type { Requirement } from './sample';

/** A result to be held against a limit. */
export interface Measured {
  readonly value: number;
  readonly standardUncertainty: number;
  readonly expandedUncertainty: number;
  readonly degreesOfFreedom: number;
}

/** Where a content may lie. */
interface Limits {
  readonly lower: number | null;
  readonly upper: number | null;
}

export type Verdict = 'pass' | 'conditional-pass' | 'conditional-fail' | 'fail';

/** What is said of a result by the rule that was agreed. */
export interface Decision {
  /** Null where the rule is to say nothing. */
  readonly verdict: Verdict | null;
  /** That the true content lies within the limits, 0 to 1. */
  readonly probability: number;
  /** How far inside, or outside, the limits the result has to lie, in its unit. */
  readonly guard: number;
}

/**
 * Probability that the true content lies within limits: Phi((T_U - y)/u) - Phi((T_L - y)/u), with Student's t for few degrees of
 * freedom. Source: JCGM 106:2012, 7.2 to 7.4.
 */
export function probabilityOfConformity(measured: Measured, { lower, upper }: Limits): number {
  const { value, standardUncertainty: u, degreesOfFreedom } = measured;
  const below = (limit: number): number => studentTCdf((limit - value) / u, degreesOfFreedom);
  return (upper === null ? 1 : below(upper)) - (lower === null ? 0 : below(lower));
}

/** How far inside the limits a result lies; negative outside. */
function distanceInside(value: number, { lower, upper }: Limits): number {
  return Math.min(
    upper === null ? Number.POSITIVE_INFINITY : upper - value,
    lower === null ? Number.POSITIVE_INFINITY : value - lower,
  );
}

/**
 * Holds a result against limits. The guard band is U: g = r U with r = 1.
 * Source: JCGM 106:2012, 8.3; ILAC-G8:09/2019, 4.2 (simple, guarded acceptance, guarded rejection, non-binary with guard band).
 */
export function decide(
  measured: Measured,
  requirement: Extract<Requirement, { kind: 'limits' }>,
): Decision {
  const { rule } = requirement;
  const limits = {
    lower: requirement.lower === null ? null : Number(requirement.lower),
    upper: requirement.upper === null ? null : Number(requirement.upper),
  };
  const inside = distanceInside(measured.value, limits);
  const band = measured.expandedUncertainty;
  return {
    verdict: verdictOf(rule, inside, band),
    probability: probabilityOfConformity(measured, limits),
    guard: rule === 'none' || rule === 'simple' ? 0 : band,
  };
}

function verdictOf(
  rule: Extract<Requirement, { kind: 'limits' }>['rule'],
  inside: number,
  band: number,
): Verdict | null {
  switch (rule) {
    case 'none':
      return null;
    case 'simple':
      return inside >= 0 ? 'pass' : 'fail';
    case 'guarded-acceptance':
      return inside >= band ? 'pass' : 'fail';
    case 'guarded-rejection':
      return inside >= -band ? 'pass' : 'fail';
    case 'four-way':
      if (inside >= 0) return inside >= band ? 'pass' : 'conditional-pass';
      return inside >= -band ? 'conditional-fail' : 'fail';
  }
}

/** A result against the claim of a label. */
export interface OfClaim {
  readonly percent: number;
  readonly expandedPercent: number;
  /** Whether it lies within what is allowed; null where nothing is. */
  readonly isWithin: boolean | null;
}

export function ofClaim(
  { value, expandedUncertainty }: Measured,
  { claim, window }: Extract<Requirement, { kind: 'label-claim' }>,
): OfClaim {
  const percent = (100 * value) / Number(claim);
  return {
    percent,
    expandedPercent: (100 * expandedUncertainty) / Number(claim),
    isWithin: window && isBetween(percent, window.fromPercent, window.toPercent),
  };
}

function isBetween(value: number, from: string, to: string): boolean {
  return value >= Number(from) && value <= Number(to);
}

/** A result against an accepted value. */
export interface OfAccepted {
  readonly relativeErrorPercent: number;
  readonly isWithin: boolean | null;
  /** |x - X| / sqrt(U_x² + U_X²), both with k = 2; null where the value has no U. */
  readonly en: number | null;
}

/**
 * The relative error of a result, and E_n where both state U with k = 2: the result's is taken as 2 u.
 * Source: ISO 13528:2022, 9.7.
 */
export function ofAccepted(
  { value, standardUncertainty }: Measured,
  requirement: Extract<Requirement, { kind: 'accepted-value' }>,
): OfAccepted {
  const accepted = Number(requirement.value);
  const relativeErrorPercent = 100 * (value / accepted - 1);
  const { withinPercent, expandedUncertainty } = requirement;
  return {
    relativeErrorPercent,
    isWithin:
      withinPercent === null ? null : Math.abs(relativeErrorPercent) <= Number(withinPercent),
    en:
      expandedUncertainty === null
        ? null
        : normalizedError(
            { value, expandedUncertainty: 2 * standardUncertainty },
            { value: accepted, expandedUncertainty: Number(expandedUncertainty) },
          ),
  };
}
