import type { EntryState, Indicator, NamedEntry, OwnEntry, Preparation } from '#core/chemistry';
import { findSubstance } from '#core/chemistry';
import { idOf, stored } from './stored';

const like = findSubstance('potassium-hydrogen-phthalate');
if (!like) throw new Error('the catalogue lacks a standard');

/** Cream of tartar as a standard for bases: a substance of the laboratory's own. */
export const CREAM_OF_TARTAR = {
  kind: 'substance',
  substance: {
    ...like,
    id: 'cream-of-tartar',
    name: 'potassium hydrogen tartrate',
    shortName: 'KHT',
    formula: 'KC4H5O6',
    densityGPerCm3: 1.98,
    drying: { kind: 'oven', temperatureC: [105, 110], hours: 3, remark: '' },
    hazards: [{ fromPercent: 10, codes: ['H319'] }],
    cautions: ['Its dust irritates: wipe it up damp.'],
    solubilityMolPerL: 0.03,
    source: 'our file 12',
  },
  keeping: {
    substanceId: 'cream-of-tartar',
    interval: { days: 3 },
    dilute: null,
    lastsFor: null,
    settles: null,
    container: 'clear-glass',
    remark: 'a refrigerator, for mould',
    endedBy: 'mould',
    source: 'our file 12',
  },
} as const satisfies OwnEntry;

/** How that is made up exactly. */
export const TARTRATE_RECIPE: Preparation = {
  id: 'tartrate-our-way',
  name: 'cream of tartar, our way',
  soluteId: CREAM_OF_TARTAR.substance.id,
  route: 'weighed',
  exactness: 'exact',
  molarityMolPerL: 0.02,
  volumeMl: 250,
  from: null,
  additions: [],
  solventId: 'water',
  steps: [
    { work: 'weigh', text: 'Weigh it; write every digit.', waitMinutes: null },
    { work: 'heat', text: 'Dissolve it in hot water.', waitMinutes: 10 },
    { work: 'to-room-temperature', text: 'Let it cool.', waitMinutes: 60 },
    { work: 'to-mark', text: 'Fill to the mark.', waitMinutes: null },
    { work: 'bottle', text: 'Fill its bottle.', waitMinutes: null },
    { work: 'label', text: 'Label it.', waitMinutes: null },
  ],
  cautions: [],
  sinceEdition: 1,
  source: 'our file 12',
};

/** An indicator of the laboratory's own. */
export const RED_CABBAGE: Indicator = {
  id: 'red-cabbage',
  name: 'red cabbage',
  changes: [
    { by: 'pH', range: [5, 7] },
    { by: 'pH', range: [9, 11] },
  ],
  colours: [
    ['red', 'violet'],
    ['violet', 'green'],
  ],
  preparation: '10 g of leaves in 100 mL of hot water',
  steps: null,
  dose: null,
  keepsFor: { days: 2 },
  hazards: [],
  madeUp: { ownPercent: 1, holds: [] },
  source: 'our file 13',
};

/** An entry as whatever names it carries it. */
export function namedEntry(entry: OwnEntry, id: string): NamedEntry {
  return { id: idOf(id), version: 1, entry };
}

/** An entry's record after its first writing. */
export function entryState(entry: OwnEntry, id: string): EntryState {
  return stored<EntryState>({
    ...{ id, version: 1, factIds: ['f0'], entry, own: [], withdrawn: null },
    written: [{ factId: 'f0', by: 'ines', at: '2026-03-02T08:00:00.000Z', reason: 'new' }],
  });
}
