import type { Plain } from '#core/grammar';
import type {
  Balance,
  Burette,
  Calibration,
  Glassware,
  Heater,
  Thermometer,
} from '#core/metrology';
import type { PreparationPlan } from '#core/preparation';
import type { Lot, PreparedBottle } from '#core/reagent';
import { ALL_WORK } from '#core/rights';

/** The made-up laboratory: the control laboratory of a winery cooperative. */
export const LABORATORY = {
  name: 'Ambergrund Winegrowers, control laboratory',
  timeZone: 'Europe/Vienna',
};

/** Under its name on what it issues. */
export const LETTERHEAD = ['At the press house 4, Ambergrund', 'laboratory@ambergrund.example'];

/** Made-up people. Their passwords open nothing: the demo signs them in with one click. */
export const PEOPLE = [
  { key: 'mirela', name: 'Mirela Aschbach', roles: ALL_WORK },
  { key: 'tobin', name: 'Tobin Velt', roles: ['analyst', 'storekeeper'] },
  {
    key: 'jasna',
    name: 'Jasna Orlik',
    roles: ['analyst', 'storekeeper', 'reviewer', 'authorized-signatory'],
  },
] as const;
export type PersonKey = (typeof PEOPLE)[number]['key'];

type Container = PreparedBottle['container'];

/** Dates are days before or after today. */
type Dated<T, K extends keyof T> = Omit<T, K> & Readonly<Record<K, number>>;
type DatedLot = Dated<Plain<Lot>, 'receivedOn' | 'openedOn' | 'useBy'>;

/** What the lots share unless they say otherwise. */
function lot(
  given: Pick<Plain<Lot>, 'substanceId' | 'lotNumber' | 'purity'> & Partial<DatedLot>,
): DatedLot {
  return {
    supplier: 'Kaltenau laboratory supplies',
    purityHalfWidth: '0.002',
    purityDistribution: 'rectangular',
    dissolved: null,
    statedMolarMass: null,
    amountReceived: '500',
    store: 'cupboard 2',
    receivedOn: -160,
    openedOn: -150,
    useBy: 520,
    ...given,
  };
}

const REFERENCE = {
  supplier: 'Talheim reference materials',
  purityHalfWidth: '0.0005',
  store: 'desiccator 1',
} as const;
const BY_MASS = 'by-mass' as const;

/** A solution that is bought with its certificate. */
const BOUGHT = {
  purity: '1',
  purityHalfWidth: '0.002',
  amountReceived: '1000',
  store: 'shelf 2, bought solutions',
  receivedOn: -20,
  openedOn: -6,
  useBy: 200,
} as const;

