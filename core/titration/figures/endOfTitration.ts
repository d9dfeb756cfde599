import type { Flask, RunState } from '../run';
import { isBlank, referencesFor, titreMl } from '../run';
import { soughtOf } from '../setUp';
import type { CurveEnd, CurveEnds } from './curve';
import { curveOf, endsOfCurve } from './curve';
import { deliveredIn } from './portions';
import { plainDeterminationOf } from './runDetermination';

/** The first part of a titration in which no last step is looked for. */
const BEFORE_LAST_STEP = 0.7;

const NO_CURVE: CurveEnds = { ends: [], counts: null, remark: null };

/** The end points of the curve that an electrode gave of a flask; the last step of an acid that has several. */
export function curveEndsOf(
  { references: ofRun, setUp }: Pick<RunState, 'references' | 'setUp'>,
  flask: Flask,
): CurveEnds {
  if (flask.electrode.length === 0) return NO_CURVE;
  const references = referencesFor(ofRun, flask);
  const expectedMl = isBlank(flask)
    ? 0
    : plainDeterminationOf(references).titreMl(
        deliveredIn(references, flask),
        soughtOf(references).expected,
      );
  return endsOfCurve(curveOf(flask), {
    method: references.method,
    fromMl: Math.max(0, BEFORE_LAST_STEP * expectedMl),
    flaskVolumeMl: flaskVolumeMlOf(flask),
    rule: setUp.rules.endPointOfCurve,
  });
}

/** What was in a flask at the start, water included, mL; null where nobody said. */
export function flaskVolumeMlOf({ electrode }: Flask): number | null {
  const known = electrode.findLast(({ struck, flaskVolumeMl }) => !struck && flaskVolumeMl);
  return known?.flaskVolumeMl ? Number(known.flaskVolumeMl) : null;
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
  const { grade, provisional, refills, firstEnd, initial, final } = flask;
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
  const isSinceRefill = firstEnd?.refills === refills.length;
  const begun = isSinceRefill ? firstEnd.reading : (refills.at(-1)?.restart ?? initial);
  const from = Number(begun?.value);
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

/** The last addition that was made to a flask, mL: a drop, or what was read to be less. */
export function lastAdditionMl({ references }: Pick<RunState, 'references'>, flask: Flask): number {
  const dropMl = Number(references.burette.dropMl);
  const last = flask.provisional.at(-1);
  const stepMl = last && flask.final ? Number(flask.final.value) - Number(last.value) : dropMl;
  return stepMl > 0 ? Math.min(dropMl, stepMl) : dropMl;
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
