import type { Analysis, Method } from '../../chemistry';
import { partnerSpecies } from '../../chemistry';
import type { HouseRules } from '../../laboratory';
import { Unanswerable } from '../../problem';
import type { ElectrodeQuantity, Flask } from '../run';
import { deliveriesMl, startsOf } from '../run';
import type { GranKind, TitrationData } from './inflection';
import { granIntercept, inflection } from './inflection';

/** A point of a curve: what the burette has delivered into the flask, and what the electrode showed then. */
export interface CurvePoint {
  readonly volumeMl: number;
  readonly value: number;
}

/** An end point taken from a curve. */
export interface CurveEnd {
  readonly way: HouseRules['endPointOfCurve'];
  /** Delivered since the start, mL. */
  readonly volumeMl: number;
  readonly standardUncertaintyMl: number;
}

/** The end points of a curve, and which of them counts. */
export interface CurveEnds {
  readonly ends: readonly CurveEnd[];
  /** By the house rule where that gives one; null while there is none. */
  readonly counts: CurveEnd | null;
  /** Why there is none, or not the one of the house rule; null where there is nothing to say. */
  readonly remark: string | null;
}

/**
 * Standard deviation of what a display shows that stands still. Points that are all close to the end, as an analyst takes them,
 * do not tell it themselves: they lie on a bend.
 */
const NOISE: Readonly<Record<ElectrodeQuantity, number>> = { pH: 0.02, mV: 2 };

/** Fewest points beyond the end that a Gran line is drawn through. */
const FEWEST_OF_LINE = 3;

/** Whether the electrode shows a pH or a potential: acids and bases a pH, all else a potential. */
export function electrodeQuantityOf(method: Method | Analysis): ElectrodeQuantity {
  const isAcidOrBase = [method.titrant.species, partnerSpecies(method)].some(
    (species) => species === 'H^+' || species === 'OH^-',
  );
  return isAcidOrBase ? 'pH' : 'mV';
}

/** The points that stand, by volume; of two at one reading the later one. */
export function curveOf(flask: Flask): readonly CurvePoint[] {
  const starts = startsOf(flask);
  const before = deliveriesMl(flask).map(Number);
  const byVolume = new Map<number, CurvePoint>();
  for (const { refill, readingMl, value, struck } of flask.electrode) {
    const start = starts[refill];
    if (struck || !start) continue;
    const earlier = before.slice(0, refill).reduce((total, one) => total + one, 0);
    // To a ten-thousandth: one reading is one volume, whatever the arithmetic leaves.
    const volumeMl = Number((earlier + Number(readingMl) - Number(start.value)).toFixed(4));
    byVolume.set(volumeMl, { volumeMl, value: Number(value) });
  }
  return [...byVolume.values()].toSorted((a, b) => a.volumeMl - b.volumeMl);
}

/**
 * The end points of a curve. `fromMl` is where the last step may begin: before it lie the steps of a polyprotic acid.
 * A Gran line is drawn beyond the end, where an excess of strong acid or base is known by its pH; it needs the volume that was in
 * the flask at the start.
 */
