import { findAnalysis, statedAsOf } from '#core/chemistry';
import type { SampleRequest, SampleState } from '#core/sample';

/** What an analysis is called. */
export function analysisName(analysisId: string): string {
  return findAnalysis(analysisId)?.name ?? analysisId;
}

/** As what and in which unit: `g/L as tartaric acid`. */
export function statedText({ analysisId, unit, as }: SampleRequest): string {
  const analysis = findAnalysis(analysisId);
  const stated = analysis && statedAsOf(analysis, as);
  return stated ? `${unit} as ${stated.name}` : unit;
}

/** Where a sample stands, in a word. */
export function standingText({ disposed, sample }: SampleState, today: string): string {
  if (disposed) return 'disposed of';
  return sample.keepUntil !== null && sample.keepUntil < today ? 'to dispose of' : 'kept';
}
