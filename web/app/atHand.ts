import type { QueryClient } from '@tanstack/react-query';
import type { RecordKind } from '#core/ledger';
import type { ListAnswer, ListKind, ListStates, RecordAnswer } from '#contract';
import { RECORD_ANSWERS } from '#contract';
import { ask } from './api';
import { pageOf } from './listPages';

/** What may come to hand at a bench, the oldest first; kept on this device for work without the server. */
export interface AtHand<K extends ListKind> {
  readonly records: readonly ListStates[K][];
  /** Whether there is no more of it than is kept. */
  readonly isAll: boolean;
}

/** What begins the key of all that is read of records, so that it can be read again together. */
export const RECORDS = ['records'] as const;

/** Where what was read of a kind is kept; one record, a list or all of them. */
export const KEYS = {
  atHand: (kind: ListKind) => [...RECORDS, 'at-hand', kind] as const,
  one: (kind: ListKind, id?: string) =>
    [...RECORDS, 'one', kind, ...(id === undefined ? [] : [id])] as const,
  lists: (kind: ListKind) => [...RECORDS, 'list', kind] as const,
  stock: [...RECORDS, 'stock'] as const,
};

/** How many of each kind are kept, those begun last: 640 in all. */
const AT_MOST: Readonly<Record<RecordKind, number>> = {
  laboratory: 1,
  person: 60,
  method: 50,
  entry: 60,
  lot: 79,
  equipment: 80,
  bottle: 150,
  preparation: 40,
  sample: 80,
  run: 40,
};

async function readAtHand<K extends ListKind>(kind: K): Promise<AtHand<K>> {
  const records: ListStates[K][] = [];
  let next: string | null = '';
  while (next !== null && records.length < AT_MOST[kind]) {
    const page: ListAnswer<K> = await pageOf(kind, { order: 'newest', atHand: 'yes' }, next);
    records.push(...page.records);
    next = page.next;
  }
  const kept = records.slice(0, AT_MOST[kind]);
  return { records: kept.toReversed(), isAll: next === null && kept.length === records.length };
}

/** The query for what may come to hand of a kind. */
export function atHandOf<K extends ListKind>(kind: K) {
  return { queryKey: KEYS.atHand(kind), queryFn: () => readAtHand(kind) };
}

/** The query for one record, wherever it is. */
export function recordOf<K extends ListKind>(kind: K, id: string) {
  return {
    queryKey: KEYS.one(kind, id),
    queryFn: () => ask(RECORD_ANSWERS[kind], 'GET', `/records/${kind}/${id}`),
  };
}

/** A record as this device last read it, at hand or on its own; null when it never did. */
export function recordRead<K extends ListKind>(
  client: QueryClient,
  kind: K,
  id: string,
): ListStates[K] | null {
  const atHand = client.getQueryData<AtHand<K>>(KEYS.atHand(kind))?.records;
  const one = client.getQueryData<RecordAnswer<K>>(KEYS.one(kind, id))?.record;
  return (
    newer(
      atHand?.find((record) => record.id === id),
      one,
    ) ?? null
  );
}

/** Of two states of a record the later one. */
export function newer<State extends { readonly version: number }>(
  one: State | undefined,
  other: State | undefined,
): State | undefined {
  if (!one || !other) return one ?? other;
  return other.version > one.version ? other : one;
}
