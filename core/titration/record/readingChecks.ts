import type { Id } from '../../grammar';
import type { DecimalText } from '../../measurement';
import { decimalPlaces, roundHalfEven, subtractDecimals, ZERO } from '../../measurement';
import { checkShownDecimals } from '../../metrology';
import type { Finding } from '../../record';
import { impossible, unlikely } from '../../record';
import { suspectReading } from '../../slip';
import type { FindingValues } from '../../wording';
import type { Forecast } from '../figures';
import {
  curveEndsOf,
  electrodeQuantityOf,
  forecastFirstEnd,
  forecastFlask,
  firstEndOf,
} from '../figures';
import type { ElectrodeQuantity, ElectrodeReading, Flask, ReadingPlace, RunState } from '../run';
import {
  deliveriesMl,
  flaskOf,
  flaskUnderBurette,
  isBlank,
  openRefill,
  readingAt,
  readingsOf,
  readingToCarryOver,
  startsOf,
  stretchesOf,
} from '../run';
import { notUnderBurette, unknownEntry, unknownFlask } from './refusals';

/** A titre stranger than this many expected half-bands is asked about. */
const STRANGE_HALF_BANDS = 3;

interface NewReading {
  readonly readingMl: DecimalText;
  readonly carriedFrom: Id | null;
}

/** What speaks against a reading at a place that has none yet. */
export function checkNewReading(
  run: RunState,
  number: number,
  place: ReadingPlace,
  { readingMl, carriedFrom }: NewReading,
): readonly Finding[] {
  const flask = flaskOf(run, number);
  if (!flask) return [unknownFlask(number)];
  if (flask.voided) return [impossible('flask-void', 'readingMl', { flask: flask.number })];
  const known = readingAt(flask, place);
  if (known) {
    const values = { flask: flask.number, place: place.at, readingMl: known.value };
    return [impossible('already-read', 'readingMl', values)];
  }
  const outside = checkScale(run, readingMl);
  if (outside.length > 0) return outside;
  if (place.at === 'initial') return checkInitialReading(run, flask, readingMl, carriedFrom);
  if (!flask.initial) {
    return [impossible('no-initial-reading', 'readingMl')];
  }
  if (place.at === 'first-end' && !firstEndOf(run.references.method, flask)) {
    return [impossible('one-end-only', 'readingMl', { flask: flask.number })];
  }
  if (place.at === 'restart') return checkRestart(run, flask, place, readingMl);
  if (openRefill(flask) !== null) {
    return [impossible('refill-open', 'readingMl')];
  }
  if (place.at === 'stop') {
    const isNext = place.refill === flask.refills.length + 1;
    if (flask.final || !isNext) return [notUnderBurette(flask)];
  }
  if (place.at === 'first-end' && flask.final) return [notUnderBurette(flask)];
  const from = readingsOf(flask).at(-1)?.entry.value ?? ZERO;
  const upwards = checkDownwards(from, readingMl, isBlank(flask) && place.at === 'final');
  if (upwards.length > 0) return upwards;
  switch (place.at) {
    case 'final':
      return checkFinalReading(run, flask, lastFilledFrom(flask), readingMl);
    case 'first-end':
      return checkFirstEnd(run, flask, readingMl);
    case 'stop':
      return checkReadingDecimals(run, readingMl);
  }
}

/** The reading that the stretch began with which a flask is in. */
function lastFilledFrom(flask: Flask): DecimalText {
  return startsOf(flask).at(-1)?.value ?? ZERO;
}

/** Compared with where the flasks before met it; the first of a series has nothing to be compared with. */
function checkFirstEnd(run: RunState, flask: Flask, readingMl: DecimalText): readonly Finding[] {
  const decimals = checkReadingDecimals(run, readingMl);
  const forecast = forecastFirstEnd(run, flask);
  if (!forecast?.onBurette) return decimals;
  const { expected } = forecast.onBurette;
  if (Math.abs(Number(readingMl) - expected) <= STRANGE_HALF_BANDS * forecast.halfBandMl) {
    return decimals;
  }
  const slip = suspectedSlip(run, forecast, lastFilledFrom(flask), readingMl);
  return [...decimals, unlikely('titre-off-forecast', 'readingMl', { expectedMl: expected, slip })];
}

