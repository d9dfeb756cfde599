import type { Equipment, EquipmentState } from '../metrology';
import type { BottleState } from '../reagent';
import { knownMolarity } from '../reagent';
import type { RunReferences, RunStandard } from './state';

/** The substance of a standard. */
export function standardSubstanceId(standard: RunStandard): string {
  return standard.kind === 'lot' ? standard.lot.lot.substanceId : standard.bottle.substanceId;
}

/** A standard as a run or certificate names it: `lot K-22`, `bottle 0419 (0419-1)`; of two solutions, both. */
export function describeStandard({
  standard,
  excess,
}: Pick<RunReferences, 'standard' | 'excess'>): string {
  if (standard.kind === 'lot') return `lot ${standard.lot.lot.lotNumber}`;
  const inFlask = excess
    ? `, excess of ${String(pipetteVolumeMl(excess.vessel))} mL of ${describeBottle(excess.bottle)}`
    : '';
  return `${describeBottle(standard.bottle)}${inFlask}`;
}

function describeBottle(bottle: BottleState): string {
  return `bottle ${bottle.code} (${knownMolarity(bottle)?.certificateNumber ?? 'as made'})`;
}

/** What measures the portions: the balance, or the vessel of the aliquots. */
export function instrumentOf(standard: RunStandard): Equipment {
  return standard.kind === 'lot' ? standard.balance : standard.vessel.equipment;
}

/** What measures into the flasks, by name: the portions, and the excess of a back-titration. */
export function describeInstruments({
  standard,
  excess,
}: Pick<RunReferences, 'standard' | 'excess'>): string {
  const instruments = [instrumentOf(standard), ...(excess ? [excess.vessel.equipment] : [])];
  return instruments.map(({ name }) => name).join(', ');
}

/** The volume of the pipette that measures the portions, mL; null where they are weighed or read off a burette. */
export function pipetteMl(standard: RunStandard): number | null {
  const instrument = instrumentOf(standard);
  return instrument.type === 'glassware' ? Number(instrument.volumeMl) : null;
}

/** Nominal volume of a pipette, mL. @throws RangeError for a vessel that has no single volume */
export function pipetteVolumeMl({ equipment }: EquipmentState): number {
  if (equipment.type !== 'glassware') throw new RangeError(`${equipment.name} is no pipette`);
  return Number(equipment.volumeMl);
}
