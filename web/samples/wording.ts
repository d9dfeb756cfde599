import type { Own } from '#core/chemistry';
import { findAnalysis, partsOf, statedAsOf } from '#core/chemistry';
import type { PlainDate } from '#core/grammar';
import type { RunSummary } from '#core/ledger';
import { listingOf } from '#core/ledger';
import { standingOn } from '#core/record';
import type { SampleRequest, SampleState } from '#core/sample';

/** What an analysis is called. */
export function analysisName(analysisId: string, own: Own | undefined): string {
  return findAnalysis(analysisId, own)?.name ?? analysisId;
}

/** As what and in which unit: `g/L as tartaric acid`. */
export function statedText(
  { analysisId, unit, as, onDryMatter, part: partId }: SampleRequest,
  own: Own | undefined,
): string {
  const analysis = findAnalysis(analysisId, own);
  const part = analysis && partsOf(analysis).find(({ id }) => id === partId);
  const stated = analysis && statedAsOf(part ?? analysis, as);
  const of = onDryMatter === true ? ' in dry matter' : '';
  const what = part ? `${part.name}, ` : '';
  return stated ? `${what}${unit} as ${stated.name}${of}` : `${what}${unit}${of}`;
}

const STANDING_WORDS: Readonly<Record<string, string>> = {
  disposed: 'disposed of',
  'to-dispose-of': 'to dispose of',
};

/** Where a sample stands, in a word; the open runs tell whether it is in work. */
export function standingText(
  state: SampleState,
  today: PlainDate,
  openRuns: readonly RunSummary[],
): string {
  const standing = standingOn(listingOf('sample', state).standing, today);
  if (standing !== 'received') return STANDING_WORDS[standing] ?? standing;
  const inWork = openRuns.flatMap(({ samples }) => samples.filter((one) => one.id === state.id));
  if (inWork.length === 0) return 'received';
  return inWork.every(({ content }) => content !== null) ? 'done, to be reported' : 'in work';
}

/** As many codes as a heading has room for. */
const CODES_SHOWN = 4;

/** The samples of a run in a heading: `Sample W-311`, `20 samples, W-311 to W-330`. */
export function samplesText(codes: readonly string[]): string {
  if (codes.length === 1) return `Sample ${codes.join('')}`;
  if (codes.length <= CODES_SHOWN) return `Samples ${codes.join(', ')}`;
  return `${String(codes.length)} samples, ${codes[0] ?? ''} to ${codes.at(-1) ?? ''}`;
}
