import type { Own } from '#core/chemistry';
import { CATALOGUE, findContent } from '#core/chemistry';
import { ChemicalFormula } from './typeset';

/** The short name of a substance or indicator; with true subscripts where that is a formula. */
export function ShortName({ of, own }: { readonly of: string; readonly own?: Own | undefined }) {
  const content = findContent(of, own);
  if (!content) return of;
  // An indicator has a name only; what is no formula stays as it is.
  return content.formula === null ? content.shortName : <ChemicalFormula of={content.shortName} />;
}

/** Short names that are set otherwise than they are typed, the longest first: one may begin another. */
const FORMULAS = CATALOGUE.substances
  .map(({ shortName }) => shortName)
  .filter((name) => /\d/.test(name))
  .toSorted((a, b) => b.length - a.length);

const FORMULA = new RegExp(`(?<![\\w·])(${FORMULAS.map(escaped).join('|')})(?![\\w·])`);

function escaped(text: string): string {
  return text.replaceAll(/[.*+?^${}()|[\]\\]/g, String.raw`\$&`);
}

/** A sentence of core in which short names of substances may stand, typeset. */
export function Sentence({ text }: { readonly text: string }) {
  // Split by a group, every second part is a formula.
  return text
    .split(FORMULA)
    .map((part, i) => (i % 2 === 1 ? <ChemicalFormula key={i} of={part} /> : part));
}
