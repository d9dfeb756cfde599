import type { FactOf, Provenance } from '../record';
import { provenance } from '../record';
import type { MolarMass } from '../chemistry';
import { findSubstance, molarMass } from '../chemistry';
import type { PlainDate } from '../laboratory';
import type { DecimalText, Distribution } from '../measurement';

/** A substance as received: one delivery of one maker's batch. */
export interface Lot {
  readonly substanceId: string;
  readonly lotNumber: string;
  readonly supplier: string;
  /** Mass fraction, 0 to 1. */
  readonly purity: DecimalText;
  readonly purityHalfWidth: DecimalText;
  readonly purityDistribution: Distribution;
  /** As its certificate states it; null to take it from the formula. */
  readonly statedMolarMass: {
    readonly valueGPerMol: DecimalText;
    readonly standardUncertaintyGPerMol: DecimalText;
  } | null;
  readonly receivedOn: PlainDate;
  readonly useBy: PlainDate | null;
}

interface LotFactBodies {
  'lot.registered': Lot;
}
type LotFact = FactOf<LotFactBodies>;

export interface LotState {
  readonly id: string;
  readonly version: number;
  readonly registered: Provenance;
  readonly lot: Lot;
}

/** Folds the facts of one lot; null before the first. */
export function foldLot(facts: readonly LotFact[]): LotState | null {
  const [first] = facts;
  if (!first) return null;
  return {
    id: first.recordId,
    version: facts.length,
    registered: provenance(first),
    lot: first.body,
  };
}

/** Molar mass of the substance in the lot: as stated by its certificate, else from the formula. */
export function lotMolarMass(lot: Lot): MolarMass {
  if (lot.statedMolarMass) {
    return {
      valueGPerMol: Number(lot.statedMolarMass.valueGPerMol),
      standardUncertaintyGPerMol: Number(lot.statedMolarMass.standardUncertaintyGPerMol),
    };
  }
  const substance = findSubstance(lot.substanceId);
  if (!substance) throw new RangeError(`substance ${lot.substanceId} is not in the catalogue`);
  return molarMass(substance.formula);
}

/** Whether its use-by date has passed. */
export function isLotExpired(lot: Lot, today: PlainDate): boolean {
  return lot.useBy !== null && lot.useBy < today;
}
