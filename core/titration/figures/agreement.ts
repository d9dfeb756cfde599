import { roundHalfEven } from '../../measurement';
import type { ConcordanceLimit, Summary } from '../../statistics';
import type { RunState } from '../run';
import { isBlank } from '../run';
import { arrangementOf, isAnalysis, takesWholeUnits } from '../setUp';
import { amountIn } from './portions';
import { relativePerMl } from './volumes';

/** How the replicates of a run must agree: what is compared, within what, and in which words. */
export interface Agreement {
  readonly compares: 'titres' | 'molarities';
  readonly limit: ConcordanceLimit;
  /** `0.10 mL`, `0.3 %`, `an RSD of 0.1 %`. */
  readonly limitText: string;
  /** How wide a band of molarities the limit is, in % of their mean, for a series of such titres; null without one. */
  readonly bandPercent: (titres: Summary | null) => number | null;
  /** How far a series spreads, in the same words. */
  readonly spreadText: (titres: Summary, molarities: Summary) => string;
}

const percent = (value: number): string => `${roundHalfEven(value, 2)} %`;

/** Nothing is asked of how they agree. */
const WHATEVER: Agreement = {
  compares: 'molarities',
  limit: { maxRange: Number.POSITIVE_INFINITY },
  limitText: 'whatever they spread',
  bandPercent: () => null,
  spreadText: (_, molarities) => percent(molarities.relativeRangePercent),
};

/** Whether each flask holds a whole unit: they differ by what they hold, not by how they were titrated. */
export function areWholeUnits({ references }: Pick<RunState, 'references'>): boolean {
  return isAnalysis(references) && takesWholeUnits(references.portioning);
}

/**
 * The repeatability limit of its analysis, % of the content; null where the laboratory has entered none, and for whole units, which are
 * no repetitions.
 */
export function repeatabilityLimitPercent({
  references,
}: Pick<RunState, 'references'>): number | null {
  return isAnalysis(references) && !areWholeUnits({ references })
    ? (references.method.performance?.repeatabilityPercent ?? null)
    : null;
}

/** The rule that a run follows: the repeatability limit where one is known; titres of equal aliquots, molarities of portions that differ by design. */
export function agreementOf(run: RunState): Agreement {
  const { rules } = run.setUp;
  if (areWholeUnits(run)) return WHATEVER;
  const r = repeatabilityLimitPercent(run);
  if (r !== null) {
    return {
      compares: 'molarities',
      limit: { maxRelativeRangePercent: r },
      limitText: `r = ${String(r)} %`,
      bandPercent: () => r,
      spreadText: (_, molarities) => percent(molarities.relativeRangePercent),
    };
  }
  const aliquotMl = arrangementOf(run.references).portion.fixedMl;
  const isEqual = run.flasks.every((flask) => isBlank(flask) || amountIn(flask) === aliquotMl);
  if (aliquotMl !== null && isEqual) {
    const range = rules.concordanceRangeMl;
    return {
      compares: 'titres',
      limit: { maxRange: Number(range) },
      limitText: `${range} mL`,
      bandPercent: (titres) => titres && 100 * Number(range) * relativePerMl(run, titres.mean),
      spreadText: (titres) => `${roundHalfEven(titres.range, 2)} mL`,
    };
  }
  switch (rules.weighedConcordance) {
    case 'relative-range': {
      const range = rules.concordanceRelativeRangePercent;
      return {
        compares: 'molarities',
        limit: { maxRelativeRangePercent: Number(range) },
        limitText: `${range} %`,
        bandPercent: () => Number(range),
        spreadText: (_, molarities) => percent(molarities.relativeRangePercent),
      };
    }
    case 'rsd': {
      const rsd = rules.concordanceRsdPercent;
      return {
        compares: 'molarities',
        limit: { maxRsdPercent: Number(rsd) },
        limitText: `an RSD of ${rsd} %`,
        // Three values with that s lie within about two of it.
        bandPercent: () => 2 * Number(rsd),
        spreadText: (_, molarities) => `an RSD of ${percent(molarities.relativeSdPercent ?? 0)}`,
      };
    }
    case 'none':
      return WHATEVER;
  }
}
