import { Popover } from 'radix-ui';
import type { ReactNode } from 'react';
import type { GlossaryKey } from '#core/wording';
import { GLOSSARY } from '#core/wording';

interface TermProps {
  readonly of: GlossaryKey;
  /** The word as it stands in the sentence, where that is not as the glossary has it. */
  readonly children?: ReactNode;
}

/** A word of the craft, which says what it means when it is pressed. */
export function Term({ of, children }: TermProps) {
  const { word, meaning } = GLOSSARY[of];
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
          <b className="block">{word}</b>
          {meaning}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
