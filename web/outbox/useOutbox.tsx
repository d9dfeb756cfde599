import type { QueryClient } from '@tanstack/react-query';
import { useQueryClient } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { createContext, use, useEffect, useState, useSyncExternalStore } from 'react';
import type { Fact } from '#core/record';
import type { PreparationFact, PreparationState } from '#core/preparation';
import { applyPreparationFact } from '#core/preparation';
import type { RunFact } from '#core/titration';
import type { RunAnswer } from '#contract';
import { subscribeReachable } from '../app/reachability';
import type { Waiting } from './outbox';
import { Outbox } from './outbox';

const OutboxContext = createContext<Outbox | null>(null);

/** Opens the outbox for the pages below. */
export function OutboxProvider({ children }: { readonly children: ReactNode }) {
  const client = useQueryClient();
  const [outbox] = useState(
    () =>
      new Outbox(
        (fact) => {
          acknowledge(client, fact);
        },
        () => void client.invalidateQueries({ queryKey: ['session'] }),
      ),
  );
  useEffect(() => {
    void outbox.open();
    return subscribeReachable((isReachable) => {
      if (isReachable) outbox.tryNow();
    });
  }, [outbox]);
  return <OutboxContext value={outbox}>{children}</OutboxContext>;
}

/** Puts an acknowledged fact where the pages read it. */
function acknowledge(client: QueryClient, fact: Fact): void {
  if (fact.recordKind === 'preparation') {
    client.setQueryData<readonly PreparationState[]>(['records', 'preparation'], (known) =>
      known?.map((state) => withFact(state, fact)),
    );
    void client.invalidateQueries({ queryKey: ['records'] });
    return;
  }
  const key = ['run', fact.recordId];
  // A read that set out before this fact was stored must not overwrite it; one that was to bring others' facts
  // sets out again.
  const isReading = client.isFetching({ queryKey: key }) > 0;
  void client.cancelQueries({ queryKey: key });
  const known = client.getQueryData<RunAnswer>(key);
  client.setQueryData(key, addFact(known, fact));
  if (isReading || (known && fact.sequence !== known.facts.length + 1)) {
    void client.invalidateQueries({ queryKey: key });
  }
  void client.invalidateQueries({ queryKey: ['records'] });
}

/** The preparation with a fact of its own laid over it. */
function withFact(state: PreparationState, fact: Fact): PreparationState {
  if (state.id !== fact.recordId) return state;
  // A fact of this record is a fact of a preparation.
  return applyPreparationFact(state, fact as PreparationFact) ?? state;
}

function addFact(run: RunAnswer | undefined, fact: Fact): RunAnswer | undefined {
  if (!run || run.facts.some((known) => known.id === fact.id)) return run;
  // A fact of this record is a fact of a run.
  return { ...run, facts: [...run.facts, fact as RunFact] };
}

export function useOutbox(): Outbox {
  const outbox = use(OutboxContext);
  if (!outbox) throw new Error('there is no outbox here');
  return outbox;
}

/** What waits to be sent or was refused, in the order of entry. */
export function useWaiting(): readonly Waiting[] {
  const outbox = useOutbox();
  return useSyncExternalStore(outbox.subscribe, outbox.snapshot);
}
