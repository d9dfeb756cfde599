import type { DecimalText } from '../../measurement';
import { addDecimals, subtractDecimals } from '../../measurement';
import { isBlank } from './flasks';
import type { Flask, Moment, Reading } from './state';

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

/** The stretches of a titration up to the first of two ends; none before that is met, and where a reading is missing. */
export function stretchesToFirstEnd(
  flask: Pick<Flask, Moment | 'refills' | 'firstEnd'>,
): ReturnType<typeof stretchesOf> {
  if (!flask.firstEnd) return [];
  const { reading, refills } = flask.firstEnd;
  const upTo = { ...flask, refills: flask.refills.slice(0, refills), final: reading };
  const stretches = stretchesOf(upTo);
  return stretches.length === refills + 1 ? stretches : [];
}

/** What ran in up to the first of two ends, exact in its decimals, in mL; null before it is read. */
export function titreToFirstEndMl(
  flask: Pick<Flask, Moment | 'refills' | 'firstEnd'>,
): DecimalText | null {
  const stretches = stretchesToFirstEnd(flask);
  if (stretches.length === 0) return null;
  return stretches
    .map(({ from, to }) => subtractDecimals(to.value, from.value))
    .reduce(addDecimals);
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
