import { Button } from '../ui/Button';

interface ProgressLineProps {
  readonly label: string;
  /** What is done, 0 to 1. */
  readonly part: number;
  readonly onCancel: () => void;
}

/** How far a computation is, with the way out of it. */
export function ProgressLine({ label, part, onCancel }: ProgressLineProps) {
  const percent = Math.round(100 * part);
  return (
    <div className="flex items-center gap-4 print:hidden">
      <div
        role="progressbar"
        aria-label={label}
        aria-valuenow={percent}
        aria-valuemin={0}
        aria-valuemax={100}
        className="h-4 w-72 border border-titrant-edge bg-glass"
      >
        <div className="h-full bg-titrant" style={{ width: `${String(percent)}%` }} />
      </div>
      <span className="w-14 text-right font-mono">{percent} %</span>
      <Button onClick={onCancel}>Cancel</Button>
    </div>
  );
}
