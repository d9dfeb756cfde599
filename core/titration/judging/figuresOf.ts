import { COVERAGE_PROBABILITY, inSi, UNITS } from '../../measurement';
import type { Judgement } from './judge';

/** A figure with its SI unit; `1` for a pure number. */
interface Quantity {
  readonly value: number;
  readonly unit: string;
}

/** A result with what is known of it. */
interface ResultFigures extends Quantity {
  readonly standardUncertainty: number;
  readonly expandedUncertainty: number;
  readonly coverageFactor: number;
  readonly coverageProbability: number;
  /** Null where nothing limits them. */
  readonly effectiveDegreesOfFreedom: number | null;
}

/** What a result rests on in figures, in SI units and unrounded: for whoever computes it again. */
export interface Figures {
  readonly result: ResultFigures;
  readonly replicates: readonly {
    readonly flask: number;
    readonly verdict: string;
    readonly titre: Quantity | null;
    readonly result: Quantity | null;
  }[];
  /** What each input contributes to the standard uncertainty, in the unit of the result; `share` is its part of the variance. */
  readonly budget: readonly (Quantity & {
    readonly input: string;
    readonly name: string;
    readonly standardUncertainty: number;
    readonly contribution: number;
    readonly share: number;
  })[];
}

/** The figures of a series as judged. @throws RangeError when it has no result */
export function figuresOf({ replicates, result }: Judgement): Figures {
  if (!result) throw new RangeError('a series without a result has no figures');
  const { evaluation } = result;
  const freedom = evaluation.effectiveDegreesOfFreedom;
  const ofResult = inSi(evaluation.unit);
  const ofTitre = inSi(UNITS.millilitre);
  return {
    result: {
      ...inUnit(evaluation.value, ofResult),
      standardUncertainty: evaluation.combinedStandardUncertainty * ofResult.factor,
      expandedUncertainty: evaluation.expandedUncertainty * ofResult.factor,
      coverageFactor: evaluation.coverageFactor,
      coverageProbability: COVERAGE_PROBABILITY,
      effectiveDegreesOfFreedom: Number.isFinite(freedom) ? freedom : null,
    },
    replicates: replicates.map((one) => ({
      flask: one.flask.number,
      verdict: one.verdict,
      titre: one.titreMl === null ? null : inUnit(Number(one.titreMl), ofTitre),
      result: one.molarity === null ? null : inUnit(one.molarity, ofResult),
    })),
    budget: evaluation.budget.map(({ input, standardUncertainty, contribution, share }) => {
      const si = inSi(input.unit);
      return {
        input: input.id,
        name: input.name,
        ...inUnit(input.value, si),
        standardUncertainty: standardUncertainty * si.factor,
        contribution: contribution * ofResult.factor,
        share,
      };
    }),
  };
}

function inUnit(value: number, si: ReturnType<typeof inSi>): Quantity {
  return { value: value * si.factor, unit: si.symbol };
}
