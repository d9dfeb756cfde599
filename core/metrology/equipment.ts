import type { FactOf, Provenance } from '../record';
import { provenance } from '../record';
import type { DecimalText, Distribution } from '../measurement';

/** A balance. Its figures are those of its certificate or data sheet. */
export interface Balance {
  readonly type: 'balance';
  readonly name: string;
  readonly readabilityG: DecimalText;
  /** Standard deviation of a weighing. */
  readonly repeatabilityG: DecimalText;
  /** Half-width of the deviation from linearity, taken as rectangular. */
  readonly linearityG: DecimalText;
  readonly maxLoadG: DecimalText;
  /** Plain date; null when it has no due date. */
  readonly calibrationDue: string | null;
}

/** A burette, of glass with graduations or driven by a piston with a display. */
export interface Burette {
  readonly type: 'burette';
  readonly name: string;
  readonly construction: 'glass' | 'piston';
  readonly capacityMl: DecimalText;
  /** Glass: smallest division. Piston: smallest step of the display. */
  readonly divisionMl: DecimalText;
  readonly toleranceMl: DecimalText;
  readonly toleranceDistribution: Distribution;
  readonly dropMl: DecimalText;
  readonly calibrationDue: string | null;
}

/** A flask, pipette or cylinder. */
export interface Glassware {
  readonly type: 'glassware';
  readonly name: string;
  readonly kind: 'volumetric-flask' | 'one-mark-pipette' | 'measuring-cylinder';
  readonly volumeMl: DecimalText;
  /** Of the class that is printed on it, or of its certificate. */
  readonly toleranceMl: DecimalText;
  readonly toleranceDistribution: Distribution;
  /** Plain date; null when it has no due date. */
  readonly calibrationDue: string | null;
}

export type Equipment = Balance | Burette | Glassware;

interface EquipmentFactBodies {
  'equipment.registered': Equipment;
}
type EquipmentFact = FactOf<EquipmentFactBodies>;

/** A piece of equipment as its facts tell it. */
export interface EquipmentState {
  readonly id: string;
  readonly version: number;
  readonly registered: Provenance;
  readonly equipment: Equipment;
}

/** Folds the facts of one piece of equipment; null before the first. */
export function foldEquipment(facts: readonly EquipmentFact[]): EquipmentState | null {
  const [first] = facts;
  if (!first) return null;
  return {
    id: first.recordId,
    version: facts.length,
    registered: provenance(first),
    equipment: first.body,
  };
}

/** Whether its calibration has run out on a plain date. */
export function isCalibrationOverdue(equipment: Equipment, today: string): boolean {
  return equipment.calibrationDue !== null && equipment.calibrationDue < today;
}
