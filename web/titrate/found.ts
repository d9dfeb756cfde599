import { figureText, roundHalfEven, roundSignificant } from '#core/measurement';
import type { RunState } from '#core/titration/run';
import { isAnalysis, soughtOf } from '#core/titration/setUp';

type OfSeries = Pick<RunState, 'references'>;

/** What one titration gives, as a bench shows it: a molarity to five decimals, a content to four figures. */
export function foundText({ references }: OfSeries, value: number): string {
  return figureText(isAnalysis(references) ? roundSignificant(value, 4) : roundHalfEven(value, 5));
}

/** The unit of what a series finds: mol/L of a titrant, what was asked for of a sample. */
export function foundUnit({ references }: OfSeries): string {
  return soughtOf(references).as.unit.symbol;
}

/** The head of a column of what titrations give. */
export function foundHead(series: OfSeries): string {
  const symbol = isAnalysis(series.references) ? soughtOf(series.references).symbol : 'c';
  const unit = foundUnit(series);
  return `${symbol} / ${/[/ ]/.test(unit) ? `(${unit})` : unit}`;
}
