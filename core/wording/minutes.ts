const HOUR = 60;
const DAY = 24 * HOUR;

/** A wait in the unit that people say it in: minutes below two hours, hours below two days. */
export function minutesText(minutes: number): string {
  if (minutes < 2 * HOUR) return `${String(minutes)} minutes`;
  return minutes < 2 * DAY
    ? `${String(Math.round(minutes / HOUR))} hours`
    : `${String(Math.round(minutes / DAY))} days`;
}
