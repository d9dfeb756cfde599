import type { Flask } from '../run';
import { isBlank, portionAmount } from '../run';
import type { RunReferences } from '../setUp';
import { deviationMl } from './runDetermination';

/** The amount of a portion as a number: g or mL. */
export function amountIn({ portion }: Pick<Flask, 'portion'>): number {
  return Number(portionAmount(portion.value));
}

/** The same as it really was: a calibrated pipette delivers what its calibration found. */
export function deliveredIn({ standard }: RunReferences, flask: Flask): number {
  if (standard.kind === 'lot' || isBlank(flask)) return amountIn(flask);
  return amountIn(flask) + deviationMl(standard.vessel);
}
