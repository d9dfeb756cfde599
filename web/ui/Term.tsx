import { Popover } from 'radix-ui';
import type { ReactNode } from 'react';
import type { GlossaryEntry, GlossaryKey } from '#core/wording';
import { GLOSSARY } from '#core/wording';

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
    <Popover.Root>
      <Popover.Trigger
        data-term={of}
        className="inline cursor-help underline decoration-rule-strong decoration-dotted underline-offset-4 hover:decoration-violet"
        aria-label={`${typeof children === 'string' ? children : word}: what it means`}
      >
        {children ?? word}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          sideOffset={6}
          collisionPadding={12}
          className="z-30 max-w-[min(22rem,calc(100vw-24px))] rounded-md border border-rule-strong bg-sheet p-3 text-[15px] leading-snug font-normal text-ink shadow-xl"
        >
          <p className="font-bold">
            <GlossaryHead of={entry} />
          </p>
          {meaning}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
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
