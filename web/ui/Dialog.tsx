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
    // What opened it may be gone, as an item of a menu is; the heading of the page is always there.
    const before = opener?.isConnected ? opener : document.querySelector('h1');
    const next = returnTo?.current ?? before;
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
        <Primitive.Overlay className="fixed inset-0 bg-ink/40" />
        <Primitive.Content
          onCloseAutoFocus={(event) => {
            event.preventDefault();
            giveFocusBack();
          }}
          className={`fixed top-1/2 left-1/2 max-h-[98vh] ${isWide ? 'w-[min(1080px,96vw)]' : 'w-[min(560px,92vw)]'} -translate-x-1/2 -translate-y-1/2 overflow-y-auto rounded-lg border-t-4 border-violet bg-paper p-6 shadow-2xl`}
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
