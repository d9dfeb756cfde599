import { DropdownMenu } from 'radix-ui';
import type { ComponentProps, ReactNode } from 'react';
import { Button } from './Button';

interface MenuProps extends Omit<ComponentProps<typeof Button>, 'children'> {
  readonly button: string;
  /** Its items. */
  readonly children: ReactNode;
}

/** What is behind one button. */
export function Menu({ button, children, ...rest }: MenuProps) {
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger asChild>
        <Button {...rest}>{button}</Button>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="end"
          sideOffset={4}
          collisionPadding={12}
          className="min-w-[250px] rounded-md border border-rule-strong bg-sheet p-1 shadow-xl"
        >
          {children}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

/** One thing of a menu, with room for a finger. */
export function MenuItem({ className = '', ...rest }: ComponentProps<typeof DropdownMenu.Item>) {
  return (
    <DropdownMenu.Item
      className={`flex min-h-12 cursor-pointer items-center justify-between gap-6 rounded px-3 data-highlighted:bg-violet-wash data-highlighted:outline-none ${className}`}
      {...rest}
    />
  );
}