function checkRestart(
  run: RunState,
  flask: Flask,
  { refill }: Extract<ReadingPlace, { readonly refill: number }>,
  readingMl: DecimalText,
): readonly Finding[] {
  if (openRefill(flask) !== refill) {
    return [impossible('no-stop', 'readingMl')];
  }
  return checkReadingDecimals(run, readingMl);
}

function checkInitialReading(
  run: RunState,
  flask: Flask,
  readingMl: DecimalText,
  carriedFrom: string | null,
): readonly Finding[] {
  const busy = flaskUnderBurette(run);
  if (busy) {
    return [impossible('burette-busy', 'readingMl', { flask: busy.number })];
  }
  if (carriedFrom !== null) {
    const source = readingToCarryOver(run);
    if (source?.factId !== carriedFrom || source.value !== readingMl) {
      return [impossible('not-the-last-reading', 'readingMl')];
    }
  }
  const { onBurette } = forecastFlask(run, flask, Number(readingMl));
  const end = onBurette?.expected ?? 0;
  const capacityMl = run.references.burette.capacityMl;
  const decimals = carriedFrom === null ? checkReadingDecimals(run, readingMl) : [];
  if (end <= Number(capacityMl)) return decimals;
  return [...decimals, unlikely('will-not-hold', 'readingMl', { endMl: end, capacityMl })];
}

/** `from` is the reading that the last stretch began with. */
function checkFinalReading(
  run: RunState,
  flask: Flask,
  from: DecimalText,
  readingMl: DecimalText,
): readonly Finding[] {
  const forecast = forecastFlask(run, flask, null);
  const expected = forecast.onBurette?.expected ?? 0;
  const decimals = checkReadingDecimals(run, readingMl);
  const curve = curveEndsOf(run, flask).counts;
  const deliveredMl = deliveriesMl(flask).reduce((total, one) => total + Number(one), 0);
  // Where a curve tells the end point, the titration goes on beyond it.
  const endMl = curve ? Number(from) + curve.volumeMl - deliveredMl : Number(readingMl);
  if (Math.abs(endMl - expected) <= STRANGE_HALF_BANDS * forecast.halfBandMl) return decimals;
  if (isBlank(flask) && !run.references.excess) {
    return [...decimals, unlikely('blank-too-large', 'readingMl')];
  }
  const slip = suspectedSlip(run, forecast, from, readingMl);
  return [...decimals, unlikely('titre-off-forecast', 'readingMl', { expectedMl: expected, slip })];
}

/** What speaks against a reading before a doubtful drop. */
export function checkProvisionalReading(
  run: RunState,
  number: number,
  readingMl: DecimalText,
): readonly Finding[] {
  const flask = flaskOf(run, number);
  if (!flask) return [unknownFlask(number)];
  if (flask !== flaskUnderBurette(run) || openRefill(flask) !== null) {
    return [notUnderBurette(flask)];
  }
  const from = readingsOf(flask).at(-1)?.entry.value ?? ZERO;
  return [...checkScale(run, readingMl), ...checkDownwards(from, readingMl, false)].slice(0, 1);
}

/** What an electrode can show. */
const SHOWN: Readonly<Record<ElectrodeQuantity, readonly [least: number, most: number]>> = {
  pH: [-1, 15],
  mV: [-2000, 2000],
};

type NewPoint = Pick<ElectrodeReading, 'refill' | 'readingMl' | 'quantity' | 'value'> & {
  readonly flask: number;
};

/** What speaks against a point of a curve: it is read while the flask stands under the burette. */
export function checkElectrodeReading(
  run: RunState,
  { flask: number, refill, readingMl, quantity, value }: NewPoint,
): readonly Finding[] {
  const flask = flaskOf(run, number);
  if (!flask) return [unknownFlask(number)];
  const from = startsOf(flask)[refill];
  if (flask !== flaskUnderBurette(run) || !from || refill !== flask.refills.length) {
    return [notUnderBurette(flask)];
  }
  if (quantity !== electrodeQuantityOf(run.references.method)) {
    const shown = electrodeQuantityOf(run.references.method);
    return [impossible('other-quantity', 'value', { quantity: shown })];
  }
  const [least, most] = SHOWN[quantity];
  if (Number(value) < least || Number(value) > most) {
    return [impossible('no-such-value', 'value', { quantity, least, most })];
  }
  const isThere = flask.electrode.some(
    (read) =>
      !read.struck && read.refill === refill && Number(read.readingMl) === Number(readingMl),
  );
  if (isThere) {
    return [impossible('point-already-read', 'readingMl', { readingMl })];
  }
  // The first point is the flask before anything ran in.
  return [...checkScale(run, readingMl), ...checkDownwards(from.value, readingMl, true)].slice(
    0,
    1,
  );
}

