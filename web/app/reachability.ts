import { useSyncExternalStore } from 'react';

let isReachable = true;
const listeners = new Set<() => void>();

/** Notes whether the server has just answered, or could not be reached. */
export function noteReachable(reached: boolean): void {
  if (reached === isReachable) return;
  isReachable = reached;
  for (const listener of listeners) listener();
}

/** Calls back when the server becomes reachable or ceases to be; gives the function that ends it. */
export function subscribeReachable(listener: (isReachable: boolean) => void): () => void {
  return subscribe(() => {
    listener(isReachable);
  });
}

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** Whether the server answered when it was last asked. */
export function useReachable(): boolean {
  return useSyncExternalStore(subscribe, () => isReachable);
}
