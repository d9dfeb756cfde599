import type { RoundedResult } from '../../measurement';
import { correlationsIn, minus, plus, propagate, roundToUncertainty, sum } from '../../measurement';
import type { AnalysisRun } from '../run';
import { soughtOf } from '../setUp';
import type { Result } from './judge';

/** What one sample holds more than another. */
export interface Difference extends RoundedResult {
  readonly coverageFactor: number;
}

/**
 * By how much a sample differs from another of its batch, with the U of the titration. Titrant, burette and glassware are common to
 * both and cancel as far as the titres are alike, so that it is surer than either. Null where they are stated otherwise.
 */
export function differenceOf(
  one: { readonly series: AnalysisRun; readonly result: Result },
  other: { readonly series: AnalysisRun; readonly result: Result },
): Difference | null {
  const { unit, statedAs } = soughtOf(one.series.references).as;
  const otherwise = soughtOf(other.series.references).as;
  if (statedAs !== otherwise.statedAs || unit.symbol !== otherwise.unit.symbol) return null;
  const model = sum([plus(one.result.model), minus(other.result.model)]);
  const muted = new Set([...one.result.mutedInputIds, ...other.result.mutedInputIds]);
  const { value, expandedUncertainty, coverageFactor } = propagate(model, unit, {
    correlations: correlationsIn(model),
    isMuted: ({ id }) => muted.has(id),
    ...(one.series.setUp.rules.coverage === 'two' && { coverageFactor: 2 }),
  });
  return { ...roundToUncertainty(value, expandedUncertainty), coverageFactor };
}
