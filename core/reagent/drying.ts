import { figureText } from '../measurement';
import type { Drying } from '../chemistry';
import { describeDrying } from '../chemistry';
import type { DryingSpell } from './lot';

/** Whether a standard may be weighed as it is, with the sentence that says so. */
export interface Dryness {
  readonly verdict:
    'dry' | 'not-yet' | 'cooling' | 'too-hot' | 'too-cold' | 'not-dried' | 'no-oven';
  readonly sentence: string;
  /** ISO 8601: from when on it may be weighed, when that is known. */
  readonly weighableFrom: string | null;
}

/** Time in the desiccator before a dried solid may be weighed, minutes. Source: common practice, half an hour or more. */
export const COOLING_MINUTES = 30;

const MINUTE_MS = 60_000;

/**
 * "Dry enough?", by what the catalogue says of the substance and what the drying log says of the lot. Only the last spell in the
 * oven counts: a solid takes up water again.
 */
export function dryness(
  drying: Drying | null,
  spells: readonly DryingSpell[],
  now: string,
): Dryness {
  const answer = (
    verdict: Dryness['verdict'],
    sentence: string,
    weighableFrom: string | null = null,
  ): Dryness => ({ verdict, sentence, weighableFrom });
  if (drying?.kind !== 'oven') {
    return answer('no-oven', drying ? describeDrying(drying) : 'It is weighed as it comes.');
  }
  const rule = describeDrying(drying);
  const last = spells.at(-1);
  if (!last) return answer('not-dried', `Not dried yet: ${rule}.`);
  const [low, high] = drying.temperatureC;
  const temperatureC = Number(last.temperatureC);
  if (temperatureC > high) {
    const sentence = `It was dried at ${figureText(last.temperatureC)} °C, above its limit of ${String(high)} °C: it may have decomposed.`;
    return answer('too-hot', sentence);
  }
  if (temperatureC < low) {
    return answer('too-cold', `${figureText(last.temperatureC)} °C is too low to dry it: ${rule}.`);
  }
  const ready = Date.parse(last.putIn.at) + (drying.hours ?? 0) * 60 * MINUTE_MS;
  const outAt = last.takenOut ? Date.parse(last.takenOut.at) : Math.max(ready, Date.parse(now));
  const weighable = new Date(outAt + COOLING_MINUTES * MINUTE_MS).toISOString();
  if (outAt < ready) {
    return answer('not-yet', `It was taken out too early: ${rule}.`);
  }
  if (!last.takenOut) {
    return Date.parse(now) < ready
      ? answer('not-yet', `It is in the oven: ${rule}.`, weighable)
      : answer('not-yet', 'It has been in the oven long enough: take it out to cool.', weighable);
  }
  return now < weighable
    ? answer('cooling', 'It is dry and still warm: let it cool in the desiccator.', weighable)
    : answer('dry', `Dried at ${figureText(last.temperatureC)} °C and cooled.`, weighable);
}
