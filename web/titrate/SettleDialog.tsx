import { figureText } from '#core/measurement';
import { useState } from 'react';
import type { Conflict, RunState } from '#core/titration/run';
import { entriesAt, flaskOf, placeName, portionText } from '#core/titration/run';
import { usePersonName } from '../app/records';
import { useSession } from '../app/session';
import { TextAreaField } from '../ui/fields';
import { FormDialog } from '../ui/Form';
import { reasonProblem } from '../ui/fieldMessages';
import { instantText } from '../ui/typeset';
import { useEntering } from './useRun';

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
  const settling = useEntering(run, onClose);
  const [keeps, setKeeps] = useState<string>();
  const [reason, setReason] = useState('');
  const [error, setError] = useState<string>();
  return (
    <FormDialog
      title={`Which ${placeName(conflict.place)} of flask ${String(conflict.flask)} stands?`}
      description="They were entered without knowing of each other. Both stay on record; one is counted."
      submit="Let it stand"
      leave="Leave both for now"
      error={settling.error?.message}
      onSubmit={() => {
        setError(keeps === undefined ? 'Choose the entry that stands.' : reasonProblem(reason));
        if (keeps === undefined || reasonProblem(reason) !== undefined) return;
        settling.mutate([{ kind: 'run.conflict-settled', body: { keeps, reason } }]);
      }}
      onClose={onClose}
    >
      <fieldset className="flex flex-col gap-2">
        <legend className="sr-only">Entries</legend>
        {candidatesOf(run, conflict).map((candidate) => (
          <CandidateChoice
            key={candidate.factId}
            candidate={candidate}
            isChosen={keeps === candidate.factId}
            onChoose={setKeeps}
          />
        ))}
      </fieldset>
      <TextAreaField label="Why" value={reason} error={error} onText={setReason} />
    </FormDialog>
  );
}

interface CandidateChoiceProps {
  readonly candidate: Candidate;
  readonly isChosen: boolean;
  readonly onChoose: (factId: string) => void;
}

function CandidateChoice({ candidate, isChosen, onChoose }: CandidateChoiceProps) {
  const { laboratory } = useSession();
  const personName = usePersonName();
  const { factId, text, by, at } = candidate;
  return (
    <label
      className={`flex min-h-14 cursor-pointer items-center gap-4 rounded border-2 px-4 ${isChosen ? 'border-violet bg-violet-wash' : 'border-rule-strong bg-sheet'}`}
    >
      <input
        type="radio"
        name="keeps"
        className="size-5 accent-violet"
        checked={isChosen}
        onChange={() => {
          onChoose(factId);
        }}
      />
      <span className="font-mono text-2xl font-semibold whitespace-nowrap">{text}</span>
      <span className="text-[15px] text-ink-soft">
        {personName(by)}, {instantText(at, laboratory.timeZone)}
      </span>
    </label>
  );
}

function candidatesOf(run: RunState, { flask: number, place }: Conflict): readonly Candidate[] {
  const flask = flaskOf(run, number);
  if (!flask) return [];
  return entriesAt(flask, place).map(({ factId, value, by, at }) => ({
    factId,
    text: typeof value === 'string' ? `${figureText(value)} mL` : portionText(value),
    by,
    at,
  }));
}
