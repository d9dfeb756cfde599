import { useEffect } from 'react';

/** Keeps the screen awake while a page is shown; where the browser cannot, it sleeps as it always did. */
export function useWakeLock(): void {
  useEffect(() => {
    if (!('wakeLock' in navigator)) return;
    let lock: WakeLockSentinel | null = null;
    const request = async (): Promise<void> => {
      if (document.visibilityState !== 'visible') return;
      lock = await navigator.wakeLock.request('screen').catch(() => null);
    };
    const onVisible = (): void => void request();
    void request();
    // The browser lets go of it whenever the page is hidden.
    document.addEventListener('visibilitychange', onVisible);
    return () => {
      document.removeEventListener('visibilitychange', onVisible);
      void lock?.release();
    };
  }, []);
}
