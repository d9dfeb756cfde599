import type { HouseRules } from '../../laboratory';
import type { Preparation, PreparationStep } from './entries';

const TEXTBOOK = 'common practice of volumetric analysis';

type Work = PreparationStep['work'];

function step(work: Work, text: string, waitMinutes: number | null = null): PreparationStep {
  return { work, text, waitMinutes };
}

const BOIL_WATER = [
  step('boil', 'Boil the water for five minutes to drive out carbon dioxide.', 5),
  step('cool', 'Let it cool, covered.', 45),
] as const;
const BOTTLE_AND_LABEL = [
  step('bottle', 'Fill it into its bottle, rinsed with a little of it.'),
  step('label', 'Label it at once.'),
] as const;
const TO_THE_MARK = [
  step('transfer', 'Rinse boat, funnel and neck into the flask: all of it.'),
  step('dissolve', 'Half fill the flask and dissolve by swirling, without a rod. Dissolved?'),
] as const;
const FILL_AND_MIX = [
  step('to-room-temperature', 'Let it come to room temperature.', 20),
  step('to-mark', 'Fill to the neck, then drop by drop to the mark, eye level with it.'),
  step('mix', 'Stopper it and turn it over many times. Mixed?'),
] as const;
const WEIGH = step('weigh', 'Weigh by difference or tared, near the target; write every digit.');
const COOL_IN_DESICCATOR = step('cool', 'Cool in the desiccator.', 30);
const PAST_THE_MARK = 'Past the mark means start again.';
const WATER_FIRST =
  'Water first, then the acid, slowly, in a fume cupboard, with goggles and gloves.';
const HOT_WATER =
  'Water heated in a microwave oven can erupt when it is moved; never stopper it hot.';

type Given = Omit<Preparation, 'solventId' | 'cautions' | 'source' | 'from' | 'additions'> &
  Partial<Preparation>;

function preparation(given: Given): Preparation {
  return {
    solventId: 'water',
    from: null,
    additions: [],
    cautions: [],
    source: TEXTBOOK,
    ...given,
  };
}

function weighedSteps(
  isDried: boolean,
  beforeTheMark: readonly PreparationStep[] = [],
): readonly PreparationStep[] {
  return [
    ...(isDried
      ? [step('dry', 'Dry the standard as the catalogue says.'), COOL_IN_DESICCATOR]
      : []),
    WEIGH,
    ...TO_THE_MARK,
    ...beforeTheMark,
    ...FILL_AND_MIX,
    ...BOTTLE_AND_LABEL,
  ];
}

/** A standard weighed into a volumetric flask, dried first where it is dried. */
function weighed(
  given: Omit<Given, 'route' | 'exactness' | 'steps'>,
  beforeTheMark: readonly PreparationStep[] = [],
  isDried = true,
): Preparation {
  return preparation({
    ...given,
    route: 'weighed',
    exactness: 'exact',
    steps: weighedSteps(isDried, beforeTheMark),
    cautions: [PAST_THE_MARK, ...(given.cautions ?? [])],
  });
}

/** Made up in a beaker with a cylinder: its molarity is nominal. */
function approximate(given: Omit<Given, 'exactness'>): Preparation {
  return preparation({ ...given, exactness: 'approximate' });
}

const ACID_INTO_WATER = [
  step('add', 'Most of the water into the beaker, first.'),
  step('measure', 'Measure the concentrate and add it to the water, slowly, stirring.'),
  step('to-room-temperature', 'Let it cool.', 20),
  step('mix', 'Make it up with water and stir. Mixed?'),
] as const;

const DILUTING = [
  step('measure', 'Rinse the pipette with the solution, poured into a small beaker; pipette.'),
  ...FILL_AND_MIX,
] as const;

