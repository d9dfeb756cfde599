import type { ReactNode } from 'react';
import { useRef } from 'react';
import { Button } from './Button';

interface FileButtonProps {
  /** What the file is, for who does not see the button. */
  readonly label: string;
  /** Types that are offered. */
  readonly accept: string;
  readonly onFile: (file: File) => void;
  readonly children: ReactNode;
}

/** A button that asks the system for a file. */
export function FileButton({ label, accept, onFile, children }: FileButtonProps) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <input
        ref={input}
        type="file"
        aria-label={label}
        accept={accept}
        className="sr-only"
        tabIndex={-1}
        onChange={(event) => {
          const [file] = event.target.files ?? [];
          if (file) onFile(file);
          event.target.value = '';
        }}
      />
      <Button
        onClick={() => {
          input.current?.click();
        }}
      >
        {children}
      </Button>
    </>
  );
}
