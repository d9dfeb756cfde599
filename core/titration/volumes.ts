import type { Blank } from '../determination';
import { PlainDetermination } from '../determination';
import { exact, UNITS } from '../measurement';
import type { CalibratedBurette, DeliveryCorrection } from '../metrology';
import { deliveryCorrection } from '../metrology';
import { nominalMolPerL } from '../reagent';
import type { CurveEnd, CurveEnds } from './curve';
import { curveOf, endsOfCurve } from './curve';
import { portionAmount } from './portion';
import { isBlank, openConflicts, stretchesOf, titreMl } from './run';
import { determinationOf, deviationMl, plainDeterminationOf } from './runDetermination';
import type { Flask, RunReferences, RunState } from './state';

/** The amount of a portion as a number: g or mL. */
export function amountIn({ portion }: Pick<Flask, 'portion'>): number {
  return Number(portionAmount(portion.value));
}

/** The same as it really was: a calibrated pipette delivers what its calibration found. */
export function deliveredIn({ standard }: RunReferences, flask: Flask): number {
  if (standard.kind === 'lot' || isBlank(flask)) return amountIn(flask);
  return amountIn(flask) + deviationMl(standard.vessel);
}

/** The first part of a titration in which no last step is looked for. */
const BEFORE_LAST_STEP = 0.7;

const NO_CURVE: CurveEnds = { ends: [], counts: null, remark: null };

/** The end points of the curve that an electrode gave of a flask; the last step of an acid that has several. */
export function curveEndsOf(
  { references, setUp }: Pick<RunState, 'references' | 'setUp'>,
  flask: Flask,
): CurveEnds {
  if (flask.electrode.length === 0) return NO_CURVE;
  const expectedMl = isBlank(flask)
    ? 0
    : plainDeterminationOf(references).titreMl(
        deliveredIn(references, flask),
        nominalMolPerL(references.bottle),
      );
  const known = flask.electrode.findLast(({ struck, flaskVolumeMl }) => !struck && flaskVolumeMl);
  return endsOfCurve(curveOf(flask), {
    method: references.method,
    fromMl: Math.max(0, BEFORE_LAST_STEP * expectedMl),
    flaskVolumeMl: known?.flaskVolumeMl ? Number(known.flaskVolumeMl) : null,
    rule: setUp.rules.endPointOfCurve,
  });
}

/** The end point that counts of a curve, where the titration went on to it; null otherwise. */
export function curveEndOf(
  run: Pick<RunState, 'references' | 'setUp'>,
  flask: Flask,
): CurveEnd | null {
  const { counts } = curveEndsOf(run, flask);
  const titre = counts && titreMl(flask);
  const isWithin = titre !== null && counts !== null && counts.volumeMl <= Number(titre);
  return isWithin && counts.volumeMl > 0 ? counts : null;
}

/** Where the end point of a titration lies against its final reading. */
interface EndPoint {
  readonly correctionMl: number;
  /** It lies within this either way, mL. */
  readonly halfWidthMl: number;
  /** What tells it: the last drop, a reading before it, or the curve of an electrode. */
  readonly by: 'drop' | 'bracket' | 'curve';
}

/**
 * Where the end point lies against the final reading, mL: where the curve of an electrode has it; else within the last drop
 * when it was met well, within the drop before the reading when that was a drop too much, and between the provisional
 * reading and the final one when the end point was overshot after it.
 */
export function endPointOf(run: Pick<RunState, 'references' | 'setUp'>, flask: Flask): EndPoint {
  const { references } = run;
  const { grade, provisional, refills, initial, final } = flask;
  const curve = curveEndOf(run, flask);
  if (curve) {
    return {
      correctionMl: curve.volumeMl - Number(titreMl(flask)),
      halfWidthMl: Math.sqrt(3) * curve.standardUncertaintyMl,
      by: 'curve',
    };
  }
  const isOver = grade !== null && grade.grade !== 'good';
  const end = Number(final?.value);
  const from = Number((refills.at(-1)?.restart ?? initial)?.value);
  const before = provisional
    .map(({ value }) => Number(value))
    .filter((value) => value > from && value < end)
    .at(-1);
  if (isOver && before !== undefined) {
    const halfWidthMl = (end - before) / 2;
    return { correctionMl: -halfWidthMl, halfWidthMl, by: 'bracket' };
  }
  const halfWidthMl = Number(references.burette.dropMl) / 2;
  const correctionMl = grade?.grade === 'drop-over' ? -halfWidthMl : 0;
  return { correctionMl, halfWidthMl, by: 'drop' };
}

