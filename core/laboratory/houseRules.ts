import type { DecimalText } from '../measurement';

/** The conventions on which good laboratories differ. A run records the ones it followed. */
export interface HouseRules {
  /** Highest minus lowest molarity, relative to their mean. */
  readonly concordanceRelativeRangePercent: DecimalText;
  readonly agreeAtLeast: number;
  readonly titrationsAtMost: number;
  readonly firstIsRough: boolean;
  readonly readingDecimals: number;
  readonly rinses: number;
  readonly rinseMl: DecimalText;
  /** A molarity this far from nominal is asked about at certification. */
  readonly farFromNominalAskPercent: DecimalText;
  /** This far, it needs a reason. */
  readonly farFromNominalReasonPercent: DecimalText;
  /** What a freshly made titrant may differ from its label. */
  readonly nominalTolerancePercent: DecimalText;
}

export const DEFAULT_HOUSE_RULES: HouseRules = {
  concordanceRelativeRangePercent: '0.3',
  agreeAtLeast: 3,
  titrationsAtMost: 6,
  firstIsRough: true,
  readingDecimals: 2,
  rinses: 3,
  rinseMl: '4',
  farFromNominalAskPercent: '5',
  farFromNominalReasonPercent: '10',
  nominalTolerancePercent: '5',
};
