import type { Id, PlainDate } from '../../grammar';
import type { SignatureMeaning } from './signature';
import type { HouseRules } from '../../laboratory';
import type { DecimalText, Origin } from '../../measurement';
import type { CertifiedCorrections } from '../../reagent';

/** A frozen result with everything that it rests on. */
export interface Certificate {
  readonly number: string;
  readonly molarity: DecimalText;
  readonly expandedUncertainty: DecimalText;
  readonly coverageFactor: DecimalText;
  /** In equivalents per litre, for the reaction of the method; null where the house rule states none. */
  readonly normality: {
    readonly value: DecimalText;
    readonly equivalentsPerMole: number;
  } | null;
  /** Unrounded, mol/L, for whatever is computed with it later. */
  readonly unrounded: { readonly molarity: number; readonly standardUncertainty: number };
  readonly effectiveDegreesOfFreedom: number | null;
  /** What it rests on, for whatever is computed with it later; empty on certificates of before. */
  readonly restsOn: readonly Origin[];
  /** What was corrected, and what it would be as measured; null on certificates of before. */
  readonly corrections: CertifiedCorrections | null;
  readonly relativeSdPercent: DecimalText | null;
  readonly replicatesMade: number;
  readonly replicatesAveraged: number;
  readonly replicates: readonly CertifiedReplicate[];
  readonly indicator: string;
  readonly temperatureC: DecimalText;
  /** The lot, or the bottle with its certificate; with the excess of a back-titration. */
  readonly standard: string;
  /** The balance, or what measured the aliquots. */
  readonly measuredWith: string;
  readonly burette: string;
  /** Who entered the readings, in the order of their first one. */
  readonly analystIds: readonly Id[];
  /** In the order of signing; empty on certificates of before, which were signed once, by who certified. */
  readonly signatures: readonly {
    readonly means: SignatureMeaning;
    readonly by: Id;
    readonly at: string;
  }[];
  /** Whether somebody signed who had no part in the work; null on certificates of before. */
  readonly isIndependent: boolean | null;
  readonly certifiedById: Id;
  readonly certifiedOn: PlainDate;
  readonly validUntil: PlainDate;
  /** Why it was certified in spite of a warning. */
  readonly reason: string | null;
  readonly rules: HouseRules;
  /** Where these were not the ones in force, in a sentence each. */
  readonly deviations: readonly string[];
  /** The version of the run that it was computed from. */
  readonly runVersion: number;
  readonly coreVersion: string;
  readonly catalogueVersion: string;
}

/** Where a certificate is: its page at the laboratory's address, and what the server gives out under that of its interface. */
export function certificateLink(baseUrl: string, runId: Id, number: string): string {
  return `${baseUrl}/runs/${runId}/certificates/${encodeURIComponent(number)}`;
}

/** One flask as the certificate lists it. */
interface CertifiedReplicate {
  readonly flask: number;
  /** With its unit: `0.4802 g`. */
  readonly portion: string;
  readonly titreMl: DecimalText | null;
  readonly verdict: string;
  readonly why: string | null;
}
