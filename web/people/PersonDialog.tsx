import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { isPlainDate } from '#core/grammar';
import type { PersonState } from '#core/people';
import type { NewFact } from '#contract';
import { useAddToRecord } from '../app/entering';
import { reasonProblem } from '../ui/fieldMessages';
import { TextAreaField, TextField } from '../ui/fields';
import { FormDialog } from '../ui/Form';
import { useTyped } from '../ui/useTyped';
import type { TypedRoles } from './RolesFields';
import { RolesFields } from './RolesFields';

interface PersonDialogProps {
  readonly person: PersonState;
  readonly onClose: () => void;
}

/** Somebody's name and roles, put right with a reason. */
export function PersonDialog({ person, onClose }: PersonDialogProps) {
  const add = useAddToRecord();
  const [problem, setProblem] = useState<string>();
  const { name, roles, auditsUntil } = person;
  const given: TypedRoles = { roles, auditsUntil };
  const { typed, field, part } = useTyped({ name, given, reason: '' });
  const changes = changesOf(person, typed);
  const saving = useMutation({
    mutationFn: async () => {
      for (const [i, fact] of changes.entries()) {
        await add.mutateAsync({ recordId: person.id, basedOn: person.version + i, fact });
      }
    },
    onSuccess: onClose,
  });
  const chosen = part('given');
  return (
    <FormDialog
      title={person.name}
      description="What was signed under the old name and roles stays as it was."
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
      <RolesFields value={chosen.value} onChange={chosen.onChange} />
      <TextAreaField label="Why" {...field('reason')} error={problem} />
    </FormDialog>
  );
}

/** What is written down of a person changed so: a new name, other roles, both or neither. */
function changesOf(
  person: PersonState,
  { name, given, reason }: { name: string; given: TypedRoles; reason: string },
): readonly NewFact[] {
  const isRenamed = name.trim() !== person.name;
  const roles = given.roles;
  const auditsUntil =
    given.auditsUntil !== null && isPlainDate(given.auditsUntil) ? given.auditsUntil : null;
  const isOtherwise =
    auditsUntil !== person.auditsUntil ||
    roles.length !== person.roles.length ||
    roles.some((one) => !person.roles.includes(one));
  return [
    ...(isRenamed
      ? [{ kind: 'person.renamed' as const, body: { name: name.trim(), reason } }]
      : []),
    ...(isOtherwise
      ? [{ kind: 'person.rights-changed' as const, body: { roles, auditsUntil, reason } }]
      : []),
  ];
}
