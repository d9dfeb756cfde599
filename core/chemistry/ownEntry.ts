import type {
  Around,
  Finding,
  Provenance,
  RecordHead,
  Reference,
  Withdrawable,
  WithdrawalBody,
} from '../record';
import {
  checkMay,
  defineRecord,
  impossible,
  lasting,
  provenance,
  restedOn,
  RETURNED,
  sameValue,
  takes,
  WITHDRAWN,
} from '../record';
import { CATALOGUE } from './catalogue';
import type { Catalogue, Own, OwnEntry } from './catalogue/entries';
import { checkCatalogue } from './checkCatalogue';
import { catalogueOf, extendCatalogue } from './lookUp';

export interface EntryFactBodies {
  /** The whole entry; each writing is a version of its own. What of the laboratory's own it names stands beside it. */
  'entry.written': { readonly entry: OwnEntry; readonly own?: Own; readonly reason: string };
  'entry.withdrawn': WithdrawalBody;
  'entry.returned': WithdrawalBody;
}

/** An entry of a laboratory's own, as its facts tell it. */
export interface EntryState extends RecordHead, Withdrawable {
  readonly entry: OwnEntry;
  readonly own: Own;
  /** Who wrote each version and why, oldest first. */
  readonly written: readonly (Provenance & { readonly reason: string })[];
}

/** What is around a record that may name entries of the laboratory's own. */
export type AroundEntries = Pick<Around<{ readonly entry: EntryState }>, 'now' | 'at'>;

/** What an entry is called, and which id it goes by. */
export function headOfEntry(entry: OwnEntry): { readonly id: string; readonly name: string } {
  switch (entry.kind) {
    case 'substance':
      return entry.substance;
    case 'indicator':
      return entry.indicator;
    case 'recipe':
      return entry.recipe;
    case 'analysis':
      return entry.analysis;
  }
}

/** The entries that a record names, as it refers to them. */
export function refersToOwn({ own = [] }: { readonly own?: Own }): readonly Reference[] {
  return own.map(({ id, version }) => ({ field: 'own', kind: 'entry', id, version }));
}

/**
 * What speaks against the entries that a record names: they are not there, not so, or out of use. What names the same ones as before
 * stays what it was, also once they are out of use.
 */
export function checkOwn(
  { own = [] }: { readonly own?: Own },
  around: AroundEntries,
  was: { readonly own?: Own } | null = null,
): readonly Finding[] {
  if (was && sameValue(own, was.own ?? [])) return [];
  return own.flatMap((named): readonly Finding[] => {
    const { name } = headOfEntry(named.entry);
    const there = around.at('entry', named);
    if (!there) {
      return [impossible('unknown-reference', 'own', { kind: 'entry', isAtVersion: true })];
    }
    if (!sameValue(there.entry, named.entry)) return [impossible('entry-differs', 'own', { name })];
    const withdrawn = around.now('entry', named.id)?.withdrawn;
    return withdrawn ? [impossible('out-of-use', 'own', { name, reason: withdrawn.reason })] : [];
  });
}

/** The catalogue that ships together with some of the laboratory's own entries. */
export function catalogueWith(own: Own): Catalogue {
  return extendCatalogue(CATALOGUE, catalogueOf(own));
}

/** An entry of a laboratory's own: a substance, an indicator, a recipe or an analysis; written, as often as it is changed, in and out of use. */
export const ENTRY_RECORD = defineRecord<
  'entry',
  EntryFactBodies,
  EntryState,
  AroundEntries & Pick<Around, 'author' | 'isUsed'>
>({
  kind: 'entry',
  first: 'entry.written',
  begin: (fact) =>
    fact.kind === 'entry.written'
      ? {
          entry: fact.body.entry,
          own: fact.body.own ?? [],
          written: [{ ...provenance(fact), reason: fact.body.reason }],
          withdrawn: null,
        }
      : null,
  listed: ({ entry, withdrawn }) => ({
    name: headOfEntry(entry).name,
    words: [entry.kind],
    aboutId: null,
    standing: lasting(withdrawn ? 'withdrawn' : 'in-use'),
    atHandUntil: null,
  }),
  facts: {
    'entry.written': {
      nature: 'decision',
      repeats: true,
      asks: 'use',
      refersTo: refersToOwn,
      check: ({ recordId, body }, state, around) => [
        ...checkMay(around.author, 'manage'),
        ...checkOwn(body, around),
        ...checkEntry(body, recordId),
        ...(isOtherThing(body.entry, state) && around.isUsed(recordId)
          ? [restedOn('formula')]
          : []),
      ],
      apply: ({ written }, fact) => ({
        entry: fact.body.entry,
        own: fact.body.own ?? [],
        written: [...written, { ...provenance(fact), reason: fact.body.reason }],
      }),
      sentence: ({ entry, reason }) => `${entry.kind} ${headOfEntry(entry).name}: ${reason}.`,
    },
    'entry.withdrawn': takes(WITHDRAWN, 'manage'),
    'entry.returned': takes(RETURNED, 'manage'),
  },
});

/** The same checks as those that ship have passed, together with them. */
function checkEntry(
  { entry, own = [] }: EntryFactBodies['entry.written'],
  recordId: EntryState['id'],
): readonly Finding[] {
  const { id, name } = headOfEntry(entry);
  if (id !== recordId) return [impossible('id-not-of-record', 'id')];
  const { substances, indicators, preparations, analyses } = CATALOGUE;
  const shipped = [...substances, ...indicators, ...preparations, ...analyses];
  if (shipped.some((one) => one.name === name)) {
    return [impossible('name-taken-by-entry', 'name', { name })];
  }
  return checkCatalogue(catalogueWith([...own, { id: recordId, version: 1, entry }]));
}

/** Whether it would be another thing: what was made of a substance rests on its formula. */
function isOtherThing(entry: OwnEntry, state: EntryState | null): boolean {
  if (!state) return false;
  const was = state.entry;
  return entry.kind === 'substance' && was.kind === 'substance'
    ? entry.substance.formula !== was.substance.formula
    : entry.kind !== was.kind;
}
