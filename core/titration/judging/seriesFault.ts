import { roundHalfEven, roundSignificant } from '../../measurement';
import { regress } from '../../statistics';
import type { Judgement, Replicate } from './judge';

/** Why a series does not come to agreement, with its evidence. */
export interface SeriesFault {
  readonly kind: 'outlier' | 'drift' | 'scatter';
  readonly sentence: string;
}

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
    const name = outlier.test === 'grubbs' ? 'G' : 'Q';
    return {
      kind: 'outlier',
      sentence: `Flask ${String(outlier.flask)} stands out (${name} = ${roundHalfEven(outlier.statistic, 2)}, more than ${roundHalfEven(outlier.critical, 2)}): look for what was different there, such as a bubble, a drop lost or a misread figure.`,
    };
  }
  const line = regress(
    series.map((_, i) => i),
    series.map(({ molarity }) => molarity),
    DRIFT_CONFIDENCE,
  );
  if (line.isSlopeSignificant) {
    const percent = (100 * line.slope) / accurate.mean;
    return {
      kind: 'drift',
      sentence: `They ${percent > 0 ? 'rise' : 'fall'} by ${roundSignificant(Math.abs(percent), 2)} % from one to the next: a solution that changes as it stands, a burette that leaks or is not rinsed, or a temperature that moves.`,
    };
  }
  return {
    kind: 'scatter',
    sentence: `They scatter by ${roundSignificant(accurate.relativeSdPercent ?? 0, 2)} % with no order in it: the end point, the readings or the filling of the flasks.`,
  };
}

/** When a titration was begun, ISO 8601. */
function begunAt({ flask }: Replicate): string {
  return flask.initial?.at ?? '';
}
