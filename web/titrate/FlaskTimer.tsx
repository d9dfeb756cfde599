import { useEffect, useState } from 'react';

const MINUTE_MS = 60_000;

interface FlaskTimerProps {
  readonly runId: string;
  readonly flask: number;
  /** How long it runs. */
  readonly minutes: number;
}

/** A timer of one flask, for dissolving, boiling or standing in the dark, while another flask is titrated. */
export function FlaskTimer({ runId, flask, minutes }: FlaskTimerProps) {
  const key = `vine-measure.timer.${runId}.${String(flask)}`;
  const [endsMs, setEndsMs] = useState<number | null>(() => keptTimer(key));
  const [nowMs, setNowMs] = useState(() => Date.now());
  useEffect(() => {
    if (endsMs === null) return;
    const ticking = setInterval(() => {
      setNowMs(Date.now());
    }, 500);
    return () => {
      clearInterval(ticking);
    };
  }, [endsMs]);
  const press = (): void => {
    const next = endsMs === null ? Date.now() + minutes * MINUTE_MS : null;
    if (next === null) sessionStorage.removeItem(key);
    else sessionStorage.setItem(key, String(next));
    setNowMs(Date.now());
    setEndsMs(next);
  };
  const left = endsMs === null ? null : Math.max(0, Math.ceil((endsMs - nowMs) / 1000));
  const look = left === 0 ? 'bg-leaf-wash font-bold text-leaf' : 'bg-sheet text-ink-soft';
  return (
    <button
      type="button"
      className={`min-h-12 min-w-12 rounded border border-rule-strong px-1.5 font-mono text-sm ${look}`}
      aria-label={wordsFor(flask, left, minutes)}
      onClick={press}
    >
      {left === null ? `${String(minutes)} min` : left === 0 ? 'over' : clock(left)}
    </button>
  );
}

function keptTimer(key: string): number | null {
  const kept = sessionStorage.getItem(key);
  return kept === null ? null : Number(kept);
}

function clock(seconds: number): string {
  return `${String(Math.floor(seconds / 60))}:${String(seconds % 60).padStart(2, '0')}`;
}

function wordsFor(flask: number, left: number | null, minutes: number): string {
  const name = `flask ${String(flask)}`;
  if (left === null) return `Start a timer of ${String(minutes)} minutes for ${name}`;
  return left === 0 ? `Timer of ${name} is over: clear it` : `Timer of ${name} runs: stop it`;
}
