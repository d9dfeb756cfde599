import { useMemo } from 'react';
import type { Catalogue, NamedEntry, Own } from '#core/chemistry';
import { catalogueWith, headOfEntry } from '#core/chemistry';
import { useRecords } from './records';

/** The laboratory's own entries that are in use, as whatever names one carries it. */
export function useOwn(): Own {
  const entries = useRecords('entry');
  return useMemo(
    () =>
      (entries ?? [])
        .filter(({ withdrawn }) => !withdrawn)
        .map(({ id, version, entry }): NamedEntry => ({ id, version, entry })),
    [entries],
  );
}

/** What ships together with the laboratory's own. */
export function useCatalogue(): Catalogue {
  const own = useOwn();
  return useMemo(() => catalogueWith(own), [own]);
}

/** What a record may name that is put right: what it carries already, as it was, and what else is in use. */
export function carriedAnd(own: Own, carried: Own = []): Own {
  const ids = new Set<string>(carried.map(({ id }) => id));
  return [...carried, ...own.filter(({ id }) => !ids.has(id))];
}

/** What a record that names entries by these ids carries of them; nothing where all of them ship. */
export function naming(own: Own, ids: readonly (string | null)[]): { readonly own?: Own } {
  const named = own.filter(({ entry }) => ids.includes(headOfEntry(entry).id));
  return named.length > 0 ? { own: named } : {};
}
