import type { ListAnswer, ListKind, ListOrder } from '#contract';
import { LIST_ANSWERS } from '#contract';
import { ask } from './api';

/** Which records of a kind a list shows, and in what order. */
export interface ListOf {
  readonly order: ListOrder;
  /** Words that are all to be found. */
  readonly search?: string;
  /** Where its records stand; any when it is empty. */
  readonly standing?: string;
  /** Only what may come to hand at a bench. */
  readonly atHand?: 'yes';
  /** The record that they are about: runs of a bottle. */
  readonly about?: string;
  /** A record that they name: the lot that was weighed. */
  readonly restsOn?: string;
}

/** A page of a list, as the server tells it now; the first one after nothing. */
export function pageOf<K extends ListKind>(
  kind: K,
  list: ListOf,
  after = '',
): Promise<ListAnswer<K>> {
  const asked = Object.entries({ ...list, after }).filter(([, value]) => value !== '');
  const query = new URLSearchParams(asked);
  return ask(LIST_ANSWERS[kind], 'GET', `/records/${kind}?${query.toString()}`);
}
