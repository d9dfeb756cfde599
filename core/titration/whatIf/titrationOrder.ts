import type { Flask } from '../run';

/** Puts what belongs to flasks into the order in which their titrations were begun. */
export function inTitrationOrder<Of>(
  items: readonly Of[],
  flaskOf: (item: Of) => Pick<Flask, 'initial'>,
): readonly Of[] {
  const begunAt = (item: Of): string => flaskOf(item).initial?.at ?? '';
  return items.toSorted((a, b) => begunAt(a).localeCompare(begunAt(b)));
}
