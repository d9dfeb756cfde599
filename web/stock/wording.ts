import { roundSignificant } from '#core/measurement';
import type { Lot } from '#core/reagent';

/** What is left of a lot with its unit: `412 g`; a dash for one that nobody counts. */
export function leftText({ dissolved }: Lot, left: number | undefined): string {
  if (left === undefined) return '–';
  const unit = dissolved ? 'mL' : 'g';
  return `${left > 0 ? roundSignificant(left, 3) : '0'} ${unit}`;
}
