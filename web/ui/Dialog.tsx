import { Dialog as Primitive } from 'radix-ui';
import type { ReactNode, RefObject } from 'react';
import { useState } from 'react';

interface DialogProps {
  readonly title: string;
  readonly description: ReactNode;
  readonly onClose: () => void;
  /** What has the focus afterwards; what had it before, where nothing is said. */
  readonly returnTo?: RefObject<HTMLElement | null>;
  /** Room for a drawing beside the entries. */
  readonly isWide?: boolean;
  readonly children: ReactNode;
}

/** A question that must be answered or left before the page goes on. */
export function Dialog(props: DialogProps) {
  const { title, description, onClose, returnTo, isWide = false, children } = props;
  const [opener] = useState(() => document.activeElement);
  const giveFocusBack = (): void => {
    const next = returnTo?.current ?? (opener?.isConnected ? opener : placeAfter(opener));
    if (next instanceof HTMLElement) next.focus();
  };
  return (
    <Primitive.Root
      open
      onOpenChange={(isOpen) => {
        if (!isOpen) onClose();
      }}
    >
      <Primitive.Portal>
        <Primitive.Overlay className="fixed inset-0 z-20 bg-ink/40" />
        <Primitive.Content
          onCloseAutoFocus={(event) => {
            event.preventDefault();
            giveFocusBack();
          }}
          className={`fixed z-20 overflow-y-auto border-t-4 border-violet bg-paper p-4 max-md:inset-0 md:top-1/2 md:left-1/2 md:max-h-[98vh] md:-translate-x-1/2 md:-translate-y-1/2 md:rounded-lg md:p-6 md:shadow-2xl ${isWide ? 'md:w-[min(1080px,96vw)]' : 'md:w-[min(560px,92vw)]'}`}
        >
          <Primitive.Title className="text-xl font-bold">{title}</Primitive.Title>
          <Primitive.Description asChild>
            <div className="mt-1 mb-4 text-ink-soft">{description}</div>
          </Primitive.Description>
          {children}
        </Primitive.Content>
      </Primitive.Portal>
    </Primitive.Root>
  );
}

/**
 * Where the focus goes when what opened a dialog is gone: after a field that takes the keys of its page to the one that came in
 * its place, else, as after an item of a menu, to the heading.
 */
function placeAfter(opener: Element | null): Element | null {
  const entry = opener?.matches('[data-takes-keys]')
    ? document.querySelector('[data-takes-keys]')
    : null;
  return entry ?? document.querySelector('h1');
}
