/** What a place of a flask that takes one entry is called. */
export const PLACE_NAMES = {
  portion: 'portion',
  initial: 'initial reading',
  'first-end': 'reading at the first end',
  final: 'final reading',
  stop: 'reading before the refill',
  restart: 'reading after the refill',
} as const;

export type PlaceKind = keyof typeof PLACE_NAMES;