/** The work that a kind of preparation takes where no recipe of its own is kept. */
export function usualSteps(
  kind: 'weighed-exactly' | 'weighed-roughly' | 'from-concentrate' | 'diluted' | 'volumes-added',
  isDried: boolean,
): readonly PreparationStep[] {
  switch (kind) {
    case 'weighed-exactly':
      return weighedSteps(isDried);
    case 'weighed-roughly':
      return [
        step('weigh', 'Weigh on the coarse balance.'),
        step('dissolve', 'Dissolve it in most of the water. Dissolved?'),
        step('to-room-temperature', 'Let it come to room temperature.', 20),
        step('mix', 'Make it up with water and stir. Mixed?'),
        ...BOTTLE_AND_LABEL,
      ];
    case 'from-concentrate':
      return [...ACID_INTO_WATER, ...BOTTLE_AND_LABEL];
    case 'diluted':
      return [...DILUTING, ...BOTTLE_AND_LABEL];
    case 'volumes-added':
      return [
        step('measure', 'Measure solution and water by cylinder: they are added together.'),
        step('mix', 'Stir. Mixed?'),
        ...BOTTLE_AND_LABEL,
      ];
  }
}

/** The work of a preparation with its water freed of carbon dioxide in another way than by boiling. */
export function withWaterBy(
  steps: readonly PreparationStep[],
  carbonDioxide: HouseRules['carbonDioxide'],
): readonly PreparationStep[] {
  const boiling = steps.findIndex(({ work }) => work === 'boil');
  if (carbonDioxide === 'boiled' || boiling < 0) return steps;
  const isCooled = steps[boiling + 1]?.work === 'cool';
  return [
    ...steps.slice(0, boiling),
    ...(carbonDioxide === 'fresh'
      ? [step('draw', 'Draw the water fresh from the deionizer, and keep it covered.')]
      : []),
    ...steps.slice(boiling + (isCooled ? 2 : 1)),
  ];
}

/** The work of a preparation in a beaker, made up to the mark of a flask once all is dissolved or measured. */
export function intoFlask(steps: readonly PreparationStep[]): readonly PreparationStep[] {
  const last = steps.findLastIndex(({ work }) => work === 'dissolve' || work === 'measure');
  const isDoneInFlask = ({ work }: PreparationStep): boolean =>
    work === 'to-room-temperature' || work === 'mix';
  return [
    ...steps.slice(0, last + 1),
    step('transfer', 'Rinse all of it into the flask.'),
    ...FILL_AND_MIX,
    ...steps.slice(last + 1).filter((one) => !isDoneInFlask(one)),
  ];
}

/** The work of a preparation whose steps are not here: only what the figures rest on is written down. */
export function stepsByProcedure(
  measured: 'weigh' | 'measure',
  isExact: boolean,
): readonly PreparationStep[] {
  return [
    measured === 'weigh' ? WEIGH : step('measure', 'Measure it as your procedure says.'),
    step('procedure', 'Follow your laboratory’s written procedure.'),
    ...(isExact ? [step('to-room-temperature', 'Note its temperature at the mark.')] : []),
    ...BOTTLE_AND_LABEL,
  ];
}

/** An indicator made up as the catalogue says. */
export const INDICATOR_STEPS: readonly PreparationStep[] = [
  step('dissolve', 'Dissolve it. Dissolved?'),
  ...BOTTLE_AND_LABEL,
];

