import type { Colour, Method, Reacting } from './entries';

const TEXTBOOK = 'common analytical-chemistry references; mole ratio from the balanced equation';

/** Colours of the flask, each with the word that an analyst would use. */
const SEEN = {
  colourless: { word: 'colourless', css: '#f6f8f7' },
  faintPink: { word: 'faintest pink', css: '#f9dbe4' },
  pink: { word: 'strong pink', css: '#ee7fa8' },
  yellow: { word: 'yellow', css: '#f5df6e' },
  peach: { word: 'orange to peach', css: '#f3b27a' },
  methylOrangePink: { word: 'pink', css: '#e8747c' },
  thymolGreen: { word: 'green', css: '#a9c77a' },
  blue: { word: 'blue', css: '#4a6fb5' },
  green: { word: 'green', css: '#7fb38a' },
  red: { word: 'red', css: '#c8434f' },
  paleViolet: { word: 'first lasting pink', css: '#f0cfe0' },
  permanganate: { word: 'violet-pink', css: '#b0559c' },
  chromiumGreen: { word: 'green of chromium(III)', css: '#86ad8f' },
  violetBlue: { word: 'violet-blue', css: '#5d5aa6' },
  deepViolet: { word: 'deep violet', css: '#3f2f76' },
  starchBlue: { word: 'blue', css: '#2f3c74' },
  firstBlue: { word: 'first lasting blue', css: '#9aa6cf' },
  wineRed: { word: 'wine red', css: '#9c3b5c' },
  paleBlue: { word: 'pale blue', css: '#a9c6dd' },
  redBrown: { word: 'first red-brown', css: '#d9a77e' },
  brown: { word: 'brown', css: '#a8643f' },
  firstRed: { word: 'first lasting red', css: '#e5b3a4' },
  violet: { word: 'violet', css: '#7b5aa6' },
  blueGreen: { word: 'blue-green', css: '#4f9c9a' },
  orange: { word: 'orange', css: '#e9a24c' },
  redViolet: { word: 'red-violet', css: '#b0487c' },
  iodineBrown: { word: 'brown of iodine', css: '#8f4a1a' },
  straw: { word: 'pale yellow: starch now', css: '#f3e6a6' },
  oliveGreen: { word: 'yellow-green: starch now', css: '#c9c877' },
  wineViolet: { word: 'violet: nearly', css: '#7a5590' },
  steamed: { word: 'green: boil now, it turns back', css: '#7fb38a' },
} as const satisfies Readonly<Record<string, Colour>>;

type Shade = keyof typeof SEEN;

function colours(before: Shade, endPoint: Shade, overshot: Shade): Method['colours'] {
  return { before: SEEN[before], endPoint: SEEN[endPoint], overshot: SEEN[overshot] };
}

/** What a flask shows on its way, first to last. */
function course(...shades: readonly Shade[]): Pick<Method, 'course'> {
  return { course: shades.map((shade) => SEEN[shade]) };
}

function reacting(species: string, perFormulaUnit = 1): Reacting {
  return { species, perFormulaUnit };
}

type Given = Omit<
  Method,
  | 'inBurette'
  | 'excess'
  | 'links'
  | 'solventId'
  | 'flaskTemperatureC'
  | 'rules'
  | 'needsBlank'
  | 'cautions'
  | 'source'
> &
  Partial<Method>;

/** Fills in what most methods share. */
function method(given: Given): Method {
  return {
    inBurette: 'titrant',
    excess: null,
    links: [],
    solventId: 'water',
    flaskTemperatureC: null,
    rules: {},
    needsBlank: false,
    cautions: [],
    source: TEXTBOOK,
    ...given,
  };
}

const FILL_BELOW_EYES = 'Fill the burette below eye level, over a basin; take the funnel out.';
const INDICATOR_BURNS =
  'The indicator is dissolved in ethanol, which is flammable: no flame, no open hot plate.';
const OPEN_FLASK = 'Carbonate and acid give off carbon dioxide: swirl in an open flask.';
const CHROMIUM_WASTE = 'Chromium(VI) waste is always collected.';
const HOT_FLASK =
  'Hot flask: tongs or mitts; never boil it, never stopper it. No flame under acid: it spatters.';

/** Reagents of a medium, in mol/L; a solvent has none. */
function holds(
  ...reagents: readonly (readonly [id: string, molarityMolPerL: number | null])[]
): Pick<Method, 'mediumHolds'> {
  return { mediumHolds: reagents.map(([id, molarityMolPerL]) => ({ id, molarityMolPerL })) };
}

