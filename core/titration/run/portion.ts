import type { DecimalText } from '../../measurement';
import { figureText, ZERO } from '../../measurement';
import type { Weighing } from '../../metrology';
import { netMassG } from '../../metrology';

/** What was measured into a flask: a solid, a solution, or nothing but medium and indicator. */
export type Portion =
  | { readonly kind: 'mass'; readonly weighing: Weighing }
  | { readonly kind: 'volume'; readonly volumeMl: DecimalText }
  | { readonly kind: 'blank' };

/** How much of it, exact in its decimals: g of a solid, mL of a solution, nothing for a blank. */
export function portionAmount(portion: Portion): DecimalText {
  switch (portion.kind) {
    case 'mass':
      return netMassG(portion.weighing);
    case 'volume':
      return portion.volumeMl;
    case 'blank':
      return ZERO;
  }
}

/** A portion with its unit: `0.4802 g`. */
export function portionText(portion: Portion, volumeUnit = 'mL'): string {
  if (portion.kind === 'blank') return 'blank';
  return `${figureText(portionAmount(portion))} ${portion.kind === 'mass' ? 'g' : volumeUnit}`;
}
