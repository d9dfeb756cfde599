import type { Colour, Own } from '../chemistry';
import { findSubstance } from '../chemistry';
import { layerColour } from '../equilibrium';

/** Beyond this nobody sees it grow darker. */
const MOST_TIMES = 2;

/**
 * How a solution looks in a layer as deep as a burette is wide, at its own strength; null where it is as clear as water.
 *
 * @param molarityMolPerL null for the strength that the catalogue describes
 */
export function appearanceOf(
  { substanceId, own }: { readonly substanceId: string; readonly own?: Own | undefined },
  molarityMolPerL: number | null,
): Colour | null {
  const colour = findSubstance(substanceId, own)?.solutionColour ?? null;
  if (!colour) return null;
  const times = molarityMolPerL === null ? 1 : molarityMolPerL / colour.atMolPerL;
  return { word: colour.word, css: layerColour(colour.css, Math.min(MOST_TIMES, times)) };
}
