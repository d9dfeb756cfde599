import type { Indicator, PreparationStep } from './entries';
import type { HazardBand } from './hazards';
import { BOTTLE_AND_LABEL, step } from './preparations';

const TABLES = 'common analytical-chemistry tables';

const NO_HAZARDS: readonly HazardBand[] = [];

/** A tenth of a gram in 100 mL of what holds so much ethanol by volume; by mass a little less. */
function inEthanol(ownPercent: number, massPercent: number): Indicator['madeUp'] {
  return { ownPercent, holds: [{ id: 'ethanol-95', massPercent }] };
}

/** Ethanol by mass of 20 and 50 % by volume, and of ethanol as it is bought. */
const DILUTE = 16;
const HALF = 42;
const UNDILUTED = 99;

function inWater(ownPercent: number): Indicator['madeUp'] {
  return { ownPercent, holds: [] };
}

function byPh(
  id: string,
  name: string,
  ranges: readonly (readonly [number, number, string, string])[],
  preparation: string,
  madeUp: Indicator['madeUp'],
  hazards: readonly HazardBand[] = NO_HAZARDS,
): Indicator {
  return {
    id,
    name,
    changes: ranges.map(([low, high]) => ({ by: 'pH', range: [low, high] })),
    colours: ranges.map(([, , below, above]) => [below, above]),
    preparation,
    steps: null,
    dose: null,
    keepsFor: { months: 12 },
    hazards,
    madeUp,
    source: TABLES,
  };
}

function byPotential(
  id: string,
  name: string,
  potentialV: number,
  colours: readonly [string, string],
  preparation: string,
  madeUp: Indicator['madeUp'],
  hazards: readonly HazardBand[] = NO_HAZARDS,
): Indicator {
  return {
    id,
    name,
    changes: [{ by: 'potential-V', range: [potentialV, potentialV] }],
    colours: [colours],
    preparation,
    steps: null,
    dose: null,
    keepsFor: { months: 12 },
    hazards,
    madeUp,
    source: TABLES,
  };
}

function byReagent(
  id: string,
  name: string,
  what: string,
  colours: readonly [string, string],
  preparation: string,
  madeUp: Indicator['madeUp'],
  hazards: readonly HazardBand[] = NO_HAZARDS,
): Indicator {
  return {
    id,
    name,
    changes: [{ by: 'reagent', what }],
    colours: [colours],
    preparation,
    steps: null,
    dose: null,
    keepsFor: { months: 12 },
    hazards,
    madeUp,
    source: TABLES,
  };
}

const TENTH_PERCENT_ETHANOL = '0.1 g in 100 mL of 20 % ethanol';

/** Starch swells in cold water and dissolves in boiling water. */
const STARCH_STEPS: readonly PreparationStep[] = [
  step('weigh', 'Weigh 1 g of soluble starch for 100 mL and stir it to a paste with cold water.'),
  step('heat', 'Pour the paste into boiling water, stirring, and boil it until it is clear.', 2),
  step('cool', 'Let it cool, covered.', 30),
  ...BOTTLE_AND_LABEL,
];

/** What is a solution of a reagent, not of a dye: two drops of it show nothing. */
const MILLILITRE = 'about 1 mL';

