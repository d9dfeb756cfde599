import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import type { PersonState } from '#core/people';
import type { NewFact } from '#contract';
import { useAddToRecord } from '../app/entering';
import { reasonProblem } from '../ui/fieldMessages';
import { TextAreaField, TextField } from '../ui/fields';
import { FormDialog } from '../ui/Form';
import { useTyped } from '../ui/useTyped';
import { RightsFields } from './RightsFields';

interface PersonDialogProps {
  readonly person: PersonState;
  readonly onClose: () => void;
}

/** Somebody's name and rights, put right with a reason. */
export function PersonDialog({ person, onClose }: PersonDialogProps) {
  const add = useAddToRecord();
  const [problem, setProblem] = useState<string>();
  const { name, rights } = person;
  const { typed, field, part } = useTyped({ name, rights, reason: '' });
  const changes = changesOf(person, typed);
  const saving = useMutation({
    mutationFn: async () => {
      for (const [i, fact] of changes.entries()) {
        await add.mutateAsync({ recordId: person.id, basedOn: person.version + i, fact });
      }
    },
    onSuccess: onClose,
  });
  const chosen = part('rights');
  return (
    <FormDialog
      title={person.name}
      description="What was signed under the old name and rights stays as it was."
      submit="Save"
      leave="Cancel"
      isDisabled={changes.length === 0}
      error={saving.error?.message}
      onSubmit={() => {
        const why = reasonProblem(typed.reason);
        setProblem(why);
        if (why === undefined) saving.mutate();
      }}
      onClose={onClose}
    >
      <TextField label="Name" {...field('name')} />
      <RightsFields chosen={chosen.value} onChange={chosen.onChange} />
      <TextAreaField label="Why" {...field('reason')} error={problem} />
    </FormDialog>
  );
}

/** What is written down of a person changed so: a new name, other rights, both or neither. */
function changesOf(
  person: PersonState,
  { name, rights, reason }: Pick<PersonState, 'name' | 'rights'> & { readonly reason: string },
): readonly NewFact[] {
  const isRenamed = name.trim() !== person.name;
  const isOtherwise =
    rights.length !== person.rights.length || rights.some((one) => !person.rights.includes(one));
  return [
    ...(isRenamed
      ? [{ kind: 'person.renamed' as const, body: { name: name.trim(), reason } }]
      : []),
    ...(isOtherwise ? [{ kind: 'person.rights-changed' as const, body: { rights, reason } }] : []),
  ];
}
