import { QueryClient, QueryObserver } from '@tanstack/react-query';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import type { ListAnswer, RecordAnswer } from '#contract';
import { bottleOf } from '../../core/test-support/runs';
import type { AtHand } from './atHand';
import { KEYS } from './atHand';
import { patchesOf } from './patches';

/** How long changes are gathered, ms; one more than that is too late. */
const GATHERED = 200;

let client: QueryClient;
/** What the server would say of each bottle, and what it was asked for. */
let versions: Map<string, number>;
let gone: Set<string>;
let asked: string[];

const bottle = (id: string, version = 1) => ({
  ...bottleOf('sodium-hydroxide', { id }),
  version,
  code: id,
});

function answerTo(path: string): unknown {
  asked.push(path);
  if (path === '/api/stock') return { left: {} };
  const one = /^\/api\/records\/bottle\/(\w+)$/.exec(path)?.[1];
  if (one !== undefined) {
    const record = bottle(one, versions.get(one));
    return { record, isAtHand: !gone.has(one), left: 1000, names: {} };
  }
  const records = [...versions].map(([id, version]) => bottle(id, version));
  return { records: records.toReversed(), left: {}, names: {}, next: 'on' };
}

beforeEach(() => {
  vi.useFakeTimers();
  client = new QueryClient({ defaultOptions: { queries: { retry: false, staleTime: Infinity } } });
  versions = new Map(['a', 'b', 'c'].map((id) => [id, 1]));
  gone = new Set();
  asked = [];
  vi.stubGlobal('fetch', (path: string) =>
    Promise.resolve(
      new Response(JSON.stringify(answerTo(path)), {
        headers: { 'content-type': 'application/json' },
      }),
    ),
  );
  const known: AtHand<'bottle'> = { records: [bottle('a'), bottle('b'), bottle('c')], isAll: true };
  client.setQueryData(KEYS.atHand('bottle'), known);
});

afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
  client.clear();
});

const atHand = () => client.getQueryData<AtHand<'bottle'>>(KEYS.atHand('bottle'))?.records ?? [];

test('what changed within a fifth of a second is read once, and takes its place', async () => {
  versions.set('b', 3);
  patchesOf(client).note('bottle', 'b');
  patchesOf(client).note('bottle', 'b');
  await vi.advanceTimersByTimeAsync(GATHERED - 1);
  expect(asked).toEqual([]);
  await vi.advanceTimersByTimeAsync(1);
  expect(asked.filter((path) => path.includes('/bottle/'))).toEqual(['/api/records/bottle/b']);
  expect(atHand().map(({ id, version }) => [id, version])).toEqual([
    ['a', 1],
    ['b', 3],
    ['c', 1],
  ]);
});

test('what is new comes last, what is over goes, and an older answer changes nothing', async () => {
  client.setQueryData(KEYS.atHand('bottle'), {
    records: [bottle('a'), bottle('b', 5), bottle('c')],
    isAll: true,
  });
  versions.set('b', 4);
  gone.add('c');
  for (const id of ['b', 'c', 'd']) patchesOf(client).note('bottle', id);
  await vi.advanceTimersByTimeAsync(GATHERED);
  expect(atHand().map(({ id, version }) => [id, version])).toEqual([
    ['a', 1],
    ['b', 5],
    ['d', 1],
  ]);
});

test.each([
  [6, 6],
  [7, 0],
])('of %i that changed together %i are read one by one', async (count, single) => {
  const ids = Array.from({ length: count }, (_, i) => `n${String(i)}`);
  for (const id of ids) patchesOf(client).note('bottle', id);
  await vi.advanceTimersByTimeAsync(GATHERED);
  expect(asked.filter((path) => path.includes('/bottle/'))).toHaveLength(single);
  expect(client.getQueryState(KEYS.atHand('bottle'))?.isInvalidated).toBe(single === 0);
});

test('of a list of pages the row is replaced and the first page alone is read again; nothing comes twice', async () => {
  const page = (ids: readonly string[], next: string | null): ListAnswer<'bottle'> => ({
    ...{ records: ids.map((id) => bottle(id)), left: {}, names: {}, next },
  });
  const key = [...KEYS.lists('bottle'), { order: 'newest' }];
  const pages = [page(['c', 'b'], 'second'), page(['a'], null)];
  client.setQueryData(key, { pages, pageParams: ['', 'second'] });
  // Somebody looks at it.
  new QueryObserver(client, { queryKey: key, enabled: false }).subscribe(() => undefined);
  // The server's first page holds what is new, and one record less of the old.
  versions = new Map([
    ['c', 1],
    ['d', 1],
  ]);
  patchesOf(client).note('bottle', 'a');
  await vi.advanceTimersByTimeAsync(GATHERED);
  const lists = asked.filter((path) => path.includes('?'));
  expect(lists).toEqual(['/api/records/bottle?order=newest']);
  const read = client.getQueryData<{ pages: ListAnswer<'bottle'>[] }>(key)?.pages ?? [];
  expect(read.map(({ records }) => records.map(({ id }) => id))).toEqual([
    ['d', 'c'],
    ['b', 'a'],
  ]);
  expect(read.map(({ next }) => next)).toEqual(['second', null]);
});

test('changes that come while others are read wait for their turn', async () => {
  patchesOf(client).note('bottle', 'a');
  await vi.advanceTimersByTimeAsync(GATHERED - 1);
  let answer: ((response: Response) => void) | undefined;
  vi.stubGlobal('fetch', (path: string) => {
    asked.push(path);
    return new Promise<Response>((resolve) => {
      answer = resolve;
    });
  });
  await vi.advanceTimersByTimeAsync(1);
  patchesOf(client).note('bottle', 'b');
  await vi.advanceTimersByTimeAsync(10 * GATHERED);
  expect(asked).toEqual(['/api/records/bottle/a']);
  const told: RecordAnswer<'bottle'> = {
    ...{ record: bottle('a', 2), isAtHand: true, left: null, names: {} },
  };
  answer?.(new Response(JSON.stringify(told)));
  await vi.advanceTimersByTimeAsync(GATHERED);
  expect(asked.filter((path) => path.includes('/bottle/'))).toEqual([
    '/api/records/bottle/a',
    '/api/records/bottle/b',
  ]);
});