export const INDICATORS: readonly Indicator[] = [
  byPh(
    'thymol-blue',
    'thymol blue',
    [
      [1.2, 2.8, 'red', 'yellow'],
      [8.0, 9.6, 'yellow', 'blue'],
    ],
    TENTH_PERCENT_ETHANOL,
    inEthanol(0.1, DILUTE),
  ),
  byPh(
    'methyl-orange',
    'methyl orange',
    [[3.1, 4.4, 'red', 'yellow']],
    '0.1 g in 100 mL of water',
    inWater(0.1),
    [{ fromPercent: 25, codes: ['H301'] }],
  ),
  byPh(
    'bromocresol-green',
    'bromocresol green',
    [[3.8, 5.4, 'yellow', 'blue']],
    TENTH_PERCENT_ETHANOL,
    inEthanol(0.1, DILUTE),
  ),
  byPh(
    'methyl-red',
    'methyl red',
    [[4.4, 6.2, 'red', 'yellow']],
    '0.1 g in 100 mL of ethanol',
    inEthanol(0.1, UNDILUTED),
  ),
  byPh(
    'bromocresol-green-methyl-red',
    'bromocresol green and methyl red, mixed',
    [[4.8, 5.4, 'red', 'green']],
    'three volumes of bromocresol green and one of methyl red, each 0.1 % in ethanol',
    inEthanol(0.1, UNDILUTED),
  ),
  byPh(
    'bromothymol-blue',
    'bromothymol blue',
    [[6.0, 7.6, 'yellow', 'blue']],
    TENTH_PERCENT_ETHANOL,
    inEthanol(0.1, DILUTE),
  ),
  byPh(
    'phenol-red',
    'phenol red',
    [[6.8, 8.4, 'yellow', 'red']],
    TENTH_PERCENT_ETHANOL,
    inEthanol(0.1, DILUTE),
  ),
  byPh(
    'phenolphthalein',
    'phenolphthalein',
    [[8.2, 10.0, 'colourless', 'pink']],
    '0.5 g in 100 mL of 50 % ethanol',
    inEthanol(0.5, HALF),
    [{ fromPercent: 1, codes: ['H341', 'H350', 'H361f'] }],
  ),
  byPh(
    'thymolphthalein',
    'thymolphthalein',
    [[9.3, 10.5, 'colourless', 'blue']],
    '0.1 g in 100 mL of ethanol',
    inEthanol(0.1, UNDILUTED),
  ),
  byPotential(
    'diphenylamine',
    'diphenylamine',
    0.76,
    ['colourless', 'violet'],
    '1 g in 100 mL of concentrated sulfuric acid',
    { ownPercent: 0.5, holds: [{ id: 'sulfuric-acid', massPercent: 96 }] },
  ),
  byPotential(
    'diphenylamine-sulfonate',
    'diphenylamine sulfonate',
    0.84,
    ['colourless', 'red-violet'],
    '0.2 g of the sodium or barium salt in 100 mL of water',
    inWater(0.2),
  ),
  byPotential(
    'ferroin',
    'ferroin',
    1.06,
    ['red', 'pale blue'],
    '0.025 mol/L of the iron(II) complex in water; potential in 1 M sulfuric acid',
    inWater(1.7),
  ),
  {
    ...byReagent(
      'starch',
      'starch',
      'iodine',
      ['colourless', 'blue'],
      '1 g boiled in 100 mL of water; for a week, or preserved',
      inWater(1),
    ),
    keepsFor: { weeks: 1 },
    dose: MILLILITRE,
    steps: STARCH_STEPS,
  },
  {
    ...byReagent(
      'eriochrome-black-t',
      'eriochrome black T',
      'calcium, magnesium and zinc ions at pH 10',
      ['blue', 'wine red'],
      '1 g ground with 100 g of sodium chloride',
      inWater(1),
      [{ fromPercent: 10, codes: ['H319'] }],
    ),
    dose: 'a spatula tip of the mixture',
  },
  {
    ...byReagent(
      'calconcarboxylic-acid',
      'calconcarboxylic acid',
      'calcium ions at pH 12 to 13',
      ['blue', 'wine red'],
      '1 g ground with 100 g of sodium sulfate',
      inWater(1),
    ),
    dose: 'a spatula tip of the mixture',
  },
  byReagent(
    'xylenol-orange',
    'xylenol orange',
    'zinc, lead and bismuth ions at pH 5',
    ['yellow', 'red-violet'],
    '0.2 g in 100 mL of water',
    inWater(0.2),
  ),
  {
    ...byReagent(
      'chromate',
      'chromate',
      'silver ions at pH 7 to 10',
      ['yellow', 'red-brown'],
      '5 g of potassium chromate in 100 mL of water',
      { ownPercent: 0, holds: [{ id: 'potassium-chromate', massPercent: 4.8 }] },
    ),
    dose: MILLILITRE,
  },
  {
    ...byReagent(
      'iron-iii',
      'iron(III)',
      'thiocyanate in nitric acid',
      ['colourless', 'red'],
      'a saturated solution of ammonium iron(III) sulfate in dilute nitric acid',
      // Nominal: a saturated solution is taken as half salt, the dilute acid as 3 %.
      {
        ownPercent: 0,
        holds: [
          { id: 'ammonium-iron-iii-sulfate-dodecahydrate', massPercent: 50 },
          { id: 'nitric-acid', massPercent: 3 },
        ],
      },
    ),
    dose: MILLILITRE,
  },
  {
    id: 'crystal-violet',
    name: 'crystal violet',
    changes: [{ by: 'reagent', what: 'strong acid in glacial acetic acid' }],
    colours: [['violet', 'blue-green']],
    preparation: '0.5 g in 100 mL of glacial acetic acid',
    steps: null,
    dose: null,
    keepsFor: { months: 12 },
    hazards: NO_HAZARDS,
    madeUp: { ownPercent: 0.5, holds: [{ id: 'glacial-acetic-acid', massPercent: 99.5 }] },
    source: TABLES,
  },
];
