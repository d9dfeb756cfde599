import { useInfiniteQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import type { PlainRecordKind, PlainStates, RunSummary } from '#core/ledger';
import { listedRun, listingOf } from '#core/ledger';
import type { Listing } from '#core/record';
import { searchedText, searchTerms } from '#core/record';
import type { ListKind, ListStates } from '#contract';
import { AwayError } from './api';
import { KEYS } from './atHand';
import type { ListOf } from './listPages';
import { pageOf } from './listPages';
import { failsThePage } from './queryClient';
import { useReach } from './reachability';
import { useLaidOver, useRecords, useRuns } from './records';

/** A list as far as it has been read. */
export interface PagedList<K extends ListKind> {
  readonly records: readonly ListStates[K][];
  readonly left: Readonly<Record<string, number>>;
  readonly names: Readonly<Record<string, string>>;
  /** Reads on; null at the end of the list. */
  readonly more: (() => void) | null;
  readonly isReading: boolean;
}

/** A list of records in pages, as the server tells it; undefined while its first is on its way. */
function usePages<K extends ListKind>(kind: K, list: ListOf): PagedList<K> | undefined {
  const query = useInfiniteQuery({
    queryKey: [...KEYS.lists(kind), list],
    queryFn: ({ pageParam }) => pageOf(kind, list, pageParam),
    initialPageParam: '',
    getNextPageParam: ({ next }) => next ?? undefined,
    throwOnError: (error, { state }) =>
      !(error instanceof AwayError) && failsThePage(error, { state }),
    // The text that is searched for changes under the hand: what stands there stays until the answer is there.
    placeholderData: (before) => before,
  });
  const { data, fetchNextPage, hasNextPage, isFetchingNextPage } = query;
  return useMemo(
    () =>
      data && {
        records: data.pages.flatMap(({ records }) => records),
        left: Object.assign({}, ...data.pages.map(({ left }) => left)) as PagedList<K>['left'],
        names: Object.assign({}, ...data.pages.map(({ names }) => names)) as PagedList<K>['names'],
        more: hasNextPage ? () => void fetchNextPage() : null,
        isReading: isFetchingNextPage,
      },
    [data, fetchNextPage, hasNextPage, isFetchingNextPage],
  );
}

/** Whether a record has all the words that are searched for. */
function hasWords(listing: Listing, search: string): boolean {
  const text = searchedText(listing);
  return searchTerms(search).every((term) => text.includes(term));
}

/** The records of a kind that name another, the newest first, as the server tells it; undefined until it has. */
export function useListOn<K extends ListKind>(kind: K, recordId: string): PagedList<K> | undefined {
  return usePages(kind, { order: 'newest', restsOn: recordId });
}

/** The list of runs in pages, all or those of a bottle, the newest first; without the server those that are open. */
export function useRunList(
  search: string,
  standing: RunSummary['status'] | '',
  bottleId = '',
): PagedList<'run'> | undefined {
  const pages = usePages('run', { order: 'newest', search, standing, about: bottleId });
  const open = useRuns();
  const isAway = useReach() !== 'reached';
  if (pages || !isAway || !open) return pages;
  const isFound = (run: RunSummary): boolean =>
    (standing === '' || run.status === standing) &&
    (bottleId === '' || run.bottleId === bottleId) &&
    hasWords(listedRun(run), search);
  return ended(open.filter(isFound).toReversed());
}

/**
 * A list of records in pages, with what this device has entered since; without the server what is at hand. Undefined while its first
 * page is on its way.
 */
export function useRecordList<K extends PlainRecordKind>(
  kind: K,
  list: ListOf,
): PagedList<K> | undefined {
  const pages: PagedList<K> | undefined = usePages(kind, list);
  const atHand = useRecords(kind);
  const isAway = useReach() !== 'reached';
  const { order, search = '' } = list;
  const isFound = (state: PlainStates[K]): boolean => hasWords(listingOf(kind, state), search);
  const given: PagedList<K> | undefined =
    pages ?? (isAway && atHand ? ended<K>(asListed(atHand).toReversed()) : undefined);
  const laid = useLaidOver(kind, given?.records);
  if (!given || !laid) return undefined;
  const ids = new Set<string>(given.records.map(({ id }) => id));
  // What was begun here and is still on its way stands where it will stand.
  const own = laid.filter(({ id }) => !ids.has(id));
  const kept = laid.filter(({ id }) => ids.has(id));
  const all = order === 'newest' ? [...own.toReversed(), ...kept] : [...kept, ...own];
  return { ...given, records: asListed<K>(all.filter(isFound)) };
}

/** What lists show of a record that stands on its own is its state. */
function asListed<K extends PlainRecordKind>(
  states: readonly PlainStates[K][],
): readonly ListStates[K][] {
  return states as readonly ListStates[PlainRecordKind][] as readonly ListStates[K][];
}

/** A list that is known to its end, as far as this device goes. */
function ended<K extends ListKind>(records: readonly ListStates[K][]): PagedList<K> {
  return { records, left: {}, names: {}, more: null, isReading: false };
}
