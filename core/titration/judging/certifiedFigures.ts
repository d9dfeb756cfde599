import { COVERAGE_PROBABILITY, inSi, UNITS } from '../../measurement';
import type { RunState } from '../run';
import type { Judgement } from './judge';

/** A figure with its SI unit; `1` for a pure number. */
interface Quantity {
  readonly value: number;
  readonly unit: string;
}

/** What a certified result rests on in figures, in SI units and unrounded: for whoever computes it again. */
export interface CertifiedFigures {
  readonly molarity: Quantity & {
    readonly standardUncertainty: number;
    readonly expandedUncertainty: number;
    readonly coverageFactor: number;
    readonly coverageProbability: number;
    /** Null where nothing limits them. */
    readonly effectiveDegreesOfFreedom: number | null;
  };
  readonly replicates: readonly {
    readonly flask: number;
    readonly verdict: string;
    readonly titre: Quantity | null;
    readonly molarity: Quantity | null;
  }[];
  /** What each input contributes to the standard uncertainty, in the unit of the molarity; `share` is its part of the variance. */
  readonly budget: readonly (Quantity & {
    readonly input: string;
    readonly name: string;
    readonly standardUncertainty: number;
    readonly contribution: number;
    readonly share: number;
  })[];
}

/** The figures of a run as judged. @throws RangeError when the judgement has no result */
export function certifiedFigures(
  run: RunState,
  { replicates, result }: Judgement,
): CertifiedFigures {
  if (!result) throw new RangeError(`run ${run.id} has no result`);
  const { evaluation } = result;
  const freedom = evaluation.effectiveDegreesOfFreedom;
  const ofResult = inSi(evaluation.unit);
  const ofTitre = inSi(UNITS.millilitre);
  const molarity = (value: number): Quantity => inUnit(value, ofResult);
  return {
    molarity: {
      ...molarity(evaluation.value),
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
      molarity: one.molarity === null ? null : molarity(one.molarity),
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
