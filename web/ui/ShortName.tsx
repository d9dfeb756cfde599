import { findContent } from '#core/chemistry';
import { ChemicalFormula } from './typeset';

/** The short name of a substance or indicator; with true subscripts where that is its formula. */
export function ShortName({ of }: { readonly of: string }) {
  const content = findContent(of);
  if (!content) return of;
  const { shortName, formula } = content;
  return shortName === formula ? <ChemicalFormula of={formula} /> : shortName;
}
