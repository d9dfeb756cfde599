import type { Knex } from 'knex';
import type { ListKind, ListStates } from '#contract';
import { readPage } from '../ledger/lists';

/** All records of a kind, page after page, by name. */
export async function listAll<K extends ListKind>(db: Knex, kind: K): Promise<ListStates[K][]> {
  const services = { db, now: () => new Date() };
  const records: ListStates[K][] = [];
  for (let after: string | undefined; ;) {
    const asked = { order: 'name', search: '', standing: '', atHand: 'no' } as const;
    const page = await readPage(services, kind, { ...asked, ...(after && { after }) });
    // The states of the kind that was asked for.
    records.push(...(page.records as ListStates[K][]));
    if (page.next === null) return records;
    after = page.next;
  }
}
