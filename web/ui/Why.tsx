import type { ReactNode } from 'react';
import { Explained } from './Explained';
import { Sentence } from './ShortName';

interface WhyProps {
  /** The figure as people call it: `the expected titre`. */
  readonly of: string;
  readonly because: readonly string[];
  /** The figure itself, which is pressed; the word *why* beside it unless given. */
  readonly children?: ReactNode;
}

/** A computed figure that says how it comes about. */
export function Why({ of, because, children = 'why?' }: WhyProps) {
  return (
    <Explained trigger={children} label={`why ${of}`} term="why" title={`Why ${of}`}>
      {because.map((sentence) => (
        <p key={sentence} className="mt-1">
          <Sentence text={sentence} />
        </p>
      ))}
    </Explained>
  );
}
