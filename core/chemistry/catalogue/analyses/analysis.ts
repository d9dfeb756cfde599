import type { Analysis, StatedAs } from '../entries';
import type { Written } from '../inFlasks';
import { AS_USUAL, FILL_BELOW_EYES } from '../inFlasks';

/** Two determinations of each sample are usual, and none of them rough: what is expected is known from the last one. */
export const IN_DUPLICATE = { firstIsRough: false, agreeAtLeast: 2 } as const;

/** Fills in what most analyses share. */
export function analysis(given: Written<Analysis, 'rules' | 'cautions'>): Analysis {
  return { ...AS_USUAL, rules: IN_DUPLICATE, cautions: [FILL_BELOW_EYES], ...given };
}

/** As what a content is stated; `perFormulaUnit` counts the species that react in it. */
export function as(
  name: string,
  formula: string,
  perFormulaUnit = 1,
  densityGPerMl: number | null = null,
): StatedAs {
  return { name, formula, perFormulaUnit, densityGPerMl };
}
