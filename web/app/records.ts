import { useIsFetching, useQueries, useQuery } from '@tanstack/react-query';
import { useEffect, useMemo, useState } from 'react';
import type { PlainRecordKind, PlainStates, RunSummary } from '#core/ledger';
import { currentSchemaVersion, isObservation, RECORD_KINDS, recordKindOf } from '#core/ledger';
import type { RecordsNow } from '#core/titration/judging';
import type { RunSetUp } from '#core/titration/setUp';
import { namedRecords } from '#core/titration/setUp';
import type { Id } from '#core/grammar';
import type { ListKind, NewFact, ProposedFact } from '#contract';
import { newId, runAnswer, stockAnswer } from '#contract';
import { layOver } from '../outbox/layOver';
import type { Waiting } from '../outbox/outbox';
import { asFact } from '../outbox/outbox';
import type { KeptRun } from '../outbox/useOutbox';
import { useWaiting } from '../outbox/useOutbox';
import { ask, ProblemError } from './api';
import type { AtHand } from './atHand';
import { atHandOf, KEYS, newer, recordOf } from './atHand';
import { deviceStamp } from './device';
import { failsThePage } from './queryClient';

/** What may come to hand of a kind, as the server last told it. */
export function useAtHand<K extends ListKind>(kind: K): AtHand<K> | undefined {
  return useQuery({ ...atHandOf(kind), throwOnError: failsThePage }).data;
}

/** Whether this device has all of a kind that may come to hand, and not only what was begun last. */
export function useHasAll(kind: ListKind): boolean {
  return useAtHand(kind)?.isAll ?? true;
}

/** A page that has asked for nothing for so long has all that it shows, ms. */
const QUIET_MS = 200;

/**
 * Reads what entries are checked against, and the open work, before it is needed: the server may be away by then. The page that is
 * wanted now comes first.
 */
export function useReadAhead(): void {
  const isReading = useIsFetching() > 0;
  const [isDue, setDue] = useState(false);
  useEffect(() => {
    if (isReading) return;
    const timer = setTimeout(() => {
      setDue(true);
    }, QUIET_MS);
    return () => {
      clearTimeout(timer);
    };
  }, [isReading]);
  const lists = RECORD_KINDS.filter((kind) => kind !== 'laboratory').map(atHandOf);
  useQueries({ queries: lists.map((list) => ({ ...list, enabled: isDue })) });
  useQuery({ ...STOCK, enabled: isDue });
  const runs = useRuns() ?? [];
  useQueries({
    queries: runs.map(({ id }) => ({ ...runOf(id), staleTime: Infinity, enabled: isDue })),
  });
}

/** Facts of this device laid over what it has read. */
export function useLaidOver<K extends PlainRecordKind>(
  kind: K,
  known: readonly PlainStates[K][] | undefined,
): readonly PlainStates[K][] | undefined {
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

/** Records that may come to hand as the server last told of them, with what this device has entered since. */
export function useRecords<K extends PlainRecordKind>(
  kind: K,
): readonly PlainStates[K][] | undefined {
  return useLaidOver(kind, useAtHand(kind)?.records);
}

/** Records by their ids, at hand or not, as far as they have been read, with what this device has entered since. */
export function useRecordsOf<K extends PlainRecordKind>(
  kind: K,
  ids: readonly string[],
): readonly PlainStates[K][] {
  const atHand = useRecords(kind);
  const absent = atHand ? ids.filter((id) => !atHand.some((one) => one.id === id)) : [];
  const asked = useQueries({ queries: absent.map((id) => recordOf(kind, id)) });
  const found = asked.flatMap(({ data }): PlainStates[K][] => (data ? [data.record] : []));
  const laid = useLaidOver(kind, found) ?? [];
  return ids.flatMap((id) => [...(atHand ?? []), ...laid].find((one) => one.id === id) ?? []);
}

/** One record with what the server says beside it. */
export interface One<K extends PlainRecordKind> {
  readonly record: PlainStates[K];
  /** What is left of it (g, mL); undefined when nobody counts. */
  readonly left: number | undefined;
  /** What the records that it rests on are called, by id. */
  readonly names: Readonly<Record<string, string>>;
}

/** One record, wherever it is; undefined while it is on its way, null when there is none. */
export function useRecord<K extends PlainRecordKind>(
  kind: K,
  id: string,
): One<K> | null | undefined {
  const atHand = useAtHand(kind);
  const stock = useStockLeft();
  const { data, error } = useQuery(recordOf(kind, id));
  const read: PlainStates[K] | undefined = newer(
    atHand?.records.find((one) => one.id === id),
    data?.record,
  );
  const known = useMemo(() => (read ? [read] : []), [read]);
  const record = useLaidOver(kind, known)?.find((one) => one.id === id);
  if (record) {
    const left = stock?.get(id) ?? data?.left ?? undefined;
    return { record, left, names: data?.names ?? {} };
  }
  if (!atHand || (!error && !data)) return undefined;
  if (error && !isNoSuch(error)) throw error;
  return null;
}

function isNoSuch(error: Error): boolean {
  return error instanceof ProblemError && error.problem.code === 'not-found';
}

/** The open runs as the server last told of them. */
export function useRuns(): readonly RunSummary[] | undefined {
  return useAtHand('run')?.records;
}

/** Runs by their ids as far as they have been read. */
export function useRunsOf(ids: readonly string[]): readonly RunSummary[] {
  const asked = useQueries({ queries: ids.map((id) => recordOf('run', id)) });
  return asked.flatMap(({ data }): RunSummary[] => (data ? [data.record] : []));
}

/** The query for a run with all that it rests on. */
export function runOf(runId: string) {
  return {
    queryKey: ['run', runId],
    queryFn: (): Promise<KeptRun> => ask(runAnswer, 'GET', `/runs/${runId}`),
  };
}

/** What a run rests on, as it is now; empty until it is known. */
export function useRecordsNow(setUp: RunSetUp): RecordsNow {
  const idsOf = (kind: string): readonly string[] =>
    namedRecords(setUp).flatMap((part) => (part.kind === kind ? [part.at.id] : []));
  return {
    bottles: useRecordsOf('bottle', idsOf('bottle')),
    lots: useRecordsOf('lot', idsOf('lot')),
    equipment: useRecordsOf('equipment', idsOf('equipment')),
  };
}

/** The name of a person by id, as far as it is known. */
export function usePersonName(): (id: string) => string {
  const people = useAtHand('person')?.records;
  return (id) => people?.find((person) => person.id === id)?.name ?? '…';
}

/** What is left of what may come to hand (g, mL), by id, as the server last told it. */
export function useStockLeft(): ReadonlyMap<string, number> | undefined {
  const { data } = useQuery({ ...STOCK, throwOnError: failsThePage });
  return useMemo(() => data && new Map(Object.entries(data.left)), [data]);
}

const STOCK = {
  queryKey: KEYS.stock,
  queryFn: () => ask(stockAnswer, 'GET', '/stock'),
};

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
