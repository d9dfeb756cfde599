import { useState } from 'react';
import type { RunState } from '#core/titration/run';
import { buretteChecks } from '#core/titration/guidance';
import { Button, KeyHint } from '../ui/Button';
import { Dialog } from '../ui/Dialog';
import { useEnter } from './useRun';

/** The burette before its first reading: confirmed as one, or what was off said item by item. */
export function BuretteCheckDialog({
  run,
  onClose,
}: {
  readonly run: RunState;
  readonly onClose: () => void;
}) {
  const { propose, keep } = useEnter(run);
  const [faults, setFaults] = useState<ReadonlyMap<string, string>>(new Map());
  const checks = buretteChecks(run.references.method, run.setUp.rules);
  const change = (id: string, remark: string | null): void => {
    const next = new Map(faults);
    if (remark === null) next.delete(id);
    else next.set(id, remark);
    setFaults(next);
  };
  const body = {
    faults: [...faults].map(([checkId, remark]) => ({ checkId, remark: remark.trim() })),
  };
  return (
    <Dialog
      title="Before the first reading"
      description={<p>Take away the tick of what is not as it should be, and say what it was.</p>}
      onClose={onClose}
    >
      <form
        noValidate
        onSubmit={(event) => {
          event.preventDefault();
          void keep(propose({ kind: 'run.burette-checked', body }).proposed).then(onClose);
        }}
      >
        <ul className="divide-y divide-rule border-y border-rule">
          {checks.map(({ id, text }) => {
            const fault = faults.get(id);
            return (
              <li key={id}>
                <label className="flex min-h-12 items-center gap-3">
                  <input
                    type="checkbox"
                    className="size-6 shrink-0 accent-leaf"
                    checked={fault === undefined}
                    onChange={(event) => {
                      change(id, event.target.checked ? null : '');
                    }}
                  />
                  {text}
                </label>
                {fault !== undefined && (
                  <input
                    aria-label={`What was off: ${text}`}
                    value={fault}
                    maxLength={2000}
                    className="mb-2 ml-9 min-h-12 w-[calc(100%-36px)] rounded border border-rule-strong bg-sheet px-3"
                    onChange={(event) => {
                      change(id, event.target.value);
                    }}
                  />
                )}
              </li>
            );
          })}
        </ul>
        <div className="mt-4 flex gap-3">
          <Button type="submit" look="primary">
            {faults.size === 0 ? 'All as it should be' : 'Write it down'} <KeyHint>Enter</KeyHint>
          </Button>
          <Button onClick={onClose}>Leave it</Button>
        </div>
      </form>
    </Dialog>
  );
}