/** Nominal, as the media are usually made up. */
const ACID_MIXTURE = holds(['sulfuric-acid', 2.7], ['phosphoric-acid', 2.2]);
const ACIDIFIED_IODIDE = holds(['potassium-iodide', 1], ['sulfuric-acid', 1]);
const AMMONIA_BUFFER = holds(['ammonia', 8], ['ammonium-chloride', 1.3], ['hydrochloric-acid', 6]);

const CO2_FREE = 'about 50 mL water free of carbon dioxide';
const IODIDE = 'excess potassium iodide and acid';
const PER_STANDARD = { kind: 'aliquot', volumeMl: [10, 25] } as const;

/** The bases that acids standardize. */
const HYDROXIDES = ['sodium-hydroxide', 'potassium-hydroxide', 'lithium-hydroxide-monohydrate'];

/** A weak or strong acid titrated with a hydroxide to the first pink of phenolphthalein. */
const HYDROXIDE_TO_PINK = {
  titrantIds: HYDROXIDES,
  titrant: reacting('OH^-'),
  nominalMolarityMolPerL: 0.1,
  indicatorId: 'phenolphthalein',
  indicatorDrops: 2,
  colours: colours('colourless', 'faintPink', 'pink'),
  medium: CO2_FREE,
  cautions: [FILL_BELOW_EYES, INDICATOR_BURNS],
} as const satisfies Partial<Method>;

/** The same acids to the green of thymol blue. */
const TO_GREEN = {
  indicatorId: 'thymol-blue',
  colours: colours('yellow', 'thymolGreen', 'blue'),
} as const satisfies Partial<Method>;

const HYDROXIDE_BY_KHP = {
  ...HYDROXIDE_TO_PINK,
  standardId: 'potassium-hydrogen-phthalate',
  equations: ['C8H5O4^- + OH^- -> C8H4O4^2- + H2O'],
  standard: reacting('C8H5O4^-'),
  portions: [
    { kind: 'weighed', massG: [0.4, 0.9] },
    { ...PER_STANDARD, standardMolarityMolPerL: 0.1 },
  ],
} as const satisfies Partial<Method>;

const HYDROXIDE_BY_OXALIC_ACID = {
  ...HYDROXIDE_TO_PINK,
  standardId: 'oxalic-acid-dihydrate',
  equations: ['H2C2O4 + OH^- -> C2O4^2- + H2O'],
  standard: reacting('H2C2O4'),
  portions: [
    { kind: 'weighed', massG: [0.15, 0.28] },
    { kind: 'aliquot', standardMolarityMolPerL: 0.05, volumeMl: [10, 20] },
  ],
} as const satisfies Partial<Method>;

/** What frees iodine, which thiosulfate takes up. */
const IODINE_FREED = {
  titrantIds: ['sodium-thiosulfate-pentahydrate'],
  links: ['I2'],
  titrant: reacting('S2O3^2-'),
  nominalMolarityMolPerL: 0.1,
  indicatorId: 'starch',
  indicatorDrops: 20,
  colours: colours('starchBlue', 'colourless', 'colourless'),
  ...course('iodineBrown', 'straw', 'starchBlue'),
  medium: `${IODIDE}; starch only when the solution is pale yellow`,
  ...ACIDIFIED_IODIDE,
  rules: { persistenceS: 20 },
} as const satisfies Partial<Method>;

const THIOSULFATE_TAKES_IODINE = 'I2 + S2O3^2- -> I^- + S4O6^2-';

const OXALATE_BY_PERMANGANATE = {
  equations: ['MnO4^- + C2O4^2- + H^+ -> Mn^2+ + CO2 + H2O'],
  titrant: reacting('MnO4^-'),
  standard: reacting('C2O4^2-'),
  titrantIds: ['potassium-permanganate'],
  nominalMolarityMolPerL: 0.02,
  indicatorId: null,
  indicatorDrops: null,
  colours: colours('colourless', 'paleViolet', 'permanganate'),
  medium: 'about 50 mL water and 10 mL of 3 M sulfuric acid',
  ...holds(['sulfuric-acid', 3]),
  flaskTemperatureC: [60, 80],
  rules: { persistenceS: 20 },
  cautions: [
    HOT_FLASK,
    'Slow at the start: manganese(II), which the reaction makes, is its catalyst. The first colour that stays long is not the end.',
    'Brown means too little acid, too cold or too fast: that flask is spoiled.',
  ],
} as const satisfies Partial<Method>;

const TO_IRON_II = {
  standardId: 'ammonium-iron-ii-sulfate-hexahydrate',
  standard: reacting('Fe^2+'),
} as const;

