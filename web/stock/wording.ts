import { figureText, roundSignificant } from '#core/measurement';
import type { Lot } from '#core/reagent';
import { unitOfLot } from '#core/reagent';

/** What is left of a lot with its unit: `412 g`; a dash for one that nobody counts. */
export function leftText({ dissolved }: Pick<Lot, 'dissolved'>, left: number | undefined): string {
  if (left === undefined) return '–';
  return `${figureText(left > 0 ? roundSignificant(left, 3) : '0')} ${unitOfLot({ dissolved })}`;
}
