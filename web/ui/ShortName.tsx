import { findContent } from '#core/chemistry';
import { ChemicalFormula } from './typeset';

/** The short name of a substance or indicator; with true subscripts where that is a formula. */
export function ShortName({ of }: { readonly of: string }) {
  const content = findContent(of);
  if (!content) return of;
  // An indicator has a name only; what is no formula stays as it is.
  return content.formula === null ? content.shortName : <ChemicalFormula of={content.shortName} />;
}

/** A sentence in which the short name of a substance may stand, typeset. */
export function Sentence({ text, about }: { readonly text: string; readonly about: string }) {
  const shortName = findContent(about)?.shortName;
  if (shortName === undefined) return text;
  const [before, ...after] = text.split(` ${shortName} `);
  if (after.length === 0) return text;
  return (
    <>
      {before} <ShortName of={about} /> {after.join(` ${shortName} `)}
    </>
  );
}
