import type { DeterminationResult } from '../determination';
import { determine } from '../determination';
import { Unanswerable } from '../problem';
import type { Hypothesis, Surroundings, Suspect, Suspected } from './hypotheses';
import { HYPOTHESES } from './hypotheses';

/** Within what a result counts as in line. Both in %. */
export interface Tolerances {
  /** Of the mean around what was expected: wide for a label, narrow for an earlier standardization. */
  readonly expectedPercent: number;
  /** Range of the replicates, relative to their mean. */
  readonly agreementPercent: number;
}

/** A hypothesis that would bring the run back in line. */
export interface Explanation {
  readonly id: string;
  readonly name: string;
  /** What would have happened on this run's own figures. */
  readonly detail: string;
  readonly check: string;
  readonly suspects: readonly Suspect[];
  /** What the run would then have found. */
  readonly molarityMolPerL: number;
  readonly rangePercent: number;
  /** Against the other explanations given; they sum to 1. */
  readonly share: number;
}

/** What is out of line in a run, and what would explain it; no explanations when nothing is. */
export interface Diagnosis {
  readonly isOutOfLine: boolean;
  /** Found over expected. */
  readonly ratio: number;
  readonly rangePercent: number;
  /** At most three, the likeliest first. */
  readonly explanations: readonly Explanation[];
}

const MOST_EXPLANATIONS = 3;

/** Misfits closer than this are one and the same. */
const ALIKE = 1e-9;

/** An explanation this much less likely than the best is not worth a look. */
const LEAST_SHARE = 0.02;

/**
 * Tries the known slips on a run whose result or agreement is out of line, and ranks those that bring both back: by how closely
 * the expected molarity and the agreement are met, and by how often each slip happens. Changes nothing itself.
 *
 * @throws Unanswerable when no titration of the run gives a result.
 */
export function explain(
  suspected: Suspected,
  surroundings: Surroundings,
  tolerances: Tolerances,
): Diagnosis {
  const asFound = fitOf(suspected, tolerances);
  if (!asFound) {
    throw new Unanswerable('too-few-values', 'replicates', 'No titration gives a result yet.');
  }
  const { ratio, rangePercent } = asFound;
  if (asFound.isInLine) return { isOutOfLine: false, ratio, rangePercent, explanations: [] };
  const scored = HYPOTHESES.map((hypothesis) =>
    bestVariant(hypothesis, suspected, surroundings, tolerances),
  ).filter((one) => one !== null);
  const best = scored.toSorted((a, b) => b.likelihood - a.likelihood).slice(0, MOST_EXPLANATIONS);
  const total = best.reduce((sum, { likelihood }) => sum + likelihood, 0);
  const explanations = best
    .map(({ explanation, likelihood }) => ({ ...explanation, share: likelihood / total }))
    .filter(({ share }) => share >= LEAST_SHARE);
  return { isOutOfLine: true, ratio, rangePercent, explanations };
}

interface Fit {
  readonly molarity: number;
  readonly ratio: number;
  readonly rangePercent: number;
  readonly isInLine: boolean;
  /** Half the sum of squared departures, each in half-tolerances. */
  readonly misfit: number;
}

/** How well a run agrees with what is expected; null when a changed input makes no sense. */
function fitOf(suspected: Suspected, tolerances: Tolerances): Fit | null {
  let result: DeterminationResult;
  try {
    result = determine(suspected.determination, suspected.replicates, []);
  } catch (error) {
    if (error instanceof Unanswerable) return null;
    throw error;
  }
  const { summary, replicates } = result;
  if (!summary || replicates.some(({ kind }) => kind === 'failed')) return null;
  const ratio = summary.mean / suspected.expectedMolPerL;
  const offPercent = 100 * (ratio - 1);
  const rangePercent = summary.relativeRangePercent;
  return {
    molarity: summary.mean,
    ratio,
    rangePercent,
    isInLine:
      Math.abs(offPercent) <= tolerances.expectedPercent &&
      rangePercent <= tolerances.agreementPercent,
    misfit:
      ((2 * offPercent) / tolerances.expectedPercent) ** 2 / 2 +
      ((2 * rangePercent) / tolerances.agreementPercent) ** 2 / 2,
  };
}

function bestVariant(
  hypothesis: Hypothesis,
  suspected: Suspected,
  surroundings: Surroundings,
  tolerances: Tolerances,
): { readonly likelihood: number; readonly explanation: Omit<Explanation, 'share'> } | null {
  const fitting = hypothesis
    .variants(suspected, surroundings)
    .map((variant) => ({ variant, fit: fitOf(variant.suspected, tolerances) }))
    .filter((one): one is { variant: typeof one.variant; fit: Fit } => one.fit?.isInLine ?? false)
    .toSorted((a, b) => a.fit.misfit - b.fit.misfit);
  const [best] = fitting;
  if (!best) return null;
  const { fit } = best;
  // An initial reading a millilitre too low and a final one too high look the same: both are named.
  const alike = fitting
    .filter((one) => one.fit.misfit - fit.misfit < ALIKE)
    .map((one) => one.variant);
  return {
    likelihood: hypothesis.weight * Math.exp(-fit.misfit),
    explanation: {
      id: hypothesis.id,
      name: hypothesis.name,
      detail: alike.map(({ detail }) => detail).join(', or '),
      check: hypothesis.check,
      suspects: alike.flatMap(({ suspects }) => suspects),
      molarityMolPerL: fit.molarity,
      rangePercent: fit.rangePercent,
    },
  };
}
