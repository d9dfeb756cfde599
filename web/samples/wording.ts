import type { Own } from '#core/chemistry';
import { findAnalysis, statedAsOf } from '#core/chemistry';
import type { RunSummary } from '#core/ledger';
import type { SampleRequest, SampleState } from '#core/sample';
import { isReported } from '#core/sample';

/** What an analysis is called. */
export function analysisName(analysisId: string, own: Own | undefined): string {
  return findAnalysis(analysisId, own)?.name ?? analysisId;
}

/** As what and in which unit: `g/L as tartaric acid`. */
export function statedText({ analysisId, unit, as }: SampleRequest, own: Own | undefined): string {
  const analysis = findAnalysis(analysisId, own);
  const stated = analysis && statedAsOf(analysis, as);
  return stated ? `${unit} as ${stated.name}` : unit;
}

/** Where a sample stands, in a word; the open runs tell whether it is in work. */
export function standingText(
  { id, disposed, sample, reported }: SampleState,
  today: string,
  openRuns: readonly RunSummary[],
): string {
  if (disposed) return 'disposed of';
  if (sample.keepUntil !== null && sample.keepUntil < today) return 'to dispose of';
  if (isReported(sample, reported)) return 'reported';
  const inWork = openRuns.flatMap(({ samples }) => samples.filter((one) => one.id === id));
  if (inWork.length === 0) return 'received';
  return inWork.every(({ content }) => content !== null) ? 'done, to be reported' : 'in work';
}
