import type { ListAnswer, ListKind, ListOrder } from '#contract';
import { LIST_ANSWERS } from '#contract';
import { ask } from './api';

/** Which records of a kind a list shows, and in what order. */
export interface ListOf {
  readonly order: ListOrder;
  /** Words that are all to be found. */
  readonly search?: string;
  /** Standings of which it has one. */
  readonly standing?: readonly string[];
}

/** A page of a list, as the server tells it now; the first one after nothing. */
export function pageOf<K extends ListKind>(
  kind: K,
  { order, search = '', standing = [] }: ListOf,
  after = '',
): Promise<ListAnswer<K>> {
  const query = new URLSearchParams({ order });
  if (search !== '') query.set('search', search);
  if (standing.length > 0) query.set('standing', standing.join(','));
  if (after !== '') query.set('after', after);
  return ask(LIST_ANSWERS[kind], 'GET', `/records/${kind}?${query.toString()}`);
}
