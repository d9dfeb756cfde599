import type { Concentrate, Keeping, Solvent } from './entries';

const TYPICAL = 'typical of the trade; the label of the bottle at hand rules';

function concentrate(substanceId: string, massPercent: number, densityGPerMl: number): Concentrate {
  const id = `${substanceId}-${String(massPercent)}-percent`;
  return { id, substanceId, massPercent, densityGPerMl, source: TYPICAL };
}

export const CONCENTRATES: readonly Concentrate[] = [
  concentrate('hydrochloric-acid', 37, 1.19),
  concentrate('sulfuric-acid', 96, 1.84),
  concentrate('nitric-acid', 65, 1.39),
  concentrate('phosphoric-acid', 85, 1.69),
  concentrate('acetic-acid', 99.8, 1.05),
  concentrate('ammonia', 25, 0.91),
  concentrate('sodium-hydroxide', 50, 1.525),
  concentrate('hydrogen-peroxide', 30, 1.11),
  concentrate('perchloric-acid', 70, 1.67),
];

export const SOLVENTS: readonly Solvent[] = [
  {
    id: 'water',
    name: 'water',
    densityGPerMl: 0.9982,
    cubicExpansionPerK: 2.1e-4,
    isWater: true,
    hazards: [],
    source: 'common tables, 20 °C',
  },
  {
    id: 'ethanol-95',
    name: 'ethanol, 95 %',
    densityGPerMl: 0.81,
    cubicExpansionPerK: 1.1e-3,
    isWater: false,
    hazards: [
      { fromPercent: 50, codes: ['H225', 'H319'] },
      { fromPercent: 10, codes: ['H226'] },
    ],
    source: 'common tables, 20 °C',
  },
  {
    id: 'glacial-acetic-acid',
    name: 'glacial acetic acid',
    densityGPerMl: 1.05,
    cubicExpansionPerK: 1.1e-3,
    isWater: false,
    hazards: [
      { fromPercent: 90, codes: ['H226', 'H314'] },
      { fromPercent: 25, codes: ['H314'] },
      { fromPercent: 10, codes: ['H315', 'H319'] },
    ],
    source: 'common tables, 20 °C',
  },
];

/** Starting values; every laboratory sets its own. */
export const KEEPING: readonly Keeping[] = [
  {
    substanceId: 'sodium-hydroxide',
    interval: { months: 1 },
    container: 'plastic',
    remark: 'polyethylene with a carbon dioxide guard',
  },
  {
    substanceId: 'potassium-hydroxide',
    interval: { months: 1 },
    container: 'plastic',
    remark: 'polyethylene with a carbon dioxide guard',
  },
  {
    substanceId: 'lithium-hydroxide-monohydrate',
    interval: { months: 1 },
    container: 'plastic',
    remark: 'polyethylene with a carbon dioxide guard',
  },
  {
    substanceId: 'hydrochloric-acid',
    interval: { months: 3 },
    container: 'clear-glass',
    remark: 'glass or plastic',
  },
  {
    substanceId: 'potassium-permanganate',
    interval: { weeks: 2 },
    container: 'brown-glass',
    remark: 'brown glass; discarded when a brown deposit shows',
  },
  {
    substanceId: 'potassium-dichromate',
    interval: { months: 12 },
    container: 'clear-glass',
    remark: 'glass',
  },
  {
    substanceId: 'ammonium-iron-ii-sulfate-hexahydrate',
    interval: { days: 0 },
    container: 'clear-glass',
    remark: 'glass, acidified; for the same day',
  },
  {
    substanceId: 'oxalic-acid-dihydrate',
    interval: { months: 1 },
    container: 'brown-glass',
    remark: 'brown glass',
  },
  {
    substanceId: 'sodium-oxalate',
    interval: { months: 1 },
    container: 'brown-glass',
    remark: 'brown glass',
  },
  {
    substanceId: 'potassium-hydrogen-phthalate',
    interval: { months: 1 },
    container: 'clear-glass',
    remark: 'glass',
  },
  {
    substanceId: 'sodium-carbonate',
    interval: { months: 1 },
    container: 'plastic',
    remark: 'plastic',
  },
  {
    substanceId: 'sodium-thiosulfate-pentahydrate',
    interval: { weeks: 2 },
    container: 'brown-glass',
    remark: 'brown glass',
  },
  {
    substanceId: 'iodine',
    interval: { weeks: 1 },
    container: 'brown-glass',
    remark: 'brown glass, well closed: iodine evaporates',
  },
  {
    substanceId: 'disodium-edta-dihydrate',
    interval: { months: 3 },
    container: 'plastic',
    remark: 'plastic: glass gives off calcium',
  },
  {
    substanceId: 'silver-nitrate',
    interval: { months: 3 },
    container: 'brown-glass',
    remark: 'brown glass',
  },
  {
    substanceId: 'sodium-chloride',
    interval: { months: 6 },
    container: 'clear-glass',
    remark: 'glass',
  },
  {
    substanceId: 'potassium-iodate',
    interval: { months: 6 },
    container: 'clear-glass',
    remark: 'glass',
  },
  {
    substanceId: 'sulfuric-acid',
    interval: { months: 3 },
    container: 'clear-glass',
    remark: 'glass',
  },
  {
    substanceId: 'ammonium-thiocyanate',
    interval: { months: 3 },
    container: 'clear-glass',
    remark: 'glass',
  },
  {
    substanceId: 'ammonium-cerium-iv-sulfate-dihydrate',
    interval: { months: 3 },
    container: 'clear-glass',
    remark: 'glass',
  },
  {
    substanceId: 'perchloric-acid',
    interval: { months: 1 },
    container: 'clear-glass',
    remark: 'glass; checked at each change of temperature',
  },
  {
    substanceId: 'ammonia',
    interval: { months: 1 },
    container: 'plastic',
    remark: 'plastic, tightly closed and cool: it loses gas',
  },
  {
    substanceId: 'ammonium-chloride',
    interval: { months: 6 },
    container: 'plastic',
    remark: 'plastic or glass',
  },
  {
    substanceId: 'potassium-aluminium-sulfate-dodecahydrate',
    interval: { months: 6 },
    container: 'plastic',
    remark: 'plastic or glass, with a little acid',
  },
];
