import { useMutation, useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { checkEntering } from '#core/ledger';
import { authorOf } from '#core/people';
import type { RunState } from '#core/titration/run';
import type { RunFact } from '#core/titration/record';
import { checkRunFact, foldRun, restedOnBy } from '#core/titration/record';
import type { NewFact } from '#contract';
import { useAround } from '../app/around';
import { useKeeping } from '../app/entering';
import { runOf } from '../app/records';
import { failsThePage } from '../app/queryClient';
import { useSession } from '../app/session';
import { asRunFact } from '../outbox/outbox';
import { useWaiting } from '../outbox/useOutbox';

/**
 * A run as the server knows it, with what this device has entered since; one that was begun here and is still on its way, as this
 * device knows it. Undefined while it is on its way.
 */
export function useRun(
  runId: string,
): { readonly run: RunState; readonly isAllKept: boolean } | undefined {
  const waiting = useWaiting();
  const around = useAround();
  const pending = useMemo(
    () =>
      waiting
        .filter(({ fact, refusal }) => fact.recordId === runId && refusal === null)
        .map(({ fact }) => asRunFact(fact)),
    [waiting, runId],
  );
  const start = pending.find((fact) => fact.kind === 'run.started');
  const { data } = useQuery({
    ...runOf(runId),
    enabled: start === undefined,
    throwOnError: failsThePage,
  });
  return useMemo(() => {
    const facts = [...(data?.facts ?? []), ...pending];
    // What the server does not know yet, this device resolves as far as it can.
    const isOwn =
      data?.references === null ||
      pending.some(({ kind }) => kind === 'run.started' || kind === 'run.record-adopted');
    const resolved = isOwn && around ? restedOnBy(facts, around) : null;
    const references = resolved && !('severity' in resolved) ? resolved : data?.references;
    const run = references && foldRun(facts, references);
    return run ? { run, isAllKept: pending.length === 0 } : undefined;
  }, [around, data, pending]);
}

/** Enters facts of a run, one after the other, each resting on the one before. */
export function useEnter(run: RunState) {
  const keep = useKeeping();
  const author = authorOf(useSession().person);
  return async (...entries: readonly NewFact[]): Promise<void> => {
    for (const [i, entry] of entries.entries()) {
      const seen = { id: run.id, stored: run.storedVersion, version: run.version + i };
      await keep(entry, seen, (fact) => {
        const shutOut = checkEntering(fact.kind, author);
        return shutOut.length > 0 ? shutOut : checkRunFact(run, fact as RunFact, { author });
      });
    }
  };
}

/** The same for what is pressed or sent: what speaks against it is its error, to be shown beside it. */
export function useEntering(run: RunState, onKept?: () => void) {
  const enter = useEnter(run);
  return useMutation({
    mutationFn: (entries: readonly NewFact[]) => enter(...entries),
    ...(onKept && { onSuccess: onKept }),
  });
}
