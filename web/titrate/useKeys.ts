import { useEffect } from 'react';

/** Something that one key does. */
export interface Way {
  /** A letter, or `?`. */
  readonly key: string;
  readonly name: string;
  readonly go: () => void;
}

/**
 * Single keys of the bench: a letter is a command wherever no text is being written. An entry field marks itself with
 * `data-takes-keys` while it is empty or holds what it was given, for no figure begins with a letter.
 */
export function useKeys(ways: readonly Way[]): void {
  useEffect(() => {
    const onKeyDown = (event: KeyboardEvent): void => {
      if (event.ctrlKey || event.metaKey || event.altKey || event.defaultPrevented) return;
      if (document.querySelector('[role="dialog"]') || isWriting(event.target)) return;
      const way = ways.find(({ key }) => key === event.key.toLowerCase());
      if (!way) return;
      event.preventDefault();
      way.go();
    };
    window.addEventListener('keydown', onKeyDown);
    return () => {
      window.removeEventListener('keydown', onKeyDown);
    };
  });
}

function isWriting(target: EventTarget | null): boolean {
  if (!(target instanceof HTMLElement)) return false;
  const takesText = target.matches(
    'input:not([type=checkbox]):not([type=radio]), textarea, select',
  );
  return takesText && target.dataset.takesKeys === undefined;
}
