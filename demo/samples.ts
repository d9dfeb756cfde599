import type { Plain } from '#core/grammar';
import type { Requirement, Sample, SampleRequest } from '#core/sample';
import type { BURETTES, GLASSWARE, PersonKey } from './cooperative';

/** A sample of the made-up week; its days count from today. */
export interface PlannedSample {
  /** Its requests may name one of the laboratory's own analyses: `own:volatile`. */
  readonly sample: Omit<Plain<Sample>, 'sampledOn' | 'receivedOn' | 'keepUntil'>;
  readonly receivedDay: number;
  readonly by: PersonKey;
  readonly dilution?: {
    readonly pipette: keyof typeof GLASSWARE;
    readonly flask: keyof typeof GLASSWARE;
  };
}

type Given = Pick<Plain<Sample>, 'code' | 'description' | 'source' | 'requests'> &
  Partial<Plain<Sample>>;

function sample(given: Given): PlannedSample['sample'] {
  return {
    customer: 'cellar',
    sampledBy: 'Tobin Velt',
    condition: 'clear, cool',
    amount: { value: '250', unit: 'mL' },
    density: null,
    unitMass: null,
    store: 'refrigerator 2',
    ...given,
  };
}

function asks(
  analysisId: string,
  unit: SampleRequest['unit'],
  as: string,
  expected: string | null,
  requirement: Plain<Requirement> = { kind: 'none' },
  part?: string,
): Plain<SampleRequest> {
  return { analysisId, unit, as, expected, requirement, ...(part !== undefined && { part }) };
}

type Rule = Extract<Requirement, { kind: 'limits' }>['rule'];

function limits(
  lower: string | null,
  upper: string | null,
  rule: Rule = 'simple',
): Plain<Requirement> {
  return { kind: 'limits', lower, upper, rule };
}

/** Analyses that the laboratory has written itself, with u of the method from its controls. */
export const OWN_ANALYSES = {
  volatile: {
    from: 'volatile-acidity',
    name: 'volatile acidity, by our still',
    methodUncertaintyPercent: 2.2,
    reason: 'Two years of controls: the still loses a little, and the day counts.',
  },
  totalSulfite: {
    from: 'total-sulfur-dioxide',
    name: 'total sulfur dioxide, white wine',
    methodUncertaintyPercent: 1.9,
    reason: 'From the ring trials of three years and our control wine.',
  },
} as const;

/** A batch of the made-up week: its days count from today. */
export interface PlannedBatch {
  readonly day: number;
  readonly by: PersonKey;
  /** Of the catalogue, or one of the laboratory's own: `own:volatile`. */
  readonly analysis: string;
  readonly titrant: string;
  readonly pipette: keyof typeof GLASSWARE;
  /** The piston burette, where nothing is said. */
  readonly burette?: keyof typeof BURETTES;
  /** Of a titration with two ends, how much of it runs in up to the first. */
  readonly toFirstEnd?: number;
  /** What each really holds, in the unit in which it is asked for. */
  readonly contents: Readonly<Record<string, number>>;
  /** Why it is begun in spite of what speaks against it. */
  readonly begunBecause?: string;
  /** On the report. */
  readonly remark?: string;
}

/** What was titrated of the samples. */
export const BATCHES: readonly PlannedBatch[] = [
  {
    day: 0,
    by: 'tobin',
    analysis: 'titratable-acidity',
    titrant: '0416',
    pipette: 'pipette10',
    contents: { 'QC-W': 6.13, 'W-311': 6.2 },
    begunBecause:
      'The end is at pH 7.0, not where phenolphthalein changes; the control shows what that does.',
    remark: 'The control is the eighth above the mean: the pH meter is looked at next.',
  },
  {
    day: -2,
    by: 'tobin',
    analysis: 'own:volatile',
    titrant: '0416',
    pipette: 'pipette20',
    contents: { 'W-312': 1.24 },
  },
  {
    day: -1,
    by: 'jasna',
    analysis: 'sulfur-dioxide',
    titrant: 'S030',
    pipette: 'pipette50',
    contents: { 'W-313': 31 },
  },
  {
    day: -1,
    by: 'jasna',
    analysis: 'own:totalSulfite',
    titrant: 'S030',
    pipette: 'pipette20',
    contents: { 'W-313': 196 },
  },
  {
    day: -1,
    by: 'jasna',
    analysis: 'total-hardness',
    titrant: 'S031',
    pipette: 'pipette50',
    contents: { 'R-041': 14.6, 'R-042': 2.1 },
  },
  {
    day: -1,
    by: 'jasna',
    analysis: 'chloride',
    titrant: 'S032',
    pipette: 'pipette50',
    contents: { 'R-041': 38 },
  },
  {
    day: -1,
    by: 'tobin',
    analysis: 'lye-two-ends',
    titrant: '0415',
    pipette: 'pipette10',
    burette: 'glass50',
    // 1.4 g/100 mL of hydroxide, and 0.3 of carbonate.
    contents: { 'C-021': 1.626 },
    toFirstEnd: 0.9304,
    begunBecause: 'The second end is that of methyl orange, as the supplier of the lye has it.',
  },
];

