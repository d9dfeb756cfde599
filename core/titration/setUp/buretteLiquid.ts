import { luminanceOf } from '../../equilibrium';
import type { HouseRules } from '../../laboratory';
import { appearanceOf, labelledMolarity } from '../../reagent';
import { arrangementOf } from './arrangement';

/** What a burette holds, as an eye sees it. */
export interface BuretteLiquid {
  /** sRGB; null where it is as clear as water. */
  readonly css: string | null;
  /** `violet`; null where it has none. */
  readonly word: string | null;
  /** The edge of the meniscus that is read, both times. */
  readonly readAt: HouseRules['darkMeniscus'];
}

/** A solution darker than this hides the bottom of its meniscus; nominal, between dichromate and iodine. */
const DARK = 0.1;

/** The liquid in the burette of a run: its colour at its own strength, and where its meniscus is read. */
export function buretteLiquid(
  references: Parameters<typeof arrangementOf>[0],
  { darkMeniscus }: Pick<HouseRules, 'darkMeniscus'>,
): BuretteLiquid {
  const { inBurette } = arrangementOf(references);
  const seen = appearanceOf(inBurette, Number(labelledMolarity(inBurette)));
  if (!seen) return { css: null, word: null, readAt: 'bottom' };
  return { ...seen, readAt: luminanceOf(seen.css) < DARK ? darkMeniscus : 'bottom' };
}
