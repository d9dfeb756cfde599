import type { Procedure, TwoEnds } from '../../chemistry';
import type { EndOnBurette } from '../../determination';
import { endOnBurette } from '../../determination';
import { meanOf, summarize } from '../../statistics';
import type { Flask, RunState } from '../run';
import { deliveriesMl, isBlank, seriesWith, titreMl, titreToFirstEndMl } from '../run';
import { soughtOf } from '../setUp';
import { isOvershot } from './endOfTitration';
import { deliveredIn } from './portions';
import { flaskMolarity, plainDeterminationOfRun, relativePerMl, subtractedMl } from './volumes';

/** Where the end point of a flask is expected on the burette. All in mL. */
export interface Forecast {
  readonly titreMl: number;
  /** The titre is expected within plus or minus this. */
  readonly halfBandMl: number;
  /** What it rests on: the label, the rough titration, or the titrations made so far. */
  readonly basis: 'nominal' | 'rough' | 'replicates';
  /** What one drop too many is worth, in % of the molarity; of a blank, in % of its titre. */
  readonly dropPercent: number;
  /** Null until the initial reading is known. */
  readonly onBurette: EndOnBurette | null;
}

/** Replicates of a careful series agree better than this, relative. */
const SERIES_HALF_BAND = 0.003;

/** A rough titration may have overshot by so many drops. */
const ROUGH_DROPS = 3;

/** A blank takes little: the titre expected of it, and within what, mL. */
const BLANK_ML = { titreMl: 0.1, halfBandMl: 0.3 };

/** The molarity to expect, and how far a titre may stray from it, relative. */
function expectation(run: RunState): {
  molarity: number;
  relativeHalfBand: number;
  basis: Forecast['basis'];
} {
  const dropMl = Number(run.references.burette.dropMl);
  const found = run.flasks
    .filter((flask) => !flask.voided && !isOvershot(run, flask))
    .map((flask) => ({ flask, molarity: flaskMolarity(run, flask) }))
    .filter((item): item is { flask: Flask; molarity: number } => item.molarity !== null);
  const accurate = summarize(
    found.filter((item) => !item.flask.isRough).map((item) => item.molarity),
  );
  if (accurate) {
    const scatter = (2 * (accurate.relativeSdPercent ?? 0)) / 100;
    return {
      molarity: accurate.mean,
      relativeHalfBand: Math.max(SERIES_HALF_BAND, scatter),
      basis: 'replicates',
    };
  }
  const [rough] = found;
  if (rough) {
    const overshoot = ROUGH_DROPS * dropMl * relativePerMl(run, Number(titreMl(rough.flask)));
    return {
      molarity: rough.molarity,
      relativeHalfBand: SERIES_HALF_BAND + overshoot,
      basis: 'rough',
    };
  }
  const { expected, believedWithin } = soughtOf(run.references);
  return {
    molarity: expected,
    relativeHalfBand: believedWithin ?? Number(run.setUp.rules.nominalTolerancePercent) / 100,
    basis: 'nominal',
  };
}

/**
 * Forecasts the titre of a portion (g or mL), and where it ends on the burette when the level is at `initialMl`. The
 * band is wide while the titrant is only nominal (it may be stronger than its label) and narrows with each
 * titration.
 */
export function forecastTitre(run: RunState, amount: number, initialMl: number | null): Forecast {
  return place(run, expectedOf(run, amount), initialMl, 0);
}

type Expected = Pick<Forecast, 'titreMl' | 'halfBandMl' | 'basis' | 'dropPercent'>;

function expectedOf(run: RunState, amount: number): Expected {
  const { molarity, relativeHalfBand, basis } = expectation(run);
  const titre = plainDeterminationOfRun(run).titreMl(amount, molarity) + subtractedMl(run);
  const perMl = relativePerMl(run, titre);
  const dropMl = Number(run.references.burette.dropMl);
  return {
    titreMl: titre,
    halfBandMl: relativeHalfBand / perMl + dropMl / 2,
    basis,
    dropPercent: 100 * dropMl * perMl,
  };
}

/** A blank takes little; with an excess in it, all that this takes, of which the molarities are known. */
function expectedOfBlank(run: RunState): Expected {
  const { excessTitreMl } = plainDeterminationOfRun(run);
  const titreMl = excessTitreMl ?? BLANK_ML.titreMl;
  return {
    titreMl,
    halfBandMl: BLANK_ML.halfBandMl + SERIES_HALF_BAND * (excessTitreMl ?? 0),
    basis: 'nominal',
    dropPercent: (100 * Number(run.references.burette.dropMl)) / titreMl,
  };
}

