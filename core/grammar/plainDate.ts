import { parseAbsolute, parseDate, toCalendarDate } from '@internationalized/date';
import type { Stored } from './stored';

/** A calendar day without time or zone, `2026-11-24`. Such strings compare in the order of time. */
export type PlainDate = Stored<'date'>;

/** The calendar day of an instant (ISO 8601, UTC) in a time zone (IANA name). */
export function plainDateAt(instant: string, timeZone: string): PlainDate {
  return toCalendarDate(parseAbsolute(instant, timeZone)).toString() as PlainDate;
}

/** A length of keeping time; months run to the same day of a later month. */
export interface CalendarDuration {
  readonly months?: number;
  readonly weeks?: number;
  readonly days?: number;
}

/** The day a duration later. The last day of a month stays within its month: 31 January + 1 month is 28 February. */
export function addToDate(date: PlainDate, duration: CalendarDuration): PlainDate {
  return parseDate(date).add(duration).toString() as PlainDate;
}

/** Days from one date to another, negative when the second is earlier. */
export function daysBetween(from: PlainDate, to: PlainDate): number {
  return parseDate(to).compare(parseDate(from));
}

/** A date that stands in the program itself. @throws RangeError when there is no such day */
export function plainDate(text: string): PlainDate {
  if (!isPlainDate(text)) throw new RangeError(`${text} is no day of the calendar`);
  return text;
}

/** Whether a text is a day of the calendar. */
export function isPlainDate(text: string): text is PlainDate {
  try {
    return parseDate(text).toString() === text;
  } catch {
    return false;
  }
}
