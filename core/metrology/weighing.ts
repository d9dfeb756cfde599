import type { DecimalText } from '../measurement';
import { decimalPlaces, figureText, subtractDecimals } from '../measurement';
import type { Finding } from '../record';
import { impossible, unlikely } from '../record';
import type { Balance } from './equipment';

/**
 * A net mass: read from a tared balance, or the difference of two masses: of the weighing bottle before and after, or of a vessel
 * empty and then full.
 */
export type Weighing =
  | { readonly mode: 'tared'; readonly massG: DecimalText }
  | { readonly mode: 'by-difference'; readonly beforeG: DecimalText; readonly afterG: DecimalText };

/** Net mass of a weighing, exact in its decimals, in g. */
export function netMassG(weighing: Weighing): DecimalText {
  if (weighing.mode === 'tared') return weighing.massG;
  const { beforeG, afterG } = weighing;
  return Number(beforeG) >= Number(afterG)
    ? subtractDecimals(beforeG, afterG)
    : subtractDecimals(afterG, beforeG);
}

/** What speaks against a weighing, whatever it is for: sign, range and digits of the balance. */
export function checkWeighing(weighing: Weighing, balance: Balance): readonly Finding[] {
  const [field, shown] =
    weighing.mode === 'tared'
      ? (['massG', [weighing.massG]] as const)
      : (['afterG', [weighing.beforeG, weighing.afterG]] as const);
  if (shown.some((text) => Number(text) < 0)) {
    return [impossible('negative-mass', field)];
  }
  if (Number(netMassG(weighing)) <= 0) {
    return [impossible(weighing.mode === 'tared' ? 'no-mass' : 'same-mass', field)];
  }
  if (Number(netMassG(weighing)) < Number(balance.readabilityG)) {
    return [
      impossible('below-readability', field, {
        balance: balance.name,
        readabilityG: balance.readabilityG,
      }),
    ];
  }
  if (shown.some((text) => Number(text) > Number(balance.maxLoadG))) {
    return [
      impossible('over-max-load', field, { balance: balance.name, maxLoadG: balance.maxLoadG }),
    ];
  }
  return checkShownDecimals(shown, decimalPlaces(balance.readabilityG), field, 'balance');
}

/** Asks for every digit that an instrument shows. */
export function checkShownDecimals(
  shown: readonly DecimalText[],
  decimals: number,
  field: string,
  instrument: 'balance' | 'burette',
): readonly Finding[] {
  if (shown.every((text) => decimalPlaces(text) === decimals)) return [];
  return [unlikely('decimals', field, { instrument, decimals })];
}

/** A weighing as it was read: `0.4802 g`, or both masses of one by difference. */
export function weighingText(weighing: Weighing): string {
  return weighing.mode === 'tared'
    ? `${figureText(weighing.massG)} g`
    : `${figureText(weighing.beforeG)} g before, ${figureText(weighing.afterG)} g after`;
}
