import type { Id } from '../../grammar';
import type { AnalysisReferences, RunReferences } from '../setUp';
import { isAnalysis } from '../setUp';
import { isBlank } from './flasks';
import type { Flask, RunState } from './state';

/** States never change, and the bench asks at every key. */
const SERIES = new WeakMap<RunState, readonly RunState[]>();
const REFERENCES = new WeakMap<AnalysisReferences, readonly AnalysisReferences[]>();

/**
 * The series of a run, of which each has a result: one for each sample, with the blanks that all share. A standardization is its own.
 */
export function seriesOf(run: RunState): readonly RunState[] {
  const { references } = run;
  if (!isAnalysis(references) || references.samples.length === 1) return [run];
  const known = SERIES.get(run);
  if (known) return known;
  const series = eachSample(references).map((one) => {
    const id = one.samples[0]?.state.id;
    return {
      ...run,
      references: one,
      flasks: run.flasks.filter((flask) => isBlank(flask) || flask.sampleId === id),
    };
  });
  SERIES.set(run, series);
  return series;
}

function eachSample(references: AnalysisReferences): readonly AnalysisReferences[] {
  const known = REFERENCES.get(references);
  if (known) return known;
  const each = references.samples.map((sample) => ({ ...references, samples: [sample] }));
  REFERENCES.set(references, each);
  return each;
}

/** The sample of a series; undefined for a standardization. */
export function sampleIdOf({ references }: Pick<RunState, 'references'>): Id | undefined {
  return isAnalysis(references) ? references.samples[0]?.state.id : undefined;
}

/** What the series of a flask rests on. A blank belongs to all of them: the first stands for it. */
export function referencesFor(
  references: RunReferences,
  { sampleId }: Pick<Flask, 'sampleId'>,
): RunReferences {
  if (!isAnalysis(references) || references.samples.length === 1) return references;
  const each = eachSample(references);
  const own = each.find(({ samples: [sample] }) => sample?.state.id === sampleId) ?? each[0];
  if (!own) throw new RangeError('an analysis has a sample');
  return own;
}

/** The series that a flask belongs to. */
export function seriesWith(run: RunState, { sampleId }: Pick<Flask, 'sampleId'>): RunState {
  const series = seriesOf(run);
  return series.find((one) => sampleIdOf(one) === sampleId) ?? series[0] ?? run;
}
