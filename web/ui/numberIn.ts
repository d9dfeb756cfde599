import { parseDecimal } from '#core/measurement';

/** The number that is typed; not a number where nothing is, or something else. */
export function numberIn(typed: string): number {
  return Number(parseDecimal(typed) ?? Number.NaN);
}
