import { keptFreedom, originsOf, roundHalfEven } from '../../measurement';
import type { StandardizationRun } from '../run';
import type { CalculatedMolarity } from '../setUp';
import { judgeRun } from './judge';

/** What a standardization has come to so far, for whoever works with it before it is certified; null while it has no result. */
export function calculatedMolarity(run: StandardizationRun): CalculatedMolarity | null {
  const { result } = judgeRun(run);
  if (!result) return null;
  const { evaluation, rounded } = result;
  return {
    runId: run.id,
    molarity: rounded.value,
    expandedUncertainty: rounded.uncertainty,
    coverageFactor: roundHalfEven(evaluation.coverageFactor, 2),
    unrounded: {
      molarity: evaluation.value,
      standardUncertainty: evaluation.combinedStandardUncertainty,
      effectiveDegreesOfFreedom: keptFreedom(evaluation),
      restsOn: originsOf(evaluation),
    },
  };
}
