import { ANALYSES } from './analyses';
import type { Catalogue } from './entries';
import { INDICATORS } from './indicators';
import { METHODS } from './methods';
import { PREPARATIONS } from './preparations';
import { CONCENTRATES, KEEPING, SOLVENTS } from './solutions';
import { SUBSTANCES } from './substances';

/**
 * The catalogue that ships with the program: data only, each entry with its source. Nothing in the program asks for an
 * entry by name.
 */
export const CATALOGUE: Catalogue = {
  substances: SUBSTANCES,
  concentrates: CONCENTRATES,
  solvents: SOLVENTS,
  indicators: INDICATORS,
  methods: METHODS,
  analyses: ANALYSES,
  preparations: PREPARATIONS,
  keeping: KEEPING,
};
