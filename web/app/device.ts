import type { Id } from '#core/grammar';
import { newId } from '#contract';

const ID_KEY = 'vine-measure.device';
const OFFSET_KEY = 'vine-measure.clock-offset';

/** The id of this browser, made once: by it the server tells two devices of one person apart. */
function deviceId(): Id {
  const known = localStorage.getItem(ID_KEY);
  // Only this function ever wrote it.
  if (known !== null) return known as Id;
  const made = newId();
  localStorage.setItem(ID_KEY, made);
  return made;
}

/** Letters that nobody takes for a figure. */
const LETTERS = 'ABCDEFGHJKLMNPQRSTUVWXYZ';

/** A letter of this device: codes that are given away from the server carry it, so that two devices seldom give the same. */
export function deviceLetter(): string {
  const last = Number.parseInt(deviceId().slice(-4), 16);
  return LETTERS[last % LETTERS.length] ?? 'A';
}

/**
 * Measures how far this device's clock is from the server's, half way between question and answer.
 *
 * @param serverNow the server's clock in its answer, ISO 8601
 * @param askedMs this device's clock at the question
 * @param answeredMs and at the answer
 */
export function measureClock(serverNow: string, askedMs: number, answeredMs: number): void {
  const offset = Math.round(Date.parse(serverNow) - (askedMs + answeredMs) / 2);
  localStorage.setItem(OFFSET_KEY, String(offset));
}

/** The server's clock minus this device's, in ms, as last measured, perhaps before a reload; null if never. */
export function clockOffsetMs(): number | null {
  const kept = localStorage.getItem(OFFSET_KEY);
  return kept === null ? null : Number(kept);
}

/** What a fact says of the device that it was made on. */
export function deviceStamp() {
  return {
    deviceId: deviceId(),
    deviceTime: new Date().toISOString(),
    clockOffsetMs: clockOffsetMs(),
  };
}

/** The server's clock as this device estimates it, ISO 8601 in UTC. */
export function serverNow(): string {
  return new Date(Date.now() + (clockOffsetMs() ?? 0)).toISOString();
}
