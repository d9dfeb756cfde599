import type { Analysis } from '../entries';
import {
  CO2_FREE,
  colours,
  FILL_BELOW_EYES,
  holds,
  HOT_FLASK,
  HYDROXIDE_TO_PINK,
  INDICATOR_BURNS,
  OPEN_FLASK,
  reacting,
} from '../inFlasks';
import { analysis, as } from './analysis';

const TARTARIC = as('tartaric acid', 'C4H6O6', 2);
const SULFURIC = as('sulfuric acid', 'H2SO4', 2);
const ACETIC = as('acetic acid', 'CH3COOH', 1, 1.049);
const CITRIC = as('citric acid', 'C6H8O7', 3);

/** An acid gives protons; the hydroxide takes them. */
const ACID_BY_HYDROXIDE = {
  ...HYDROXIDE_TO_PINK,
  equations: ['H^+ + OH^- -> H2O'],
  analyte: 'H^+',
} as const satisfies Partial<Analysis>;

const AS_HYDROXIDE = [as('sodium hydroxide', 'NaOH'), as('potassium hydroxide', 'KOH')];
const AS_ALKALINITY = [as('calcium carbonate', 'CaCO3', 2), as('hydrogencarbonate', 'HCO3')];

/** A base takes protons; hydrochloric acid gives them. */
const BASE_BY_HYDROCHLORIC = {
  titrantIds: ['hydrochloric-acid'],
  titrant: reacting('H^+'),
  nominalMolarityMolPerL: 0.1,
  indicatorId: 'bromocresol-green-methyl-red',
  indicatorDrops: 3,
  colours: colours('green', 'grey', 'red'),
} as const satisfies Partial<Analysis>;

/** Protein by a factor: 25 nitrogens on 4 that are found make 6.25 times their mass. Source: the factors of common food references. */
const PROTEINS = [
  as('protein, nitrogen × 6.25', 'N25', 4),
  as('protein of wheat, nitrogen × 5.7', 'N57', 10),
  as('protein of milk, nitrogen × 6.38', 'N319', 50),
];

const PINK_GONE = colours('pink', 'colourless', 'colourless');

/** The first of two ends: hydroxide is taken up, and carbonate half. */
const GOES_COLOURLESS = {
  indicatorId: 'phenolphthalein',
  indicatorDrops: 2,
  until: 'the last pink is gone',
  colours: { before: PINK_GONE.before, endPoint: PINK_GONE.endPoint },
};

/**
 * What the titres to pH 8.3 (P) and 4.5 (M) are made of: hydroxide 2P - M and carbonate M - P, or carbonate P and hydrogencarbonate
 * M - 2P, in moles. Source: common references of water analysis; the method of two indicators for lye.
 */
const HYDROXIDE = { titre: { toFirst: 2, toLast: -1 } };
const BESIDE_HYDROXIDE = { titre: { toFirst: -1, toLast: 1 } };
const BESIDE_HYDROGENCARBONATE = { titre: { toFirst: 1, toLast: 0 } };
const HYDROGENCARBONATE = { titre: { toFirst: -2, toLast: 1 } };