/**
 * Forecasts the titration of a flask from where its burette stands: at its initial reading or after its last refill, or at
 * `levelMl` when it has not begun.
 */
export function forecastFlask(ofRun: RunState, flask: Flask, levelMl: number | null): Forecast {
  const run = seriesWith(ofRun, flask);
  const expected = isBlank(flask)
    ? expectedOfBlank(run)
    : expectedOf(run, deliveredIn(run.references, flask));
  return placedAlong(run, flask, expected, levelMl);
}

/** Lays what is expected of a flask along the burette as it stands; `levelMl` where the flask has not begun. */
function placedAlong(
  run: RunState,
  flask: Flask,
  expected: Expected,
  levelMl: number | null,
): Forecast {
  const refill = flask.refills.at(-1);
  const from = refill ? refill.restart : flask.initial;
  const level = from ? Number(from.value) : refill ? null : levelMl;
  const delivered = deliveriesMl({ ...flask, final: null })
    .map(Number)
    .reduce((total, one) => total + one, 0);
  const placed = place(run, expected, level, delivered);
  const { firstEnd } = flask;
  if (!placed.onBurette || firstEnd?.refills !== flask.refills.length) return placed;
  // What ran in up to the first end has run in.
  const runFreelyTo = Math.max(placed.onBurette.runFreelyTo, Number(firstEnd.reading.value));
  return { ...placed, onBurette: { ...placed.onBurette, runFreelyTo } };
}

/** A method, or an analysis, which may have two ends. */
export type TitratedToEnds = Pick<Procedure, 'id'> & { readonly twoEnds?: TwoEnds };

/** The first of two ends of a flask; null where there is one end, as of a blank, which takes next to nothing. */
export function firstEndOf(
  { twoEnds }: TitratedToEnds,
  flask: Pick<Flask, 'portion'>,
): TwoEnds['first'] | null {
  return isBlank(flask) ? null : (twoEnds?.first ?? null);
}

/** The same while it is to be read. */
export function awaitedFirstEnd(
  method: TitratedToEnds,
  flask: Pick<Flask, 'portion' | 'firstEnd' | 'final'>,
): TwoEnds['first'] | null {
  return flask.firstEnd || flask.final ? null : firstEndOf(method, flask);
}

/** Where the first of two ends of a flask is expected on the burette, by the flasks before it; null where none tells. */
export function forecastFirstEnd(ofRun: RunState, flask: Flask): Forecast | null {
  const run = seriesWith(ofRun, flask);
  const shares = run.flasks.flatMap((one) => {
    const [first, last] = [titreToFirstEndMl(one), titreMl(one)];
    return one.voided || first === null || last === null ? [] : [Number(first) / Number(last)];
  });
  if (shares.length === 0) return null;
  const expected = expectedOf(run, deliveredIn(run.references, flask));
  const first = { ...expected, titreMl: meanOf(shares) * expected.titreMl };
  return placedAlong(run, flask, first, null);
}

/**
 * Where the next end of a flask is expected on the burette: the first of two once it has begun, until that is read. Null where nothing
 * tells: a first end may come at any drop.
 */
export function forecastNextEnd(
  run: RunState,
  flask: Flask,
  levelMl: number | null,
): { readonly isFirst: boolean; readonly onBurette: EndOnBurette | null } {
  const isFirst = flask.initial !== null && awaitedFirstEnd(run.references.method, flask) !== null;
  const forecast = isFirst ? forecastFirstEnd(run, flask) : forecastFlask(run, flask, levelMl);
  return { isFirst, onBurette: forecast?.onBurette ?? null };
}

/** Lays a titre along the burette, from a level, after what earlier fillings delivered. */
function place(
  run: RunState,
  expected: Expected,
  levelMl: number | null,
  deliveredMl: number,
): Forecast {
  const capacityMl = Number(run.references.burette.capacityMl);
  const endMl = (levelMl ?? 0) + expected.titreMl - deliveredMl;
  const onBurette =
    levelMl === null ? null : endOnBurette(levelMl, endMl, expected.halfBandMl, capacityMl);
  return { ...expected, onBurette };
}
