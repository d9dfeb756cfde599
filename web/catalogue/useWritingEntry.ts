import { useState } from 'react';
import { useNavigate } from 'react-router';
import * as v from 'valibot';
import type { Own } from '#core/chemistry';
import type { Id } from '#core/grammar';
import { newId, ownEntrySchema } from '#contract';
import { useAddToRecord } from '../app/entering';
import type { FieldMessages } from '../ui/fieldMessages';
import { fieldMessages, reasonProblem } from '../ui/fieldMessages';
import { messagesOf } from '../ui/refusal';

/** The record that a form writes to: a new one, or one that gets another version. */
export interface EntryRecord {
  readonly id: Id;
  readonly version: number;
}

/** The record of an entry that is still to be written. */
export function newEntryRecord(): EntryRecord {
  return { id: newId(), version: 0 };
}

/** Writes an entry, or a version of one, and goes back to the list; what is wrong is told at its fields. */
export function useWritingEntry({ id: recordId, version: basedOn }: EntryRecord) {
  const navigate = useNavigate();
  const add = useAddToRecord();
  const [found, setFound] = useState<FieldMessages>({});
  return {
    errors: { ...messagesOf(add.error), ...found },
    error: add.error?.message,
    isBusy: add.isPending,
    write: (written: { readonly kind: string }, named: { readonly own?: Own }, reason: string) => {
      const parsed = v.safeParse(ownEntrySchema, written);
      const why = reasonProblem(reason);
      const problems = parsed.success ? {} : byField(fieldMessages(parsed.issues));
      setFound(why === undefined ? problems : { ...problems, reason: why });
      if (!parsed.success || why !== undefined) return;
      const body = { entry: parsed.output, ...named, reason };
      add.mutate(
        { fact: { kind: 'entry.written', body }, recordId, basedOn },
        { onSuccess: () => void navigate(`/catalogue?of=${written.kind}`) },
      );
    },
  };
}

/** What the schema has against an entry, by the field of the form: `steps` for `recipe.steps.1.text`. */
function byField(messages: FieldMessages): FieldMessages {
  return Object.fromEntries(
    Object.entries(messages).map(([path, text]) => {
      const [, field = path] = path.split('.');
      return [field, text];
    }),
  );
}