/** Flasks whose blank titres are subtracted from the others, or give the whole of an excess. */
export function blanksOf(run: RunState): readonly Flask[] {
  const disputed = new Set(openConflicts(run).map(({ flask }) => flask));
  return run.flasks.filter(
    (flask) =>
      isBlank(flask) && !flask.voided && !disputed.has(flask.number) && titreMl(flask) !== null,
  );
}

/** What the blanks of a run say, in the mean: nothing, what is subtracted from every titre, or all that an excess takes. */
export interface RunBlank {
  readonly kind: Blank['kind'];
  readonly volumeMl: number;
}

/** A blank that took nothing says nothing of an excess. */
function meanBlank(run: RunState): RunBlank {
  const titres = blanksOf(run).map((flask) => volumeToEndMl(run, flask));
  const volumeMl = titres.reduce((total, one) => total + one, 0) / Math.max(1, titres.length);
  const isBack = run.references.excess !== null;
  if (titres.length === 0 || (isBack && volumeMl <= 0)) return { kind: 'none', volumeMl: 0 };
  return { kind: isBack ? 'gives-the-excess' : 'subtracted', volumeMl };
}

interface Reckoned {
  readonly blank: RunBlank;
  readonly plain: PlainDetermination;
}

/** Every titration of a run asks for its blank; a state never changes, so it is reckoned once. */
const RECKONED = new WeakMap<RunState, Reckoned>();

function reckonedOf(run: RunState): Reckoned {
  const known = RECKONED.get(run);
  if (known !== undefined) return known;
  const blank = meanBlank(run);
  const volume = exact(blank.volumeMl, UNITS.millilitre);
  const plain =
    blank.kind === 'gives-the-excess'
      ? new PlainDetermination(determinationOf(run.references, { kind: blank.kind, volume }))
      : plainDeterminationOf(run.references);
  const reckoned = { blank, plain };
  RECKONED.set(run, reckoned);
  return reckoned;
}

/** What the blanks of a run say. */
export function blankOf(run: RunState): RunBlank {
  return reckonedOf(run).blank;
}

/** What is subtracted from every titre, mL. */
export function subtractedMl(run: RunState): number {
  const { kind, volumeMl } = blankOf(run);
  return kind === 'subtracted' ? volumeMl : 0;
}

/** The determination of a run in plain numbers, with what its blanks say of an excess. */
export function plainDeterminationOfRun(run: RunState): PlainDetermination {
  return reckonedOf(run).plain;
}

/** What a millilitre more or less of a titre is worth, relative to the molarity. */
export function relativePerMl(run: RunState, netMl: number): number {
  return Math.abs(plainDeterminationOfRun(run).relativePerMl(netMl));
}

/** What the certificate of a burette corrects in each filling of a titration; nothing where it has none. */
export function buretteCorrections(
  burette: CalibratedBurette,
  flask: Flask,
): readonly DeliveryCorrection[] {
  return stretchesOf(flask).flatMap(
    ({ from, to }) => deliveryCorrection(burette, Number(from.value), Number(to.value)) ?? [],
  );
}

/** What a flask that has its titre took up to its end point, mL, blank included, as the burette's calibration corrects it. */
function volumeToEndMl(run: RunState, flask: Flask): number {
  return buretteCorrections(run.references.burette, flask).reduce(
    (total, { correctionMl }) => total + correctionMl,
    Number(titreMl(flask)) + endPointOf(run, flask).correctionMl,
  );
}

/**
 * Titre of a flask up to its end point, mL: as the burette's calibration corrects it, less a blank that is subtracted. Null
 * until it is titrated, and where the blank leaves nothing.
 */
export function netTitreMl(run: RunState, flask: Flask): number | null {
  if (titreMl(flask) === null || isBlank(flask)) return null;
  const net = volumeToEndMl(run, flask) - subtractedMl(run);
  return net > 0 ? net : null;
}

/** Molarity that one flask gives, mol/L; null until it is titrated, and where more was left of an excess than was added. */
export function flaskMolarity(run: RunState, flask: Flask): number | null {
  const net = netTitreMl(run, flask);
  const amount = deliveredIn(run.references, flask);
  if (net === null || amount <= 0) return null;
  const molarity = plainDeterminationOfRun(run).found(amount, net);
  return molarity > 0 ? molarity : null;
}

/** Whether a flask was overshot by more than the house rule averages, with nothing read before it. */
export function isOvershot(run: RunState, flask: Flask): boolean {
  const grade = flask.grade?.grade ?? 'good';
  const { by } = endPointOf(run, flask);
  if (by === 'curve') return false;
  switch (run.setUp.rules.overshotCounts) {
    case 'always':
      return false;
    case 'within-a-drop':
      return grade === 'far-over' && by === 'drop';
    case 'never':
      return grade !== 'good';
  }
}
