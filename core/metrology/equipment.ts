import type { PlainDate } from '../grammar';
import type { Correction, Provenance, RecordHead, Withdrawable, WithdrawalBody } from '../record';
import type { DecimalText, Distribution } from '../measurement';
import { calibratedVolume, correctionAtMl, interpolated } from './calibration';

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
  readonly calibrationDue: PlainDate | null;
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
  readonly calibrationDue: PlainDate | null;
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
  readonly calibrationDue: PlainDate | null;
}

/** A thermometer. */
export interface Thermometer {
  readonly type: 'thermometer';
  readonly name: string;
  /** Smallest step shown or division, K. */
  readonly resolutionK: DecimalText;
  /** Half-width of its deviation, K. */
  readonly toleranceK: DecimalText;
  readonly calibrationDue: PlainDate | null;
}

/** A hot plate or an oven: what it bears is what limits a day's work, not a figure in an equation. */
export interface Heater {
  readonly type: 'heater';
  readonly name: string;
  readonly kind: 'hot-plate' | 'oven';
  readonly maxTemperatureC: DecimalText;
  readonly calibrationDue: PlainDate | null;
}

export type Equipment = Balance | Burette | Glassware | Thermometer | Heater;

/** Whether an instrument is a pipette of one volume. */
export function isPipette(equipment: Equipment): equipment is Glassware {
  return equipment.type === 'glassware' && equipment.kind === 'one-mark-pipette';
}

/** A calibration as it was written down: figures of a certificate, or our own weighings of water. */
export interface Calibration {
  readonly calibratedOn: PlainDate;
  /** Plain date; null when it has none. */
  readonly due: PlainDate | null;
  /** Number of the certificate and who made it, or how it was done. */
  readonly certificate: string;
  readonly found:
    | {
        readonly kind: 'points';
        readonly points: readonly {
          /** What is marked or shown: mL, g or °C, by the kind of equipment. */
          readonly nominal: DecimalText;
          /** True value minus nominal. */
          readonly deviation: DecimalText;
          /** k = 2. */
          readonly expandedUncertainty: DecimalText;
        }[];
      }
    | {
        readonly kind: 'weighings';
        readonly temperatureC: DecimalText;
        readonly volumes: readonly {
          readonly nominalMl: DecimalText;
          readonly weighingsG: readonly DecimalText[];
        }[];
      };
}

export interface EquipmentFactBodies {
  'equipment.registered': Equipment;
  'equipment.calibrated': Calibration;
  /** What was mistyped, put right: the whole piece as it should have been registered. */
  'equipment.corrected': { readonly equipment: Equipment; readonly reason: string };
  'equipment.withdrawn': WithdrawalBody;
  'equipment.returned': WithdrawalBody;
}
/** A piece of equipment as its facts tell it. */
export interface EquipmentState extends RecordHead, Withdrawable {
  readonly registered: Provenance;
  /** As registered, with the due date of its last calibration. */
  readonly equipment: Equipment;
  /** Oldest first; the last one is in force. */
  readonly calibrations: readonly (Provenance & Calibration)[];
  /** Oldest first. */
  readonly corrections: readonly Correction<Equipment>[];
}

/** A point of a calibration in numbers: what is marked, how far the truth is from it, and how sure that is (k = 2). */
export interface CalibrationPoint {
  readonly nominal: number;
  readonly deviation: number;
  readonly expandedUncertainty: number;
  /** Standard deviation of one filling; null where a certificate does not say it, or too few were weighed to tell. */
  readonly repeatability: number | null;
}

/** Fillings whose scatter says how well one is repeated. */
const FILLINGS_THAT_TELL = 5;

/** The points of a calibration, computed where it consists of weighings. @throws Unanswerable as `calibratedVolume`. */
export function calibrationPoints({ found }: Calibration): readonly CalibrationPoint[] {
  if (found.kind === 'points') {
    return found.points.map(({ nominal, deviation, expandedUncertainty }) => ({
      nominal: Number(nominal),
      deviation: Number(deviation),
      expandedUncertainty: Number(expandedUncertainty),
      repeatability: null,
    }));
  }
  return found.volumes.map(({ nominalMl, weighingsG }) => {
    const volume = calibratedVolume(
      Number(nominalMl),
      Number(found.temperatureC),
      weighingsG.map(Number),
    );
    return {
      nominal: volume.nominalMl,
      deviation: volume.deviationMl,
      expandedUncertainty: volume.expandedUncertaintyMl,
      repeatability: weighingsG.length < FILLINGS_THAT_TELL ? null : volume.repeatabilityMl,
    };
  });
}

