import type { Analysis, StatedAs } from './entries';
import {
  ACID_MIXTURE,
  AMMONIA_BUFFER,
  CHROMIUM_WASTE,
  CO2_FREE,
  colours,
  course,
  FILL_BELOW_EYES,
  holds,
  HOT_FLASK,
  HYDROXIDES,
  INDICATOR_BURNS,
  OPEN_FLASK,
  reacting,
  TEXTBOOK,
} from './inFlasks';

type Given = Omit<
  Analysis,
  | 'excess'
  | 'links'
  | 'solventId'
  | 'flaskTemperatureC'
  | 'rules'
  | 'needsBlank'
  | 'cautions'
  | 'source'
> &
  Partial<Analysis>;

/** Two determinations of each sample are usual, and none of them rough: what is expected is known from the last one. */
const IN_DUPLICATE = { firstIsRough: false, agreeAtLeast: 2 } as const;

/** Fills in what most analyses share. */
function analysis(given: Given): Analysis {
  return {
    excess: null,
    links: [],
    solventId: 'water',
    flaskTemperatureC: null,
    rules: IN_DUPLICATE,
    needsBlank: false,
    cautions: [FILL_BELOW_EYES],
    source: TEXTBOOK,
    ...given,
  };
}

function as(
  name: string,
  formula: string,
  perFormulaUnit = 1,
  densityGPerMl: number | null = null,
): StatedAs {
  return { name, formula, perFormulaUnit, densityGPerMl };
}

const TARTARIC = as('tartaric acid', 'C4H6O6', 2);
const SULFURIC = as('sulfuric acid', 'H2SO4', 2);
const ACETIC = as('acetic acid', 'CH3COOH', 1, 1.049);
const CITRIC = as('citric acid', 'C6H8O7', 3);

/** An acid gives protons; the hydroxide takes them. */
const ACID_BY_HYDROXIDE = {
  titrantIds: HYDROXIDES,
  equations: ['H^+ + OH^- -> H2O'],
  analyte: 'H^+',
  titrant: reacting('OH^-'),
  nominalMolarityMolPerL: 0.1,
  indicatorId: 'phenolphthalein',
  indicatorDrops: 2,
  colours: colours('colourless', 'faintPink', 'pink'),
  medium: CO2_FREE,
  cautions: [FILL_BELOW_EYES, INDICATOR_BURNS],
} as const satisfies Partial<Analysis>;

const SULFUR_DIOXIDE = {
  titrantIds: ['iodine'],
  equations: ['SO2 + I2 + H2O -> SO4^2- + I^- + H^+'],
  analyte: 'SO2',
  titrant: reacting('I2'),
  nominalMolarityMolPerL: 0.01,
  statedAs: [as('sulfur dioxide', 'SO2')],
  units: ['mg/L'],
  indicatorId: 'starch',
  indicatorDrops: 20,
  colours: colours('colourless', 'firstBlue', 'starchBlue'),
} as const satisfies Partial<Analysis>;

const BY_PERMANGANATE = {
  titrantIds: ['potassium-permanganate'],
  titrant: reacting('MnO4^-'),
  nominalMolarityMolPerL: 0.02,
  indicatorId: null,
  indicatorDrops: null,
  colours: colours('colourless', 'paleViolet', 'permanganate'),
} as const satisfies Partial<Analysis>;

const IRON = {
  analyte: 'Fe^2+',
  statedAs: [as('iron', 'Fe')],
  units: ['% m/m', 'g/L', 'mol/L', 'eq/L'],
  targetUPercent: 0.5,
  typical: 12,
} as const satisfies Partial<Analysis>;

