import type { ComponentProps, ReactNode } from 'react';
import { useState } from 'react';
import { Button } from './Button';

/** A button that opens a question, and what is asked until it is closed. */
export function Asking({
  button,
  children: ask,
  ...rest
}: {
  readonly button: ReactNode;
  readonly children: (close: () => void) => ReactNode;
} & Omit<ComponentProps<typeof Button>, 'children' | 'onClick'>) {
  const [isAsking, setAsking] = useState(false);
  return (
    <>
      <Button
        {...rest}
        onClick={() => {
          setAsking(true);
        }}
      >
        {button}
      </Button>
      {isAsking &&
        ask(() => {
          setAsking(false);
        })}
    </>
  );
}
