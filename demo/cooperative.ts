import type { Balance, Burette, Glassware } from '#core/metrology';
import type { Lot } from '#core/reagent';

/** The made-up laboratory: the control laboratory of a winery cooperative. */
export const LABORATORY = {
  name: 'Ambergrund Winegrowers, control laboratory',
  timeZone: 'Europe/Vienna',
};

/** Made-up people. Their passwords open nothing: the demo signs them in with one click. */
export const PEOPLE = [
  { key: 'mirela', name: 'Mirela Aschbach', mayCertify: true, mayManage: true },
  { key: 'tobin', name: 'Tobin Velt', mayCertify: false, mayManage: false },
  { key: 'jasna', name: 'Jasna Orlik', mayCertify: true, mayManage: false },
] as const;
export type PersonKey = (typeof PEOPLE)[number]['key'];

/** Dates are days before or after today. */
type Dated<T, K extends keyof T> = Omit<T, K> & Readonly<Record<K, number>>;

export const LOTS: Readonly<Record<string, Dated<Lot, 'receivedOn' | 'useBy'>>> = {
  khp: {
    substanceId: 'potassium-hydrogen-phthalate',
    lotNumber: 'KP-2207',
    supplier: 'Talheim reference materials',
    purity: '0.9998',
    purityHalfWidth: '0.0005',
    purityDistribution: 'rectangular',
    statedMolarMass: null,
    receivedOn: -140,
    useBy: 590,
  },
  khpOld: {
    substanceId: 'potassium-hydrogen-phthalate',
    lotNumber: 'KP-1983',
    supplier: 'Talheim reference materials',
    purity: '0.9995',
    purityHalfWidth: '0.0005',
    purityDistribution: 'rectangular',
    statedMolarMass: null,
    receivedOn: -700,
    useBy: -25,
  },
  pellets: {
    substanceId: 'sodium-hydroxide',
    lotNumber: 'NH-0518',
    supplier: 'Kaltenau laboratory supplies',
    purity: '0.985',
    purityHalfWidth: '0.01',
    purityDistribution: 'rectangular',
    statedMolarMass: null,
    receivedOn: -200,
    useBy: 520,
  },
};

export const BALANCES: Readonly<Record<string, Dated<Balance, 'calibrationDue'>>> = {
  analytical: {
    type: 'balance',
    name: 'Analytical balance A1',
    readabilityG: '0.0001',
    repeatabilityG: '0.0001',
    linearityG: '0.0002',
    maxLoadG: '220',
    calibrationDue: 160,
  },
  topPan: {
    type: 'balance',
    name: 'Top-pan balance T2',
    readabilityG: '0.01',
    repeatabilityG: '0.01',
    linearityG: '0.02',
    maxLoadG: '2200',
    calibrationDue: 45,
  },
};

export const BURETTES: Readonly<Record<string, Dated<Burette, 'calibrationDue'>>> = {
  glass50: {
    type: 'burette',
    name: 'Burette G4',
    construction: 'glass',
    capacityMl: '50',
    divisionMl: '0.1',
    toleranceMl: '0.05',
    toleranceDistribution: 'triangular',
    dropMl: '0.05',
    calibrationDue: 210,
  },
  glass25: {
    type: 'burette',
    name: 'Burette G2',
    construction: 'glass',
    capacityMl: '25',
    divisionMl: '0.1',
    toleranceMl: '0.03',
    toleranceDistribution: 'triangular',
    dropMl: '0.04',
    calibrationDue: -9,
  },
  piston20: {
    type: 'burette',
    name: 'Piston burette P1',
    construction: 'piston',
    capacityMl: '20',
    divisionMl: '0.01',
    toleranceMl: '0.03',
    toleranceDistribution: 'triangular',
    dropMl: '0.02',
    calibrationDue: 80,
  },
};

function glassware(
  kind: Glassware['kind'],
  name: string,
  volumeMl: string,
  toleranceMl: string,
): Dated<Glassware, 'calibrationDue'> {
  const toleranceDistribution = kind === 'measuring-cylinder' ? 'rectangular' : 'triangular';
  const calibrationDue = 400;
  return {
    type: 'glassware',
    kind,
    name,
    volumeMl,
    toleranceMl,
    toleranceDistribution,
    calibrationDue,
  };
}

