import { useEffect, useState } from 'react';

/** So long after the last letter a text counts as typed, ms. */
const PAUSE_MS = 250;

/** A text that changes under the hand, as it is once the hand rests. */
export function useRested(text: string): string {
  const [rested, setRested] = useState(text);
  useEffect(() => {
    const timer = setTimeout(() => {
      setRested(text);
    }, PAUSE_MS);
    return () => {
      clearTimeout(timer);
    };
  }, [text]);
  return rested;
}
