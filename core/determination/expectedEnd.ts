import { requirePositive } from '../problem';
import type { Determination } from './determination';
import { requireSense } from './determination';
import type { EndOnBurette } from './endOnBurette';
import { endOnBurette } from './endOnBurette';
import { PlainDetermination } from './plainDetermination';
import type { PlainPortion } from './replicates';
import { portionOf } from './replicates';

/** Where a titration is expected to end. In mL. */
export interface ExpectedEnd {
  readonly titreMl: number;
  /** The titre is expected within plus or minus this. */
  readonly halfBandMl: number;
  readonly onBurette: EndOnBurette;
}

/** What a forecast rests on. */
export interface ForecastBasis {
  /** The result that is expected, in the unit of the determination, and how far it may be off, relative. */
  readonly expected: number;
  readonly relativeHalfBand: number;
  readonly initialMl: number;
  readonly capacityMl: number;
  readonly dropMl: number;
}

/**
 * Forecasts a titration, blank included: its balance solved for the titre.
 *
 * @throws Unanswerable when the determination, the portion or what is expected makes no sense.
 */
export function expectedEnd(
  determination: Determination,
  portion: PlainPortion,
  { expected, relativeHalfBand, initialMl, capacityMl, dropMl }: ForecastBasis,
): ExpectedEnd {
  requireSense(determination);
  requirePositive(expected, 'expected');
  const plain = new PlainDetermination(determination);
  const netMl = plain.titreMl(portionOf(determination, portion), expected);
  const titreMl = netMl + plain.subtractedMl;
  const halfBandMl = relativeHalfBand / Math.abs(plain.relativePerMl(netMl)) + dropMl / 2;
  return {
    titreMl,
    halfBandMl,
    onBurette: endOnBurette(initialMl, initialMl + titreMl, halfBandMl, capacityMl),
  };
}
