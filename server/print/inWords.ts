import type { PlainDate } from '#core/grammar';

const DATE = new Intl.DateTimeFormat('en-GB', {
  day: 'numeric',
  month: 'short',
  year: 'numeric',
  timeZone: 'UTC',
});

/** A plain date on paper: 2 Mar 2026. */
export function dateText(date: PlainDate): string {
  return DATE.format(new Date(`${date}T00:00:00Z`));
}

/** An instant on paper, by the clock of the laboratory: 2 Mar 2026, 14:05. */
export function instantTextIn(timeZone: string): (instant: string) => string {
  const format = new Intl.DateTimeFormat('en-GB', {
    day: 'numeric',
    month: 'short',
    year: 'numeric',
    hour: '2-digit',
    minute: '2-digit',
    timeZone,
  });
  return (instant) => format.format(new Date(instant));
}