export const LOTS: Readonly<Record<string, DatedLot>> = {
  iodineBought: lot({
    ...BOUGHT,
    substanceId: 'iodine',
    lotNumber: 'IS-4411',
    dissolved: { meaning: 'by-molarity', molarity: '0.01' },
  }),
  edtaBought: lot({
    ...BOUGHT,
    substanceId: 'disodium-edta-dihydrate',
    lotNumber: 'ED-2093',
    dissolved: { meaning: 'by-molarity', molarity: '0.01' },
  }),
  silverBought: lot({
    ...BOUGHT,
    substanceId: 'silver-nitrate',
    lotNumber: 'AG-0632',
    dissolved: { meaning: 'by-molarity', molarity: '0.02' },
  }),
  dichromateBought: lot({
    ...BOUGHT,
    substanceId: 'potassium-dichromate',
    lotNumber: 'CR-1187',
    dissolved: { meaning: 'by-molarity', molarity: '0.0167' },
  }),
  khp: lot({
    ...REFERENCE,
    substanceId: 'potassium-hydrogen-phthalate',
    lotNumber: 'KP-2207',
    certificateNumber: 'TR 22-0714',
    purity: '0.9998',
    amountReceived: '100',
    receivedOn: -140,
    openedOn: -89,
    useBy: 590,
  }),
  khpOld: lot({
    ...REFERENCE,
    substanceId: 'potassium-hydrogen-phthalate',
    lotNumber: 'KP-1983',
    purity: '0.9995',
    amountReceived: '100',
    receivedOn: -700,
    openedOn: -690,
    useBy: -25,
  }),
  pellets: lot({
    substanceId: 'sodium-hydroxide',
    lotNumber: 'NH-0518',
    purity: '0.985',
    purityHalfWidth: '0.01',
    store: 'cupboard 3, alkalis',
    receivedOn: -200,
    openedOn: -91,
  }),
  hydroxide50: lot({
    substanceId: 'sodium-hydroxide',
    lotNumber: 'NL-0877',
    purity: '0.5',
    purityHalfWidth: '0.01',
    dissolved: { meaning: BY_MASS, densityGPerMl: '1.525' },
    amountReceived: '1000',
    store: 'cupboard 3, alkalis',
    receivedOn: -30,
    openedOn: -29,
  }),
  hydrochloric: lot({
    substanceId: 'hydrochloric-acid',
    lotNumber: 'HC-1140',
    purity: '0.37',
    purityHalfWidth: '0.01',
    dissolved: { meaning: BY_MASS, densityGPerMl: '1.19' },
    amountReceived: '1000',
    store: 'fume cupboard, acids',
    receivedOn: -60,
    openedOn: -12,
  }),
  ammonia: lot({
    substanceId: 'ammonia',
    lotNumber: 'AM-0207',
    purity: '0.25',
    purityHalfWidth: '0.01',
    dissolved: { meaning: BY_MASS, densityGPerMl: '0.91' },
    amountReceived: '500',
    store: 'fume cupboard, bases',
    openedOn: -4,
  }),
  sulfuric: lot({
    substanceId: 'sulfuric-acid',
    lotNumber: 'SU-0331',
    purity: '0.96',
    purityHalfWidth: '0.01',
    dissolved: { meaning: BY_MASS, densityGPerMl: '1.84' },
    amountReceived: '1000',
    store: 'fume cupboard, acids',
  }),
  oxalic: lot({
    ...REFERENCE,
    substanceId: 'oxalic-acid-dihydrate',
    lotNumber: 'OX-0912',
    purity: '0.9992',
    amountReceived: '100',
  }),
  carbonate: lot({
    ...REFERENCE,
    substanceId: 'sodium-carbonate',
    lotNumber: 'SC-1501',
    purity: '0.9996',
    amountReceived: '100',
  }),
  oxalate: lot({
    ...REFERENCE,
    substanceId: 'sodium-oxalate',
    lotNumber: 'SO-0618',
    purity: '0.9995',
    amountReceived: '100',
  }),
  benzoic: lot({
    ...REFERENCE,
    substanceId: 'benzoic-acid',
    lotNumber: 'BA-0340',
    purity: '0.9997',
    amountReceived: '50',
  }),
  iodate: lot({
    ...REFERENCE,
    substanceId: 'potassium-iodate',
    lotNumber: 'KI-0755',
    purity: '0.9994',
    amountReceived: '50',
  }),
  thiosulfate: lot({
    substanceId: 'sodium-thiosulfate-pentahydrate',
    lotNumber: 'TS-0428',
    purity: '0.995',
    purityHalfWidth: '0.005',
  }),
  iron: lot({
    ...REFERENCE,
    substanceId: 'ammonium-iron-ii-sulfate-hexahydrate',
    lotNumber: 'FE-0233',
    purity: '0.9985',
    purityHalfWidth: '0.001',
    amountReceived: '250',
    openedOn: -20,
  }),
  dichromate: lot({
    substanceId: 'potassium-dichromate',
    lotNumber: 'CR-0107',
    purity: '0.998',
    purityHalfWidth: '0.002',
    amountReceived: '100',
    store: 'cupboard 1, locked',
  }),
  permanganate: lot({
    substanceId: 'potassium-permanganate',
    lotNumber: 'PM-0204',
    purity: '0.99',
    purityHalfWidth: '0.005',
    amountReceived: '250',
    store: 'cupboard 1, oxidizers',
  }),
};

