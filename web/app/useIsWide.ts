import { useMedia } from '../ui/useMedia';

/** Whether there is room for the spine beside the page. */
export function useIsWide(): boolean {
  return useMedia('(min-width: 64rem)');
}
