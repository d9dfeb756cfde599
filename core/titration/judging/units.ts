import { figureText, roundSignificant, roundToUncertainty } from '../../measurement';
import { areWholeUnits } from '../figures';
import type { AnalysisRun } from '../run';
import { soughtOf } from '../setUp';
import type { Judgement } from './judge';

/**
 * How the single units of a sample differ, where each flask held one: `10 units, 481 to 512 mg, s = 9.1 mg (1.8 %)`; null elsewhere,
 * and for a single one.
 */
export function unitsText(series: AnalysisRun, { averaged, replicates }: Judgement): string | null {
  if (!areWholeUnits(series) || !averaged?.sampleSd) return null;
  const { n, sampleSd, relativeSdPercent } = averaged;
  const held = replicates.flatMap(({ verdict, molarity }) =>
    verdict === 'counts' && molarity !== null ? [molarity] : [],
  );
  const text = (value: number): string => figureText(roundToUncertainty(value, sampleSd).value);
  const range = `${text(Math.min(...held))} to ${text(Math.max(...held))}`;
  const { symbol } = soughtOf(series.references).as.unit;
  const percent = figureText(roundSignificant(relativeSdPercent ?? 0, 2));
  return `${String(n)} units, ${range} ${symbol}, s = ${figureText(roundSignificant(sampleSd, 2))} ${symbol} (${percent} %)`;
}
