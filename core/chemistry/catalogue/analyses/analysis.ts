import type { Analysis, StatedAs } from '../entries';
import { FILL_BELOW_EYES, TEXTBOOK } from '../inFlasks';

type Given = Omit<
  Analysis,
  | 'excess'
  | 'links'
  | 'solventId'
  | 'flaskTemperatureC'
  | 'rules'
  | 'needsBlank'
  | 'cautions'
  | 'source'
> &
  Partial<Analysis>;

/** Two determinations of each sample are usual, and none of them rough: what is expected is known from the last one. */
export const IN_DUPLICATE = { firstIsRough: false, agreeAtLeast: 2 } as const;

/** Fills in what most analyses share. */
export function analysis(given: Given): Analysis {
  return {
    excess: null,
    links: [],
    solventId: 'water',
    flaskTemperatureC: null,
    rules: IN_DUPLICATE,
    needsBlank: false,
    cautions: [FILL_BELOW_EYES],
    source: TEXTBOOK,
    ...given,
  };
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
