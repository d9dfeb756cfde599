import type { ReactNode } from 'react';
import type { GlossaryEntry, GlossaryKey } from '#core/wording';
import { GLOSSARY, wordsIn } from '#core/wording';
import { Explained } from './Explained';

interface TermProps {
  readonly of: GlossaryKey;
  /** The word as it stands in the sentence, where that is not as the glossary has it. */
  readonly children?: ReactNode;
}

/** A word of the craft, which says what it means when it is pressed. */
export function Term({ of, children }: TermProps) {
  const entry: GlossaryEntry = GLOSSARY[of];
  const { word, meaning } = entry;
  return (
    <Explained
      trigger={children ?? word}
      label={`${typeof children === 'string' ? children : word}: what it means`}
      term={of}
      title={<GlossaryHead of={entry} />}
    >
      {meaning}
    </Explained>
  );
}

/** A word with its symbol, where it has one. */
export function GlossaryHead({ of: { word, symbol } }: { readonly of: GlossaryEntry }) {
  return (
    <>
      {word}
      {symbol !== undefined && (
        <>
          , <i>{symbol}</i>
        </>
      )}
    </>
  );
}

/** A sentence whose words of the craft say what they mean. */
export function Marked({ text }: { readonly text: string }) {
  return wordsIn(text).map(({ text: piece, of }, i) =>
    of === null ? (
      piece
    ) : (
      <Term key={i} of={of}>
        {piece}
      </Term>
    ),
  );
}
