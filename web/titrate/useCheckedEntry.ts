import { useState } from 'react';
import type { Finding } from '#core/record';
import type { RunState } from '#core/titration/run';
import { checkRunFact } from '#core/titration/record';
import type { NewFact } from '#contract';
import { isLetThrough } from '../ui/Findings';
import { useEnter } from './useRun';

/** Keeps entries that pass their check; what speaks against one is to be shown, and gives way to a reason where it is unlikely only. */
export function useCheckedEntry(run: RunState) {
  const { propose, keep } = useEnter(run);
  const [findings, setFindings] = useState<readonly Finding[]>([]);
  const [reason, setReason] = useState('');
  return {
    findings,
    setFindings,
    reason,
    setReason,
    /** The reason as facts hold it. */
    why: reason.trim() === '' ? null : reason.trim(),
    /** Whether it was kept. */
    submit: async (entry: NewFact): Promise<boolean> => {
      const { proposed, fact } = propose(entry);
      const found = checkRunFact(run, fact);
      const isKept = isLetThrough(found, reason);
      setFindings(isKept ? [] : found);
      if (isKept) await keep(proposed);
      return isKept;
    },
  };
}
