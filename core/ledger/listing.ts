import type { Counted, Listing, Taken } from '../record';
import type { AroundFact, PlainRecordKind, PlainStates } from './registry';
import { PLAIN_RECORDS } from './registry';

/** What read-only tables keep of a record that stands on its own. */
interface Listed<State> {
  listed(state: State): Listing;
  counted?(state: State): Counted | null;
  taken?(state: State, around: AroundFact): readonly Taken[];
}

const LISTED: { readonly [K in PlainRecordKind]: Listed<PlainStates[K]> } = PLAIN_RECORDS;

/** What lists order, filter and search a record by. */
export function listingOf<K extends PlainRecordKind>(kind: K, state: PlainStates[K]): Listing {
  return LISTED[kind].listed(state);
}

/** How much there was of a record when it was last counted; null when nobody counts. */
export function countedOf<K extends PlainRecordKind>(
  kind: K,
  state: PlainStates[K],
): Counted | null {
  return LISTED[kind].counted?.(state) ?? null;
}

/** What a record has taken from others so far. */
export function takenOf<K extends PlainRecordKind>(
  kind: K,
  state: PlainStates[K],
  around: AroundFact,
): readonly Taken[] {
  return LISTED[kind].taken?.(state, around) ?? [];
}
