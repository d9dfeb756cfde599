import { meanOf, regress } from '../../statistics';
import type { Judgement } from '../judging';
import { inTitrationOrder } from './titrationOrder';

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
  const accurate = replicates.filter(
    ({ verdict }) => verdict === 'counts' || verdict === 'set-aside',
  );
  const points = inTitrationOrder(accurate, ({ flask }) => flask).flatMap(
    ({ flask, molarity, verdict }, i) =>
      molarity === null
        ? []
        : [{ place: i + 1, flask: flask.number, molarity, counts: verdict === 'counts' }],
  );
  if (points.length < FEWEST_FOR_A_TREND) return { points, trend: null };
  const molarities = points.map(({ molarity }) => molarity);
  const { slope, slopeProbability, isSlopeSignificant } = regress(
    points.map(({ place }) => place),
    molarities,
    CONFIDENCE,
  );
  return {
    points,
    trend: {
      percentPerTitration: (100 * slope) / meanOf(molarities),
      probability: slopeProbability,
      isSignificant: isSlopeSignificant,
    },
  };
}
