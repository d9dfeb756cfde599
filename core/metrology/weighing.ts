import type { DecimalText } from '../measurement';
import { decimalPlaces, subtractDecimals } from '../measurement';
import type { Finding } from '../record';
import { impossible, unlikely } from '../record';
import type { Balance } from './equipment';

/** A net mass: read from a tared balance, or as the loss of the weighing bottle. */
export type Weighing =
  | { readonly mode: 'tared'; readonly massG: DecimalText }
  | { readonly mode: 'by-difference'; readonly beforeG: DecimalText; readonly afterG: DecimalText };

/** Net mass of a weighing, exact in its decimals, in g. */
export function netMassG(weighing: Weighing): DecimalText {
  return weighing.mode === 'tared'
    ? weighing.massG
    : subtractDecimals(weighing.beforeG, weighing.afterG);
}

/** What speaks against a weighing, whatever it is for: sign, range and digits of the balance. */
export function checkWeighing(weighing: Weighing, balance: Balance): readonly Finding[] {
  const [field, shown] =
    weighing.mode === 'tared'
      ? (['massG', [weighing.massG]] as const)
      : (['afterG', [weighing.beforeG, weighing.afterG]] as const);
  if (shown.some((text) => Number(text) < 0)) {
    return [impossible('negative-mass', field, 'A mass cannot be negative.')];
  }
  if (Number(netMassG(weighing)) <= 0) {
    const message =
      weighing.mode === 'tared'
        ? 'The mass must be more than 0 g.'
        : 'The bottle must weigh less after than before: exchanged?';
    return [impossible('no-mass', field, message)];
  }
  if (Number(netMassG(weighing)) < Number(balance.readabilityG)) {
    const message = `Balance ${balance.name} shows no less than ${balance.readabilityG} g.`;
    return [impossible('below-readability', field, message)];
  }
  if (shown.some((text) => Number(text) > Number(balance.maxLoadG))) {
    const message = `Balance ${balance.name} carries at most ${balance.maxLoadG} g.`;
    return [impossible('over-max-load', field, message)];
  }
  return checkShownDecimals(shown, decimalPlaces(balance.readabilityG), field, 'The balance shows');
}

/** Asks for every digit that an instrument shows. */
export function checkShownDecimals(
  shown: readonly DecimalText[],
  decimals: number,
  field: string,
  lead: string,
): readonly Finding[] {
  if (shown.every((text) => decimalPlaces(text) === decimals)) return [];
  const message = `${lead} ${String(decimals)} decimals: write every one of them, a last zero too.`;
  return [unlikely('decimals', field, message)];
}

/** A weighing as it was read: `0.4802 g`, or both masses of one by difference. */
export function weighingText(weighing: Weighing): string {
  return weighing.mode === 'tared'
    ? `${weighing.massG} g`
    : `${weighing.beforeG} g before, ${weighing.afterG} g after`;
}
