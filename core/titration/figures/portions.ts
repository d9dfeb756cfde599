import type { Flask } from '../run';
import { isBlank, portionAmount } from '../run';
import type { EquipmentState } from '../../metrology';
import type { RunReferences } from '../setUp';
import { isAnalysis } from '../setUp';
import { deviationMl } from './runDetermination';

/** The amount of a portion as a number: g or mL. */
export function amountIn({ portion }: Pick<Flask, 'portion'>): number {
  return Number(portionAmount(portion.value));
}

/** The same as it really was: a calibrated pipette delivers what its calibration found. */
export function deliveredIn(references: RunReferences, flask: Flask): number {
  const vessel = vesselOf(references);
  return vessel && !isBlank(flask) ? amountIn(flask) + deviationMl(vessel) : amountIn(flask);
}

/** What measures volumes into the flasks; null where portions are weighed. */
function vesselOf(references: RunReferences): EquipmentState | null {
  if (isAnalysis(references)) {
    const { portioning } = references;
    return portioning.kind === 'aliquot' ? portioning.vessel : null;
  }
  return references.standard.kind === 'bottle' ? references.standard.vessel : null;
}
