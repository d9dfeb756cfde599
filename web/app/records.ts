import { useQueries, useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import type { PlainRecordKind, PlainStates, RunSummary } from '#core/ledger';
import { currentSchemaVersion, isObservation, RECORD_KINDS, recordKindOf } from '#core/ledger';
import type { RecordsNow } from '#core/titration';
import type { Id } from '#core/grammar';
import type { ListKind, ListStates, NewFact, ProposedFact } from '#contract';
import { LIST_ANSWERS, newId } from '#contract';
import { layOver } from '../outbox/layOver';
import type { Waiting } from '../outbox/outbox';
import { asFact } from '../outbox/outbox';
import { useWaiting } from '../outbox/useOutbox';
import { ask } from './api';
import { deviceStamp } from './device';
import { failsThePage } from './queryClient';

/** A list of records as the server last told it. */
function useList<K extends ListKind>(kind: K): readonly ListStates[K][] | undefined {
  return useQuery({ ...listOf(kind), throwOnError: failsThePage }).data;
}

function listOf<K extends ListKind>(kind: K) {
  return {
    queryKey: ['records', kind],
    queryFn: async () => (await ask(LIST_ANSWERS[kind], 'GET', `/records/${kind}`)).records,
  };
}

/** Reads what entries are checked against before it is needed: the server may be away by then. */
export function useReadAhead(): void {
  const lists = RECORD_KINDS.filter((kind) => kind !== 'laboratory').map(listOf);
  useQueries({ queries: lists });
}

/** Records as the server last told of them, with what this device has entered since. */
export function useRecords<K extends PlainRecordKind>(
  kind: K,
): readonly PlainStates[K][] | undefined {
  const known: readonly PlainStates[K][] | undefined = useList(kind);
  const waiting = useWaiting();
  return useMemo(() => {
    const own = waiting.filter(({ fact, refusal }) => fact.recordKind === kind && refusal === null);
    return known && own.length > 0
      ? layOver(
          kind,
          known,
          own.map(({ fact }) => asFact(fact)),
        )
      : known;
  }, [kind, known, waiting]);
}

/** Runs as the server last told of them. */
export function useRuns(): readonly RunSummary[] | undefined {
  return useList('run');
}

/** What a run may rest on, as it is now; empty until it is known. */
export function useRecordsNow(): RecordsNow {
  return {
    bottles: useRecords('bottle') ?? [],
    lots: useRecords('lot') ?? [],
    equipment: useRecords('equipment') ?? [],
  };
}

/** The name of a person by id, as far as it is known. */
export function usePersonName(): (id: string) => string {
  const people = useList('person');
  return (id) => people?.find((person) => person.id === id)?.name ?? '…';
}

/** A record as its author saw it. */
export interface Seen {
  readonly id: Id;
  /** How many of its facts the server had told of. */
  readonly stored: number;
  /** How many it has with what waits on this device. */
  readonly version: number;
}

/** A record of which this device knows what it still has to send. */
export function seenWith(
  { id, version }: Pick<Seen, 'id' | 'version'>,
  waiting: readonly Waiting[],
): Seen {
  const own = waiting.filter(({ fact, refusal }) => fact.recordId === id && refusal === null);
  return { id, version, stored: Math.max(0, version - own.length) };
}

/**
 * A fact with its envelope, made on this device now. An observation names what was seen of others; a decision the version that it
 * will meet.
 */
export function makeFact(
  fact: NewFact,
  { id: recordId, stored, version }: Seen,
  authorId: Id,
): ProposedFact {
  // Kind and body are a pair of the union. They are as typed: checks in core and the contract's schema come after.
  return {
    ...fact,
    id: newId(),
    recordId,
    recordKind: recordKindOf(fact.kind),
    schemaVersion: currentSchemaVersion(fact.kind),
    authorId,
    ...deviceStamp(),
    basedOn: isObservation(fact.kind) ? stored : version,
  } as unknown as ProposedFact;
}
