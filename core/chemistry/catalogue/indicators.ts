import type { Indicator } from './entries';
import type { HazardBand } from './hazards';

const TABLES = 'common analytical-chemistry tables';

/** Dissolved in dilute ethanol, which stays flammable. */
const IN_ETHANOL: readonly HazardBand[] = [{ fromPercent: 0, codes: ['H226'] }];

function byPh(
  id: string,
  name: string,
  ranges: readonly (readonly [number, number, string, string])[],
  preparation: string,
  hazards: readonly HazardBand[] = IN_ETHANOL,
): Indicator {
  return {
    id,
    name,
    changes: ranges.map(([low, high]) => ({ by: 'pH', range: [low, high] })),
    colours: ranges.map(([, , below, above]) => [below, above]),
    preparation,
    keepsFor: { months: 12 },
    hazards,
    source: TABLES,
  };
}

function byPotential(
  id: string,
  name: string,
  potentialV: number,
  colours: readonly [string, string],
  preparation: string,
  hazards: readonly HazardBand[] = [],
): Indicator {
  return {
    id,
    name,
    changes: [{ by: 'potential-V', range: [potentialV, potentialV] }],
    colours: [colours],
    preparation,
    keepsFor: { months: 12 },
    hazards,
    source: TABLES,
  };
}

function byReagent(
  id: string,
  name: string,
  what: string,
  colours: readonly [string, string],
  preparation: string,
  hazards: readonly HazardBand[] = [],
): Indicator {
  return {
    id,
    name,
    changes: [{ by: 'reagent', what }],
    colours: [colours],
    preparation,
    keepsFor: { months: 12 },
    hazards,
    source: TABLES,
  };
}

const TENTH_PERCENT_ETHANOL = '0.1 g in 100 mL of 20 % ethanol';

export const INDICATORS: readonly Indicator[] = [
  byPh(
    'thymol-blue',
    'thymol blue',
    [
      [1.2, 2.8, 'red', 'yellow'],
      [8.0, 9.6, 'yellow', 'blue'],
    ],
    TENTH_PERCENT_ETHANOL,
  ),
  byPh(
    'methyl-orange',
    'methyl orange',
    [[3.1, 4.4, 'red', 'yellow']],
    '0.1 g in 100 mL of water',
    [{ fromPercent: 25, codes: ['H301'] }],
  ),
  byPh(
    'bromocresol-green',
    'bromocresol green',
    [[3.8, 5.4, 'yellow', 'blue']],
    TENTH_PERCENT_ETHANOL,
  ),
  byPh('methyl-red', 'methyl red', [[4.4, 6.2, 'red', 'yellow']], '0.1 g in 100 mL of ethanol'),
  byPh(
    'bromocresol-green-methyl-red',
    'bromocresol green and methyl red, mixed',
    [[4.8, 5.4, 'red', 'green']],
    'three volumes of bromocresol green and one of methyl red, each 0.1 % in ethanol',
  ),
  byPh(
    'bromothymol-blue',
    'bromothymol blue',
    [[6.0, 7.6, 'yellow', 'blue']],
    TENTH_PERCENT_ETHANOL,
  ),
  byPh('phenol-red', 'phenol red', [[6.8, 8.4, 'yellow', 'red']], TENTH_PERCENT_ETHANOL),
  byPh(
    'phenolphthalein',
    'phenolphthalein',
    [[8.2, 10.0, 'colourless', 'pink']],
    '0.5 g in 100 mL of 50 % ethanol',
    [
      { fromPercent: 1, codes: ['H226', 'H341', 'H350', 'H361f'] },
      { fromPercent: 0, codes: ['H226'] },
    ],
  ),
  byPh(
    'thymolphthalein',
    'thymolphthalein',
    [[9.3, 10.5, 'colourless', 'blue']],
    '0.1 g in 100 mL of ethanol',
  ),
  byPotential(
    'diphenylamine',
    'diphenylamine',
    0.76,
    ['colourless', 'violet'],
    '1 g in 100 mL of concentrated sulfuric acid',
    [{ fromPercent: 0, codes: ['H290', 'H314'] }],
  ),
  byPotential(
    'diphenylamine-sulfonate',
    'diphenylamine sulfonate',
    0.84,
    ['colourless', 'red-violet'],
    '0.2 g of the sodium or barium salt in 100 mL of water',
  ),
  byPotential(
    'ferroin',
    'ferroin',
    1.06,
    ['red', 'pale blue'],
    '0.025 mol/L of the iron(II) complex in water; potential in 1 M sulfuric acid',
  ),
  {
    ...byReagent(
      'starch',
      'starch',
      'iodine',
      ['colourless', 'blue'],
      '1 g boiled in 100 mL of water; for a week, or preserved',
    ),
    keepsFor: { weeks: 1 },
  },
  byReagent(
    'eriochrome-black-t',
    'eriochrome black T',
    'calcium, magnesium and zinc ions at pH 10',
    ['blue', 'wine red'],
    '1 g ground with 100 g of sodium chloride',
    [{ fromPercent: 0, codes: ['H319'] }],
  ),
  byReagent(
    'xylenol-orange',
    'xylenol orange',
    'zinc, lead and bismuth ions at pH 5',
    ['yellow', 'red-violet'],
    '0.2 g in 100 mL of water',
  ),
  byReagent(
    'chromate',
    'chromate',
    'silver ions at pH 7 to 10',
    ['yellow', 'red-brown'],
    '5 g of potassium chromate in 100 mL of water',
    [{ fromPercent: 0, codes: ['H317', 'H340', 'H350', 'H411'] }],
  ),
  byReagent(
    'iron-iii',
    'iron(III)',
    'thiocyanate in nitric acid',
    ['colourless', 'red'],
    'a saturated solution of ammonium iron(III) sulfate in dilute nitric acid',
    [{ fromPercent: 0, codes: ['H315', 'H319'] }],
  ),
  {
    id: 'crystal-violet',
    name: 'crystal violet',
    changes: [{ by: 'reagent', what: 'strong acid in glacial acetic acid' }],
    colours: [['violet', 'blue-green']],
    preparation: '0.5 g in 100 mL of glacial acetic acid',
    keepsFor: { months: 12 },
    hazards: [{ fromPercent: 0, codes: ['H226', 'H314'] }],
    source: TABLES,
  },
];
