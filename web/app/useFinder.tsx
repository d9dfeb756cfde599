import type { ReactNode } from 'react';
import { lazy, Suspense, useEffect, useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { isDialogOpen } from '../ui/isDialogOpen';

const load = async () => ({ default: (await import('./FinderDialog')).FinderDialog });
const FinderDialog = lazy(load);

/** By then the page that was asked for stands. */
const LOAD_AFTER_MS = 1_000;

/**
 * The way to anything by its name: a dialog, opened by `/` where no text is being written, by Ctrl or Cmd with K anywhere, or by what
 * `open` is given to.
 */
export function useFinder(): { readonly open: () => void; readonly finder: ReactNode } {
  const [isOpen, setOpen] = useState(false);
  const open = (): void => {
    setOpen(true);
  };
  useEffect(() => {
    // No page waits for it, and nobody waits for it at the first key.
    const timer = setTimeout(() => void load().catch(() => undefined), LOAD_AFTER_MS);
    return () => {
      clearTimeout(timer);
    };
  }, []);
  const options = { preventDefault: true, enabled: !isOpen };
  useHotkeys('/', open, {
    ...options,
    // By what the key writes: on some keyboards it takes Shift.
    ...{ useKey: true, ignoreModifiers: true },
    ignoreEventWhen: ({ ctrlKey, metaKey, altKey }) =>
      ctrlKey || metaKey || altKey || isDialogOpen(),
  });
  useHotkeys('mod+k', open, { ...options, enableOnFormTags: true, ignoreEventWhen: isDialogOpen });
  const finder = isOpen && (
    <Suspense>
      <FinderDialog
        onGone={() => {
          setOpen(false);
        }}
      />
    </Suspense>
  );
  return { open, finder };
}
