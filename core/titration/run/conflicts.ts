import type { DecimalText } from '../../measurement';
import { readingAt } from './places';
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
    .flatMap(({ number, rivals }) =>
      (Object.keys(rivals) as Place[])
        .filter((place) => (rivals[place] ?? []).length > 0)
        .map((place) => ({ flask: number, place })),
    );
}

/** The entries for a place of a flask, the standing one first. */
export function entriesAt(flask: Flask, place: Place): readonly Entry<Portion | DecimalText>[] {
  const standing = place === 'portion' ? flask.portion : readingAt(flask, place);
  return [...(standing ? [standing] : []), ...(flask.rivals[place] ?? [])];
}
