import type {
  AnalysisReferences,
  AnalysisSetUp,
  StandardizationReferences,
  StandardizationSetUp,
} from '../setUp';
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

/** A run, or a series of one, that analyses samples. */
export interface AnalysisRun extends RunState {
  readonly setUp: AnalysisSetUp;
  readonly references: AnalysisReferences;
}

/** Whether a run analyses samples, and does not standardize a titrant. */
export function isAnalysisRun(run: RunState): run is AnalysisRun {
  return !isStandardization(run);
}

/** A run as an analysis. @throws RangeError for one that standardizes a titrant: it has no samples */
export function analysisOf(run: RunState): AnalysisRun {
  if (isAnalysisRun(run)) return run;
  throw new RangeError('a titrant is standardized here, no samples are analysed');
}