/** The reading that was probably meant, when a known slip explains it. */
function suspectedSlip(
  run: RunState,
  { onBurette, halfBandMl }: Forecast,
  initialMl: DecimalText,
  typedMl: DecimalText,
): FindingValues<'titre-off-forecast'>[0]['slip'] {
  const decimals = decimalPlaces(run.setUp.rules.readingResolutionMl);
  const found = suspectReading(Number(typedMl), {
    initialMl: Number(initialMl),
    expectedTitreMl: (onBurette?.expected ?? 0) - Number(initialMl),
    halfBandMl,
    capacityMl: Number(run.references.burette.capacityMl),
    decimals,
  });
  return found && { ...found, meant: roundHalfEven(found.meant, decimals) };
}

/** What speaks against correcting a reading: the scale, and the order of the readings around it. */
export function checkCorrectedReading(
  run: RunState,
  corrects: string,
  readingMl: DecimalText,
): readonly Finding[] {
  const touched = run.flasks.filter((flask) =>
    readingsOf(flask).some(({ entry }) => entry.factId === corrects),
  );
  const isProvisional = run.flasks.some(({ provisional }) =>
    provisional.some(({ factId }) => factId === corrects),
  );
  if (touched.length === 0 && !isProvisional) return [unknownEntry('readingMl')];
  const outside = checkScale(run, readingMl);
  if (outside.length > 0) return outside;
  const now = ({
    factId,
    value,
  }: {
    readonly factId: Id;
    readonly value: DecimalText;
  }): DecimalText => (factId === corrects ? readingMl : value);
  return touched
    .flatMap((flask) =>
      [...stretchesOf(flask), ...aroundFirstEnd(flask)].flatMap(({ from, to }) =>
        checkDownwards(now(from), now(to), isBlank(flask) && to.factId === flask.final?.factId),
      ),
    )
    .slice(0, 1);
}

/** The first end lies after the reading before it and before the one after it. */
function aroundFirstEnd(flask: Flask): ReturnType<typeof stretchesOf> {
  const readings = readingsOf(flask);
  const i = readings.findIndex(({ place }) => place.at === 'first-end');
  if (i < 0) return [];
  return readings.slice(i - 1, i + 1).flatMap(({ entry }, at) => {
    const next = readings[i + at];
    return next ? [{ from: entry, to: next.entry }] : [];
  });
}

function checkScale(run: RunState, readingMl: DecimalText): readonly Finding[] {
  const { capacityMl } = run.references.burette;
  if (Number(readingMl) >= 0 && Number(readingMl) <= Number(capacityMl)) return [];
  return [impossible('off-scale', 'readingMl', { capacityMl })];
}

/** `mayStay`: a blank may take nothing. */
function checkDownwards(
  fromMl: DecimalText,
  toMl: DecimalText,
  mayStay: boolean,
): readonly Finding[] {
  const delivered = Number(subtractDecimals(toMl, fromMl));
  if (delivered > 0 || (delivered === 0 && mayStay)) return [];
  return [impossible('reads-upwards', 'readingMl', { fromMl })];
}

function checkReadingDecimals(run: RunState, readingMl: DecimalText): readonly Finding[] {
  const { readingResolutionMl } = run.setUp.rules;
  const decimals = decimalPlaces(readingResolutionMl);
  const shown = checkShownDecimals([readingMl], decimals, 'readingMl', 'burette');
  const steps = Number(readingMl) / Number(readingResolutionMl);
  if (shown.length > 0 || Math.abs(steps - Math.round(steps)) < 1e-6) return shown;
  return [unlikely('off-resolution', 'readingMl', { readingResolutionMl })];
}
