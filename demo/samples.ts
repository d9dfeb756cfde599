import type { Plain } from '#core/grammar';
import type { Requirement, Sample, SampleRequest } from '#core/sample';
import type { GLASSWARE, PersonKey } from './cooperative';

/** A sample of the made-up week; its days count from today. */
export interface PlannedSample {
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
): Plain<SampleRequest> {
  return { analysisId, unit, as, expected, requirement };
}

type Rule = Extract<Requirement, { kind: 'limits' }>['rule'];

function limits(
  lower: string | null,
  upper: string | null,
  rule: Rule = 'simple',
): Plain<Requirement> {
  return { kind: 'limits', lower, upper, rule };
}

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
      requests: [asks('volatile-acidity', 'g/L', 'CH3COOH', null, limits(null, '1.20'))],
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
        asks(
          'total-sulfur-dioxide',
          'mg/L',
          'SO2',
          null,
          limits(null, '200', 'guarded-acceptance'),
        ),
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
