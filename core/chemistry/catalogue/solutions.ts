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

const STARTING_VALUES =
  'starting values of common practice; nominal, every laboratory sets its own';

type Given = Pick<Keeping, 'substanceId' | 'interval' | 'container' | 'remark'> & Partial<Keeping>;

/** How a solution keeps, with what most of them share. */
export function keeping(given: Given): Keeping {
  return {
    dilute: null,
    lastsFor: null,
    settles: null,
    endedBy: '',
    source: STARTING_VALUES,
    ...given,
  };
}

/** A solution of a base takes up carbon dioxide; the weaker it is, the more that matters. */
const DILUTE_BASE = { belowMolPerL: 0.05, interval: { weeks: 1 } } as const;

/** Carbonate does not dissolve in strong hydroxide and settles. Source: a week or two, common practice. */
const SETTLES = { fromMolPerL: 10, interval: { weeks: 1 } } as const;

export const KEEPING: readonly Keeping[] = [
  keeping({
    substanceId: 'sodium-hydroxide',
    dilute: DILUTE_BASE,
    settles: SETTLES,
    interval: { months: 1 },
    container: 'plastic',
    remark: 'polyethylene with a carbon dioxide guard',
  }),
  keeping({
    substanceId: 'potassium-hydroxide',
    dilute: DILUTE_BASE,
    interval: { months: 1 },
    container: 'plastic',
    remark: 'polyethylene with a carbon dioxide guard',
  }),
  keeping({
    substanceId: 'lithium-hydroxide-monohydrate',
    dilute: DILUTE_BASE,
    interval: { months: 1 },
    container: 'plastic',
    remark: 'polyethylene with a carbon dioxide guard',
  }),
  keeping({
    substanceId: 'hydrochloric-acid',
    interval: { months: 3 },
    container: 'clear-glass',
    remark: 'glass or plastic',
  }),
  keeping({
    substanceId: 'potassium-permanganate',
    dilute: { belowMolPerL: 0.01, interval: { days: 1 } },
    lastsFor: { months: 3 },
    endedBy: 'a brown deposit',
    interval: { weeks: 2 },
    container: 'brown-glass',
    remark: 'brown glass',
  }),
  keeping({
    substanceId: 'copper-sulfate-pentahydrate',
    interval: { months: 6 },
    container: 'clear-glass',
    remark: 'glass',
  }),
  keeping({
    substanceId: 'potassium-dichromate',
    interval: { months: 12 },
    container: 'clear-glass',
    remark: 'glass',
  }),
  keeping({
    substanceId: 'ammonium-iron-ii-sulfate-hexahydrate',
    endedBy: 'a yellow or brown colour',
    interval: { days: 0 },
    container: 'clear-glass',
    remark: 'glass, acidified; for the same day',
  }),
  keeping({
    substanceId: 'oxalic-acid-dihydrate',
    interval: { months: 1 },
    container: 'brown-glass',
    remark: 'brown glass',
  }),
  keeping({
    substanceId: 'sodium-oxalate',
    interval: { months: 1 },
    container: 'brown-glass',
    remark: 'brown glass',
  }),
  keeping({
    substanceId: 'potassium-hydrogen-phthalate',
    interval: { months: 1 },
    container: 'clear-glass',
    remark: 'glass',
  }),
  keeping({
    substanceId: 'sodium-carbonate',
    interval: { months: 1 },
    container: 'plastic',
    remark: 'plastic',
  }),
  keeping({
    substanceId: 'sodium-thiosulfate-pentahydrate',
    dilute: { belowMolPerL: 0.05, interval: { days: 3 } },
    lastsFor: { months: 3 },
    endedBy: 'turbidity',
    interval: { weeks: 2 },
    container: 'brown-glass',
    remark: 'brown glass',
  }),
  keeping({
    substanceId: 'iodine',
    dilute: { belowMolPerL: 0.02, interval: { days: 1 } },
    lastsFor: { months: 1 },
    endedBy: 'a paler colour',
    interval: { weeks: 1 },
    container: 'brown-glass',
    remark: 'brown glass, well closed: iodine evaporates',
  }),
  keeping({
    substanceId: 'disodium-edta-dihydrate',
    interval: { months: 3 },
    container: 'plastic',
    remark: 'plastic: glass gives off calcium',
  }),
  keeping({
    substanceId: 'silver-nitrate',
    endedBy: 'a dark deposit',
    interval: { months: 3 },
    container: 'brown-glass',
    remark: 'brown glass',
  }),
  keeping({
    substanceId: 'sodium-chloride',
    interval: { months: 6 },
    container: 'clear-glass',
    remark: 'glass',
  }),
  keeping({
    substanceId: 'potassium-iodate',
    endedBy: 'a yellow colour',
    interval: { months: 6 },
    container: 'clear-glass',
    remark: 'glass',
  }),
  keeping({
    substanceId: 'sulfuric-acid',
    interval: { months: 3 },
    container: 'clear-glass',
    remark: 'glass',
  }),
  keeping({
    substanceId: 'ammonium-thiocyanate',
    interval: { months: 3 },
    container: 'clear-glass',
    remark: 'glass',
  }),
  keeping({
    substanceId: 'ammonium-cerium-iv-sulfate-dihydrate',
    endedBy: 'turbidity',
    interval: { months: 3 },
    container: 'clear-glass',
    remark: 'glass',
  }),
  keeping({
    substanceId: 'perchloric-acid',
    interval: { months: 1 },
    container: 'clear-glass',
    remark: 'glass; checked at each change of temperature',
  }),
  keeping({
    substanceId: 'ammonia',
    interval: { months: 1 },
    container: 'plastic',
    remark: 'plastic, tightly closed and cool: it loses gas',
  }),
  keeping({
    substanceId: 'ammonium-chloride',
    interval: { months: 6 },
    container: 'plastic',
    remark: 'plastic or glass',
  }),
  keeping({
    substanceId: 'potassium-aluminium-sulfate-dodecahydrate',
    interval: { months: 6 },
    container: 'plastic',
    remark: 'plastic or glass, with a little acid',
  }),
];
