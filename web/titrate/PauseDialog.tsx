import type { RunState } from '#core/titration/run';
import { useSession } from '../app/session';
import { PeopleOptions } from '../people/PeopleOptions';
import { SelectField, TextAreaField } from '../ui/fields';
import { FormDialog } from '../ui/Form';
import { useTyped } from '../ui/useTyped';
import { useEntering } from './useRun';

interface PauseDialogProps {
  readonly run: RunState;
  readonly onClose: () => void;
}

/** Leaves a run for later, or hands it over to somebody who is named. */
export function PauseDialog({ run, onClose }: PauseDialogProps) {
  const pausing = useEntering(run, onClose);
  const { person } = useSession();
  const { typed, field } = useTyped({ toId: '', remark: '' });
  return (
    <FormDialog
      title="Pause this run"
      description="Everything stays as it is. Whoever goes on, today or another day, refills the burette and reads it again."
      submit="Pause it"
      leave="Go on now"
      error={pausing.error?.message}
      onSubmit={() => {
        const toId = typed.toId === '' ? null : typed.toId;
        pausing.mutate([{ kind: 'run.paused', body: { toId, remark: typed.remark.trim() } }]);
      }}
      onClose={onClose}
    >
      <SelectField label="Handed over to" {...field('toId')}>
        <option value="">nobody in particular</option>
        <PeopleOptions except={person.id} />
      </SelectField>
      <TextAreaField
        label="What the next person should know"
        hint="For example, what is left in the burette and which flasks are ready."
        {...field('remark')}
      />
    </FormDialog>
  );
}
