import type { InfiniteData, QueryClient } from '@tanstack/react-query';
import { isRecordKind } from '#core/ledger';
import type { ListAnswer, ListKind, ListStates, RecordAnswer } from '#contract';
import type { AtHand } from './atHand';
import { KEYS, newer, recordOf } from './atHand';
import type { ListOf } from './listPages';
import { pageOf } from './listPages';

/** Changes of so long are read together, ms. */
const GATHER_MS = 200;

/** More changed records of one kind than this are read as a list. */
const ONE_BY_ONE = 6;

/**
 * Brings what was read up to date after changes: the records that changed are read one by one and take their places, of a list
 * of pages only the first is read again. However fast changes come, one reading follows the other.
 */
class Patches {
  readonly #client: QueryClient;
  readonly #changed = new Map<ListKind, Set<string>>();
  #isDue = false;
  #isReading = false;

  constructor(client: QueryClient) {
    this.#client = client;
  }

  /** A record has changed. */
  note(kind: string, id: string): void {
    if (!isRecordKind(kind)) return;
    this.#changed.set(kind, (this.#changed.get(kind) ?? new Set()).add(id));
    this.#readSoon();
  }

  #readSoon(): void {
    if (this.#isDue || this.#isReading) return;
    this.#isDue = true;
    setTimeout(() => void this.#read(), GATHER_MS);
  }

  async #read(): Promise<void> {
    this.#isDue = false;
    this.#isReading = true;
    const changed = [...this.#changed];
    this.#changed.clear();
    await Promise.allSettled(changed.map(([kind, ids]) => this.#readKind(kind, [...ids])));
    this.#isReading = false;
    // What is used up hangs on nearly everything.
    void this.#client.invalidateQueries({ queryKey: KEYS.stock }, { cancelRefetch: false });
    if (this.#changed.size > 0) this.#readSoon();
  }

  async #readKind(kind: ListKind, ids: readonly string[]): Promise<void> {
    if (ids.length > ONE_BY_ONE) {
      await this.#client.invalidateQueries({ queryKey: KEYS.atHand(kind) });
      await this.#client.invalidateQueries({ queryKey: KEYS.one(kind) });
    } else {
      await Promise.all(ids.map((id) => this.#readOne(kind, id)));
    }
    await this.#readFirstPages(kind);
  }

  async #readOne(kind: ListKind, id: string): Promise<void> {
    const answer = await this.#client.query({ ...recordOf(kind, id), staleTime: 0 });
    this.#client.setQueryData<AtHand<ListKind>>(
      KEYS.atHand(kind),
      (known) => known && withRecord(known, answer),
    );
    this.#client.setQueriesData<InfiniteData<ListAnswer<ListKind>>>(
      { queryKey: KEYS.lists(kind) },
      (known) =>
        known && {
          ...known,
          pages: known.pages.map((page) => ({
            ...page,
            records: page.records.map((one) => (one.id === id ? answer.record : one)),
          })),
        },
    );
  }

  async #readFirstPages(kind: ListKind): Promise<void> {
    const lists = this.#client.getQueryCache().findAll({ queryKey: KEYS.lists(kind) });
    for (const { queryKey, observers } of lists) {
      if (observers.length === 0) {
        void this.#client.invalidateQueries({ queryKey, exact: true, refetchType: 'none' });
        continue;
      }
      const first = await pageOf(kind, queryKey.at(-1) as ListOf);
      this.#client.setQueryData<InfiniteData<ListAnswer<ListKind>>>(
        queryKey,
        (known) => known && { ...known, pages: withFirst(known.pages, first) },
      );
    }
  }
}

/** Pages behind a new first one; nothing comes twice. */
function withFirst(
  pages: readonly ListAnswer<ListKind>[],
  first: ListAnswer<ListKind>,
): ListAnswer<ListKind>[] {
  const [before, ...later] = pages;
  const ids = new Set<string>(first.records.map(({ id }) => id));
  // What the first page had and the new one has no more has moved on to the next.
  const moved = before?.records.filter(({ id }) => !ids.has(id)) ?? [];
  const isOneOnly = later.length === 0;
  const rest = later.map((page, i) => ({
    ...page,
    records: [...(i === 0 ? moved : []), ...page.records].filter(({ id }) => !ids.has(id)),
  }));
  return [{ ...first, next: isOneOnly ? first.next : (before?.next ?? null) }, ...rest];
}

/** What is at hand with a record that was read again: in its place, at the end when it is new, gone when it is over. */
function withRecord(
  known: AtHand<ListKind>,
  { record, isAtHand }: RecordAnswer<ListKind>,
): AtHand<ListKind> {
  const others = (): readonly ListStates[ListKind][] =>
    known.records.filter(({ id }) => id !== record.id);
  if (!isAtHand) return { ...known, records: others() };
  const before = known.records.find(({ id }) => id === record.id);
  const records = before
    ? known.records.map((one) => (one === before ? (newer(before, record) ?? one) : one))
    : [...known.records, record];
  return { ...known, records };
}

const PATCHES = new WeakMap<QueryClient, Patches>();

/** The patches of what one client has read. */
export function patchesOf(client: QueryClient): Patches {
  const patches = PATCHES.get(client) ?? new Patches(client);
  PATCHES.set(client, patches);
  return patches;
}
