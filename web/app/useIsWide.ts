import { useSyncExternalStore } from 'react';

/** From this width on there is room for the spine beside the page. */
const WIDE = '(min-width: 64rem)';

function subscribe(onChange: () => void): () => void {
  const wide = window.matchMedia(WIDE);
  wide.addEventListener('change', onChange);
  return () => {
    wide.removeEventListener('change', onChange);
  };
}

/** Whether there is room for the spine beside the page. */
export function useIsWide(): boolean {
  return useSyncExternalStore(subscribe, () => window.matchMedia(WIDE).matches);
}
