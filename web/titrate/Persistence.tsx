import { useEffect, useState } from 'react';

/** Counts down how long the colour must last before it is the end point. */
export function Persistence({ seconds }: { readonly seconds: number }) {
  // The colour came when this began to be shown.
  const [sinceMs] = useState(() => Date.now());
  const [now, setNow] = useState(sinceMs);
  useEffect(() => {
    const timer = setInterval(() => {
      setNow(Date.now());
    }, 250);
    return () => {
      clearInterval(timer);
    };
  }, []);
  const left = Math.max(0, Math.ceil(seconds - (now - sinceMs) / 1000));
  return left > 0 ? (
    <p role="timer" className="mt-1 text-lg">
      <span className="font-mono text-[28px] leading-none font-bold">{left}</span> s to go; swirl,
      and watch it
    </p>
  ) : (
    <p role="status" className="mt-1 text-lg font-bold text-leaf">
      It lasts: read the burette.
    </p>
  );
}
