import { useEffect } from 'react';
import { tell } from './api';

/** Puts on record what is printed, however it was asked for. */
export function useRecordedPrints(personId: string | null): void {
  useEffect(() => {
    if (personId === null) return;
    const record = (): void => {
      // A print cannot be held back from here; without the server it goes unrecorded.
      tell('POST', '/prints', { path: window.location.pathname }).catch(() => undefined);
    };
    window.addEventListener('beforeprint', record);
    return () => {
      window.removeEventListener('beforeprint', record);
    };
  }, [personId]);
}
