import { labelledMolarity } from '../../reagent';
import type { Flask, RunState } from '../run';
import { arrangementOf } from '../setUp';
import type { CurveEnds, CurvePoint } from './curve';
import { granKindOf } from './curve';
import { flaskVolumeMlOf } from './endOfTitration';
import type { GranKind } from './inflection';

/** What the middle of a curve tells of the acid in the flask, or of the acid that belongs to its base. */
export interface HalfEquivalence {
  /** Conditional: of concentrations, at this temperature and ionic strength. */
  readonly pKa: number;
  readonly ionicStrengthMolPerL: number;
}

/** Ion product of water near room temperature. */
const KW = 1e-14;

/** Of an acid that has given up all but this part at half way, the pH tells nothing: it is a strong one. */
const WEAK_FROM = 0.05;

/**
 * pKa' from the pH half way to the end, with the part that water itself takes or gives: the charges balance,
 * [A-] = [Na+] + [H+] - [OH-]. For one step of an acid or base; null for a strong one, for points that do not reach half way, and
 * where the volume in the flask is not known. Source: charge balance of a monoprotic acid, as in common textbooks.
 *
 * @param endMl the end point that counts, mL
 */
export function halfEquivalence(
  points: readonly CurvePoint[],
  given: {
    readonly endMl: number;
    readonly titrantMolPerL: number;
    readonly flaskVolumeMl: number;
    readonly kind: GranKind;
  },
): HalfEquivalence | null {
  const { endMl, titrantMolPerL, flaskVolumeMl, kind } = given;
  const halfMl = endMl / 2;
  const after = points.findIndex(({ volumeMl }) => volumeMl >= halfMl);
  const [before, beyond] = [points[after - 1], points[after]];
  if (!before || !beyond) return null;
  const share = (halfMl - before.volumeMl) / (beyond.volumeMl - before.volumeMl);
  const pH = before.value + share * (beyond.value - before.value);
  const volumeMl = flaskVolumeMl + halfMl;
  const added = (titrantMolPerL * halfMl) / volumeMl;
  const whole = 2 * added;
  const [hydrogen, hydroxide] = [10 ** -pH, KW / 10 ** -pH];
  const isAcid = kind === 'base-after';
  const turned = isAcid ? added + hydrogen - hydroxide : added - hydrogen + hydroxide;
  const left = whole - turned;
  if (Math.min(turned, left) < WEAK_FROM * whole) return null;
  const [base, acid] = isAcid ? [turned, left] : [left, turned];
  return {
    pKa: pH - Math.log10(base / acid),
    ionicStrengthMolPerL: isAcid ? added + hydrogen : added + hydroxide,
  };
}

/** That of a flask that an electrode followed, by its curve and the end that counts of it; null where they tell none. */
export function halfEquivalenceOf(
  { references }: Pick<RunState, 'references'>,
  flask: Flask,
  points: readonly CurvePoint[],
  { counts }: Pick<CurveEnds, 'counts'>,
): HalfEquivalence | null {
  const kind = granKindOf(references.method);
  const flaskVolumeMl = flaskVolumeMlOf(flask);
  const molarity = labelledMolarity(arrangementOf(references).inBurette);
  if (!kind || !counts || flaskVolumeMl === null || molarity === null) return null;
  return halfEquivalence(points, {
    ...{ endMl: counts.volumeMl, titrantMolPerL: Number(molarity), flaskVolumeMl, kind },
  });
}
