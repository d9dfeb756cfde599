/** How fast an Erlenmeyer flask with some 60 mL of water cools on the bench: part of the excess lost in a minute. */
const LOSS_PER_MINUTE = 0.045;

/**
 * What a flask has cooled to, in °C, some minutes after it was measured: T = T_room + (T_0 - T_room) e^(-k t).
 * Newton's law of cooling with a usual k for an open flask in still air; an estimate, so that nobody forgets to
 * measure again.
 */
export function cooledToC(measuredC: number, roomC: number, minutes: number): number {
  return roomC + (measuredC - roomC) * Math.exp(-LOSS_PER_MINUTE * minutes);
}

/** Minutes until a flask has cooled to a temperature; 0 when it is below, Infinity when it never will be. */
export function minutesUntil(limitC: number, measuredC: number, roomC: number): number {
  if (measuredC <= limitC) return 0;
  if (limitC <= roomC) return Number.POSITIVE_INFINITY;
  return Math.log((measuredC - roomC) / (limitC - roomC)) / LOSS_PER_MINUTE;
}
