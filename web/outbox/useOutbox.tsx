import type { QueryClient } from '@tanstack/react-query';
import { useQueryClient } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { createContext, use, useEffect, useState, useSyncExternalStore } from 'react';
import type { PlainRecordKind } from '#core/ledger';
import { recordKindOf, referencesOf } from '#core/ledger';
import type { Fact } from '#core/record';
import type { RunFact } from '#core/titration/record';
import type { RunReferences } from '#core/titration/setUp';
import type { RecordAnswer, RunAnswer } from '#contract';
import type { AtHand } from '../app/atHand';
import { KEYS } from '../app/atHand';
import { patchesOf } from '../app/patches';
import { subscribeReachable } from '../app/reachability';
import { layOver } from './layOver';
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

/** A run as a page keeps it: what it rests on is null while only this device has resolved it. */
export type KeptRun = Pick<RunAnswer, 'facts'> & { readonly references: RunReferences | null };

/** Puts an acknowledged fact where the pages read it. */
function acknowledge(client: QueryClient, fact: Fact): void {
  if (fact.recordKind !== 'run') {
    const kind = recordKindOf(fact.kind) as PlainRecordKind;
    client.setQueryData<AtHand<PlainRecordKind>>(
      KEYS.atHand(kind),
      (known) => known && { ...known, records: layOver(kind, known.records, [fact]) },
    );
    client.setQueryData<RecordAnswer<PlainRecordKind>>(KEYS.one(kind, fact.recordId), (known) => {
      const [record] = known ? layOver(kind, [known.record], [fact]) : [];
      return known && record && { ...known, record };
    });
    patchesOf(client).note(kind, fact.recordId);
    return;
  }
  const key = ['run', fact.recordId];
  // A read that set out before this fact was stored must not overwrite it; one that was to bring others' facts
  // sets out again.
  const isReading = client.isFetching({ queryKey: key }) > 0;
  void client.cancelQueries({ queryKey: key });
  const known = client.getQueryData<KeptRun>(key);
  client.setQueryData(key, addFact(known, fact));
  // What the run rests on comes from the server.
  const isNaming = referencesOf(fact).length > 0;
  if (isNaming || isReading || (known && fact.sequence !== known.facts.length + 1)) {
    void client.invalidateQueries({ queryKey: key });
  }
  patchesOf(client).note('run', fact.recordId);
}

function addFact(run: KeptRun | undefined, fact: Fact): KeptRun | undefined {
  // Begun here: what it rests on this device knows, until the server tells.
  if (!run && fact.kind === 'run.started') return { facts: [fact as RunFact], references: null };
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
