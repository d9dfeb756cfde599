import { useState } from 'react';
import type { RunState } from '#core/titration/run';
import { buretteChecks } from '#core/titration/setUp';
import { KeyHint } from '../ui/Button';
import { FormDialog } from '../ui/Form';
import { useEntering } from './useRun';

interface BuretteCheckDialogProps {
  readonly run: RunState;
  readonly onClose: () => void;
}

/** The burette before its first reading: confirmed as one, or what was off said item by item. */
export function BuretteCheckDialog({ run, onClose }: BuretteCheckDialogProps) {
  const checking = useEntering(run, onClose);
  const [faults, setFaults] = useState<ReadonlyMap<string, string>>(new Map());
  const change = (id: string, remark: string | null): void => {
    const others = [...faults].filter(([one]) => one !== id);
    setFaults(new Map(remark === null ? others : [...others, [id, remark]]));
  };
  return (
    <FormDialog
      title="Before the first reading"
      description="Take away the tick of what is not as it should be, and say what it was."
      submit={
        <>
          {faults.size === 0 ? 'All as it should be' : 'Write it down'} <KeyHint>Enter</KeyHint>
        </>
      }
      error={checking.error?.message}
      onSubmit={() => {
        const said = [...faults].map(([checkId, remark]) => ({ checkId, remark: remark.trim() }));
        checking.mutate([{ kind: 'run.burette-checked', body: { faults: said } }]);
      }}
      onClose={onClose}
    >
      <ul className="divide-y divide-rule border-y border-rule">
        {buretteChecks(run.references, run.setUp.rules).map(({ id, text }) => (
          <Check
            key={id}
            text={text}
            fault={faults.get(id)}
            onChange={(remark) => {
              change(id, remark);
            }}
          />
        ))}
      </ul>
    </FormDialog>
  );
}

interface CheckProps {
  readonly text: string;
  /** What was off; undefined where it is as it should be. */
  readonly fault: string | undefined;
  readonly onChange: (fault: string | null) => void;
}

function Check({ text, fault, onChange }: CheckProps) {
  return (
    <li>
      <label className="flex min-h-12 items-center gap-3">
        <input
          type="checkbox"
          className="size-6 shrink-0 accent-leaf"
          checked={fault === undefined}
          onChange={(event) => {
            onChange(event.target.checked ? null : '');
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
            onChange(event.target.value);
          }}
        />
      )}
    </li>
  );
}
