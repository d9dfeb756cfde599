import { excessRatioOfMethod, moleRatioOfMethod } from '../chemistry';
import type { EquipmentState } from '../metrology';
import { calibratedPointOf } from '../metrology';
import type { BottleState } from '../reagent';
import { knownMolarity, lotMolarMass, nominalMolPerL } from '../reagent';
import { portionAmount } from './portion';
import { pipetteVolumeMl } from './standard';
import type { Flask, RunReferences, RunState } from './state';
import { isBlank, openConflicts, titreMl } from './run';
import type { Stoichiometry } from './stoichiometry';
import { molarityFromTitre, strengthOfWeighed } from './stoichiometry';

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

/**
 * Where the end point lies against the final reading, mL: within the last drop when it was met well, within the drop
 * before the reading when that was a drop too much, and between the provisional reading and the final one when the
 * end point was overshot after it.
 */
export function endPointOf(
  { references }: Pick<RunState, 'references'>,
  { grade, provisional, refills, initial, final }: Flask,
): { readonly correctionMl: number; readonly halfWidthMl: number; readonly isBracketed: boolean } {
  const isOver = grade !== null && grade.grade !== 'good';
  const end = Number(final?.value);
  const from = Number((refills.at(-1)?.restart ?? initial)?.value);
  const before = provisional
    .map(({ value }) => Number(value))
    .filter((value) => value > from && value < end)
    .at(-1);
  if (isOver && before !== undefined) {
    const halfWidthMl = (end - before) / 2;
    return { correctionMl: -halfWidthMl, halfWidthMl, isBracketed: true };
  }
  const halfWidthMl = Number(references.burette.dropMl) / 2;
  const correctionMl = grade?.grade === 'drop-over' ? -halfWidthMl : 0;
  return { correctionMl, halfWidthMl, isBracketed: false };
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
  const titres = blanksOf(run).map((flask) => Number(titreMl(flask)));
  return titres.length === 0 ? 0 : titres.reduce((total, one) => total + one, 0) / titres.length;
}

/**
 * Volume that what was in a flask consumed, mL: its titre less the blank, set right for an end point that was
 * overshot. Null until it is titrated, and where the blank leaves nothing.
 */
export function consumedMl(run: RunState, flask: Flask): number | null {
  const titre = titreMl(flask);
  if (titre === null || isBlank(flask)) return null;
  const { correctionMl } = endPointOf(run, flask);
  const consumed = Number(titre) - subtractedBlankMl(run) + correctionMl;
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
  const { isBracketed } = endPointOf(run, flask);
  switch (run.setUp.rules.overshotCounts) {
    case 'always':
      return false;
    case 'within-a-drop':
      return grade === 'far-over' && !isBracketed;
    case 'never':
      return grade !== 'good';
  }
}
