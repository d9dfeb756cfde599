import type { PlainDate } from '../grammar';
import { addToDate } from '../grammar';
import type { Finding } from '../record';
import { impossible } from '../record';

/** What lies further back than this in a laboratory's records is mistyped, and what lies further ahead, years. */
const YEARS_BACK = 30;
const YEARS_AHEAD = 30;

/**
 * What speaks against a date that somebody typed: a year that cannot be, and for what has happened a day to come.
 *
 * @param date null when none was given
 * @param when whether it has happened or is to come
 */
export function checkTypedDate(
  field: string,
  date: PlainDate | null,
  when: 'happened' | 'to-come',
  today: PlainDate,
): readonly Finding[] {
  if (date === null) return [];
  const months = 12;
  const earliest = addToDate(today, { months: -months * YEARS_BACK });
  const latest = when === 'happened' ? today : addToDate(today, { months: months * YEARS_AHEAD });
  if (date >= earliest && date <= latest) return [];
  const isNear = date > today && date <= addToDate(today, { months: months });
  return when === 'happened' && isNear
    ? [impossible('date-to-come', field)]
    : [impossible('year-mistyped', field, { year: date.slice(0, 4) })];
}