export const BALANCES: Readonly<Record<string, Plain<Dated<Balance, 'calibrationDue'>>>> = {
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

export const BURETTES: Readonly<Record<string, Plain<Dated<Burette, 'calibrationDue'>>>> = {
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

export const THERMOMETERS: Readonly<Record<string, Plain<Dated<Thermometer, 'calibrationDue'>>>> = {
  thermometer: {
    type: 'thermometer',
    name: 'Thermometer T1',
    resolutionK: '0.1',
    toleranceK: '0.3',
    calibrationDue: 240,
  },
};

/** What a service found of instruments before they came, by their keys. */
export const CALIBRATIONS: readonly (Dated<Plain<Calibration>, 'calibratedOn' | 'due'> & {
  readonly of: string;
})[] = [
  {
    of: 'piston20',
    calibratedOn: -125,
    due: 80,
    certificate: 'VG 2231, calibration service of the cooperatives',
    found: {
      kind: 'points',
      points: [
        { nominal: '4', deviation: '-0.004', expandedUncertainty: '0.004' },
        { nominal: '8', deviation: '-0.007', expandedUncertainty: '0.005' },
        { nominal: '12', deviation: '-0.009', expandedUncertainty: '0.005' },
        { nominal: '16', deviation: '-0.012', expandedUncertainty: '0.006' },
        { nominal: '20', deviation: '-0.011', expandedUncertainty: '0.006' },
      ],
    },
  },
  {
    of: 'thermometer',
    calibratedOn: -120,
    due: 240,
    certificate: 'VG 2238, calibration service of the cooperatives',
    found: {
      kind: 'points',
      points: [
        { nominal: '15', deviation: '-0.05', expandedUncertainty: '0.06' },
        { nominal: '20', deviation: '-0.08', expandedUncertainty: '0.06' },
        { nominal: '25', deviation: '-0.10', expandedUncertainty: '0.06' },
        { nominal: '30', deviation: '-0.12', expandedUncertainty: '0.08' },
      ],
    },
  },
];

function glassware(
  kind: Glassware['kind'],
  name: string,
  volumeMl: string,
  toleranceMl: string,
): Dated<Plain<Glassware>, 'calibrationDue'> {
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

export const GLASSWARE: Readonly<Record<string, Plain<Dated<Glassware, 'calibrationDue'>>>> = {
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
  /** Against a lot that is weighed, or the solution in a bottle; potassium hydrogen phthalate where nothing is said. */
  readonly method?: string;
  readonly against?:
    | { readonly lot: keyof typeof LOTS }
    | { readonly bottle: string; readonly pipette: keyof typeof GLASSWARE };
  /** Of which each flask gets an excess, for a back-titration. */
  readonly excess?: { readonly bottle: string; readonly pipette: keyof typeof GLASSWARE };
  /** Of the titrant, on the thermometer; 21.0 °C where nothing is said. */
  readonly temperatureC?: string;
  /** `half-done`: left on the bench after so many titrations. */
  readonly stopAfter?: number;
  /** Phthalate whose pH is followed, the rough titration excepted. */
  readonly electrode?: true;
  readonly incident?: 'bubble' | 'misread' | 'overshot' | 'brown' | 'read-twice';
  /** On a later day a mass turns out to have been copied wrongly: the certificate is withdrawn, and issued anew. */
  readonly putRight?: { readonly day: number; readonly flask: number; readonly byG: string };
}

/** One bottle: how it was made up and what happened to it since. */
export interface PlannedBottle {
  readonly code: string;
  readonly substanceId: string;
  readonly lot: keyof typeof LOTS;
  readonly container: Container;
  readonly nominalMolarity: string;
  readonly volumeMl: string;
  readonly preparedDay: number;
  readonly preparedBy: PersonKey;
  readonly note: string;
  /** How far the molarity really is from the label, in percent; the simulated titrations know it. */
  readonly offsetPercent: number;
  readonly series: readonly PlannedSeries[];
}

/** Hydroxide in plastic, which most of the titrants are. */
const HYDROXIDE = {
  substanceId: 'sodium-hydroxide',
  lot: 'pellets',
  container: 'plastic',
} as const;

/** Three months of titrants, days before today. */
export const BOTTLES: readonly PlannedBottle[] = [
  {
    ...HYDROXIDE,
    code: '0398',
    nominalMolarity: '0.1',
    volumeMl: '1000',
    preparedDay: -91,
    preparedBy: 'tobin',
    note: 'Titratable acidity of must and wine.',
    offsetPercent: 1.3,
    series: [
      { day: -89, by: 'tobin', certifiedBy: 'mirela', burette: 'glass50' },
      { day: -58, by: 'jasna', certifiedBy: 'mirela', burette: 'glass50', incident: 'misread' },
    ],
  },
  {
    ...HYDROXIDE,
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
    ...HYDROXIDE,
    code: '0409',
    nominalMolarity: '0.1',
    volumeMl: '2000',
    preparedDay: -45,
    preparedBy: 'tobin',
    note: 'Titratable acidity of must and wine.',
    offsetPercent: 0.9,
    series: [
      { day: -44, by: 'tobin', certifiedBy: 'mirela', burette: 'glass50', incident: 'bubble' },
      {
        day: -27,
        by: 'tobin',
        certifiedBy: 'jasna',
        burette: 'glass50',
        temperatureC: '24.6',
      },
    ],
  },
  {
    code: '0411',
    substanceId: 'potassium-dichromate',
    lot: 'dichromate',
    container: 'clear-glass',
    nominalMolarity: '0.0167',
    volumeMl: '500',
    preparedDay: -30,
    preparedBy: 'jasna',
    note: 'Ethanol by oxidation.',
    offsetPercent: 0.3,
    series: [],
  },
  {
    code: '0412',
    substanceId: 'sodium-thiosulfate-pentahydrate',
    lot: 'thiosulfate',
    container: 'brown-glass',
    nominalMolarity: '0.1',
    volumeMl: '1000',
    preparedDay: -24,
    preparedBy: 'jasna',
    note: 'Reducing sugar by copper.',
    offsetPercent: -0.6,
    series: [
      {
        day: -4,
        by: 'jasna',
        certifiedBy: 'mirela',
        burette: 'glass50',
        method: 'thiosulfate-by-iodate',
        against: { lot: 'iodate' },
        incident: 'overshot',
      },
    ],
  },
  {
    ...HYDROXIDE,
    code: '0413',
    nominalMolarity: '0.1',
    volumeMl: '1000',
    preparedDay: -20,
    preparedBy: 'mirela',
    note: 'Total sulfite after distillation.',
    offsetPercent: -1.1,
    series: [
      { day: -19, by: 'mirela', certifiedBy: 'jasna', burette: 'piston20', electrode: true },
      {
        day: -11,
        by: 'jasna',
        certifiedBy: 'mirela',
        burette: 'glass50',
        method: 'naoh-by-benzoic-acid',
        against: { lot: 'benzoic' },
      },
    ],
  },
  {
    code: '0414',
    substanceId: 'potassium-permanganate',
    lot: 'permanganate',
    container: 'brown-glass',
    nominalMolarity: '0.02',
    volumeMl: '1000',
    preparedDay: -16,
    preparedBy: 'tobin',
    note: 'Calcium as oxalate.',
    offsetPercent: 1.2,
    series: [
      {
        day: -3,
        by: 'tobin',
        certifiedBy: 'mirela',
        burette: 'glass50',
        method: 'permanganate-by-sodium-oxalate',
        against: { lot: 'oxalate' },
        incident: 'brown',
        putRight: { day: -2, flask: 2, byG: '0.0002' },
      },
    ],
  },
  {
    ...HYDROXIDE,
    code: '0416',
    nominalMolarity: '0.1',
    volumeMl: '2000',
    preparedDay: -9,
    preparedBy: 'jasna',
    note: 'Titratable acidity of must and wine.',
    offsetPercent: 2.1,
    series: [
      { day: -8, by: 'jasna', certifiedBy: 'mirela', burette: 'glass50', incident: 'misread' },
      {
        day: -5,
        by: 'tobin',
        certifiedBy: 'mirela',
        burette: 'glass50',
        method: 'naoh-by-oxalic-acid',
        against: { bottle: 'S021', pipette: 'pipette20' },
        incident: 'read-twice',
      },
    ],
  },
  {
    ...HYDROXIDE,
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
    code: '0419',
    substanceId: 'ammonia',
    lot: 'ammonia',
    container: 'plastic',
    nominalMolarity: '0.1',
    volumeMl: '500',
    preparedDay: -4,
    preparedBy: 'jasna',
    note: 'Control solution for nitrogen by distillation.',
    offsetPercent: -1.4,
    series: [
      {
        day: -2,
        by: 'jasna',
        certifiedBy: 'mirela',
        burette: 'glass50',
        method: 'ammonia-by-excess-of-acid',
        against: { bottle: '0416', pipette: 'pipette20' },
        excess: { bottle: '0415', pipette: 'pipette50' },
      },
    ],
  },
  {
    ...HYDROXIDE,
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

/** Titrants that were bought with their molarity, opened this week. */
export const BOUGHT_BOTTLES: readonly (Pick<
  PlannedBottle,
  'code' | 'substanceId' | 'lot' | 'container' | 'note'
> & {
  readonly molarity: string;
  readonly expandedUncertainty: string;
})[] = [
  {
    ...{ code: 'S030', substanceId: 'iodine', lot: 'iodineBought', container: 'brown-glass' },
    ...{ molarity: '0.01003', expandedUncertainty: '0.00003', note: 'Sulfur dioxide.' },
  },
  {
    ...{ code: 'S031', substanceId: 'disodium-edta-dihydrate', lot: 'edtaBought' },
    ...{ container: 'plastic', molarity: '0.01000', expandedUncertainty: '0.00002' },
    note: 'Hardness.',
  },
  {
    ...{ code: 'S032', substanceId: 'silver-nitrate', lot: 'silverBought' },
    ...{ container: 'brown-glass', molarity: '0.02001', expandedUncertainty: '0.00004' },
    note: 'Chloride.',
  },
  {
    ...{ code: 'S033', substanceId: 'potassium-dichromate', lot: 'dichromateBought' },
    ...{ container: 'brown-glass', molarity: '0.01668', expandedUncertainty: '0.00003' },
    note: 'Iron, ethanol.',
  },
];

/** Series on bottles that were made by guided preparation, with how far they really are from their label. */
export const FURTHER_SERIES: readonly {
  readonly bottle: Pick<
    PlannedBottle,
    'code' | 'nominalMolarity' | 'preparedDay' | 'offsetPercent'
  >;
  readonly series: PlannedSeries;
}[] = [
  {
    bottle: { code: '0415', nominalMolarity: '0.1', preparedDay: -12, offsetPercent: 1.4 },
    series: {
      day: -7,
      by: 'jasna',
      certifiedBy: 'mirela',
      burette: 'glass50',
      method: 'hydroxide-into-hydrochloric-acid',
      against: { bottle: '0416', pipette: 'pipette25' },
    },
  },
];

export const HEATERS: Readonly<Record<string, Plain<Heater>>> = {
  plate: {
    type: 'heater',
    name: 'Hot plate H1',
    kind: 'hot-plate',
    maxTemperatureC: '300',
    calibrationDue: null,
  },
  oven: {
    type: 'heater',
    name: 'Drying oven D1',
    kind: 'oven',
    maxTemperatureC: '250',
    calibrationDue: null,
  },
};

/** One guided preparation: how it is planned, and how far it has come. */
export interface PlannedPreparation {
  readonly day: number;
  readonly by: PersonKey;
  readonly plan: Pick<
    Plain<PreparationPlan>,
    'purpose' | 'soluteId' | 'targetMolarity' | 'volumeMl' | 'note'
  >;
  /** The keys of what it is made from and with. */
  readonly from:
    | {
        readonly weigh: string;
        readonly massG: string;
        readonly balance: string;
        readonly flask: string | null;
      }
    | { readonly concentrate: string; readonly takeMl: string; readonly cylinder: string };
  /** Steps that are done; the rest waits for whoever goes on. */
  readonly stopAt?: string;
  readonly code: string | null;
  readonly mishap?: { readonly at: string; readonly mishapId: string; readonly remark: string };
}

/** Standards for each arrangement, hydrochloric acid from its concentrate, a flask over-filled, and a standard on its way. */
export const PREPARATIONS: readonly PlannedPreparation[] = [
  {
    day: -12,
    by: 'jasna',
    plan: {
      purpose: 'titrant',
      soluteId: 'hydrochloric-acid',
      targetMolarity: '0.1',
      volumeMl: '1000',
      note: 'Ash alkalinity.',
    },
    from: { concentrate: 'hydrochloric', takeMl: '8.28', cylinder: 'cylinder10' },
    code: '0415',
  },
  {
    day: -9,
    by: 'jasna',
    plan: {
      purpose: 'standard',
      soluteId: 'sodium-carbonate',
      targetMolarity: '0.05',
      volumeMl: '250',
      note: 'For the acid, from the burette.',
    },
    from: { weigh: 'carbonate', massG: '1.3253', balance: 'analytical', flask: 'flask250' },
    code: 'S020',
  },
  {
    day: 0,
    by: 'tobin',
    plan: {
      purpose: 'standard',
      soluteId: 'ammonium-iron-ii-sulfate-hexahydrate',
      targetMolarity: '0.1',
      volumeMl: '250',
      note: 'Fresh, for permanganate and dichromate.',
    },
    from: { weigh: 'iron', massG: '9.8033', balance: 'analytical', flask: 'flask250' },
    code: 'S022',
  },
  {
    day: -6,
    by: 'tobin',
    plan: {
      purpose: 'standard',
      soluteId: 'oxalic-acid-dihydrate',
      targetMolarity: '0.05',
      volumeMl: '250',
      note: 'To check the hydroxide against a second standard.',
    },
    from: { weigh: 'oxalic', massG: '1.5771', balance: 'analytical', flask: 'flask250' },
    mishap: { at: 'to-mark', mishapId: 'over-filled', remark: 'The dropper slipped.' },
    code: null,
  },
  {
    day: -6,
    by: 'tobin',
    plan: {
      purpose: 'standard',
      soluteId: 'oxalic-acid-dihydrate',
      targetMolarity: '0.05',
      volumeMl: '250',
      note: 'To check the hydroxide against a second standard.',
    },
    from: { weigh: 'oxalic', massG: '1.5771', balance: 'analytical', flask: 'flask250' },
    code: 'S021',
  },
  {
    day: 0,
    by: 'mirela',
    plan: {
      purpose: 'standard',
      soluteId: 'sodium-carbonate',
      targetMolarity: '0.05',
      volumeMl: '250',
      note: 'For the acid 0415.',
    },
    from: { weigh: 'carbonate', massG: '1.3253', balance: 'analytical', flask: 'flask250' },
    stopAt: 'cool',
    code: null,
  },
];
