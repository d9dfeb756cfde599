import type { Flask, Place, Reading, ReadingPlace, RefillMoment } from './state';

/** The place of a refill's reading. */
export function refillPlace(moment: RefillMoment, refill: number): ReadingPlace {
  return `${moment} ${String(refill)}`;
}

/** The reading that stands at a place of a flask. */
export function readingAt(flask: Flask, place: ReadingPlace): Reading | null {
  if (place === 'initial' || place === 'final') return flask[place];
  const [moment, refill] = place.split(' ');
  return flask.refills[Number(refill) - 1]?.[moment === 'stop' ? 'stop' : 'restart'] ?? null;
}

/** Every reading that stands, with its place, in the order of reading. */
export function readingsOf(
  flask: Flask,
): readonly { readonly place: ReadingPlace; readonly entry: Reading }[] {
  const places: readonly ReadingPlace[] = [
    'initial',
    ...flask.refills.flatMap((_, i) => [refillPlace('stop', i + 1), refillPlace('restart', i + 1)]),
    'final',
  ];
  return places.flatMap((place) => {
    const entry = readingAt(flask, place);
    return entry ? [{ place, entry }] : [];
  });
}

/** What a place of a flask is called. */
export function placeName(place: Place): string {
  switch (place) {
    case 'portion':
      return 'portion';
    case 'initial':
    case 'final':
      return `${place} reading`;
    default:
      return place.startsWith('stop') ? 'reading before the refill' : 'reading after the refill';
  }
}
