import { useEffect, useState } from 'react';
import { serverNow } from './device';

/** The time by the server's clock, kept up to date. ISO 8601 in UTC. */
export function useNow(everyMs: number): string {
  const [now, setNow] = useState(serverNow);
  useEffect(() => {
    const timer = setInterval(() => {
      setNow(serverNow());
    }, everyMs);
    return () => {
      clearInterval(timer);
    };
  }, [everyMs]);
  return now;
}
