import { figureText } from '../measurement';
const QUESTIONS = {
  'read-upwards': 'Read upwards between two marks?',
  'wrong-mark': 'Read upwards from the wrong mark?',
  'digits-swapped': 'Two digits exchanged?',
  'digit-dropped': 'A digit left out?',
  exchanged: 'Initial and final reading exchanged?',
  'decimal-point': 'Is the decimal point in its place?',
  'tare-not-subtracted': 'Was the empty vessel subtracted?',
} as const;

/** What may have gone wrong with a figure as it was read or typed. */
export type SlipSaid =
  | { readonly kind: keyof typeof QUESTIONS }
  | { readonly kind: 'whole-millilitres-off'; readonly offMl: number };

/** A question to the analyst, without the figure that was meant. */
export function slipQuestion(slip: SlipSaid): string {
  return slip.kind === 'whole-millilitres-off'
    ? `Off by ${figureText(slip.offMl)} mL?`
    : QUESTIONS[slip.kind];
}