/** The control wine of the last months, from the chart on paper: the last seven lie on one side. */
export const CONTROL_POINTS: readonly (readonly [day: number, gPerL: string])[] = [
  [-84, '6.03'],
  [-80, '6.09'],
  [-77, '5.98'],
  [-73, '6.04'],
  [-70, '6.11'],
  [-66, '5.95'],
  [-63, '6.02'],
  [-59, '6.07'],
  [-56, '5.99'],
  [-52, '6.05'],
  [-49, '5.93'],
  [-45, '6.06'],
  [-42, '6.00'],
  [-38, '6.12'],
  [-35, '5.97'],
  [-31, '6.01'],
  [-28, '6.03'],
  [-24, '6.09'],
  [-21, '6.12'],
  [-17, '6.08'],
  [-14, '6.13'],
  [-10, '6.10'],
  [-7, '6.14'],
  [-3, '6.09'],
];

/** What the cellar, the filling lines and the store brought: limits are the cooperative's own. */
export const SAMPLES: readonly PlannedSample[] = [
  {
    receivedDay: -3,
    by: 'tobin',
    sample: sample({
      code: 'W-311',
      description: 'Riesling',
      source: 'tank 7',
      requests: [asks('titratable-acidity', 'g/L', 'C4H6O6', '6.2', limits('3.5', null))],
    }),
  },
  {
    receivedDay: -3,
    by: 'tobin',
    sample: sample({
      code: 'W-312',
      description: 'red wine',
      source: 'tank 14',
      requests: [asks('own:volatile', 'g/L', 'CH3COOH', null, limits(null, '1.20'))],
    }),
  },
  {
    receivedDay: -2,
    by: 'jasna',
    sample: sample({
      code: 'W-313',
      description: 'white wine',
      source: 'tank 3',
      requests: [
        asks('sulfur-dioxide', 'mg/L', 'SO2', '30', limits('25', '40')),
        asks('own:totalSulfite', 'mg/L', 'SO2', null, limits(null, '200', 'guarded-acceptance')),
      ],
    }),
  },
  {
    receivedDay: -2,
    by: 'jasna',
    sample: sample({
      code: 'R-041',
      description: 'rinse water',
      source: 'filling line 2',
      customer: 'filling',
      requests: [
        asks('total-hardness', 'German degrees', 'CaCO3', '14'),
        asks('chloride', 'mg/L', 'Cl', '40', limits(null, '250')),
      ],
    }),
  },
  {
    receivedDay: -2,
    by: 'jasna',
    sample: sample({
      code: 'R-042',
      description: 'softened water',
      source: 'behind the softener',
      customer: 'filling',
      requests: [asks('total-hardness', 'German degrees', 'CaCO3', '2', limits(null, '4'))],
    }),
  },
  {
    receivedDay: -1,
    by: 'tobin',
    dilution: { pipette: 'pipette10', flask: 'flask250' },
    sample: sample({
      code: 'C-018',
      description: 'acid cleaner in use',
      source: 'filling line 1',
      customer: 'filling',
      density: { value: '1.012', plusMinus: '0.002' },
      store: 'chemicals, tray 3',
      requests: [asks('acid-in-cleaning-product', '% m/m', 'HNO3', '1.9', limits('1.5', '2.5'))],
    }),
  },
  {
    receivedDay: -2,
    by: 'tobin',
    sample: sample({
      code: 'C-021',
      description: 'caustic in use',
      source: 'filling line 2',
      customer: 'filling',
      store: 'chemicals, tray 3',
      requests: [
        asks('lye-two-ends', 'g/100 mL', 'NaOH', '1.4', limits('1.0', '2.0'), 'hydroxide'),
      ],
    }),
  },
  {
    receivedDay: -1,
    by: 'jasna',
    sample: sample({
      code: 'S-107',
      description: 'tartaric acid, delivery',
      source: 'store',
      customer: 'purchase',
      sampledBy: '',
      condition: 'dry, sealed bag',
      amount: { value: '50', unit: 'g' },
      store: 'desiccator 2',
      requests: [
        asks('tartaric-acid-assay', '% m/m', 'C4H6O6', '99.7', {
          ...{ kind: 'limits', lower: '99.5', upper: null, rule: 'four-way' },
        }),
      ],
    }),
  },
  {
    receivedDay: 0,
    by: 'tobin',
    sample: sample({
      code: 'QC-W',
      description: 'control wine',
      source: 'lot 5, bottled here',
      customer: 'this laboratory',
      isControl: true,
      requests: [
        asks('titratable-acidity', 'g/L', 'C4H6O6', '6.05', {
          ...{ kind: 'accepted-value', value: '6.05' },
          ...{ expandedUncertainty: '0.12', withinPercent: '3' },
        }),
      ],
    }),
  },
];
