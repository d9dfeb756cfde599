import type { Equipment } from '../metrology';
import { knownMolarity } from '../reagent';
import type { RunStandard } from './state';

/** The substance of a standard. */
export function standardSubstanceId(standard: RunStandard): string {
  return standard.kind === 'lot' ? standard.lot.lot.substanceId : standard.bottle.substanceId;
}

/** A standard as a run or certificate names it: `lot K-22`, `bottle 0419 (0419-1)`. */
export function describeStandard(standard: RunStandard): string {
  if (standard.kind === 'lot') return `lot ${standard.lot.lot.lotNumber}`;
  const { bottle } = standard;
  const known = knownMolarity(bottle);
  return `bottle ${bottle.code} (${known?.certificateNumber ?? 'as made'})`;
}

/** What measures the portions: the balance, or the vessel of the aliquots. */
export function instrumentOf(standard: RunStandard): Equipment {
  return standard.kind === 'lot' ? standard.balance : standard.vessel.equipment;
}

/** The volume of the pipette that measures the portions, mL; null where they are weighed or read off a burette. */
export function pipetteMl(standard: RunStandard): number | null {
  const instrument = instrumentOf(standard);
  return instrument.type === 'glassware' ? Number(instrument.volumeMl) : null;
}
