import type { Colour, Procedure, Reacting } from './entries';

/** What standardizations and analyses share: what is seen in a flask, what is in it, what to beware of. */

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
  grey: { word: 'grey', css: '#b4b0a8' },
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

export function colours(before: Shade, endPoint: Shade, overshot: Shade): Procedure['colours'] {
  return { before: SEEN[before], endPoint: SEEN[endPoint], overshot: SEEN[overshot] };
}

/** What a flask shows on its way, first to last. */
export function course(...shades: readonly Shade[]): Pick<Procedure, 'course'> {
  return { course: shades.map((shade) => SEEN[shade]) };
}

export function reacting(species: string, perFormulaUnit = 1): Reacting {
  return { species, perFormulaUnit };
}

export const FILL_BELOW_EYES =
  'Fill the burette below eye level, over a basin; take the funnel out.';
export const INDICATOR_BURNS =
  'The indicator is dissolved in ethanol, which is flammable: no flame, no open hot plate.';
export const OPEN_FLASK = 'Carbonate and acid give off carbon dioxide: swirl in an open flask.';
export const CHROMIUM_WASTE = 'Chromium(VI) waste is always collected.';
export const HOT_FLASK =
  'Hot flask: tongs or mitts; never boil it, never stopper it. No flame under acid: it spatters.';

/** Reagents of a medium, in mol/L; a solvent has none. */
export function holds(
  ...reagents: readonly (readonly [id: string, molarityMolPerL: number | null])[]
): Pick<Procedure, 'mediumHolds'> {
  return { mediumHolds: reagents.map(([id, molarityMolPerL]) => ({ id, molarityMolPerL })) };
}

/** Nominal, as the media are usually made up. */
export const ACID_MIXTURE = holds(['sulfuric-acid', 2.7], ['phosphoric-acid', 2.2]);
const ACIDIFIED_IODIDE = holds(['potassium-iodide', 1], ['sulfuric-acid', 1]);
export const AMMONIA_BUFFER = holds(
  ['ammonia', 8],
  ['ammonium-chloride', 1.3],
  ['hydrochloric-acid', 6],
);

export const CO2_FREE = 'about 50 mL water free of carbon dioxide';

/** The bases that acids standardize. */
export const HYDROXIDES = [
  'sodium-hydroxide',
  'potassium-hydroxide',
  'lithium-hydroxide-monohydrate',
];

/** What an entry of the catalogue need not say, as most of them share it. */
export const AS_USUAL = {
  excess: null,
  links: [],
  solventId: 'water',
  flaskTemperatureC: null,
  needsBlank: false,
  source: TEXTBOOK,
} as const satisfies Partial<Procedure>;

/** An entry as it is written down: what is `Filled`, and what most share, only where it is otherwise. */
export type Written<Entry extends Procedure, Filled extends keyof Entry> = Omit<
  Entry,
  keyof typeof AS_USUAL | Filled
> &
  Partial<Entry>;

/** An acid titrated with a hydroxide to the first pink of phenolphthalein. */
export const HYDROXIDE_TO_PINK = {
  titrantIds: HYDROXIDES,
  titrant: reacting('OH^-'),
  nominalMolarityMolPerL: 0.1,
  indicatorId: 'phenolphthalein',
  indicatorDrops: 2,
  colours: colours('colourless', 'faintPink', 'pink'),
  medium: CO2_FREE,
  cautions: [FILL_BELOW_EYES, INDICATOR_BURNS],
} as const satisfies Partial<Procedure>;

/** What frees iodine from acidified iodide, which thiosulfate takes up. */
export const IODINE_FREED = {
  titrantIds: ['sodium-thiosulfate-pentahydrate'],
  links: ['I2'],
  titrant: reacting('S2O3^2-'),
  nominalMolarityMolPerL: 0.1,
  indicatorId: 'starch',
  indicatorDrops: 20,
  colours: colours('starchBlue', 'colourless', 'colourless'),
  ...course('iodineBrown', 'straw', 'starchBlue'),
  ...ACIDIFIED_IODIDE,
} as const satisfies Partial<Procedure>;

export const THIOSULFATE_TAKES_IODINE = 'I2 + S2O3^2- -> I^- + S4O6^2-';
