import type { DecimalText } from '../../measurement';
import { readingAt, rivalsOf } from './places';
import type { Portion } from './portion';
import type { Entry, Flask, Place, RunState } from './state';

/** A place for which two devices entered different values. */
export interface Conflict {
  readonly flask: number;
  readonly place: Place;
}

/** The conflicts of a run that wait to be settled; a void flask has none. */
export function openConflicts(run: RunState): readonly Conflict[] {
  return run.flasks
    .filter((flask) => !flask.voided)
    .flatMap(({ number, rivals: { readings, portion } }) => {
      const places: readonly Place[] = [
        ...readings.map(({ place }) => place),
        ...(portion.length > 0 ? [{ at: 'portion' } as const] : []),
      ];
      return places.map((place) => ({ flask: number, place }));
    });
}

/** The entries for a place of a flask, the standing one first. */
export function entriesAt(flask: Flask, place: Place): readonly Entry<Portion | DecimalText>[] {
  if (place.at === 'portion') return [flask.portion, ...flask.rivals.portion];
  const standing = readingAt(flask, place);
  return [...(standing ? [standing] : []), ...rivalsOf(flask, place)];
}
