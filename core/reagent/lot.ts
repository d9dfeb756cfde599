import type {
  Correction,
  FactOf,
  Provenance,
  RecordHead,
  StoredFile,
  Withdrawable,
  WithdrawalBody,
} from '../record';
import type { HazardCode, MolarMass, Own } from '../chemistry';
import { findSubstance, molarMass } from '../chemistry';
import type { PlainDate } from '../grammar';
import type { Component, DecimalText, Distribution } from '../measurement';
import { figureText, percentOfFraction } from '../measurement';

/** How the content of a dissolved substance is stated; % by mass and by volume differ by the density. */
type Dissolved =
  | { readonly meaning: 'by-mass'; readonly densityGPerMl: DecimalText }
  | { readonly meaning: 'by-volume' }
  /** Its label states mol/L; the purity is then 1, with the relative half-width of the molarity. */
  | { readonly meaning: 'by-molarity'; readonly molarity: DecimalText };

/** A substance as received: one delivery of one maker's batch. */
export interface Lot {
  readonly substanceId: string;
  readonly own?: Own;
  readonly lotNumber: string;
  readonly supplier: string;
  /** As its maker's certificate bears it; absent of a lot that was registered before it was asked. */
  readonly certificateNumber?: string;
  /**
   * Mass of substance in a gram as received, 0 to 1; of a solution stated by volume, in a millilitre.
   */
  readonly purity: DecimalText;
  readonly purityHalfWidth: DecimalText;
  readonly purityDistribution: Distribution;
  /** Null for a solid. */
  readonly dissolved: Dissolved | null;
  /** As its certificate states it; null to take it from the formula. */
  readonly statedMolarMass: {
    readonly valueGPerMol: DecimalText;
    readonly standardUncertaintyGPerMol: DecimalText;
  } | null;
  /** g of a solid, mL of a solution; null when nobody keeps count. */
  readonly amountReceived: DecimalText | null;
  readonly store: string;
  readonly receivedOn: PlainDate;
  readonly openedOn: PlainDate | null;
  readonly useBy: PlainDate | null;
}

/** How a safety data sheet classifies a lot. */
interface Classification {
  readonly codes: readonly HazardCode[];
  /** Which sheet: its maker, number or date. */
  readonly sheet: string;
}

export interface LotFactBodies {
  'lot.registered': Lot;
  'lot.opened': { readonly openedOn: PlainDate };
  /** What was mistyped, put right: the whole lot as it should have been registered. */
  'lot.corrected': { readonly lot: Lot; readonly reason: string };
  /** What is there when somebody looks: g of a solid, mL of a solution. */
  'lot.counted': { readonly amountLeft: DecimalText; readonly reason: string };
  /** Hazards as its own safety data sheet states them, in place of those of the catalogue. */
  'lot.classified': Classification;
  'lot.put-to-dry': { readonly temperatureC: DecimalText };
  'lot.taken-out': Readonly<Record<string, never>>;
  'lot.certificate-attached': StoredFile;
  'lot.withdrawn': WithdrawalBody;
  'lot.returned': WithdrawalBody;
}
export type LotFact = FactOf<LotFactBodies>;

/** One stay in the oven. */
export interface DryingSpell {
  readonly temperatureC: DecimalText;
  readonly putIn: Provenance;
  /** Null while it is in. */
  readonly takenOut: Provenance | null;
}

export interface LotState extends RecordHead, Withdrawable {
  readonly registered: Provenance;
  readonly lot: Lot;
  /** The last count, which takes the place of what was received and taken before it. */
  readonly counted: (Provenance & { readonly amountLeft: DecimalText }) | null;
  /** By its own safety data sheet; null while the catalogue speaks for it. */
  readonly classified: (Provenance & Classification) | null;
  /** Oldest first. */
  readonly drying: readonly DryingSpell[];
  readonly certificates: readonly StoredFile[];
  /** Oldest first. */
  readonly corrections: readonly Correction<Lot>[];
}

/** Molar mass of the substance in the lot: as stated by its certificate, else from the formula. */
export function lotMolarMass(lot: Lot): MolarMass {
  if (lot.statedMolarMass) {
    return {
      valueGPerMol: Number(lot.statedMolarMass.valueGPerMol),
      standardUncertaintyGPerMol: Number(lot.statedMolarMass.standardUncertaintyGPerMol),
    };
  }
  const substance = findSubstance(lot.substanceId, lot.own);
  if (!substance) throw new RangeError(`substance ${lot.substanceId} is not in the catalogue`);
  return molarMass(substance.formula);
}

/**
 * What the content of a dissolved lot is multiplied by to give grams in a litre: the density; for one stated in mol/L, what its
 * label states.
 */
export function gramsPerLitreOfContent(lot: Lot): number | null {
  const { dissolved } = lot;
  switch (dissolved?.meaning) {
    case undefined:
      return null;
    case 'by-mass':
      return 1000 * Number(dissolved.densityGPerMl);
    case 'by-volume':
      return 1000;
    case 'by-molarity':
      return Number(dissolved.molarity) * lotMolarMass(lot).valueGPerMol;
  }
}

/** Molarity of a dissolved lot as its label states it, c = 1000 w rho / M, in mol/L; null for a solid. */
export function lotMolarity(lot: Lot): number | null {
  const gramsPerLitre = gramsPerLitreOfContent(lot);
  return gramsPerLitre === null
    ? null
    : (Number(lot.purity) * gramsPerLitre) / lotMolarMass(lot).valueGPerMol;
}

/** What is not known of a lot's purity. */
export function lotPurityComponent({ purityDistribution, purityHalfWidth }: Lot): Component {
  return {
    name: 'purity',
    distribution: purityDistribution,
    halfWidth: Number(purityHalfWidth),
  };
}

/** A purity or content with what it is known to, as it is printed: `99.98 % ± 0.05 %`. */
export function purityText({ purity, purityHalfWidth }: Lot): string {
  return `${figureText(percentOfFraction(purity))} % ± ${figureText(percentOfFraction(purityHalfWidth))} %`;
}

/** Whether its use-by date has passed. */
export function isLotExpired(lot: Lot, today: PlainDate): boolean {
  return lot.useBy !== null && lot.useBy < today;
}

/** In what a lot is counted. */
export function unitOfLot({ dissolved }: Pick<Lot, 'dissolved'>): 'g' | 'mL' {
  return dissolved ? 'mL' : 'g';
}
