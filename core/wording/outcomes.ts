import { figureText, roundHalfEven } from '../measurement';
import type { PlaceKind } from './places';
import { PLACE_NAMES } from './places';

/** How a curve told an end point, in words. */
export const CURVE_WAYS = {
  'second-derivative': 'zero of the second derivative',
  'first-derivative': 'middle of the steepest step',
  gran: 'Gran’s line',
} as const;

/** For what a titration is rejected. The keys stand in facts. */
export const VOID_CAUSES = {
  incident: 'something happened to the flask',
  weighing: 'a fault of weighing or pipetting',
  reading: 'a reading that cannot be mended',
  'end-point': 'the end point was missed',
  outlier: 'no fault is known; it stands out by the house rule’s test',
  other: 'another reason',
} as const;
export type VoidCause = keyof typeof VOID_CAUSES;

/** Why a flask counts or does not, as far as that needs saying. */
export type OutcomeSaid =
  | { readonly code: 'voided'; readonly reason: string; readonly cause?: VoidCause }
  | { readonly code: 'disputed'; readonly place: PlaceKind }
  | { readonly code: 'set-aside'; readonly limit: string }
  | { readonly code: 'by-curve'; readonly endMl: number; readonly way: keyof typeof CURVE_WAYS }
  | { readonly code: 'incident-corrected'; readonly correctionMl: number }
  | { readonly code: keyof typeof PLAIN };

const PLAIN = {
  blank: 'its titre is subtracted from the others',
  rough: 'rough titration, left out by the house rule',
  overshot: 'overshot, with nothing read before: left out by the house rule',
  'not-titrated': 'not titrated yet',
  'more-than-added': 'more of the excess was left than had been added',
  contradictory: 'its readings contradict each other',
} as const;

/** Why a flask counts or does not, as a clause. */
export function outcomeText(said: OutcomeSaid): string {
  switch (said.code) {
    case 'voided':
      return said.cause === undefined || said.cause === 'other'
        ? said.reason
        : `${VOID_CAUSES[said.cause]}: ${said.reason}`;
    case 'disputed':
      return `two different entries for its ${PLACE_NAMES[said.place]}: settle which one stands`;
    case 'set-aside':
      return `outside the ${figureText(said.limit)} in which the others agree; its scatter still enters s`;
    case 'by-curve':
      return `by its curve the end lies at ${figureText(roundHalfEven(said.endMl, 2))} mL, ${CURVE_WAYS[said.way]}`;
    case 'incident-corrected':
      return `titre corrected by ${figureText(roundHalfEven(said.correctionMl, 3))} mL for what was measured`;
    case 'blank':
    case 'rough':
    case 'overshot':
    case 'not-titrated':
    case 'more-than-added':
    case 'contradictory':
      return PLAIN[said.code];
  }
}
