import { useSyncExternalStore } from 'react';

/** How the server was when it was last asked: it answered, it could not be reached, or it has no room to write. */
export type Reach = 'reached' | 'away' | 'disk-full';

let reach: Reach = 'reached';
const listeners = new Set<() => void>();

/** Notes how the server has just answered, or that it has not. */
export function noteReach(noted: Reach): void {
  if (noted === reach) return;
  reach = noted;
  for (const listener of listeners) listener();
}

/** Calls back when the server becomes reachable or ceases to be; gives the function that ends it. */
export function subscribeReachable(listener: (isReachable: boolean) => void): () => void {
  return subscribe(() => {
    listener(reach === 'reached');
  });
}

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** How the server was when it was last asked. */
export function useReach(): Reach {
  return useSyncExternalStore(subscribe, () => reach);
}
