import type { ListKind } from '#contract';
import { useReach } from './reachability';
import { useHasAll } from './records';

/** Says that a page has the newest of a kind only, where there is more than a browser keeps. */
export function NotAllHere({ kind, what }: { readonly kind: ListKind; readonly what: string }) {
  return useHasAll(kind) ? null : (
    <p className="text-sm text-ink-soft">Only the newest {what} are here.</p>
  );
}

/** Says, while the server is away, that a list cannot be read to its end. */
export function OnlyWhatWasRead() {
  return useReach() === 'reached' ? null : (
    <p role="status" className="mb-3 border-l-4 border-straw pl-3">
      The server cannot be reached: only what this device has read before is shown.
    </p>
  );
}
