import type { DecimalText } from '../measurement';
import { addDecimals, subtractDecimals } from '../measurement';
import type { Portion } from './portion';
import { portionAmount } from './portion';
import { arrangementOf } from './arrangement';
import type {
  Entry,
  Flask,
  Moment,
  Place,
  Reading,
  ReadingPlace,
  RefillMoment,
  RunState,
} from './state';

/** The place of a refill's reading. */
export function refillPlace(moment: RefillMoment, refill: number): ReadingPlace {
  return `${moment} ${String(refill)}`;
}

/** A flask by its number; none for null, nor for one that is not there. */
export function flaskOf(
  { flasks }: Pick<RunState, 'flasks'>,
  number: number | null,
): Flask | undefined {
  return flasks.find((flask) => flask.number === number);
}

/** Whether a flask holds medium and indicator only. */
export function isBlank({ portion }: Pick<Flask, 'portion'>): boolean {
  return portion.value.kind === 'blank';
}

/** The readings from which the burette goes on: the initial one, and the one after each refill. */
export function startsOf({
  initial,
  refills,
}: Pick<Flask, 'initial' | 'refills'>): readonly (Reading | null)[] {
  return [initial, ...refills.map(({ restart }) => restart)];
}

/** The stretches of a titration that have both their readings, from one filling of the burette to the next. */
export function stretchesOf(
  flask: Pick<Flask, Moment | 'refills'>,
): readonly { readonly from: Reading; readonly to: Reading }[] {
  const ends = [...flask.refills.map(({ stop }) => stop), flask.final];
  return startsOf(flask).flatMap((from, i) => {
    const to = ends[i];
    return from && to ? [{ from, to }] : [];
  });
}

/** What each filling of the burette delivered into a flask, exact in its decimals, in mL. */
export function deliveriesMl(flask: Pick<Flask, Moment | 'refills'>): readonly DecimalText[] {
  return stretchesOf(flask).map(({ from, to }) => subtractDecimals(to.value, from.value));
}

/**
 * Titre of a flask: final minus initial of every filling, summed, exact in its decimals, in mL. Null until all are
 * read, and where they contradict each other: two devices may have entered what neither would have alone. A blank
 * may take nothing.
 */
export function titreMl(flask: Pick<Flask, Moment | 'refills' | 'portion'>): DecimalText | null {
  const volumes = deliveriesMl(flask);
  if (volumes.length !== flask.refills.length + 1) return null;
  const isPossible = volumes.every(
    (text) => Number(text) > 0 || (Number(text) === 0 && isBlank(flask)),
  );
  return isPossible ? volumes.reduce(addDecimals) : null;
}

/** The flask under the burette: its initial reading is taken, its final one is not. */
export function flaskUnderBurette(run: RunState): Flask | null {
  return run.flasks.find((flask) => flask.initial && !flask.final && !flask.voided) ?? null;
}

/** The pause that lasts; null while the run is worked on. */
export function pauseOf(run: RunState): RunState['pauses'][number] | null {
  const last = run.pauses.at(-1);
  return last?.resumed === null ? last : null;
}

/** The refill of a flask that waits for the level from which it goes on; null when there is none. */
export function openRefill({ refills }: Pick<Flask, 'refills'>): number | null {
  return refills.at(-1)?.restart === null ? refills.length : null;
}

/** The final reading at which the burette still stands, so that it can serve as the next initial one. */
export function readingToCarryOver(run: RunState): Reading | null {
  return flaskOf(run, run.level?.flask ?? null)?.final ?? null;
}

/**
 * What the burette took from its bottle, in mL: the rinses before the first filling, and for each filling the
 * burette from its first reading to its last mark. What stays in the burette is discarded, not poured back.
 */
export function titrantTakenMl(run: RunState): number {
  if (run.fillings.length === 0) return 0;
  const capacity = Number(run.references.burette.capacityMl);
  const rinses = run.setUp.rules.rinses * Number(run.setUp.rules.rinseMl);
  return run.fillings.reduce((total, first) => total + capacity - Number(first), rinses);
}

/** What a run took from each lot (g) and bottle (mL), void flasks too. */
export function takenBy(
  run: RunState,
): readonly { readonly id: string; readonly amount: number }[] {
  const { inBurette, portion, excess } = arrangementOf(run.references);
  const portions = run.flasks.map((flask) => Number(portionAmount(flask.portion.value)));
  return [
    { id: inBurette.id, amount: titrantTakenMl(run) },
    { id: portion.recordId, amount: portions.reduce((total, one) => total + one, 0) },
    ...(excess ? [{ id: excess.recordId, amount: run.flasks.length * excess.fixedMl }] : []),
  ];
}

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
