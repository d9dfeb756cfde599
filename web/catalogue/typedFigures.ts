import type { CalendarDuration } from '#core/grammar';
import { numberIn } from '../ui/numberIn';

/** A number as typed; null where nothing was, not a number where something else was, which the contract refuses. */
export function numberOrNull(typed: string): number | null {
  return typed.trim() === '' ? null : numberIn(typed);
}

/** A number as a field shows it. */
export function figureOf(value: number | null | undefined): string {
  return value === null || value === undefined ? '' : String(value);
}

/** How long something keeps, as a form holds it. */
export interface TypedDuration {
  readonly count: string;
  readonly unit: 'days' | 'weeks' | 'months';
}

export function typedDuration(duration: CalendarDuration | undefined): TypedDuration {
  const { months = 0, weeks = 0, days = 0 } = duration ?? {};
  if (months > 0) return { count: String(months), unit: 'months' };
  return weeks > 0
    ? { count: String(weeks), unit: 'weeks' }
    : { count: duration ? String(days) : '', unit: 'days' };
}

export function durationOf({ count, unit }: TypedDuration): CalendarDuration {
  return { [unit]: numberIn(count) };
}
