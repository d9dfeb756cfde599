import { useState } from 'react';
import type { Conflict, RunState } from '#core/titration/run';
import { entriesAt, flaskOf, placeName, portionText } from '#core/titration/run';
import { usePersonName } from '../app/records';
import { useSession } from '../app/session';
import { Button } from '../ui/Button';
import { Dialog } from '../ui/Dialog';
import { reasonProblem } from '../ui/fieldMessages';
import { TextAreaField } from '../ui/fields';
import { instantText } from '../ui/typeset';
import { useEnter } from './useRun';

interface SettleDialogProps {
  readonly run: RunState;
  readonly conflict: Conflict;
  readonly onClose: () => void;
}

/** One of several entries for a place. */
interface Candidate {
  readonly factId: string;
  readonly text: string;
  readonly by: string;
  readonly at: string;
}

/** Two people have entered different values for one place: which one stands, and why. */
export function SettleDialog({ run, conflict, onClose }: SettleDialogProps) {
  const { propose, keep } = useEnter(run);
  const { laboratory } = useSession();
  const personName = usePersonName();
  const [keeps, setKeeps] = useState<string>();
  const [reason, setReason] = useState('');
  const [error, setError] = useState<string>();

  const submit = async (): Promise<void> => {
    const problem = keeps === undefined ? 'Choose the entry that stands.' : reasonProblem(reason);
    if (keeps === undefined || problem !== undefined) {
      setError(problem);
    } else {
      const body = { keeps, reason: reason.trim() };
      await keep(propose({ kind: 'run.conflict-settled', body }).proposed);
      onClose();
    }
  };

  return (
    <Dialog
      title={`Which ${placeName(conflict.place)} of flask ${String(conflict.flask)} stands?`}
      description={
        <p>They were entered without knowing of each other. Both stay on record; one is counted.</p>
      }
      onClose={onClose}
    >
      <form
        noValidate
        className="flex flex-col gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          void submit();
        }}
      >
        <fieldset className="flex flex-col gap-2">
          <legend className="sr-only">Entries</legend>
          {candidatesOf(run, conflict).map(({ factId, text, by, at }) => (
            <label
              key={factId}
              className={`flex min-h-14 cursor-pointer items-center gap-4 rounded border-2 px-4 ${keeps === factId ? 'border-violet bg-violet-wash' : 'border-rule-strong bg-sheet'}`}
            >
              <input
                type="radio"
                name="keeps"
                className="size-5 accent-violet"
                checked={keeps === factId}
                onChange={() => {
                  setKeeps(factId);
                }}
              />
              <span className="font-mono text-2xl font-semibold whitespace-nowrap">{text}</span>
              <span className="text-[15px] text-ink-soft">
                {personName(by)}, {instantText(at, laboratory.timeZone)}
              </span>
            </label>
          ))}
        </fieldset>
        <TextAreaField label="Why" value={reason} error={error} onText={setReason} />
        <div className="flex gap-3">
          <Button type="submit" look="primary">
            Let it stand
          </Button>
          <Button onClick={onClose}>Leave both for now</Button>
        </div>
      </form>
    </Dialog>
  );
}

function candidatesOf(run: RunState, { flask: number, place }: Conflict): readonly Candidate[] {
  const flask = flaskOf(run, number);
  if (!flask) return [];
  return entriesAt(flask, place).map(({ factId, value, by, at }) => ({
    factId,
    text: typeof value === 'string' ? `${value} mL` : portionText(value),
    by,
    at,
  }));
}
