import { useState } from 'react';
import type { PersonState } from '#core/people';
import type { Right } from '#core/rights';
import type { NewFact } from '#contract';
import { useAddToRecord } from '../app/entering';
import { Button } from '../ui/Button';
import { Dialog } from '../ui/Dialog';
import { reasonProblem } from '../ui/fieldMessages';
import { TextAreaField, TextField } from '../ui/fields';
import { FormError } from '../ui/FormError';
import { RightsFields } from './RightsFields';

/** Somebody's name and rights, put right with a reason. */
export function PersonDialog({
  person,
  onClose,
}: {
  readonly person: PersonState;
  readonly onClose: () => void;
}) {
  const add = useAddToRecord();
  const [name, setName] = useState(person.name);
  const [rights, setRights] = useState<readonly Right[]>(person.rights);
  const [reason, setReason] = useState('');
  const [problem, setProblem] = useState<string>();
  const isRenamed = name.trim() !== person.name;
  const isOtherwise =
    rights.length !== person.rights.length || rights.some((one) => !person.rights.includes(one));

  const save = async (): Promise<void> => {
    const why = reasonProblem(reason);
    if (why !== undefined) {
      setProblem(why);
      return;
    }
    const facts: readonly NewFact[] = [
      ...(isRenamed
        ? [{ kind: 'person.renamed' as const, body: { name: name.trim(), reason } }]
        : []),
      ...(isOtherwise
        ? [{ kind: 'person.rights-changed' as const, body: { rights, reason } }]
        : []),
    ];
    for (const [i, fact] of facts.entries()) {
      await add.mutateAsync({ recordId: person.id, basedOn: person.version + i, fact });
    }
    onClose();
  };

  return (
    <Dialog
      title={person.name}
      description={<p>What was signed under the old name and rights stays as it was.</p>}
      onClose={onClose}
    >
      <form
        noValidate
        className="flex flex-col gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          save().catch(() => undefined);
        }}
      >
        <TextField label="Name" value={name} onText={setName} />
        <RightsFields chosen={rights} onChange={setRights} />
        <TextAreaField label="Why" value={reason} error={problem} onText={setReason} />
        <div className="flex items-center gap-3">
          <Button type="submit" look="primary" disabled={!isRenamed && !isOtherwise}>
            Save
          </Button>
          <Button onClick={onClose}>Cancel</Button>
          <FormError message={add.error?.message} />
        </div>
      </form>
    </Dialog>
  );
}
