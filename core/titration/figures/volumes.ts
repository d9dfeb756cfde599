import type { Blank } from '../../determination';
import { PlainDetermination } from '../../determination';
import { exact, UNITS } from '../../measurement';
import type { CalibratedBurette, DeliveryCorrection } from '../../metrology';
import { deliveryCorrection } from '../../metrology';
import type { Flask, RunState } from '../run';
import { isBlank, openConflicts, seriesWith, stretchesOf, titreMl } from '../run';
import { plainMassFactor } from './corrections';
import { endPointOf } from './endOfTitration';
import { incidentCorrections } from './incidentCorrections';
import { deliveredIn } from './portions';
import { determinationOf } from './runDetermination';

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

/** Every titration of a run asks for its blank; a state never changes, so it is calculated once. */
const BLANKS = new WeakMap<RunState, RunBlank>();
const PLAIN = new WeakMap<RunState, PlainDetermination>();

/** What the blanks of a run say. */
export function blankOf(run: RunState): RunBlank {
  const known = BLANKS.get(run);
  if (known !== undefined) return known;
  const blank = meanBlank(run);
  BLANKS.set(run, blank);
  return blank;
}

/** The determination of a run in plain numbers, with what its blanks say of an excess. */
export function plainDeterminationOfRun(run: RunState): PlainDetermination {
  const known = PLAIN.get(run);
  if (known !== undefined) return known;
  const blank = blankOf(run);
  const volume = exact(blank.volumeMl, UNITS.millilitre);
  const said: Blank =
    blank.kind === 'gives-the-excess' ? { kind: blank.kind, volume } : { kind: 'none' };
  const plain = new PlainDetermination(determinationOf(run.references, said, plainMassFactor(run)));
  PLAIN.set(run, plain);
  return plain;
}

/** What is subtracted from every titre, mL. */
export function subtractedMl(run: RunState): number {
  const { kind, volumeMl } = blankOf(run);
  return kind === 'subtracted' ? volumeMl : 0;
}

/** What a millilitre more or less of a titre is worth, relative to the molarity. */
export function relativePerMl(run: RunState, takenMl: number): number {
  return Math.abs(plainDeterminationOfRun(run).relativePerMl(takenMl));
}

/** What the certificate of a burette corrects in stretches of a titration; nothing where it has none. */
export function buretteCorrections(
  burette: CalibratedBurette,
  stretches: ReturnType<typeof stretchesOf>,
): readonly DeliveryCorrection[] {
  return stretches.flatMap(
    ({ from, to }) => deliveryCorrection(burette, Number(from.value), Number(to.value)) ?? [],
  );
}

/**
 * What a flask that has its titre took up to its end point, mL, blank included, as the burette's calibration and the incidents whose
 * size was measured correct it.
 */
function volumeToEndMl(run: RunState, flask: Flask): number {
  return [
    ...buretteCorrections(run.references.burette, stretchesOf(flask)),
    ...incidentCorrections(run, flask),
  ].reduce(
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

/** What one flask gives, in the unit of what is sought: mol/L of a titrant; null until it is titrated, and where more was left of an excess than was added. */
export function flaskMolarity(run: RunState, flask: Flask): number | null {
  const net = netTitreMl(run, flask);
  const amount = deliveredIn(run.references, flask);
  if (net === null || amount <= 0) return null;
  const molarity = plainDeterminationOfRun(seriesWith(run, flask)).found(amount, net);
  return molarity > 0 ? molarity : null;
}