/** Determinations with a certified titrant. */
export const ANALYSES: readonly Analysis[] = [
  analysis({
    ...ACID_BY_HYDROXIDE,
    id: 'khp-purity',
    name: 'potassium hydrogen phthalate in an inert solid',
    statedAs: [as('potassium hydrogen phthalate', 'C8H5KO4')],
    units: ['% m/m', 'g/kg'],
    portions: [{ kind: 'weighed', massG: [0.5, 2] }],
    typical: 50,
    targetUPercent: 1,
    remark: 'Any weak acid in an inert solid goes the same way. Mixtures dissolve slowly.',
  }),
  analysis({
    ...ACID_BY_HYDROXIDE,
    id: 'acid-solution',
    name: 'acid in a solution',
    statedAs: [as('hydrochloric acid', 'HCl'), SULFURIC, ACETIC, CITRIC],
    units: ['mol/L', 'g/L', 'g/100 mL', 'eq/L'],
    portions: [{ kind: 'aliquot', volumeMl: [5, 50] }],
    typical: 0.1,
    targetUPercent: 1,
    remark: 'An aliquot, perhaps after dilution; the result is that of the original.',
  }),
  analysis({
    id: 'base-solution',
    name: 'base in a solution',
    titrantIds: ['hydrochloric-acid'],
    equations: ['H^+ + OH^- -> H2O'],
    analyte: 'OH^-',
    titrant: reacting('H^+'),
    nominalMolarityMolPerL: 0.1,
    statedAs: [as('sodium hydroxide', 'NaOH'), as('potassium hydroxide', 'KOH')],
    units: ['mol/L', 'g/L', 'g/100 mL', '% m/m', 'eq/L'],
    portions: [{ kind: 'aliquot', volumeMl: [5, 50] }],
    indicatorId: 'phenolphthalein',
    indicatorDrops: 2,
    colours: colours('pink', 'colourless', 'colourless'),
    medium: CO2_FREE,
    typical: 0.1,
    targetUPercent: 1,
    remark: 'Carbonate counts by half: it goes to hydrogencarbonate at this end.',
  }),
  analysis({
    ...ACID_BY_HYDROXIDE,
    id: 'acetic-acid-in-vinegar',
    name: 'acetic acid in vinegar',
    statedAs: [ACETIC],
    units: ['g/100 mL', 'g/L', '% m/m', '% V/V', 'mol/L'],
    portions: [{ kind: 'aliquot', volumeMl: [1, 10] }],
    typical: 5,
    targetUPercent: 2,
    remark:
      'A small aliquot, or 10 diluted to 100 mL. Its density makes % by mass of it; other acids count too.',
  }),
  analysis({
    ...ACID_BY_HYDROXIDE,
    id: 'titratable-acidity',
    name: 'titratable acidity of must and wine',
    statedAs: [TARTARIC, SULFURIC],
    units: ['g/L', 'meq/L'],
    portions: [{ kind: 'aliquot', volumeMl: [10, 25] }],
    indicatorId: 'bromothymol-blue',
    indicatorDrops: 5,
    colours: colours('yellow', 'green', 'blue'),
    medium:
      'a little water, once carbon dioxide is driven out under vacuum or by warming; to pH 7.0',
    typical: 6,
    targetUPercent: 3,
    remark:
      'To pH 7.0, by electrode where there is one. The pH of the end is part of the method: 8.2 gives more.',
  }),
  analysis({
    ...ACID_BY_HYDROXIDE,
    id: 'volatile-acidity',
    name: 'volatile acidity, in the distillate',
    statedAs: [ACETIC, SULFURIC],
    units: ['g/L', 'meq/L'],
    portions: [{ kind: 'aliquot', volumeMl: [10, 20] }],
    medium: 'the whole steam distillate of the portion, hot',
    typical: 0.5,
    targetUPercent: 10,
    remark:
      'The portion is what was distilled. Sulfur dioxide in the distillate counts too, unless it is taken off.',
  }),
  analysis({
    ...ACID_BY_HYDROXIDE,
    id: 'tartaric-acid-assay',
    name: 'tartaric acid, assay',
    statedAs: [TARTARIC],
    units: ['% m/m'],
    portions: [{ kind: 'weighed', massG: [0.15, 0.3] }],
    typical: 99.5,
    targetUPercent: 0.5,
    remark: 'Both protons. Dried before, or stated as received.',
  }),
  analysis({
    ...ACID_BY_HYDROXIDE,
    id: 'acid-drug-in-tablets',
    name: 'acetylsalicylic acid in tablets',
    statedAs: [as('acetylsalicylic acid', 'C9H8O4')],
    units: ['mg/unit', '% m/m'],
    portions: [{ kind: 'weighed', massG: [0.3, 1] }],
    medium: 'ethanol made neutral to the indicator, and water, cold',
    ...holds(['ethanol-95', null]),
    typical: 500,
    targetUPercent: 2,
    cautions: [FILL_BELOW_EYES, 'Ethanol is flammable: no flame, no open hot plate.'],
    remark:
      'At once and cold: it hydrolyses. The filler may stay cloudy. The mean mass of a tablet goes with the sample.',
  }),
  analysis({
    ...ACID_BY_HYDROXIDE,
    id: 'unknown-solid-acid',
    name: 'unknown solid acid',
    statedAs: [],
    units: ['g/mol'],
    portions: [{ kind: 'weighed', massG: [0.1, 0.6] }],
    rules: { firstIsRough: true, agreeAtLeast: 3 },
    typical: 120,
    targetUPercent: 1,
    remark: 'The molar mass is the equivalent mass times the number of its protons.',
  }),
  analysis({
    ...ACID_BY_HYDROXIDE,
    id: 'acid-in-cleaning-product',
    name: 'acid in a cleaning product',
    statedAs: [
      as('hydrochloric acid', 'HCl'),
      as('phosphoric acid, to its second step', 'H3PO4', 2),
      as('nitric acid', 'HNO3'),
      CITRIC,
    ],
    units: ['mol/L', 'g/100 mL', '% m/m', 'g/L'],
    portions: [{ kind: 'aliquot', volumeMl: [10, 25] }],
    typical: 0.5,
    targetUPercent: 2,
    cautions: [FILL_BELOW_EYES, INDICATOR_BURNS, 'Never mixed with chlorine cleaners.'],
    remark: 'Diluted, 10 to 250 mL as a rule; the factor is carried into the result.',
  }),
  analysis({
    ...BY_PERMANGANATE,
    id: 'oxalic-acid-by-permanganate',
    name: 'oxalic acid by permanganate',
    equations: ['MnO4^- + C2O4^2- + H^+ -> Mn^2+ + CO2 + H2O'],
    analyte: 'C2O4^2-',
    statedAs: [
      as('oxalic acid', 'H2C2O4'),
      as('oxalic acid dihydrate', 'H2C2O4.2H2O'),
      as('calcium', 'Ca'),
    ],
    units: ['mol/L', 'g/L', '% m/m'],
    portions: [{ kind: 'aliquot', volumeMl: [4, 25] }],
    medium: 'about 50 mL water and 10 mL of 3 M sulfuric acid',
    ...holds(['sulfuric-acid', 3]),
    flaskTemperatureC: [60, 80],
    rules: { ...IN_DUPLICATE, persistenceS: 20 },
    typical: 0.05,
    targetUPercent: 1,
    cautions: [HOT_FLASK],
    remark: 'Hot. Brown means too little acid, too cold or too fast: that flask is spoiled.',
  }),
  analysis({
    ...BY_PERMANGANATE,
    ...IRON,
    id: 'iron-by-permanganate',
    name: 'iron by permanganate',
    equations: ['MnO4^- + Fe^2+ + H^+ -> Mn^2+ + Fe^3+ + H2O'],
    portions: [
      { kind: 'weighed', massG: [0.5, 1.5] },
      { kind: 'aliquot', volumeMl: [10, 25] },
    ],
    medium:
      'an equal volume of dilute sulfuric acid, some phosphoric acid against the yellow of iron(III)',
    ...ACID_MIXTURE,
    rules: { ...IN_DUPLICATE, persistenceS: 20 },
    remark: 'Iron as iron(II). With chloride: manganese sulfate is added first.',
  }),
  analysis({
    ...IRON,
    id: 'iron-by-dichromate',
    name: 'iron by dichromate',
    titrantIds: ['potassium-dichromate'],
    equations: ['Cr2O7^2- + Fe^2+ + H^+ -> Cr^3+ + Fe^3+ + H2O'],
    titrant: reacting('Cr2O7^2-'),
    nominalMolarityMolPerL: 0.0167,
    portions: [
      { kind: 'weighed', massG: [0.5, 1.5] },
      { kind: 'aliquot', volumeMl: [10, 25] },
    ],
    indicatorId: 'diphenylamine',
    indicatorDrops: 3,
    colours: colours('chromiumGreen', 'violetBlue', 'deepViolet'),
    ...course('colourless', 'chromiumGreen'),
    medium: '10 mL of a mixture of sulfuric and phosphoric acid',
    ...ACID_MIXTURE,
    cautions: [FILL_BELOW_EYES, CHROMIUM_WASTE],
    remark: 'Iron as iron(II), reduced first where it is not.',
  }),
  analysis({
    id: 'total-hardness',
    name: 'total hardness of water',
    titrantIds: ['disodium-edta-dihydrate'],
    equations: ['Ca^2+ + C10H14N2O8^2- -> C10H12CaN2O8^2- + H^+'],
    analyte: 'Ca^2+',
    titrant: reacting('C10H14N2O8^2-'),
    nominalMolarityMolPerL: 0.01,
    statedAs: [as('calcium carbonate', 'CaCO3'), as('calcium', 'Ca')],
    units: ['mmol/L', 'mg/L', 'German degrees', 'French degrees', 'English degrees'],
    portions: [{ kind: 'aliquot', volumeMl: [50, 100] }],
    indicatorId: 'eriochrome-black-t',
    indicatorDrops: 3,
    colours: colours('wineRed', 'blue', 'blue'),
    ...course('wineRed', 'wineViolet'),
    medium: 'ammonia buffer of pH 10, at once',
    ...AMMONIA_BUFFER,
    typical: 2.6,
    targetUPercent: 3,
    remark: 'Calcium and magnesium together. Copper and iron block the indicator.',
  }),
  analysis({
    id: 'chloride',
    name: 'chloride in water',
    titrantIds: ['silver-nitrate'],
    equations: ['Ag^+ + Cl^- -> AgCl'],
    analyte: 'Cl^-',
    titrant: reacting('Ag^+'),
    nominalMolarityMolPerL: 0.02,
    statedAs: [as('chloride', 'Cl'), as('sodium chloride', 'NaCl')],
    units: ['mg/L', 'mmol/L'],
    portions: [{ kind: 'aliquot', volumeMl: [50, 100] }],
    indicatorId: 'chromate',
    indicatorDrops: 20,
    colours: colours('yellow', 'redBrown', 'brown'),
    medium: 'pH 6.5 to 9.5; a blank with the same chromate',
    needsBlank: true,
    typical: 50,
    targetUPercent: 5,
    remark: 'Sulfite and sulfide are boiled out with peroxide first.',
  }),
  analysis({
    ...SULFUR_DIOXIDE,
    id: 'sulfur-dioxide',
    name: 'free sulfur dioxide in must and wine',
    portions: [{ kind: 'aliquot', volumeMl: [25, 50] }],
    medium: 'sulfuric acid and a little EDTA; fast, with as little swirling as may be',
    ...holds(['sulfuric-acid', 3]),
    typical: 30,
    targetUPercent: 10,
    remark:
      'Ascorbic acid and other reducing substances count too: a blank with the sulfite bound.',
  }),
  analysis({
    ...SULFUR_DIOXIDE,
    id: 'total-sulfur-dioxide',
    name: 'total sulfur dioxide in must and wine',
    portions: [{ kind: 'aliquot', volumeMl: [20, 50] }],
    medium: '15 minutes with hydroxide in a closed flask, then sulfuric acid in excess; fast',
    ...holds(['sodium-hydroxide', 1], ['sulfuric-acid', 3]),
    typical: 120,
    targetUPercent: 5,
    remark: 'The hydroxide sets the bound part free.',
  }),
  analysis({
    ...ACID_BY_HYDROXIDE,
    id: 'carbonate-by-back-titration',
    name: 'carbonate, excess of acid titrated back',
    excess: { substanceId: 'hydrochloric-acid', reagent: reacting('H^+') },
    equations: ['CO3^2- + H^+ -> CO2 + H2O', 'H^+ + OH^- -> H2O'],
    links: ['H^+'],
    analyte: 'CO3^2-',
    statedAs: [as('calcium carbonate', 'CaCO3')],
    units: ['% m/m'],
    portions: [{ kind: 'weighed', massG: [0.1, 0.2] }],
    typical: 95,
    targetUPercent: 1,
    cautions: [FILL_BELOW_EYES, OPEN_FLASK],
    remark: 'A known excess of acid, carbon dioxide boiled out, the rest titrated.',
  }),
  analysis({
    id: 'chloride-by-back-titration',
    name: 'chloride, excess of silver titrated back',
    titrantIds: ['ammonium-thiocyanate'],
    excess: { substanceId: 'silver-nitrate', reagent: reacting('Ag^+') },
    equations: ['Ag^+ + Cl^- -> AgCl', 'Ag^+ + SCN^- -> AgSCN'],
    links: ['Ag^+'],
    analyte: 'Cl^-',
    titrant: reacting('SCN^-'),
    nominalMolarityMolPerL: 0.1,
    statedAs: [as('chloride', 'Cl'), as('sodium chloride', 'NaCl')],
    units: ['g/L', 'mg/L', '% m/m'],
    portions: [{ kind: 'aliquot', volumeMl: [10, 25] }],
    indicatorId: 'iron-iii',
    indicatorDrops: 20,
    colours: colours('colourless', 'firstRed', 'red'),
    medium: 'dilute nitric acid; the silver chloride filtered off or covered',
    ...holds(['nitric-acid', 1]),
    typical: 3,
    targetUPercent: 1,
    remark: 'Silver chloride takes thiocyanate up, slowly, where it is not covered.',
  }),
];