export const GLASSWARE: Readonly<Record<string, Dated<Glassware, 'calibrationDue'>>> = {
  flask100: glassware('volumetric-flask', 'Flask F1', '100', '0.1'),
  flask250: glassware('volumetric-flask', 'Flask F2', '250', '0.15'),
  flask500: glassware('volumetric-flask', 'Flask F5', '500', '0.25'),
  flask1000: glassware('volumetric-flask', 'Flask F10', '1000', '0.4'),
  pipette10: glassware('one-mark-pipette', 'Pipette V10', '10', '0.02'),
  pipette20: glassware('one-mark-pipette', 'Pipette V20', '20', '0.03'),
  pipette25: glassware('one-mark-pipette', 'Pipette V25', '25', '0.03'),
  pipette50: glassware('one-mark-pipette', 'Pipette V50', '50', '0.05'),
  cylinder100: glassware('measuring-cylinder', 'Cylinder Z1', '100', '1'),
  cylinder10: glassware('measuring-cylinder', 'Cylinder Z0', '10', '0.2'),
};

/** One series: when, by whom, with what. */
export interface PlannedSeries {
  readonly day: number;
  readonly by: PersonKey;
  readonly certifiedBy: PersonKey;
  readonly burette: keyof typeof BURETTES;
  /** `half-done`: left on the bench after so many titrations. */
  readonly stopAfter?: number;
  readonly mishap?: 'bubble' | 'misread';
}

/** One bottle: how it was made up and what happened to it since. */
export interface PlannedBottle {
  readonly code: string;
  readonly nominalMolarity: string;
  readonly volumeMl: string;
  readonly preparedDay: number;
  readonly preparedBy: PersonKey;
  readonly note: string;
  /** How far the molarity really is from the label, in percent; the simulated titrations know it. */
  readonly offsetPercent: number;
  readonly series: readonly PlannedSeries[];
}

/** Three months of titrants, days before today. */
export const BOTTLES: readonly PlannedBottle[] = [
  {
    code: '0398',
    nominalMolarity: '0.1',
    volumeMl: '1000',
    preparedDay: -91,
    preparedBy: 'tobin',
    note: 'Titratable acidity of must and wine.',
    offsetPercent: 1.3,
    series: [
      { day: -89, by: 'tobin', certifiedBy: 'mirela', burette: 'glass50' },
      { day: -58, by: 'jasna', certifiedBy: 'jasna', burette: 'glass50', mishap: 'misread' },
    ],
  },
  {
    code: '0404',
    nominalMolarity: '0.25',
    volumeMl: '500',
    preparedDay: -66,
    preparedBy: 'jasna',
    note: 'Titratable acidity, bench of the press house.',
    offsetPercent: -0.8,
    series: [{ day: -64, by: 'jasna', certifiedBy: 'mirela', burette: 'glass50' }],
  },
  {
    code: '0409',
    nominalMolarity: '0.1',
    volumeMl: '2000',
    preparedDay: -45,
    preparedBy: 'tobin',
    note: 'Titratable acidity of must and wine.',
    offsetPercent: 0.9,
    series: [
      { day: -44, by: 'tobin', certifiedBy: 'mirela', burette: 'glass50', mishap: 'bubble' },
      { day: -27, by: 'tobin', certifiedBy: 'jasna', burette: 'glass50' },
    ],
  },
  {
    code: '0413',
    nominalMolarity: '0.1',
    volumeMl: '1000',
    preparedDay: -20,
    preparedBy: 'mirela',
    note: 'Total sulfite after distillation.',
    offsetPercent: -1.1,
    series: [{ day: -19, by: 'mirela', certifiedBy: 'mirela', burette: 'piston20' }],
  },
  {
    code: '0416',
    nominalMolarity: '0.1',
    volumeMl: '2000',
    preparedDay: -9,
    preparedBy: 'jasna',
    note: 'Titratable acidity of must and wine.',
    offsetPercent: 2.1,
    series: [{ day: -8, by: 'jasna', certifiedBy: 'jasna', burette: 'glass50', mishap: 'misread' }],
  },
  {
    code: '0417',
    nominalMolarity: '0.1',
    volumeMl: '1000',
    preparedDay: -2,
    preparedBy: 'tobin',
    note: 'Volatile acidity.',
    offsetPercent: 1.7,
    series: [{ day: 0, by: 'tobin', certifiedBy: 'mirela', burette: 'glass50', stopAfter: 2 }],
  },
  {
    code: '0418',
    nominalMolarity: '0.1',
    volumeMl: '1000',
    preparedDay: -1,
    preparedBy: 'jasna',
    note: 'Reserve for the harvest weeks.',
    offsetPercent: 0.4,
    series: [],
  },
];