/** What gives or takes protons. */
export const ACIDS_AND_BASES: readonly Analysis[] = [
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
    statedAs: AS_HYDROXIDE,
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
      'At once and cold: it hydrolyses. The filler may stay cloudy. Whole tablets one by one, or the powder of twenty: then the mean mass of one goes with the sample.',
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
    ...ACID_BY_HYDROXIDE,
    id: 'sulfur-dioxide-by-aspiration',
    name: 'sulfur dioxide by aspiration',
    equations: ['SO2 + H2O2 -> SO4^2- + H^+', 'H^+ + OH^- -> H2O'],
    links: ['H^+'],
    analyte: 'SO2',
    nominalMolarityMolPerL: 0.01,
    statedAs: [as('sulfur dioxide', 'SO2')],
    units: ['mg/L'],
    portions: [{ kind: 'aliquot', volumeMl: [10, 50] }],
    indicatorId: 'bromocresol-green-methyl-red',
    colours: colours('red', 'grey', 'green'),
    medium: 'neutral hydrogen peroxide that has taken up what air carried over',
    ...holds(['hydrogen-peroxide', 0.1]),
    typical: 30,
    targetUPercent: 10,
    remark:
      'The portion is what was aspirated, cold for the free part, boiling for the total. With 0.1 mol/L the titre would be a few drops.',
  }),
  analysis({
    ...ACID_BY_HYDROXIDE,
    id: 'assimilable-nitrogen',
    name: 'assimilable nitrogen of must, formol titration',
    statedAs: [as('nitrogen', 'N')],
    units: ['mg/L'],
    portions: [{ kind: 'aliquot', volumeMl: [50, 100] }],
    indicatorId: null,
    indicatorDrops: null,
    colours: colours('yellow', 'yellow', 'yellow'),
    medium: 'brought to pH 8.2 first; then neutral formaldehyde, and again to pH 8.2 by electrode',
    ...holds(['formaldehyde', 12]),
    typical: 180,
    targetUPercent: 5,
    cautions: [
      FILL_BELOW_EYES,
      'Formaldehyde is toxic and may cause cancer: fume cupboard, gloves; its waste is collected.',
    ],
    remark:
      'The initial reading is taken at pH 8.2, before the formaldehyde. Sulfur dioxide is taken off first with peroxide or barium.',
  }),
  analysis({
    ...BASE_BY_HYDROCHLORIC,
    id: 'alkalinity-two-ends',
    name: 'alkalinity of water, two ends (P and M)',
    equations: ['HCO3^- + H^+ -> CO2 + H2O'],
    analyte: 'HCO3^-',
    statedAs: AS_ALKALINITY,
    units: ['mg/L', 'mmol/L'],
    portions: [{ kind: 'aliquot', volumeMl: [50, 100] }],
    twoEnds: {
      first: GOES_COLOURLESS,
      always: [
        {
          id: 'to-first-end',
          name: 'alkalinity to pH 8.3 (P)',
          titre: { toFirst: 1, toLast: 0 },
          statedAs: AS_ALKALINITY,
        },
      ],
      cases: [
        [
          { id: 'hydroxide', name: 'hydroxide', ...HYDROXIDE, statedAs: [as('hydroxide', 'OH')] },
          {
            ...{ id: 'carbonate', name: 'carbonate', ...BESIDE_HYDROXIDE },
            statedAs: [as('carbonate', 'CO3')],
          },
        ],
        [
          {
            ...{ id: 'carbonate', name: 'carbonate', ...BESIDE_HYDROGENCARBONATE },
            statedAs: [as('carbonate', 'CO3')],
          },
          {
            ...{ id: 'hydrogencarbonate', name: 'hydrogencarbonate', ...HYDROGENCARBONATE },
            statedAs: [as('hydrogencarbonate', 'HCO3')],
          },
        ],
      ],
    },
    medium: 'the water as it is, hardly swirled up to the first end',
    typical: 150,
    targetUPercent: 3,
    remark: 'Not with borate, phosphate, silicate or ammonia.',
  }),
  analysis({
    ...BASE_BY_HYDROCHLORIC,
    id: 'alkalinity-to-4-5',
    name: 'alkalinity of water to pH 4.5 (M)',
    equations: ['HCO3^- + H^+ -> CO2 + H2O'],
    analyte: 'HCO3^-',
    statedAs: [as('hydrogencarbonate', 'HCO3'), as('calcium carbonate', 'CaCO3', 2)],
    units: ['mmol/L', 'mg/L'],
    portions: [{ kind: 'aliquot', volumeMl: [50, 100] }],
    medium: 'the water as it is; by electrode to pH 4.5, or with the mixed indicator',
    typical: 3,
    targetUPercent: 3,
    remark: 'All of the alkalinity. Not with borate, phosphate, silicate or ammonia.',
  }),
  analysis({
    ...BASE_BY_HYDROCHLORIC,
    id: 'hydroxide-beside-carbonate',
    name: 'hydroxide in lye, carbonate precipitated',
    equations: ['H^+ + OH^- -> H2O'],
    analyte: 'OH^-',
    statedAs: AS_HYDROXIDE,
    units: ['g/100 mL', 'g/L', '% m/m', 'mol/L'],
    portions: [{ kind: 'aliquot', volumeMl: [5, 25] }],
    indicatorId: 'phenolphthalein',
    colours: colours('pink', 'colourless', 'colourless'),
    medium: '50 mL water free of carbon dioxide and barium chloride in excess; not filtered',
    ...holds(['barium-chloride-dihydrate', 0.4]),
    typical: 1.5,
    targetUPercent: 2,
    cautions: [
      FILL_BELOW_EYES,
      'Barium chloride is toxic if swallowed: gloves; its waste is collected.',
    ],
    remark:
      'Only the hydroxide counts. Strong lye is weighed or diluted with water free of carbon dioxide.',
  }),
  analysis({
    ...BASE_BY_HYDROCHLORIC,
    id: 'lye-two-ends',
    name: 'lye: hydroxide and carbonate, two ends',
    equations: ['H^+ + OH^- -> H2O'],
    analyte: 'OH^-',
    statedAs: AS_HYDROXIDE,
    units: ['g/100 mL', 'g/L', '% m/m', 'mol/L'],
    portions: [{ kind: 'aliquot', volumeMl: [5, 25] }],
    twoEnds: {
      first: GOES_COLOURLESS,
      always: [],
      cases: [
        [
          {
            ...{ id: 'hydroxide', name: 'hydroxide', ...HYDROXIDE },
            statedAs: AS_HYDROXIDE,
          },
          {
            ...{ id: 'carbonate', name: 'carbonate', ...BESIDE_HYDROXIDE },
            statedAs: [as('sodium carbonate', 'Na2CO3'), as('potassium carbonate', 'K2CO3')],
          },
        ],
      ],
    },
    indicatorId: 'methyl-orange',
    colours: colours('yellow', 'peach', 'methylOrangePink'),
    medium: '50 mL water free of carbon dioxide; cold, hardly swirled up to the first end',
    typical: 1.6,
    targetUPercent: 2,
    remark:
      'All of the alkali counts to the last end. Strong lye is weighed or diluted with water free of carbon dioxide.',
  }),
  analysis({
    ...BASE_BY_HYDROCHLORIC,
    id: 'hydrogencarbonate-assay',
    name: 'hydrogencarbonate, assay',
    equations: ['HCO3^- + H^+ -> CO2 + H2O'],
    analyte: 'HCO3^-',
    statedAs: [
      as('potassium hydrogencarbonate', 'KHCO3'),
      as('sodium hydrogencarbonate', 'NaHCO3'),
    ],
    units: ['% m/m'],
    portions: [{ kind: 'weighed', massG: [0.2, 0.4] }],
    medium: 'about 50 mL water; boiled near the end and cooled, then to the end',
    typical: 99.5,
    targetUPercent: 0.5,
    cautions: [FILL_BELOW_EYES, OPEN_FLASK],
    remark: 'Carbonate in it counts double; it hardly dries without losing carbon dioxide.',
  }),
  analysis({
    ...BASE_BY_HYDROCHLORIC,
    id: 'nitrogen-by-distillation',
    name: 'nitrogen by distillation into boric acid',
    equations: ['NH3 + H^+ -> NH4^+'],
    analyte: 'NH3',
    statedAs: [as('nitrogen', 'N'), ...PROTEINS],
    units: ['% m/m', 'g/kg', 'mg/L'],
    portions: [
      { kind: 'weighed', massG: [0.2, 2] },
      { kind: 'aliquot', volumeMl: [5, 50] },
    ],
    colours: colours('green', 'grey', 'red'),
    medium: 'boric acid that has taken up the distillate of the digested portion',
    ...holds(['boric-acid', 0.6]),
    needsBlank: true,
    typical: 2,
    targetUPercent: 3,
    cautions: [
      FILL_BELOW_EYES,
      'Boric acid may damage fertility: gloves. Digestion and distillation with concentrated acid and lye: goggles, fume cupboard.',
    ],
    remark:
      'The portion is what was digested; the blank goes the whole way. Protein by the factor that is agreed for the product.',
  }),
  analysis({
    ...ACID_BY_HYDROXIDE,
    id: 'acid-value',
    name: 'acid value of an oil or fat',
    titrantIds: ['potassium-hydroxide'],
    statedAs: [as('potassium hydroxide', 'KOH')],
    units: ['mg/g'],
    portions: [{ kind: 'weighed', massG: [1, 10] }],
    medium: 'ethanol and ether or toluene, made neutral to the indicator',
    ...holds(['ethanol-95', null]),
    needsBlank: true,
    typical: 2,
    targetUPercent: 5,
    cautions: [FILL_BELOW_EYES, 'Ethanol and ether are flammable: no flame, no hot plate.'],
    remark:
      'mg of potassium hydroxide for a gram of it. The titrant in ethanol is standardized in ethanol.',
  }),
  analysis({
    ...BASE_BY_HYDROCHLORIC,
    id: 'saponification-value',
    name: 'saponification value, excess of hydroxide titrated back',
    excess: { substanceId: 'potassium-hydroxide', reagent: reacting('OH^-') },
    equations: ['CH3COOC2H5 + OH^- -> CH3COO^- + C2H5OH', 'OH^- + H^+ -> H2O'],
    links: ['OH^-'],
    analyte: 'CH3COOC2H5',
    nominalMolarityMolPerL: 0.5,
    statedAs: [as('potassium hydroxide', 'KOH')],
    units: ['mg/g'],
    portions: [{ kind: 'weighed', massG: [1, 2] }],
    indicatorId: 'phenolphthalein',
    colours: colours('pink', 'colourless', 'colourless'),
    medium: 'the excess of hydroxide in ethanol; an hour under reflux, titrated hot',
    ...holds(['ethanol-95', null], ['potassium-hydroxide', 0.5]),
    needsBlank: true,
    typical: 190,
    targetUPercent: 2,
    cautions: [FILL_BELOW_EYES, HOT_FLASK, 'Boiling ethanol is flammable: water bath, no flame.'],
    remark: 'An ester stands for all of them in the equation: each takes one hydroxide.',
  }),
];