export function endsOfCurve(
  points: readonly CurvePoint[],
  given: {
    readonly method: Method | Analysis;
    readonly fromMl: number;
    readonly flaskVolumeMl: number | null;
    readonly rule: HouseRules['endPointOfCurve'];
  },
): CurveEnds {
  const { method, fromMl, flaskVolumeMl, rule } = given;
  const data: TitrationData = {
    initialVolumeMl: flaskVolumeMl ?? 0,
    volumesMl: points.map(({ volumeMl }) => volumeMl),
    readings: points.map(({ value }) => value),
    noiseSd: NOISE[electrodeQuantityOf(method)],
  };
  const lastMl = points.at(-1)?.volumeMl ?? 0;
  const kind = granKindOf(method);
  const line = kind && flaskVolumeMl !== null ? { data, kind, points } : null;
  try {
    const found = inflection(data, [fromMl, lastMl]);
    const { standardUncertaintyMl } = found;
    const gran = line && granBeyond(line, found.secondDerivativeZeroMl);
    const ends: readonly CurveEnd[] = [
      {
        way: 'second-derivative',
        volumeMl: found.secondDerivativeZeroMl,
        standardUncertaintyMl,
      },
      { way: 'first-derivative', volumeMl: found.firstDerivativeMaxMl, standardUncertaintyMl },
      ...(gran ? [gran] : []),
    ];
    const wanted = ends.find(({ way }) => way === rule);
    return {
      ends,
      counts: wanted ?? ends[0] ?? null,
      remark: wanted ? null : whyNoGran(kind, flaskVolumeMl),
    };
  } catch (error) {
    if (!(error instanceof Unanswerable)) throw error;
    const gran = line && granWhereFlat(line, fromMl);
    return gran
      ? { ends: [gran], counts: gran, remark: FLAT }
      : { ends: [], counts: null, remark: error.message };
  }
}

const FLAT = 'No step stands out from the noise, so Gran’s line counts: it needs none.';

/** What a Gran line is drawn from. */
interface GranData {
  readonly data: TitrationData;
  readonly kind: GranKind;
  readonly points: readonly CurvePoint[];
}

/** The zero of the line through the points beyond an end; null where there are too few. */
function granBeyond({ data, kind, points }: GranData, endMl: number): CurveEnd | null {
  const beyond = points.filter(({ volumeMl }) => volumeMl > endMl);
  const [first, last] = [beyond[0], beyond.at(-1)];
  return first && last && beyond.length >= FEWEST_OF_LINE
    ? { way: 'gran', ...granIntercept(data, kind, [first.volumeMl, last.volumeMl]) }
    : null;
}

/** A line is believed where its zero is surer than this part of it. */
const SURE_ENOUGH = 0.01;

/** So far beyond the end the excess alone decides the pH, and what is left of a weak acid does not. */
const WELL_BEYOND = 1.2;

/**
 * Where no jump shows, as in a very weak or very dilute acid: the line through the last points tells where it is zero, then all
 * points beyond that count. Null where that does not settle before the data end, or is not sure.
 */
function granWhereFlat(line: GranData, fromMl: number): CurveEnd | null {
  const start = line.points.at(-FEWEST_OF_LINE - 1);
  if (!start) return null;
  let end = granBeyond(line, start.volumeMl);
  for (let turn = 0; end && turn < line.points.length; turn += 1) {
    const next = granBeyond(line, WELL_BEYOND * end.volumeMl);
    if (!next || next.volumeMl === end.volumeMl) break;
    end = next;
  }
  if (!end) return null;
  const { volumeMl, standardUncertaintyMl } = end;
  const isSure =
    volumeMl > fromMl &&
    standardUncertaintyMl < SURE_ENOUGH * volumeMl &&
    line.points.some((point) => point.volumeMl < volumeMl);
  return isSure ? end : null;
}

function whyNoGran(kind: GranKind | null, flaskVolumeMl: number | null): string {
  if (!kind) {
    return 'Gran’s line needs a strong acid or base in the burette: the second derivative counts.';
  }
  return flaskVolumeMl === null
    ? 'Gran’s line needs the volume in the flask at the start: until then the second derivative counts.'
    : `Gran’s line needs ${String(FEWEST_OF_LINE)} points beyond the end: until then the second derivative counts.`;
}

/** The Gran function of an excess of what is in the burette; null where no pH tells it. */
export function granKindOf(method: Method | Analysis): GranKind | null {
  const isReversed = 'inBurette' in method && method.inBurette === 'standard';
  const { species } = isReversed ? method.standard : method.titrant;
  if (species === 'OH^-') return 'base-after';
  return species === 'H^+' ? 'acid-after' : null;
}