const DICHROMATE_WITH_IRON_II = {
  equations: ['Cr2O7^2- + Fe^2+ + H^+ -> Cr^3+ + Fe^3+ + H2O'],
  indicatorId: 'diphenylamine',
  indicatorDrops: 3,
  colours: colours('chromiumGreen', 'violetBlue', 'deepViolet'),
  ...course('colourless', 'chromiumGreen'),
  medium:
    '10 mL of a mixture of sulfuric and phosphoric acid, which keeps the indicator from changing too early',
  ...ACID_MIXTURE,
  cautions: [FILL_BELOW_EYES, CHROMIUM_WASTE],
} as const satisfies Partial<Method>;

const IODINE_WITH_THIOSULFATE = {
  titrantIds: ['iodine'],
  standardId: 'sodium-thiosulfate-pentahydrate',
  equations: [THIOSULFATE_TAKES_IODINE],
  titrant: reacting('I2'),
  standard: reacting('S2O3^2-'),
  nominalMolarityMolPerL: 0.05,
  portions: [{ kind: 'aliquot', standardMolarityMolPerL: 0.1, volumeMl: [20, 25] }],
  indicatorId: 'starch',
  indicatorDrops: 20,
} as const satisfies Partial<Method>;

const TITRATED_BACK = {
  inBurette: 'standard',
  nominalMolarityMolPerL: 0.1,
  portions: [{ kind: 'aliquot', standardMolarityMolPerL: 0.1, volumeMl: [10, 25] }],
} as const satisfies Partial<Method>;

const ACID_WITH_CARBONATE = {
  standardId: 'sodium-carbonate',
  standard: reacting('CO3^2-'),
  equations: ['CO3^2- + H^+ -> CO2 + H2O'],
  indicatorId: 'methyl-orange',
  indicatorDrops: 2,
  colours: colours('yellow', 'peach', 'methylOrangePink'),
  medium: 'about 50 mL water',
  cautions: [FILL_BELOW_EYES, OPEN_FLASK],
} as const satisfies Partial<Method>;

const BASE_BY_ACID = {
  equations: ['H^+ + OH^- -> H2O'],
  indicatorId: 'phenolphthalein',
  indicatorDrops: 2,
} as const satisfies Partial<Method>;