function lastPoints({ calibrations }: EquipmentState): readonly CalibrationPoint[] | null {
  const last = calibrations.at(-1);
  return last ? calibrationPoints(last) : null;
}

/** What a vessel's last calibration found for the volume marked on it; null where there is none. */
export function calibratedPointOf(state: EquipmentState): CalibrationPoint | null {
  const { equipment } = state;
  if (equipment.type !== 'glassware') return null;
  const marked = Number(equipment.volumeMl);
  return lastPoints(state)?.find(({ nominal }) => nominal === marked) ?? null;
}

/** What a calibration says where an instrument shows a value, linear between its points; null beyond them, and without one. */
export function certifiedAt(
  calibration: readonly CalibrationPoint[] | null,
  shown: number,
): Pick<CalibrationPoint, 'deviation' | 'expandedUncertainty'> | null {
  const at = (quantity: 'deviation' | 'expandedUncertainty'): number | null =>
    interpolated(
      (calibration ?? []).map((point) => ({ at: point.nominal, value: point[quantity] })),
      shown,
    );
  const [deviation, expandedUncertainty] = [at('deviation'), at('expandedUncertainty')];
  return deviation === null || expandedUncertainty === null
    ? null
    : { deviation, expandedUncertainty };
}

/** A balance with the points of its last calibration; null without one. */
export interface CalibratedBalance extends Balance {
  readonly calibration: readonly CalibrationPoint[] | null;
}

/** A balance as it weighs; null for other equipment. It was set to zero, so that it shows nothing wrong there. */
export function calibratedBalance(state: EquipmentState): CalibratedBalance | null {
  const { equipment } = state;
  if (equipment.type !== 'balance') return null;
  const points = lastPoints(state);
  const lowest = points?.toSorted((a, b) => a.nominal - b.nominal)[0];
  const atZero = lowest && lowest.nominal > 0 ? [{ ...lowest, nominal: 0, deviation: 0 }] : [];
  return { ...equipment, calibration: points && [...atZero, ...points] };
}

/** A thermometer with the points of its last calibration; null without one. */
export interface CalibratedThermometer extends Thermometer {
  readonly calibration: readonly CalibrationPoint[] | null;
}

/** A thermometer as it reads; null for other equipment. */
export function calibratedThermometer(state: EquipmentState): CalibratedThermometer | null {
  const { equipment } = state;
  return equipment.type === 'thermometer' ? { ...equipment, calibration: lastPoints(state) } : null;
}

/** A burette with the points of its last calibration; null without one, and where it does not reach over the whole scale. */
export interface CalibratedBurette extends Burette {
  readonly calibration: readonly CalibrationPoint[] | null;
}

/** A burette as it delivers; null for other equipment. */
export function calibratedBurette(state: EquipmentState): CalibratedBurette | null {
  const { equipment } = state;
  if (equipment.type !== 'burette') return null;
  const points = lastPoints(state) ?? [];
  const reachesToMl = Math.max(0, ...points.map(({ nominal }) => nominal));
  const isWhole = reachesToMl >= Number(equipment.capacityMl);
  return { ...equipment, calibration: isWhole ? points : null };
}

/** What a burette delivers beyond the difference of two readings, mL. */
export interface DeliveryCorrection {
  readonly correctionMl: number;
  /** k = 2. */
  readonly expandedUncertaintyMl: number;
}

/**
 * What a burette delivers between two readings beyond their difference, and the expanded uncertainty (k = 2) of that, mL:
 * those of the certificate at both readings, linear between its points, the readings taken as independent of each other.
 * Null where the burette is not calibrated over its whole scale.
 *
 * @throws Unanswerable `outside-calibration` for a reading beyond the scale.
 */
export function deliveryCorrection(
  { calibration }: CalibratedBurette,
  fromMl: number,
  toMl: number,
): DeliveryCorrection | null {
  if (!calibration) return null;
  const at = (quantity: 'deviation' | 'expandedUncertainty', readingMl: number): number =>
    correctionAtMl(
      calibration.map((point) => ({ readingMl: point.nominal, correctionMl: point[quantity] })),
      readingMl,
    );
  return {
    correctionMl: at('deviation', toMl) - at('deviation', fromMl),
    expandedUncertaintyMl: Math.hypot(
      at('expandedUncertainty', toMl),
      at('expandedUncertainty', fromMl),
    ),
  };
}

/** Whether its calibration has run out on a plain date. */
export function isCalibrationOverdue(equipment: Equipment, today: PlainDate): boolean {
  return equipment.calibrationDue !== null && equipment.calibrationDue < today;
}
