import type { RunState } from '../run';

/**
 * How fast an Erlenmeyer flask with some 60 mL of water usually cools on the bench, in still air: part of the excess
 * over the room lost in a minute.
 */
const USUAL_LOSS_PER_MINUTE = 0.045;

/** Two readings say how fast a flask cools when they lie this far apart; later it has been heated in between. */
const APART_MINUTES = [0.5, 15] as const;

const MINUTE_MS = 60_000;

/**
 * What a flask of this run loses in a minute of its excess over the room: the mean of what two readings of one flask said, the
 * second lower than the first; the usual where no two did.
 */
export function lossPerMinute({ flasks, setUp }: Pick<RunState, 'flasks' | 'setUp'>): number {
  const roomC = Number(setUp.temperatureC);
  const found = flasks.flatMap(({ temperatures }) =>
    temperatures.slice(1).flatMap((second, i) => {
      const first = temperatures[i] ?? second;
      const minutes = (Date.parse(second.at) - Date.parse(first.at)) / MINUTE_MS;
      const [before, after] = [first, second].map((one) => Number(one.temperatureC) - roomC);
      const isCooling = before !== undefined && after !== undefined && before > after && after > 0;
      return isCooling && minutes >= APART_MINUTES[0] && minutes <= APART_MINUTES[1]
        ? [Math.log(before / after) / minutes]
        : [];
    }),
  );
  return found.length === 0
    ? USUAL_LOSS_PER_MINUTE
    : found.reduce((total, one) => total + one, 0) / found.length;
}

/** A body that cools, by Newton's law: T = T_room + (T_0 - T_room) e^(-k t). */
interface Cooling {
  readonly measuredC: number;
  readonly roomC: number;
  /** k: part of the excess over the room that it loses in a minute. */
  readonly lossPerMinute: number;
}

/** What a flask has cooled to, in °C, some minutes after it was measured: an estimate, so that nobody forgets to measure again. */
export function cooledToC(
  { measuredC, roomC, lossPerMinute: k }: Cooling,
  minutes: number,
): number {
  return roomC + (measuredC - roomC) * Math.exp(-k * minutes);
}

/** Minutes until a flask has cooled to a temperature; 0 when it is below, Infinity when it never will be. */
export function minutesUntil(
  limitC: number,
  { measuredC, roomC, lossPerMinute: k }: Cooling,
): number {
  if (measuredC <= limitC) return 0;
  if (limitC <= roomC) return Number.POSITIVE_INFINITY;
  return Math.log((measuredC - roomC) / (limitC - roomC)) / k;
}
