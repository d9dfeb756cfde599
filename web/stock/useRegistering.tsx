import { useState } from 'react';
import type { RecordHead } from '#core/record';
import type { NewFact } from '#contract';
import { useAddToRecord, useBeginRecord } from '../app/entering';
import { reasonProblem } from '../ui/fieldMessages';
import { TextAreaField } from '../ui/fields';

/** What a form writes down: something new, or what was mistyped of something that is there, with the reason. */
interface Registering {
  /** The record that is put right; undefined for a new one. */
  readonly corrects: Pick<RecordHead, 'id' | 'version'> | undefined;
  readonly onDone: () => void;
  readonly showFailure: (error: unknown) => void;
}

/** Registers something, or puts it right; gives what its `StockFormFrame` needs beside its own words. */
export function useRegistering({ corrects, onDone, showFailure }: Registering) {
  const begin = useBeginRecord();
  const add = useAddToRecord();
  const [reason, setReason] = useState('');
  const [problem, setProblem] = useState<string>();
  const after = { onSuccess: onDone, onError: showFailure };
  return {
    /** Enters the one fact or the other. */
    enter: (registered: NewFact, corrected: (reason: string) => NewFact): void => {
      if (!corrects) {
        begin.mutate(registered, after);
        return;
      }
      const why = reasonProblem(reason);
      setProblem(why);
      if (why !== undefined) return;
      const { id: recordId, version: basedOn } = corrects;
      add.mutate({ recordId, basedOn, fact: corrected(reason.trim()) }, after);
    },
    frame: {
      isBusy: begin.isPending || add.isPending,
      onDone,
      ...(corrects && {
        submit: 'Correct it',
        reason: (
          <TextAreaField
            label="Why it is corrected"
            hint="What was certified keeps what it had; open runs are told."
            value={reason}
            error={problem}
            onText={setReason}
          />
        ),
      }),
    },
  };
}
