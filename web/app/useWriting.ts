import { useState } from 'react';
import * as v from 'valibot';
import type { RecordVersion } from '#core/record';
import type { NewFact } from '#contract';
import { newId } from '#contract';
import type { FieldMessages } from '../ui/fieldMessages';
import { fieldMessages, reasonProblem } from '../ui/fieldMessages';
import { messagesOf } from '../ui/refusal';
import { useAddToRecord } from './entering';

/** A record that is still to be written. */
export function newRecord(): RecordVersion {
  return { id: newId(), version: 0 };
}

interface WritingOf<Checked> {
  /** The record that gets a version; one with none is begun. */
  readonly record: RecordVersion;
  readonly schema: v.GenericSchema<unknown, Checked>;
  /** The field of the form at which the schema's word on a path is said. */
  readonly fieldOf: (path: string) => string;
  /** What follows when it is written. */
  readonly onWritten: () => void;
}

/** Writes a version of something that is written whole, with a reason; what is wrong is told at its fields. */
export function useWriting<Checked>({ record, schema, fieldOf, onWritten }: WritingOf<Checked>) {
  const add = useAddToRecord();
  const [found, setFound] = useState<FieldMessages>({});
  return {
    /** What the schema has against it, and the reason. */
    found,
    /** What its check has against it. */
    refused: messagesOf(add.error),
    error: add.error?.message,
    isBusy: add.isPending,
    /** Takes back what was said: something else is being typed. */
    clear: (): void => {
      setFound({});
      add.reset();
    },
    write: (written: object, reason: string, factOf: (checked: Checked) => NewFact): void => {
      const parsed = v.safeParse(schema, written);
      const why = reasonProblem(reason);
      const problems = parsed.success
        ? {}
        : Object.fromEntries(
            Object.entries(fieldMessages(parsed.issues)).map(([path, text]) => [
              fieldOf(path),
              text,
            ]),
          );
      setFound(why === undefined ? problems : { ...problems, reason: why });
      if (!parsed.success || why !== undefined) return;
      add.mutate(
        { fact: factOf(parsed.output), recordId: record.id, basedOn: record.version },
        { onSuccess: onWritten },
      );
    },
  };
}
