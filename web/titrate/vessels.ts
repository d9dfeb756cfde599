import type { Analysis, Method } from '#core/chemistry';
import type { EquipmentState } from '#core/metrology';
import { isPipette } from '#core/metrology';

/** The pipettes, the largest first. */
export function pipettesOf(equipment: readonly EquipmentState[]): readonly EquipmentState[] {
  return equipment
    .filter(({ equipment: one }) => isPipette(one))
    .toSorted((a, b) => volumeOf(b.equipment) - volumeOf(a.equipment));
}

/** What a method or an analysis says of its portions. */
interface TakingPortions {
  readonly portions: Method['portions'] | Analysis['portions'];
}

/** The pipette whose volume lies in what is taken, else any; then burettes, which measure an aliquot too. */
export function vesselsFor({ portions }: TakingPortions, equipment: readonly EquipmentState[]) {
  const portion = [...portions].find(({ kind }) => kind === 'aliquot');
  const [low, high] = portion?.kind === 'aliquot' ? portion.volumeMl : [0, Infinity];
  const pipettes = pipettesOf(equipment);
  const fits = ({ equipment: one }: EquipmentState): boolean =>
    volumeOf(one) >= low && volumeOf(one) <= high;
  return [
    ...pipettes.filter(fits),
    ...pipettes.filter((item) => !fits(item)),
    ...equipment.filter((item) => item.equipment.type === 'burette'),
  ];
}

function volumeOf(equipment: EquipmentState['equipment']): number {
  return equipment.type === 'glassware' ? Number(equipment.volumeMl) : 0;
}
