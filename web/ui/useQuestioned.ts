import { useState } from 'react';
import type { Finding } from '#core/record';
import type { NewFact } from '#contract';
import { reasonOrNull } from './fieldMessages';
import { Refusal } from './refusal';

/**
 * Entries that are questioned where they are unlikely: what speaks against one is to be shown with `Findings`, and gives way to a
 * reason.
 */
export function useQuestioned(enter: (entry: NewFact) => Promise<void>) {
  const [findings, setFindings] = useState<readonly Finding[]>([]);
  const [reason, setReason] = useState('');
  const [reasonProblem, setReasonProblem] = useState<string>();
  return {
    /** What `Findings` shows. */
    shown: { findings, reason, reasonProblem, onReason: setReason },
    setFindings,
    /** The reason as facts hold it. */
    why: reasonOrNull(reason),
    /** Whether it was kept. */
    submit: async (entry: NewFact): Promise<boolean> => {
      try {
        await enter(entry);
      } catch (error) {
        if (!(error instanceof Refusal)) throw error;
        if (error.findings.length > 0) setFindings(error.findings);
        const unreadable = error.findings.length === 0 ? error.message : undefined;
        setReasonProblem(error.fieldMessage('reason') ?? unreadable);
        return false;
      }
      setFindings([]);
      setReason('');
      setReasonProblem(undefined);
      return true;
    },
  };
}
