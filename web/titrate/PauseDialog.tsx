import { useState } from 'react';
import type { RunState } from '#core/titration/run';
import { useSession } from '../app/session';
import { PeopleOptions } from '../people/PeopleOptions';
import { Button } from '../ui/Button';
import { Dialog } from '../ui/Dialog';
import { SelectField, TextAreaField } from '../ui/fields';
import { useEnter } from './useRun';

/** Leaves a run for later, or hands it over to somebody who is named. */
export function PauseDialog({
  run,
  onClose,
}: {
  readonly run: RunState;
  readonly onClose: () => void;
}) {
  const { propose, keep } = useEnter(run);
  const { person } = useSession();
  const [toId, setToId] = useState('');
  const [remark, setRemark] = useState('');
  const body = { toId: toId === '' ? null : toId, remark: remark.trim() };
  return (
    <Dialog
      title="Pause this run"
      description={
        <p>
          Everything stays as it is. Who goes on, today or another day, fills the burette and reads
          it anew.
        </p>
      }
      onClose={onClose}
    >
      <form
        noValidate
        className="flex flex-col gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          void keep(propose({ kind: 'run.paused', body }).proposed).then(onClose);
        }}
      >
        <SelectField label="Handed over to" value={toId} onText={setToId}>
          <option value="">nobody in particular</option>
          <PeopleOptions except={person.id} />
        </SelectField>
        <TextAreaField
          label="What the next one should know"
          hint="Such as what is left in the burette, and which flasks are ready."
          value={remark}
          onText={setRemark}
        />
        <div className="flex gap-3">
          <Button type="submit" look="primary">
            Pause it
          </Button>
          <Button onClick={onClose}>Go on now</Button>
        </div>
      </form>
    </Dialog>
  );
}
