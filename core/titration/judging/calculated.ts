import { statedMolarity } from '../../reagent';
import type { StandardizationRun } from '../run';
import type { CalculatedMolarity } from '../setUp';
import { judgeRun } from './judge';

/** What a standardization has come to so far, for whoever works with it before it is certified; null while it has no result. */
export function calculatedMolarity(run: StandardizationRun): CalculatedMolarity | null {
  const { result } = judgeRun(run);
  return result && { runId: run.id, ...statedMolarity(result) };
}
