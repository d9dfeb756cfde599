import type { EquipmentState } from '#core/metrology';
import { isPipette } from '#core/metrology';
import type { MethodOption } from './methodOptions';

/** The pipettes, the largest first. */
export function pipettesOf(equipment: readonly EquipmentState[]): readonly EquipmentState[] {
  return equipment
    .filter(({ equipment: one }) => isPipette(one))
    .toSorted((a, b) => volumeOf(b.equipment) - volumeOf(a.equipment));
}

/** The pipette whose volume lies in what the method takes, else any; then burettes, which measure an aliquot too. */
export function vesselsFor({ method }: MethodOption, equipment: readonly EquipmentState[]) {
  const portion = method.portions.find(({ kind }) => kind === 'aliquot');
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
