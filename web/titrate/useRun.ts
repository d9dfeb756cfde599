import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import type { RunFact, RunState } from '#core/titration';
import { foldRun } from '#core/titration';
import type { NewFact, RunAnswer } from '#contract';
import { ask } from '../app/api';
import { makeFact } from '../app/records';
import { useSession } from '../app/session';
import { useOutbox, useWaiting } from '../outbox/useOutbox';

/** A fact that waits to be acknowledged, as the fold takes it. */
function asPending(fact: ReturnType<typeof makeFact>): RunFact {
  // Only facts of runs carry a run's record id.
  return { ...fact, sequence: null, recordedAt: null } as RunFact;
}

/** A run as the server knows it, with what this device has entered since; undefined while it is on its way. */
export function useRun(
  runId: string,
): { readonly run: RunState; readonly isAllKept: boolean } | undefined {
  const { data } = useQuery({
    queryKey: ['run', runId],
    queryFn: () => ask<RunAnswer>('GET', `/runs/${runId}`),
    throwOnError: (_error, query) => query.state.data === undefined,
  });
  const waiting = useWaiting();
  return useMemo(() => {
    if (!data) return undefined;
    const pending = waiting
      .filter(({ fact, refusal }) => fact.recordId === runId && refusal === null)
      .map(({ fact }) => asPending(fact));
    const run = foldRun([...data.facts, ...pending], data.references);
    return run ? { run, isAllKept: pending.length === 0 } : undefined;
  }, [data, waiting, runId]);
}

/** Makes and keeps facts of a run on this device. */
export function useEnter(run: RunState) {
  const outbox = useOutbox();
  const { person } = useSession();
  return {
    /** The fact as it would be entered, for checking it first. */
    propose: (fact: NewFact) => {
      const proposed = makeFact(fact, run.id, person.id, run.version);
      return { proposed, fact: asPending(proposed) };
    },
    keep: (proposed: ReturnType<typeof makeFact>) => outbox.keep(proposed),
  };
}
