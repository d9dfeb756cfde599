import { excessRatioOfMethod, moleRatioOfMethod } from '../chemistry';
import type { CalibratedBurette, DeliveryCorrection, EquipmentState } from '../metrology';
import { calibratedPointOf, deliveryCorrection } from '../metrology';
import type { BottleState } from '../reagent';
import { knownMolarity, lotMolarMass, nominalMolPerL } from '../reagent';
import type { CurveEnd, CurveEnds } from './curve';
import { curveOf, endsOfCurve } from './curve';
import { portionAmount } from './portion';
import { pipetteVolumeMl } from './standard';
import type { Flask, RunReferences, RunState } from './state';
import { isBlank, openConflicts, stretchesOf, titreMl } from './run';
import type { Stoichiometry } from './stoichiometry';
import { expectedTitreMl, molarityFromTitre, strengthOfWeighed } from './stoichiometry';

/** The arithmetic of a run between portion, titre and molarity, by what its records say. */
export function stoichiometryOf({
  standard,
  method,
  excess,
}: Pick<RunReferences, 'standard' | 'method' | 'excess'>): Stoichiometry {
  const moleRatio = moleRatioOfMethod(method);
  const { inBurette } = method;
  return {
    inBurette,
    excessMmol:
      excess &&
      (excessRatioOfMethod(method) ?? 0) *
        standardMolPerL(excess.bottle) *
        (pipetteVolumeMl(excess.vessel) + deviationMl(excess.vessel)),
    strength:
      standard.kind === 'bottle'
        ? moleRatio * standardMolPerL(standard.bottle)
        : strengthOfWeighed({
            moleRatio,
            purity: Number(standard.lot.lot.purity),
            molarMassGPerMol: lotMolarMass(standard.lot.lot).valueGPerMol,
          }),
  };
}

/** The same, with what the blanks say of the excess: they hold all of it. */
export function stoichiometryOfRun(run: RunState): Stoichiometry {
  const nominal = stoichiometryOf(run.references);
  return isExcessByBlank(run)
    ? { ...nominal, excessMmol: nominal.strength * blankMl(run) }
    : nominal;
}

/** Whether the blanks give the whole of an excess, so that its molarity is not needed. */
export function isExcessByBlank(run: RunState): boolean {
  return run.references.excess !== null && blankMl(run) > 0;
}

/** What the blanks take off every titre, mL; nothing where a titre is itself the rest of an excess. */
export function subtractedBlankMl(run: RunState): number {
  return run.references.excess ? 0 : blankMl(run);
}

/** The molarity of a standard solution, mol/L: the known one, or the label's where a run should not have begun. */
export function standardMolPerL(bottle: BottleState): number {
  return Number(knownMolarity(bottle)?.molarity ?? nominalMolPerL(bottle));
}

/** The amount of a portion as a number: g or mL. */
export function amountIn({ portion }: Pick<Flask, 'portion'>): number {
  return Number(portionAmount(portion.value));
}

/** The same as it really was: a calibrated pipette delivers what its calibration found. */
export function deliveredIn({ standard }: RunReferences, flask: Flask): number {
  if (standard.kind === 'lot' || isBlank(flask)) return amountIn(flask);
  return amountIn(flask) + deviationMl(standard.vessel);
}

/** What a vessel delivers beyond its nominal volume, mL, as its calibration found. */
function deviationMl(vessel: EquipmentState): number {
  return calibratedPointOf(vessel)?.deviation ?? 0;
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
    : expectedTitreMl(
        stoichiometryOf(references),
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

/** Every titration of a run asks for its blank; a state never changes, so it is reckoned once. */
const KNOWN_BLANKS = new WeakMap<RunState, number>();

/** What the blanks of a run take in the mean, mL; 0 without a blank. */
function blankMl(run: RunState): number {
  const known = KNOWN_BLANKS.get(run);
  if (known !== undefined) return known;
  const blank = meanBlankMl(run);
  KNOWN_BLANKS.set(run, blank);
  return blank;
}

function meanBlankMl(run: RunState): number {
  const titres = blanksOf(run).map((flask) => volumeToEndMl(run, flask));
  return titres.length === 0 ? 0 : titres.reduce((total, one) => total + one, 0) / titres.length;
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
 * Volume that what was in a flask consumed, mL: its titre as the burette's calibration corrects it, less the blank,
 * set right for an end point that was overshot. Null until it is titrated, and where the blank leaves nothing.
 */
export function consumedMl(run: RunState, flask: Flask): number | null {
  if (titreMl(flask) === null || isBlank(flask)) return null;
  const consumed = volumeToEndMl(run, flask) - subtractedBlankMl(run);
  return consumed > 0 ? consumed : null;
}

/** Molarity that one flask gives, mol/L; null until it is titrated, and where more was left of an excess than was added. */
export function flaskMolarity(run: RunState, flask: Flask): number | null {
  const consumed = consumedMl(run, flask);
  const amount = deliveredIn(run.references, flask);
  if (consumed === null || amount <= 0) return null;
  const molarity = molarityFromTitre(stoichiometryOfRun(run), amount, consumed);
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
