import { Button } from '../ui/Button';
import type { Computation } from './useComputation';

interface ComputationStatusProps {
  readonly label: string;
  readonly state: Computation<unknown>;
  readonly onCancel: () => void;
}

/** What a computation that is not done has to show: how far it is, or why it failed. */
export function ComputationStatus({ label, state, onCancel }: ComputationStatusProps) {
  if (state.kind === 'running') {
    return <ProgressLine label={label} part={state.part} onCancel={onCancel} />;
  }
  if (state.kind !== 'failed') return null;
  return (
    <p role="alert" className="mb-3 text-blush">
      {state.message}
    </p>
  );
}

interface ProgressLineProps {
  readonly label: string;
  /** What is done, 0 to 1. */
  readonly part: number;
  readonly onCancel: () => void;
}

/** How far a computation is, with the way out of it. */
function ProgressLine({ label, part, onCancel }: ProgressLineProps) {
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
