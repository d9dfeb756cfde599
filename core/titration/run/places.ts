import type { DecimalText } from '../../measurement';
import { PLACE_NAMES } from '../../wording';
import type { Entry, Flask, Place, Reading, ReadingPlace } from './state';

export const INITIAL: ReadingPlace = { at: 'initial' };
export const FIRST_END: ReadingPlace = { at: 'first-end' };
export const FINAL: ReadingPlace = { at: 'final' };

/** Whether two places of a flask are one and the same. */
export function isSamePlace(a: Place, b: Place): boolean {
  return a.at === b.at && refillIn(a) === refillIn(b);
}

function refillIn(place: Place): number | null {
  return 'refill' in place ? place.refill : null;
}

/** A place in a few letters, for a symbol: `initial`, `stop1`. */
export function placeKey(place: Place): string {
  return `${place.at}${String(refillIn(place) ?? '')}`;
}

/** Whether the burette is read there after it delivered something, not before. */
export function endsDelivery({ at }: ReadingPlace): boolean {
  return at === 'final' || at === 'first-end' || at === 'stop';
}

/** The reading that stands at a place of a flask. */
export function readingAt(flask: Flask, place: ReadingPlace): Reading | null {
  switch (place.at) {
    case 'initial':
    case 'final':
      return flask[place.at];
    case 'first-end':
      return flask.firstEnd?.reading ?? null;
    case 'stop':
    case 'restart':
      return flask.refills[place.refill - 1]?.[place.at] ?? null;
  }
}

/** The other values for a place of a flask. */
export function rivalsOf({ rivals }: Flask, place: ReadingPlace): readonly Entry<DecimalText>[] {
  return rivals.readings.find((one) => isSamePlace(one.place, place))?.entries ?? [];
}

/** Every reading that stands, with its place, in the order of reading. */
export function readingsOf(
  flask: Flask,
): readonly { readonly place: ReadingPlace; readonly entry: Reading }[] {
  const firstEndAfter = (refills: number): readonly ReadingPlace[] =>
    flask.firstEnd?.refills === refills ? [FIRST_END] : [];
  const places: readonly ReadingPlace[] = [
    INITIAL,
    ...flask.refills.flatMap((_, i): readonly ReadingPlace[] => [
      ...firstEndAfter(i),
      { at: 'stop', refill: i + 1 },
      { at: 'restart', refill: i + 1 },
    ]),
    ...firstEndAfter(flask.refills.length),
    FINAL,
  ];
  return places.flatMap((place) => {
    const entry = readingAt(flask, place);
    return entry ? [{ place, entry }] : [];
  });
}

/** What a place of a flask is called. */
export function placeName({ at }: Place): string {
  return PLACE_NAMES[at];
}
