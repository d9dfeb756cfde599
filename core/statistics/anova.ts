import { Unanswerable } from '../problem';
import { upperFProbability, upperFQuantile } from './distributions';
import { isConstant, meanOf, squaredDeviations } from './summary';

/** Scatter within and between groups, such as the days on which replicates were made. */
export interface AnalysisOfVariance {
  readonly grandMean: number;
  readonly groupMeans: readonly number[];
  readonly meanSquareBetween: number;
  readonly meanSquareWithin: number;
  readonly degreesOfFreedomBetween: number;
  readonly degreesOfFreedomWithin: number;
  /** Effective number of replicates in a group. */
  readonly n0: number;
  readonly repeatabilitySd: number;
  readonly betweenSd: number;
  readonly intermediatePrecisionSd: number;
  readonly f: number;
  readonly probability: number;
  readonly criticalF: number;
  readonly isSignificant: boolean;
}

/**
 * One-way analysis of variance with groups of any size; a negative between-group variance counts as zero.
 * Source: ISO 5725-3:1994, annex A.
 *
 * @throws Unanswerable `too-few-groups` below 2, `too-few-values` for an empty group, `no-replication` when every
 *   group holds a single value, `zero-variance` when nothing scatters within the groups.
 */
export function oneWayAnova(
  groups: readonly (readonly number[])[],
  confidence: number,
): AnalysisOfVariance {
  const k = groups.length;
  if (k < 2) {
    throw new Unanswerable(
      'too-few-groups',
      'groups',
      'At least 2 groups are needed to compare them.',
    );
  }
  if (groups.some((group) => group.length === 0)) {
    throw new Unanswerable('too-few-values', 'groups', 'A group is empty.');
  }
  const all = groups.flat();
  const total = all.length;
  const degreesOfFreedomBetween = k - 1;
  const degreesOfFreedomWithin = total - k;
  if (degreesOfFreedomWithin === 0) {
    throw new Unanswerable(
      'no-replication',
      'groups',
      'No group holds two values, so the scatter within groups is unknown.',
    );
  }
  if (groups.every(isConstant)) {
    throw new Unanswerable(
      'zero-variance',
      'groups',
      'Nothing scatters within the groups, so they cannot be compared.',
    );
  }
  const grandMean = meanOf(all);
  const groupMeans = groups.map(meanOf);
  const squaresBetween = groups.reduce(
    (sum, group, i) => sum + group.length * ((groupMeans[i] ?? 0) - grandMean) ** 2,
    0,
  );
  const squaresWithin = groups.reduce((sum, group) => sum + squaredDeviations(group), 0);
  const meanSquareBetween = squaresBetween / degreesOfFreedomBetween;
  const meanSquareWithin = squaresWithin / degreesOfFreedomWithin;
  const n0 =
    (total - groups.reduce((sum, group) => sum + group.length ** 2, 0) / total) /
    degreesOfFreedomBetween;
  const betweenVariance = Math.max(0, (meanSquareBetween - meanSquareWithin) / n0);
  const f = meanSquareBetween / meanSquareWithin;
  const criticalF = upperFQuantile(1 - confidence, degreesOfFreedomBetween, degreesOfFreedomWithin);
  return {
    grandMean,
    groupMeans,
    meanSquareBetween,
    meanSquareWithin,
    degreesOfFreedomBetween,
    degreesOfFreedomWithin,
    n0,
    repeatabilitySd: Math.sqrt(meanSquareWithin),
    betweenSd: Math.sqrt(betweenVariance),
    intermediatePrecisionSd: Math.sqrt(betweenVariance + meanSquareWithin),
    f,
    probability: f > 0 ? upperFProbability(f, degreesOfFreedomBetween, degreesOfFreedomWithin) : 1,
    criticalF,
    isSignificant: f > criticalF,
  };
}
