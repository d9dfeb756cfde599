import type { Analysis } from '../entries';
import { ACIDS_AND_BASES } from './acidsAndBases';
import { COMPLEXES_AND_SILVER } from './complexesAndSilver';
import { REDOX } from './redox';

/** Determinations with a certified titrant. */
export const ANALYSES: readonly Analysis[] = [
  ...ACIDS_AND_BASES,
  ...REDOX,
  ...COMPLEXES_AND_SILVER,
];