/** Ways to make the solutions that a laboratory keeps; usual molarities and volumes, to be changed at will. */
export const PREPARATIONS: readonly Preparation[] = [
  weighed({
    id: 'sodium-chloride-by-weighing',
    name: 'sodium chloride, or any salt, weighed',
    soluteId: 'sodium-chloride',
    molarityMolPerL: 2,
    volumeMl: 250,
  }),
  preparation({
    id: 'salt-diluted',
    name: 'a standard solution diluted by pipette and flask',
    soluteId: 'sodium-chloride',
    route: 'from-solution',
    exactness: 'exact',
    molarityMolPerL: 0.4,
    volumeMl: 250,
    from: { kind: 'stock', molarityMolPerL: 2 },
    steps: [
      step('measure', 'Rinse the pipette with the stock, poured into a small beaker; pipette.'),
      ...FILL_AND_MIX,
      ...BOTTLE_AND_LABEL,
    ],
    cautions: ['Never pipette by mouth.', PAST_THE_MARK],
  }),
  approximate({
    id: 'hydrochloric-acid-from-concentrate',
    name: 'hydrochloric acid from the concentrate',
    soluteId: 'hydrochloric-acid',
    route: 'from-solution',
    molarityMolPerL: 0.1,
    volumeMl: 1000,
    from: { kind: 'concentrate', concentrateId: 'hydrochloric-acid-37-percent' },
    steps: [...ACID_INTO_WATER, ...BOTTLE_AND_LABEL],
    cautions: [WATER_FIRST],
  }),
  approximate({
    id: 'sodium-hydroxide-from-concentrate',
    name: 'sodium hydroxide from the 50 % solution',
    soluteId: 'sodium-hydroxide',
    route: 'from-solution',
    molarityMolPerL: 0.1,
    volumeMl: 1000,
    from: { kind: 'concentrate', concentrateId: 'sodium-hydroxide-50-percent' },
    steps: [
      step('stand', 'Let the 50 % solution stand until its carbonate has settled.', 7 * 24 * 60),
      ...BOIL_WATER,
      step(
        'measure',
        'Is its percentage by mass (about 19 mol/L) or by volume (12.5 mol/L)? Take the clear liquid.',
      ),
      step('mix', 'Stir it into the cold water. Mixed?'),
      ...BOTTLE_AND_LABEL,
    ],
    cautions: ['Hydroxide on the eyes is worse than acid: goggles.', HOT_WATER],
  }),
  approximate({
    id: 'sodium-hydroxide-from-pellets',
    name: 'sodium hydroxide from pellets',
    soluteId: 'sodium-hydroxide',
    route: 'weighed',
    molarityMolPerL: 0.1,
    volumeMl: 1000,
    steps: [
      ...BOIL_WATER,
      step(
        'weigh',
        'Weigh quickly on the coarse balance: pellets take up water and carbon dioxide.',
      ),
      step('dissolve', 'Add them to the water in small portions, stirring. Dissolved?'),
      step('to-room-temperature', 'Let it come to room temperature, covered.', 30),
      ...BOTTLE_AND_LABEL,
    ],
    cautions: ['Hydroxide on the eyes is worse than acid: goggles.', HOT_WATER],
  }),
  approximate({
    id: 'sodium-hydroxide-by-volumes-added',
    name: 'sodium hydroxide from 6 mol/L stock, volumes added',
    soluteId: 'sodium-hydroxide',
    route: 'volumes-added',
    molarityMolPerL: 0.3,
    volumeMl: 400,
    from: { kind: 'stock', molarityMolPerL: 6 },
    steps: [
      ...BOIL_WATER,
      step(
        'measure',
        'Measure stock and water by cylinder; they are added, not made up to a mark.',
      ),
      step('mix', 'Stir. Mixed?'),
      ...BOTTLE_AND_LABEL,
    ],
    cautions: ['Hydroxide on the eyes is worse than acid: goggles.', HOT_WATER],
  }),
  approximate({
    id: 'potassium-permanganate-from-stock',
    name: 'potassium permanganate from 0.2 mol/L stock, by cylinder',
    soluteId: 'potassium-permanganate',
    route: 'from-solution',
    molarityMolPerL: 0.02,
    volumeMl: 100,
    from: { kind: 'stock', molarityMolPerL: 0.2 },
    steps: [
      step('measure', 'Measure the stock by cylinder, make it up with water.'),
      step('mix', 'Stir. Mixed?'),
      ...BOTTLE_AND_LABEL,
    ],
    cautions: ['It stains: paper on the bench.'],
  }),
  approximate({
    id: 'potassium-permanganate-from-solid',
    name: 'potassium permanganate from the solid',
    soluteId: 'potassium-permanganate',
    route: 'weighed',
    molarityMolPerL: 0.02,
    volumeMl: 1000,
    steps: [
      step('weigh', 'Weigh on the coarse balance.'),
      step('dissolve', 'Dissolve in water. Dissolved?'),
      step('stand', 'Boil gently for an hour, or let it stand overnight.', 12 * 60),
      step('filter', 'Filter through sintered glass, never paper.'),
      ...BOTTLE_AND_LABEL,
    ],
    cautions: ['It stains, and oxidizes organic matter: paper on the bench.'],
  }),
  weighed(
    {
      id: 'oxalic-acid-standard',
      name: 'oxalic acid standard',
      soluteId: 'oxalic-acid-dihydrate',
      molarityMolPerL: 0.05,
      volumeMl: 250,
    },
    [],
    false,
  ),
  weighed({
    id: 'sodium-carbonate-standard',
    name: 'sodium carbonate standard',
    soluteId: 'sodium-carbonate',
    molarityMolPerL: 0.05,
    volumeMl: 250,
  }),
  weighed({
    id: 'khp-standard',
    name: 'potassium hydrogen phthalate standard',
    soluteId: 'potassium-hydrogen-phthalate',
    molarityMolPerL: 0.1,
    volumeMl: 250,
  }),
  weighed(
    {
      id: 'iron-ii-standard',
      name: 'ammonium iron(II) sulfate standard',
      soluteId: 'ammonium-iron-ii-sulfate-hexahydrate',
      molarityMolPerL: 0.1,
      volumeMl: 250,
      additions: [{ what: '1 mol/L sulfuric acid', volumeMl: 20 }],
    },
    [step('add', 'Sulfuric acid before the mark, against hydrolysis and air.')],
    false,
  ),
  ...[
    [100, 'ten'],
    [250, 'twenty-five'],
  ].map(([flaskMl, times]) =>
    preparation({
      id: `sample-diluted-${String(times)}-times`,
      name: `a sample or a nominal 1 mol/L acid diluted ${String(times)} times`,
      soluteId: 'hydrochloric-acid',
      route: 'from-solution',
      exactness: 'exact',
      molarityMolPerL: 10 / Number(flaskMl),
      volumeMl: Number(flaskMl),
      from: { kind: 'stock', molarityMolPerL: 1 },
      steps: [
        step('measure', 'Pipette into the flask; the factor is carried into the result.'),
        ...FILL_AND_MIX,
        ...BOTTLE_AND_LABEL,
      ],
      cautions: ['Never pipette by mouth.', PAST_THE_MARK],
    }),
  ),
  ...[3, 1].map((molarityMolPerL) =>
    approximate({
      id: `sulfuric-acid-${String(molarityMolPerL)}-molar`,
      name: `sulfuric acid ${String(molarityMolPerL)} mol/L, auxiliary`,
      soluteId: 'sulfuric-acid',
      route: 'from-solution',
      molarityMolPerL,
      volumeMl: 500,
      from: { kind: 'concentrate', concentrateId: 'sulfuric-acid-96-percent' },
      steps: [...ACID_INTO_WATER, ...BOTTLE_AND_LABEL],
      cautions: [WATER_FIRST, 'Much heat: a beaker in cold water, a thin stream.'],
    }),
  ),
  approximate({
    id: 'acid-mixture',
    name: 'mixture of sulfuric and phosphoric acid, auxiliary',
    soluteId: 'sulfuric-acid',
    route: 'from-solution',
    molarityMolPerL: 2.7,
    volumeMl: 1000,
    from: { kind: 'concentrate', concentrateId: 'sulfuric-acid-96-percent' },
    additions: [{ what: '85 % phosphoric acid', volumeMl: 150 }],
    steps: [...ACID_INTO_WATER, step('add', 'Phosphoric acid, stirring.'), ...BOTTLE_AND_LABEL],
    cautions: [WATER_FIRST, 'Much heat: a beaker in cold water, a thin stream.'],
  }),
];
