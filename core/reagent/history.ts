import type { PlainDate } from '../grammar';
import type { CorrectionRules } from '../laboratory';
import type { DecimalText } from '../measurement';
import { decimalPlaces, roundHalfEven } from '../measurement';
import type { CertifiedCorrections, CertifiedMolarity } from './bottle';

/** A certificate of a bottle among the others. */
export interface HistoryEntry {
  readonly certified: CertifiedMolarity;
  /** What it states under the rule by which the laboratory corrects today; null where it states that anyway, or nobody can say. */
  readonly underTodaysRule: DecimalText | null;
  /** The day from which on figures are corrected otherwise than in the certificate before; null where they are not. */
  readonly switchedOn: PlainDate | null;
}

/** The certificates of a bottle, oldest first, under one rule: a step that comes from a rule is no drift. */
export function historyOf(
  certified: readonly CertifiedMolarity[],
  rules: CorrectionRules,
): readonly HistoryEntry[] {
  return certified.map((one, i) => {
    const before = certified[i - 1];
    return {
      certified: one,
      underTodaysRule: underRule(one, rules),
      switchedOn:
        before && isSwitched(before.corrections, one.corrections) ? one.certifiedOn : null,
    };
  });
}

/**
 * Whether a certificate was corrected otherwise than the one before it. What has nothing to correct, such as a molarity between two
 * solutions, is no switch.
 */
function isSwitched(
  before: CertifiedCorrections | null,
  now: CertifiedCorrections | null,
): boolean {
  const differs = (key: 'temperature' | 'buoyancy'): boolean => {
    const [was, is] = [before, now].map((one) => (one ? one[key] : UNCORRECTED));
    return !!was && !!is && (was.how === 'corrected') !== (is.how === 'corrected');
  };
  return (
    differs('temperature') ||
    differs('buoyancy') ||
    Number(before?.referenceC ?? REFERENCE_C) !== Number(now?.referenceC ?? REFERENCE_C)
  );
}

/** Before anything could be corrected, nothing was. */
const UNCORRECTED = { how: 'left-out' } as const;
const REFERENCE_C = 20;

function underRule(
  { corrections, molarity }: CertifiedMolarity,
  { volumeCorrection, buoyancyCorrection }: CorrectionRules,
): DecimalText | null {
  if (!corrections) return null;
  const { asMeasured, temperature, buoyancy, thermometer } = corrections;
  // A temperature that nobody measured corrects nothing, whatever the rule.
  const isCooled = volumeCorrection === 'corrected' && thermometer !== null;
  const sizes = [
    { size: temperature, isWanted: isCooled },
    { size: buoyancy, isWanted: buoyancyCorrection === 'corrected' },
  ].flatMap(({ size, isWanted }) => (size ? [{ ...size, isWanted }] : []));
  if (sizes.every(({ how, isWanted }) => (how === 'corrected') === isWanted)) return null;
  const value = sizes
    .filter(({ isWanted }) => isWanted)
    .reduce((product, { percent }) => product * (1 + Number(percent) / 100), Number(asMeasured));
  return roundHalfEven(value, decimalPlaces(molarity));
}
