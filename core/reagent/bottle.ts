import type { Container, Own } from '../chemistry';
import type { Id, PlainDate } from '../grammar';
import type { DecimalText, Origin } from '../measurement';
import type { CorrectionHow } from '../wording';
import type { Correction, Provenance, RecordHead, Withdrawable, WithdrawalBody } from '../record';

/** What a solution is kept for. An auxiliary (acid, indicator) provides the medium and is in no equation. */
export type Purpose = 'titrant' | 'standard' | 'auxiliary';

/** Something that a solution was made from. */
export interface Parent {
  readonly kind: 'lot' | 'bottle';
  readonly id: Id;
}

/** A molarity as it was computed, for whatever is computed with it later. */
export interface UnroundedMolarity {
  /** mol/L. */
  readonly molarity: number;
  /** mol/L. */
  readonly standardUncertainty: number;
  /** Of the standard uncertainty; null for endless ones. */
  readonly effectiveDegreesOfFreedom: number | null;
  /** What it rests on; empty where nobody kept that. */
  readonly restsOn: readonly Origin[];
}

/** A molarity as a label states it. */
export interface StatedMolarity {
  readonly molarity: DecimalText;
  readonly expandedUncertainty: DecimalText;
  readonly coverageFactor: DecimalText;
  /** Null where only the label's figures are known. */
  readonly unrounded: UnroundedMolarity | null;
}

/** A solution as it was made up. */
export interface PreparedBottle {
  /** What is written on the bottle: `0417`. */
  readonly code: string;
  readonly purpose: Purpose;
  /** A substance, or an indicator, of the catalogue. */
  readonly substanceId: string;
  readonly own?: Own;
  /** Null for an indicator, which has none. */
  readonly nominalMolarity: DecimalText | null;
  readonly volumeMl: DecimalText;
  readonly parents: readonly Parent[];
  /** The preparation in which it was made; null when it was only written down. */
  readonly preparationId: Id | null;
  /** Known from how it was made, standard weighed or pipetted, made up to a mark; null while the molarity is nominal. */
  readonly made: StatedMolarity | null;
  /** Between what a nominal molarity plausibly lies, mol/L; null when nobody computed it. */
  readonly plausibleMolarity: readonly [low: DecimalText, high: DecimalText] | null;
  /** How many times weaker it is than what was diluted; null unless it is a diluted sample. */
  readonly dilutionFactor: DecimalText | null;
  readonly preparedOn: PlainDate;
  readonly preparedBy: Id;
  /** Last day of what needs no standardization; null for a titrant, whose certificate says. */
  readonly useBy: PlainDate | null;
  readonly container: Container;
  readonly note: string;
}

/** By how much a result was corrected, or would have been, in %, and what was done about it. */
interface CertifiedCorrection {
  readonly percent: DecimalText;
  readonly how: CorrectionHow;
}

/** The corrections of a certified result, beside the result without them. */
export interface CertifiedCorrections {
  readonly referenceC: DecimalText;
  readonly asMeasured: DecimalText;
  readonly temperature: CertifiedCorrection | null;
  readonly buoyancy: CertifiedCorrection | null;
  /** What read the temperature; null where nobody measured it. */
  readonly thermometer: string | null;
}

/** What a standardization found, as the bottle's label states it. */
export interface CertifiedMolarity extends StatedMolarity {
  readonly runId: Id;
  readonly certificateNumber: string;
  readonly certifiedOn: PlainDate;
  readonly validUntil: PlainDate;
  /** Null on certificates of before anything could be corrected. */
  readonly corrections: CertifiedCorrections | null;
  /**
   * The indicator that told the end points: what is titrated with it should end by the same. Null where an electrode or the titrant
   * itself told; absent on certificates of before.
   */
  readonly indicatorId?: string | null;
}

/** A certificate that was taken back: what it stated holds no longer. */
interface WithdrawnCertificate {
  readonly runId: Id;
  readonly certificateNumber: string;
  readonly reason: string;
}

/** What of a bottle can be put right: what was typed, not what follows from a preparation. */
const CORRECTABLE = [
  'code',
  'nominalMolarity',
  'volumeMl',
  'preparedOn',
  'preparedBy',
  'useBy',
  'container',
  'note',
] as const;
export type CorrectedBottle = Pick<PreparedBottle, (typeof CORRECTABLE)[number]>;

/** What of a bottle can be put right, as it stands. */
export function correctable(bottle: PreparedBottle): CorrectedBottle {
  // Each of the fields that make up the type.
  return Object.fromEntries(CORRECTABLE.map((key) => [key, bottle[key]])) as CorrectedBottle;
}

export interface BottleFactBodies {
  'bottle.prepared': PreparedBottle;
  'bottle.certified': CertifiedMolarity;
  'bottle.certificate-withdrawn': WithdrawnCertificate;
  'bottle.corrected': CorrectedBottle & { readonly reason: string };
  /** A label was made for it: the first one, or another. */
  'bottle.labelled': { readonly sheet: string };
  'bottle.withdrawn': WithdrawalBody;
  'bottle.returned': WithdrawalBody;
}
export interface BottleState extends PreparedBottle, RecordHead, Withdrawable {
  readonly prepared: Provenance;
  /** Newest last; the last one is in force. */
  readonly certified: readonly CertifiedMolarity[];
  /** Oldest first. */
  readonly certificatesWithdrawn: readonly (Provenance & WithdrawnCertificate)[];
  /** Oldest first. */
  readonly corrections: readonly Correction<CorrectedBottle>[];
  /** Every label that was made, oldest first. */
  readonly labels: readonly (Provenance & { readonly sheet: string })[];
}

/** The nominal molarity of a titrant, mol/L. @throws RangeError for an indicator, which has none. */
export function nominalMolPerL({ code, nominalMolarity }: PreparedBottle): number {
  if (nominalMolarity === null) throw new RangeError(`bottle ${code} has no molarity`);
  return Number(nominalMolarity);
}
