import type { EquipmentState } from '../../metrology';
import { isPipette } from '../../metrology';
import { SMALL_ALIQUOT_ML } from '../../sample';
import { plainDeterminationOf } from '../figures';
import type { AnalysisReferences } from '../setUp';
import { arrangementOf, pipetteVolumeMl, soughtOf } from '../setUp';
import { AIM, GOOD_RANGE } from './plan';

/** An aliquot of a sample, made up to a mark, that brings its titre into the good range of the burette. */
interface ProposedDilution {
  readonly pipette: EquipmentState;
  readonly flask: EquipmentState;
  /** As it is, and as diluted, mL. */
  readonly titreMl: { readonly undiluted: number; readonly diluted: number };
}

/**
 * What a sample is best diluted by where its titre goes beyond one filling of the burette; null where it holds, where the portion may
 * be chosen, and where no ware brings it there.
 *
 * @param references a series of one sample
 */
export function proposeDilution(
  references: AnalysisReferences,
  ware: readonly EquipmentState[],
): ProposedDilution | null {
  const { fixedMl } = arrangementOf(references).portion;
  if (fixedMl === null || references.excess) return null;
  const capacityMl = Number(references.burette.capacityMl);
  const undiluted = plainDeterminationOf(references).titreMl(
    fixedMl,
    soughtOf(references).expected,
  );
  const [leastMl, mostMl] = [GOOD_RANGE.least * capacityMl, GOOD_RANGE.most * capacityMl];
  if (undiluted <= mostMl) return null;
  const pipettes = ware.filter(
    ({ equipment }) => isPipette(equipment) && Number(equipment.volumeMl) >= SMALL_ALIQUOT_ML,
  );
  const flasks = ware.filter(
    ({ equipment }) => equipment.type === 'glassware' && equipment.kind === 'volumetric-flask',
  );
  const fitting = pipettes.flatMap((pipette) =>
    flasks.flatMap((flask): readonly ProposedDilution[] => {
      const diluted = (undiluted * pipetteVolumeMl(pipette)) / pipetteVolumeMl(flask);
      const isSmaller = pipetteVolumeMl(pipette) < pipetteVolumeMl(flask);
      return isSmaller && diluted >= leastMl && diluted <= mostMl
        ? [{ pipette, flask, titreMl: { undiluted, diluted } }]
        : [];
    }),
  );
  const off = ({ titreMl }: ProposedDilution): number =>
    Math.abs(titreMl.diluted - AIM * capacityMl);
  return fitting.toSorted((a, b) => off(a) - off(b))[0] ?? null;
}
