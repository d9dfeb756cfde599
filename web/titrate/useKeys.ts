import { useHotkeys } from 'react-hotkeys-hook';
import { isDialogOpen } from '../ui/isDialogOpen';

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
  useHotkeys(
    [...new Set(ways.map(({ key }) => key))],
    (event) => ways.find(({ key }) => key === event.key.toLowerCase())?.go(),
    {
      // By what the key writes, wherever it lies on the keyboard; `?` takes Shift on some.
      ...{ useKey: true, ignoreModifiers: true, enableOnFormTags: true, preventDefault: true },
      enabled: ways.length > 0,
      ignoreEventWhen: (event) =>
        event.ctrlKey ||
        event.metaKey ||
        event.altKey ||
        event.defaultPrevented ||
        isDialogOpen() ||
        isWriting(event.target),
    },
  );
}

function isWriting(target: EventTarget | null): boolean {
  if (!(target instanceof HTMLElement)) return false;
  const takesText = target.matches(
    'input:not([type=checkbox]):not([type=radio]), textarea, select',
  );
  return takesText && target.dataset.takesKeys === undefined;
}
