import { regress } from '../../statistics';
import type { Judgement } from '../judging';

/** A series in the order in which it was titrated. */
export interface InOrder {
  readonly points: readonly {
    /** From 1. */
    readonly place: number;
    readonly flask: number;
    /** mol/L */
    readonly molarity: number;
    readonly counts: boolean;
  }[];
  /** How the molarity moves along the series; null for fewer than four, where a line says nothing. */
  readonly trend: {
    readonly percentPerTitration: number;
    /** Probability of a slope at least this far from zero by chance. */
    readonly probability: number;
    readonly isSignificant: boolean;
  } | null;
}

const FEWEST_FOR_A_TREND = 4;
const CONFIDENCE = 0.95;

/** The accurate titrations in their order, and whether they drift: a titrant that takes up air, a burette that warms. */
export function inOrder({ replicates }: Judgement): InOrder {
  const points = replicates
    .filter(({ verdict }) => verdict === 'counts' || verdict === 'set-aside')
    .toSorted((a, b) => (a.flask.initial?.at ?? '').localeCompare(b.flask.initial?.at ?? ''))
    .flatMap(({ flask, molarity, verdict }, i) =>
      molarity === null
        ? []
        : [{ place: i + 1, flask: flask.number, molarity, counts: verdict === 'counts' }],
    );
  if (points.length < FEWEST_FOR_A_TREND) return { points, trend: null };
  const molarities = points.map(({ molarity }) => molarity);
  const mean = molarities.reduce((sum, one) => sum + one, 0) / molarities.length;
  const { slope, slopeProbability, isSlopeSignificant } = regress(
    points.map(({ place }) => place),
    molarities,
    CONFIDENCE,
  );
  return {
    points,
    trend: {
      percentPerTitration: (100 * slope) / mean,
      probability: slopeProbability,
      isSignificant: isSlopeSignificant,
    },
  };
}
