import type { StandardizationReferences, StandardizationSetUp } from '../setUp';
import { isAnalysis } from '../setUp';
import type { RunState } from './state';

/** A run that standardizes a titrant. */
export interface StandardizationRun extends RunState {
  readonly setUp: StandardizationSetUp;
  readonly references: StandardizationReferences;
}

/** Whether a run standardizes a titrant, and does not analyse samples. */
export function isStandardization(run: RunState): run is StandardizationRun {
  return !isAnalysis(run.references) && !isAnalysis(run.setUp);
}

/** A run as a standardization. @throws RangeError for one that analyses samples: of that no certificate of a bottle is asked */
export function standardizationOf(run: RunState): StandardizationRun {
  if (isStandardization(run)) return run;
  throw new RangeError('samples are analysed here, no titrant is standardized');
}
