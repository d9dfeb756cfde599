import { Popover } from 'radix-ui';
import type { ReactNode } from 'react';

interface ExplainedProps {
  /** What is pressed, and what it is called to who does not see it. */
  readonly trigger: ReactNode;
  readonly label: string;
  /** By what tests and styles find it. */
  readonly term?: string;
  readonly title: ReactNode;
  readonly children: ReactNode;
}

/** What explains itself when it is pressed, where it stands. */
export function Explained({ trigger, label, term, title, children }: ExplainedProps) {
  return (
    <Popover.Root>
      <Popover.Trigger
        data-term={term}
        className="inline cursor-help underline decoration-rule-strong decoration-dotted underline-offset-4 hover:decoration-violet"
        aria-label={label}
      >
        {trigger}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          sideOffset={6}
          collisionPadding={12}
          className="z-30 max-w-[min(22rem,calc(100vw-24px))] rounded-md border border-rule-strong bg-sheet p-3 text-[15px] leading-snug font-normal text-ink shadow-xl"
        >
          <p className="font-bold">{title}</p>
          {children}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
