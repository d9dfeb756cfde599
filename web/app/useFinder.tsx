import type { ReactNode } from 'react';
import { lazy, Suspense, useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { isDialogOpen } from '../ui/isDialogOpen';

/** Read when it is first asked for: no page waits for it. */
const FinderDialog = lazy(async () => ({ default: (await import('./FinderDialog')).FinderDialog }));

/**
 * The way to anything by its name: a dialog, opened by `/` where no text is being written, by Ctrl or Cmd with K anywhere, or by what
 * `open` is given to.
 */
export function useFinder(): { readonly open: () => void; readonly finder: ReactNode } {
  const [isOpen, setOpen] = useState(false);
  const open = (): void => {
    setOpen(true);
  };
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
