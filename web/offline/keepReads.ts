import type { DehydratedState, QueryClient } from '@tanstack/react-query';
import { dehydrate, hydrate } from '@tanstack/react-query';
import type { IDBPDatabase } from 'idb';
import type { ReadsSchema } from './reads';

const WRITE_AFTER_MS = 150;

/** What was read longer ago than this is of no use at a bench. */
const WEEK_MS = 7 * 24 * 3_600_000;

/**
 * Keeps on this device what the pages have read, and gives it back after a reload, so that the bench works when the
 * server is away. Signing out empties it with the pages' own memory.
 */
export async function keepReads(
  client: QueryClient,
  build: string,
  opening: Promise<IDBPDatabase<ReadsSchema>>,
): Promise<void> {
  const database = await opening;
  await giveBack(database, client, build);
  let isDue = false;
  const write = (): void => {
    if (isDue) void database.put('reads', { build, state: readsOf(client) }, 'all');
    isDue = false;
  };
  client.getQueryCache().subscribe((event) => {
    if (isDue || (event.type !== 'updated' && event.type !== 'removed')) return;
    isDue = true;
    setTimeout(write, WRITE_AFTER_MS);
  });
  window.addEventListener('pagehide', write);
}

/** All that was read, what could not be read again since included: away from the server that is everything. */
function readsOf(client: QueryClient): DehydratedState {
  const { queries, ...rest } = dehydrate(client, {
    shouldDehydrateQuery: ({ state }) => state.data !== undefined,
  });
  const asRead = queries.map((query) => ({
    ...query,
    state: { ...query.state, status: 'success' as const, error: null },
  }));
  return { ...rest, queries: asRead };
}

async function giveBack(
  database: IDBPDatabase<ReadsSchema>,
  client: QueryClient,
  build: string,
): Promise<void> {
  const kept = await database.get('reads', 'all');
  if (kept?.build !== build) return;
  const queries = kept.state.queries.filter(
    ({ state }) => state.dataUpdatedAt > Date.now() - WEEK_MS && !isSignedOut(state.data),
  );
  hydrate(client, { ...kept.state, queries });
  // It serves until the server answers, and only until then.
  await client.invalidateQueries();
}

/** Nothing is shown on the strength of this: somebody may have signed in since. */
function isSignedOut(data: unknown): boolean {
  return (data as { kind?: unknown } | undefined)?.kind === 'signed-out';
}