export const METHODS: readonly Method[] = [
  method({
    ...HYDROXIDE_BY_KHP,
    id: 'naoh-by-khp',
    name: 'hydroxide by potassium hydrogen phthalate',
  }),
  method({
    ...HYDROXIDE_BY_KHP,
    ...TO_GREEN,
    id: 'naoh-by-khp-to-green',
    name: 'hydroxide by potassium hydrogen phthalate, thymol blue',
  }),
  method({
    ...HYDROXIDE_BY_OXALIC_ACID,
    id: 'naoh-by-oxalic-acid',
    name: 'hydroxide by oxalic acid dihydrate',
  }),
  method({
    ...HYDROXIDE_BY_OXALIC_ACID,
    ...TO_GREEN,
    id: 'naoh-by-oxalic-acid-to-green',
    name: 'hydroxide by oxalic acid dihydrate, thymol blue',
  }),
  method({
    id: 'naoh-by-benzoic-acid',
    name: 'hydroxide by benzoic acid in ethanol',
    titrantIds: HYDROXIDES,
    standardId: 'benzoic-acid',
    equations: ['C7H6O2 + OH^- -> C7H5O2^- + H2O'],
    titrant: reacting('OH^-'),
    standard: reacting('C7H6O2'),
    nominalMolarityMolPerL: 0.1,
    portions: [{ kind: 'weighed', massG: [0.3, 0.5] }],
    indicatorId: 'thymol-blue',
    indicatorDrops: 2,
    colours: colours('yellow', 'thymolGreen', 'blue'),
    medium: '25 mL of 95 % ethanol, in which it dissolves; a blank of the same ethanol',
    ...holds(['ethanol-95', null]),
    needsBlank: true,
    cautions: [FILL_BELOW_EYES, 'Ethanol is flammable: no flame, no open hot plate.'],
  }),
  method({
    ...BASE_BY_ACID,
    id: 'hydroxide-by-hydrochloric-acid',
    name: 'hydroxide by standardized hydrochloric acid',
    titrantIds: HYDROXIDES,
    standardId: 'hydrochloric-acid',
    titrant: reacting('OH^-'),
    standard: reacting('H^+'),
    nominalMolarityMolPerL: 0.1,
    portions: [{ kind: 'aliquot', standardMolarityMolPerL: 0.1, volumeMl: [20, 25] }],
    colours: colours('colourless', 'faintPink', 'pink'),
    medium:
      'water; the indicator of later use: carbonate in the base counts differently with another',
    cautions: [FILL_BELOW_EYES, INDICATOR_BURNS],
  }),
  method({
    ...ACID_WITH_CARBONATE,
    id: 'hydrochloric-acid-by-sodium-carbonate',
    name: 'hydrochloric acid by sodium carbonate',
    titrantIds: ['hydrochloric-acid'],
    titrant: reacting('H^+'),
    nominalMolarityMolPerL: 0.1,
    portions: [
      { kind: 'weighed', massG: [0.15, 0.23] },
      { ...PER_STANDARD, standardMolarityMolPerL: 0.05 },
    ],
  }),
  method({
    ...ACID_WITH_CARBONATE,
    id: 'hydrochloric-acid-by-sodium-carbonate-boiled',
    name: 'hydrochloric acid by sodium carbonate, carbon dioxide boiled out',
    titrantIds: ['hydrochloric-acid'],
    titrant: reacting('H^+'),
    nominalMolarityMolPerL: 0.1,
    portions: [{ kind: 'weighed', massG: [0.15, 0.23] }],
    indicatorId: 'bromocresol-green',
    colours: colours('blue', 'green', 'yellow'),
    ...course('blue', 'steamed', 'blue'),
    medium: 'about 50 mL water; boiled for two minutes just before the end, and cooled',
    cautions: [FILL_BELOW_EYES, HOT_FLASK],
  }),
  method({
    ...BASE_BY_ACID,
    id: 'hydrochloric-acid-by-hydroxide',
    name: 'hydrochloric acid by standardized sodium hydroxide',
    titrantIds: ['hydrochloric-acid'],
    standardId: 'sodium-hydroxide',
    titrant: reacting('H^+'),
    standard: reacting('OH^-'),
    nominalMolarityMolPerL: 0.1,
    portions: [{ kind: 'aliquot', standardMolarityMolPerL: 0.1, volumeMl: [25, 25] }],
    colours: colours('pink', 'colourless', 'colourless'),
    medium: 'water free of carbon dioxide; hydroxide in an open flask takes up carbon dioxide',
    cautions: [FILL_BELOW_EYES, INDICATOR_BURNS],
  }),
  method({
    ...BASE_BY_ACID,
    id: 'hydroxide-into-hydrochloric-acid',
    name: 'hydrochloric acid in the flask, standardized sodium hydroxide in the burette',
    titrantIds: ['hydrochloric-acid'],
    standardId: 'sodium-hydroxide',
    inBurette: 'standard',
    titrant: reacting('H^+'),
    standard: reacting('OH^-'),
    nominalMolarityMolPerL: 0.1,
    portions: [{ kind: 'aliquot', standardMolarityMolPerL: 0.1, volumeMl: [25, 25] }],
    colours: colours('colourless', 'faintPink', 'pink'),
    medium: CO2_FREE,
    cautions: [FILL_BELOW_EYES, INDICATOR_BURNS],
  }),
  method({
    ...ACID_WITH_CARBONATE,
    id: 'carbonate-into-hydrochloric-acid',
    name: 'hydrochloric acid in the flask, sodium carbonate in the burette',
    titrantIds: ['hydrochloric-acid'],
    inBurette: 'standard',
    titrant: reacting('H^+'),
    nominalMolarityMolPerL: 0.1,
    portions: [{ kind: 'aliquot', standardMolarityMolPerL: 0.05, volumeMl: [25, 25] }],
    colours: colours('methylOrangePink', 'peach', 'yellow'),
  }),
  method({
    ...OXALATE_BY_PERMANGANATE,
    id: 'permanganate-by-sodium-oxalate',
    name: 'permanganate by sodium oxalate, hot',
    standardId: 'sodium-oxalate',
    portions: [{ kind: 'weighed', massG: [0.15, 0.25] }],
    needsBlank: true,
  }),
  method({
    ...OXALATE_BY_PERMANGANATE,
    id: 'permanganate-by-oxalic-acid',
    name: 'permanganate by oxalic acid, hot',
    standardId: 'oxalic-acid-dihydrate',
    portions: [{ kind: 'aliquot', standardMolarityMolPerL: 0.05, volumeMl: [4, 25] }],
    needsBlank: true,
  }),
  method({
    ...TO_IRON_II,
    id: 'permanganate-by-iron-ii',
    name: 'permanganate by ammonium iron(II) sulfate',
    titrantIds: ['potassium-permanganate'],
    equations: ['MnO4^- + Fe^2+ + H^+ -> Mn^2+ + Fe^3+ + H2O'],
    titrant: reacting('MnO4^-'),
    rules: { persistenceS: 20 },
    nominalMolarityMolPerL: 0.02,
    portions: [{ kind: 'aliquot', standardMolarityMolPerL: 0.1, volumeMl: [25, 25] }],
    indicatorId: null,
    indicatorDrops: null,
    colours: colours('colourless', 'paleViolet', 'permanganate'),
    medium:
      'an equal volume of 1 M sulfuric acid; phosphoric acid takes away the yellow of iron(III)',
    ...holds(['sulfuric-acid', 1], ['phosphoric-acid', 14.7]),
    cautions: [FILL_BELOW_EYES, 'Sulfuric acid, not hydrochloric acid.'],
    needsBlank: true,
  }),
  method({
    ...DICHROMATE_WITH_IRON_II,
    ...TO_IRON_II,
    id: 'dichromate-by-iron-ii',
    name: 'dichromate by ammonium iron(II) sulfate',
    titrantIds: ['potassium-dichromate'],
    titrant: reacting('Cr2O7^2-'),
    nominalMolarityMolPerL: 1 / 60,
    portions: [{ kind: 'aliquot', standardMolarityMolPerL: 0.1, volumeMl: [20, 20] }],
  }),
  method({
    ...DICHROMATE_WITH_IRON_II,
    id: 'iron-ii-by-dichromate',
    name: 'iron(II) in the flask, dichromate as primary standard in the burette',
    titrantIds: ['ammonium-iron-ii-sulfate-hexahydrate', 'iron-ii-sulfate-heptahydrate'],
    standardId: 'potassium-dichromate',
    inBurette: 'standard',
    titrant: reacting('Fe^2+'),
    standard: reacting('Cr2O7^2-'),
    nominalMolarityMolPerL: 0.1,
    portions: [{ kind: 'aliquot', standardMolarityMolPerL: 1 / 60, volumeMl: [20, 25] }],
  }),
  method({
    ...IODINE_FREED,
    id: 'thiosulfate-by-iodate',
    name: 'thiosulfate by potassium iodate',
    standardId: 'potassium-iodate',
    equations: ['IO3^- + I^- + H^+ -> I2 + H2O', THIOSULFATE_TAKES_IODINE],
    standard: reacting('IO3^-'),
    portions: [
      { kind: 'weighed', massG: [0.1, 0.15] },
      { ...PER_STANDARD, standardMolarityMolPerL: 0.0167 },
    ],
  }),
  method({
    ...IODINE_FREED,
    id: 'thiosulfate-by-dichromate',
    name: 'thiosulfate by potassium dichromate',
    standardId: 'potassium-dichromate',
    equations: ['Cr2O7^2- + I^- + H^+ -> Cr^3+ + I2 + H2O', THIOSULFATE_TAKES_IODINE],
    standard: reacting('Cr2O7^2-'),
    portions: [{ kind: 'weighed', massG: [0.12, 0.2] }],
    colours: colours('starchBlue', 'chromiumGreen', 'chromiumGreen'),
    ...course('iodineBrown', 'oliveGreen', 'starchBlue'),
    medium: `${IODIDE}; five minutes in the dark; starch late`,
    cautions: [CHROMIUM_WASTE],
  }),
  method({
    ...IODINE_WITH_THIOSULFATE,
    id: 'iodine-by-thiosulfate',
    name: 'iodine by standardized thiosulfate',
    colours: colours('colourless', 'firstBlue', 'starchBlue'),
    medium: 'about 50 mL water',
    needsBlank: true,
  }),
  method({
    ...IODINE_WITH_THIOSULFATE,
    id: 'thiosulfate-into-iodine',
    name: 'iodine in the flask, standardized thiosulfate in the burette',
    inBurette: 'standard',
    colours: colours('starchBlue', 'colourless', 'colourless'),
    ...course('iodineBrown', 'straw', 'starchBlue'),
    medium: 'about 50 mL water; starch only when the solution is pale yellow',
  }),
  method({
    id: 'edta-by-calcium-carbonate',
    name: 'EDTA by calcium carbonate',
    titrantIds: ['disodium-edta-dihydrate'],
    standardId: 'calcium-carbonate',
    equations: ['Ca^2+ + C10H14N2O8^2- -> C10H12CaN2O8^2- + H^+'],
    titrant: reacting('C10H14N2O8^2-'),
    standard: reacting('Ca^2+'),
    nominalMolarityMolPerL: 0.01,
    portions: [{ ...PER_STANDARD, standardMolarityMolPerL: 0.01 }],
    indicatorId: 'eriochrome-black-t',
    indicatorDrops: null,
    colours: colours('wineRed', 'blue', 'blue'),
    ...course('wineRed', 'wineViolet'),
    medium:
      'dissolved in a little hydrochloric acid; ammonia buffer of pH 10; a little magnesium EDTA',
    ...AMMONIA_BUFFER,
  }),
  method({
    id: 'edta-by-zinc',
    name: 'EDTA by zinc',
    titrantIds: ['disodium-edta-dihydrate'],
    standardId: 'zinc',
    equations: ['Zn^2+ + C10H14N2O8^2- -> C10H12N2O8Zn^2- + H^+'],
    titrant: reacting('C10H14N2O8^2-'),
    standard: reacting('Zn^2+'),
    nominalMolarityMolPerL: 0.01,
    portions: [{ ...PER_STANDARD, standardMolarityMolPerL: 0.01 }],
    indicatorId: 'eriochrome-black-t',
    indicatorDrops: null,
    colours: colours('wineRed', 'blue', 'blue'),
    ...course('wineRed', 'wineViolet'),
    medium: 'dissolved in a little hydrochloric acid; ammonia buffer of pH 10',
    ...AMMONIA_BUFFER,
  }),
  method({
    id: 'silver-nitrate-by-sodium-chloride',
    name: 'silver nitrate by sodium chloride',
    titrantIds: ['silver-nitrate'],
    standardId: 'sodium-chloride',
    equations: ['Ag^+ + Cl^- -> AgCl'],
    titrant: reacting('Ag^+'),
    standard: reacting('Cl^-'),
    nominalMolarityMolPerL: 0.1,
    portions: [
      { kind: 'weighed', massG: [0.12, 0.23] },
      { ...PER_STANDARD, standardMolarityMolPerL: 0.1 },
    ],
    indicatorId: 'chromate',
    indicatorDrops: 20,
    colours: colours('yellow', 'redBrown', 'brown'),
    medium: 'about 50 mL water, pH 7 to 10; a blank with the same chromate',
    needsBlank: true,
    cautions: ['Silver and chromium wastes are collected, each apart.'],
  }),
  method({
    id: 'thiocyanate-by-silver-nitrate',
    name: 'thiocyanate by standardized silver nitrate',
    titrantIds: ['ammonium-thiocyanate'],
    standardId: 'silver-nitrate',
    equations: ['Ag^+ + SCN^- -> AgSCN'],
    titrant: reacting('SCN^-'),
    standard: reacting('Ag^+'),
    nominalMolarityMolPerL: 0.1,
    portions: [{ kind: 'aliquot', standardMolarityMolPerL: 0.1, volumeMl: [20, 25] }],
    indicatorId: 'iron-iii',
    indicatorDrops: 20,
    colours: colours('colourless', 'firstRed', 'red'),
    medium: 'dilute nitric acid',
    ...holds(['nitric-acid', 2]),
    cautions: ['Silver waste is collected.'],
    needsBlank: true,
  }),
  method({
    ...TO_IRON_II,
    id: 'cerium-iv-by-iron-ii',
    name: 'cerium(IV) by ammonium iron(II) sulfate',
    titrantIds: ['ammonium-cerium-iv-sulfate-dihydrate'],
    equations: ['Ce^4+ + Fe^2+ -> Ce^3+ + Fe^3+'],
    titrant: reacting('Ce^4+'),
    nominalMolarityMolPerL: 0.1,
    portions: [{ kind: 'aliquot', standardMolarityMolPerL: 0.1, volumeMl: [20, 25] }],
    indicatorId: 'ferroin',
    indicatorDrops: 1,
    colours: colours('red', 'paleBlue', 'paleBlue'),
    medium: '1 M sulfuric acid',
    ...holds(['sulfuric-acid', 1]),
  }),
  method({
    id: 'cerium-iv-by-sodium-oxalate',
    name: 'cerium(IV) by sodium oxalate, hot',
    titrantIds: ['ammonium-cerium-iv-sulfate-dihydrate'],
    standardId: 'sodium-oxalate',
    equations: ['Ce^4+ + C2O4^2- -> Ce^3+ + CO2'],
    titrant: reacting('Ce^4+'),
    standard: reacting('C2O4^2-'),
    nominalMolarityMolPerL: 0.1,
    portions: [{ kind: 'weighed', massG: [0.13, 0.25] }],
    indicatorId: 'ferroin',
    indicatorDrops: 1,
    colours: colours('red', 'paleBlue', 'paleBlue'),
    medium: '1 M sulfuric acid, hot',
    ...holds(['sulfuric-acid', 1]),
    flaskTemperatureC: [70, 75],
    cautions: [HOT_FLASK],
  }),
  method({
    ...ACID_WITH_CARBONATE,
    id: 'sulfuric-acid-by-sodium-carbonate',
    name: 'sulfuric acid by sodium carbonate',
    titrantIds: ['sulfuric-acid'],
    titrant: reacting('H^+', 2),
    nominalMolarityMolPerL: 0.05,
    portions: [
      { kind: 'weighed', massG: [0.15, 0.23] },
      { ...PER_STANDARD, standardMolarityMolPerL: 0.05 },
    ],
  }),
  method({
    id: 'hydrochloric-acid-by-tris',
    name: 'hydrochloric acid by TRIS',
    titrantIds: ['hydrochloric-acid'],
    standardId: 'tris',
    equations: ['C4H11NO3 + H^+ -> C4H12NO3^+'],
    titrant: reacting('H^+'),
    standard: reacting('C4H11NO3'),
    nominalMolarityMolPerL: 0.1,
    portions: [{ kind: 'weighed', massG: [0.25, 0.5] }],
    indicatorId: 'bromocresol-green-methyl-red',
    indicatorDrops: 3,
    colours: colours('green', 'colourless', 'methylOrangePink'),
    medium: 'about 50 mL water',
    cautions: [FILL_BELOW_EYES, INDICATOR_BURNS],
  }),
  method({
    id: 'hydrochloric-acid-by-borax',
    name: 'hydrochloric acid by borax',
    titrantIds: ['hydrochloric-acid'],
    standardId: 'borax',
    equations: ['B4O7^2- + H^+ + H2O -> H3BO3'],
    titrant: reacting('H^+'),
    standard: reacting('B4O7^2-'),
    nominalMolarityMolPerL: 0.1,
    portions: [{ kind: 'weighed', massG: [0.4, 0.8] }],
    indicatorId: 'methyl-red',
    indicatorDrops: 2,
    colours: colours('yellow', 'peach', 'methylOrangePink'),
    medium: 'about 50 mL water',
    cautions: [FILL_BELOW_EYES, INDICATOR_BURNS],
  }),
  method({
    ...HYDROXIDE_TO_PINK,
    id: 'hydroxide-by-sulfamic-acid',
    name: 'hydroxide by sulfamic acid',
    standardId: 'sulfamic-acid',
    equations: ['H3NSO3 + OH^- -> H2NSO3^- + H2O'],
    standard: reacting('H3NSO3'),
    portions: [{ kind: 'weighed', massG: [0.2, 0.4] }],
  }),
  method({
    ...HYDROXIDE_TO_PINK,
    id: 'hydroxide-by-potassium-hydrogen-iodate',
    name: 'hydroxide by potassium hydrogen iodate',
    standardId: 'potassium-hydrogen-iodate',
    equations: ['H^+ + OH^- -> H2O'],
    standard: reacting('H^+'),
    portions: [{ kind: 'weighed', massG: [0.8, 1.5] }],
  }),
  method({
    ...IODINE_FREED,
    id: 'thiosulfate-by-bromate',
    name: 'thiosulfate by potassium bromate',
    standardId: 'potassium-bromate',
    equations: ['BrO3^- + I^- + H^+ -> Br^- + I2 + H2O', THIOSULFATE_TAKES_IODINE],
    standard: reacting('BrO3^-'),
    portions: [{ kind: 'weighed', massG: [0.06, 0.12] }],
    cautions: ['Bromate is toxic and carcinogenic: gloves, no dust.'],
  }),
  method({
    ...IODINE_FREED,
    id: 'thiosulfate-by-copper',
    name: 'thiosulfate by copper',
    standardId: 'copper',
    equations: ['Cu^2+ + I^- -> CuI + I2', THIOSULFATE_TAKES_IODINE],
    standard: reacting('Cu^2+'),
    portions: [{ kind: 'weighed', massG: [0.13, 0.28] }],
    medium:
      'dissolved in a little nitric acid, its oxides boiled out, made weakly acid; excess potassium iodide; starch late',
    ...holds(['nitric-acid', 8], ['potassium-iodide', 1]),
    cautions: ['Nitric acid and copper give off toxic nitrogen dioxide: fume cupboard.'],
  }),
  method({
    id: 'perchloric-acid-by-khp',
    name: 'perchloric acid by potassium hydrogen phthalate, both in glacial acetic acid',
    titrantIds: ['perchloric-acid'],
    standardId: 'potassium-hydrogen-phthalate',
    equations: ['C8H5O4^- + H^+ -> C8H6O4'],
    titrant: reacting('H^+'),
    standard: reacting('C8H5O4^-'),
    nominalMolarityMolPerL: 0.1,
    portions: [{ kind: 'weighed', massG: [0.4, 0.7] }],
    indicatorId: 'crystal-violet',
    indicatorDrops: 2,
    colours: colours('violet', 'blueGreen', 'green'),
    medium: 'glacial acetic acid, without water',
    ...holds(['glacial-acetic-acid', null]),
    solventId: 'glacial-acetic-acid',
    cautions: [
      'Perchloric acid explodes when heated or dried with organic matter.',
      'Glacial acetic acid burns and is flammable: fume cupboard, no flame.',
    ],
    needsBlank: true,
  }),
  method({
    ...TITRATED_BACK,
    id: 'ammonia-by-excess-of-acid',
    name: 'ammonia, excess of acid titrated back',
    titrantIds: ['ammonia'],
    standardId: 'sodium-hydroxide',
    excess: { substanceId: 'hydrochloric-acid', reagent: reacting('H^+') },
    equations: ['NH3 + H^+ -> NH4^+', 'H^+ + OH^- -> H2O'],
    links: ['H^+'],
    titrant: reacting('NH3'),
    standard: reacting('OH^-'),
    indicatorId: 'methyl-red',
    indicatorDrops: 2,
    colours: colours('red', 'orange', 'yellow'),
    medium:
      'about 25 mL water; the ammonia goes in under the surface of the acid, so that none escapes',
    cautions: [FILL_BELOW_EYES, 'Ammonia is pungent: pipette it in the fume cupboard.'],
  }),
  method({
    ...TITRATED_BACK,
    id: 'ammonium-by-excess-of-hydroxide',
    name: 'ammonium, ammonia boiled out, excess of hydroxide titrated back',
    titrantIds: ['ammonium-chloride'],
    standardId: 'hydrochloric-acid',
    excess: { substanceId: 'sodium-hydroxide', reagent: reacting('OH^-') },
    equations: ['NH4^+ + OH^- -> NH3 + H2O', 'OH^- + H^+ -> H2O'],
    links: ['OH^-'],
    titrant: reacting('NH4^+'),
    standard: reacting('H^+'),
    indicatorId: 'methyl-red',
    indicatorDrops: 2,
    colours: colours('yellow', 'orange', 'red'),
    medium:
      'about 50 mL water; boiled until moist indicator paper in the steam stays red, then cooled',
    // Hydroxide takes up carbon dioxide and attacks the glass while it boils: the blank goes the same way.
    needsBlank: true,
    cautions: [
      FILL_BELOW_EYES,
      'Boiling hydroxide spatters and burns; ammonia escapes: goggles, boiling stones, fume cupboard.',
    ],
  }),
  method({
    ...TITRATED_BACK,
    id: 'aluminium-by-excess-of-edta',
    name: 'aluminium, excess of EDTA titrated back',
    titrantIds: ['potassium-aluminium-sulfate-dodecahydrate'],
    standardId: 'zinc',
    excess: {
      substanceId: 'disodium-edta-dihydrate',
      reagent: reacting('C10H14N2O8^2-'),
    },
    equations: [
      'Al^3+ + C10H14N2O8^2- -> C10H12AlN2O8^- + H^+',
      'C10H14N2O8^2- + Zn^2+ -> C10H12N2O8Zn^2- + H^+',
    ],
    links: ['C10H14N2O8^2-'],
    titrant: reacting('Al^3+'),
    standard: reacting('Zn^2+'),
    nominalMolarityMolPerL: 0.01,
    portions: [{ kind: 'aliquot', standardMolarityMolPerL: 0.01, volumeMl: [10, 25] }],
    indicatorId: 'xylenol-orange',
    indicatorDrops: 3,
    colours: colours('yellow', 'orange', 'redViolet'),
    medium: 'acetate buffer of pH 5; boiled for some minutes, for the complex forms slowly; cooled',
    cautions: [FILL_BELOW_EYES, HOT_FLASK],
  }),
  method({
    ...TITRATED_BACK,
    id: 'chloride-by-excess-of-silver',
    name: 'chloride, excess of silver titrated back',
    titrantIds: ['sodium-chloride'],
    standardId: 'ammonium-thiocyanate',
    excess: { substanceId: 'silver-nitrate', reagent: reacting('Ag^+') },
    equations: ['Ag^+ + Cl^- -> AgCl', 'Ag^+ + SCN^- -> AgSCN'],
    links: ['Ag^+'],
    titrant: reacting('Cl^-'),
    standard: reacting('SCN^-'),
    indicatorId: 'iron-iii',
    indicatorDrops: 20,
    colours: colours('colourless', 'firstRed', 'red'),
    medium:
      'dilute nitric acid; the silver chloride gathered by boiling, filtered off and washed: thiocyanate would dissolve it',
    ...holds(['nitric-acid', 2]),
    cautions: [
      FILL_BELOW_EYES,
      'Silver nitrate stains and burns the skin: gloves. Silver waste is collected.',
    ],
  }),
];
