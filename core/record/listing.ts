import type { PlainDate } from '../grammar';
import { addToDate, daysBetween } from '../grammar';

/** Where a record stands, and on which day that changes: a list compares days and knows nothing else of the kind. */
export interface Standing<Word extends string = string> {
  readonly now: Word;
  /** The last day for which it holds; null when it has no end. */
  readonly lastDay: PlainDate | null;
  /** Where it stands from the next day on. */
  readonly after: Word;
  /** So many of the last days it may be due soon, if a list warns as early; null when nothing falls due. */
  readonly warningDays: number | null;
}

/** Standing that no day changes. */
export function lasting<Word extends string>(now: Word): Standing<Word> {
  return { now, lastDay: null, after: now, warningDays: null };
}

/** The last days of a validity on which a list warns, unless the laboratory has set others or the record says fewer. */
export const WARNING_DAYS = 7;

/** A laboratory may have its lists warn as many days before. */
export const MOST_WARNING_DAYS = 60;

/** Where a record stands on a day, where a list warns so many days before. */
export function standingOn<Word extends string>(
  { now, lastDay, after, warningDays }: Standing<Word>,
  today: PlainDate,
  warnsDays: number = WARNING_DAYS,
): Word | 'due-soon' {
  if (lastDay === null) return now;
  const daysLeft = daysBetween(today, lastDay);
  if (daysLeft < 0) return after;
  const isDue = warningDays !== null && daysLeft <= Math.min(warnsDays, warningDays);
  return isDue ? 'due-soon' : now;
}

/** What lists order, filter and search a record by. */
export interface Listing {
  /** By what a hand calls it: the code of a bottle, the number of a lot. */
  readonly name: string;
  /** What it is found by beside its name. */
  readonly words: readonly string[];
  /** The record that it is about: the bottle of a run. */
  readonly aboutId: string | null;
  readonly standing: Standing;
  /** The last day on which it may come to hand at a bench; null when it has no last day. */
  readonly atHandUntil: PlainDate | null | 'over';
}

/** What a search looks through, in lower case. */
export function searchedText({ name, words }: Pick<Listing, 'name' | 'words'>): string {
  return [name, ...words].join(' ').toLowerCase();
}

/** The words of a search, which are all to be found. */
export function searchTerms(search: string): readonly string[] {
  return search.toLowerCase().split(/\s+/).filter(Boolean);
}

/** Days after its last day for which something is still at hand: to be made again, standardized or thrown away. */
const AT_HAND_AFTER_DAYS = 60;

/** A record that may come to hand until it is withdrawn, or until some time after its last day where it is used up. */
export function atHand(
  standing: Standing,
  isWithdrawn: boolean,
  { isUsedUp }: { readonly isUsedUp: boolean } = { isUsedUp: true },
): Pick<Listing, 'standing' | 'atHandUntil'> {
  if (isWithdrawn) return { standing: lasting('withdrawn'), atHandUntil: 'over' };
  const last = isUsedUp ? standing.lastDay : null;
  return { standing, atHandUntil: last && addToDate(last, { days: AT_HAND_AFTER_DAYS }) };
}
