import { regress } from '../../statistics';
import type { SeriesFault } from '../../wording';
import type { Judgement, Replicate } from './judge';

/** Confidence with which a drift is told from scatter. */
const DRIFT_CONFIDENCE = 0.95;

/**
 * What keeps the accurate titrations of a series apart: one that stands out by the house rule's test, a drift from one to
 * the next (a slope that is not zero at 95 %), or mere scatter. Null below three titrations, which show nothing.
 */
export function seriesFault({ replicates, accurate, outlier }: Judgement): SeriesFault | null {
  const series = replicates
    .filter(({ verdict }) => verdict === 'counts' || verdict === 'set-aside')
    .filter((one): one is Replicate & { molarity: number } => one.molarity !== null)
    .toSorted((a, b) => begunAt(a).localeCompare(begunAt(b)) || a.flask.number - b.flask.number);
  if (!accurate || series.length < 3) return null;
  if (outlier?.isOutlier) {
    const { flask, test, statistic, critical } = outlier;
    return { kind: 'outlier', flask, test, statistic, critical };
  }
  const line = regress(
    series.map((_, i) => i),
    series.map(({ molarity }) => molarity),
    DRIFT_CONFIDENCE,
  );
  return line.isSlopeSignificant
    ? { kind: 'drift', percent: (100 * line.slope) / accurate.mean }
    : { kind: 'scatter', percent: accurate.relativeSdPercent ?? 0 };
}

/** When a titration was begun, ISO 8601. */
function begunAt({ flask }: Replicate): string {
  return flask.initial?.at ?? '';
}
