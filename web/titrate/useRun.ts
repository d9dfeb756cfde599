import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import type { RunState } from '#core/titration/run';
import { foldRun, restedOnBy } from '#core/titration/record';
import type { NewFact } from '#contract';
import { useAround } from '../app/around';
import { makeFact, runOf } from '../app/records';
import { useSession } from '../app/session';
import { failsThePage } from '../app/queryClient';
import { asRunFact } from '../outbox/outbox';
import { useOutbox, useWaiting } from '../outbox/useOutbox';

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

/** Makes and keeps facts of a run on this device. */
export function useEnter(run: RunState) {
  const outbox = useOutbox();
  const { person } = useSession();
  return {
    /** The fact as it would be entered, for checking it first. */
    propose: (fact: NewFact) => {
      const seen = { id: run.id, stored: run.storedVersion, version: run.version };
      const proposed = makeFact(fact, seen, person.id);
      return { proposed, fact: asRunFact(proposed) };
    },
    keep: (proposed: ReturnType<typeof makeFact>) => outbox.keep(proposed),
  };
}
