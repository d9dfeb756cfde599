import type { HouseRules } from '../../laboratory';
import type { Addition, Preparation, PreparationStep } from './entries';

/**
 * The edition of the recipes that new preparations follow. A preparation keeps to the edition that it was begun with, so that
 * its record shows the steps that were followed.
 */
export const RECIPE_EDITION = 2;

const TEXTBOOK = 'common practice of volumetric analysis';

type Work = PreparationStep['work'];

/** A piece of work, and for how long one waits at it. */
export function step(work: Work, text: string, waitMinutes: number | null = null): PreparationStep {
  return { work, text, waitMinutes };
}

const BOIL_WATER = [
  step('boil', 'Boil the water for five minutes to drive out carbon dioxide.', 5),
  step('cool', 'Let it cool, covered.', 45),
] as const;

/** Into a bottle of its own kind, and labelled. */
function bottled(text: string): readonly PreparationStep[] {
  return [step('bottle', text), step('label', 'Label it at once.')];
}

export const BOTTLE_AND_LABEL = bottled(
  'Rinse its bottle with a little of it, then fill. What is left over is waste.',
);
const TO_THE_MARK = [
  step(
    'transfer',
    'Look at funnel and flask: clean glass wets evenly. Rinse boat, funnel and neck into the flask: all of it.',
  ),
  step('dissolve', 'Half fill the flask and dissolve by swirling, without a rod. Dissolved?'),
] as const;
const FILL_AND_MIX = [
  step('to-room-temperature', 'Let it come to room temperature.', 20),
  step(
    'to-mark',
    'Take the funnel out. Fill to the neck, then drop by drop to the mark, with the eye level with it.',
  ),
  step(
    'mix',
    'Stopper it, turn it over, and open it once to let gas out. Then turn it over many times. Mixed?',
  ),
] as const;
const WEIGH = step('weigh', 'Weigh by difference or tared, near the target; write every digit.');
const COOL_IN_DESICCATOR = step('cool', 'Cool in the desiccator.', 30);
const PAST_THE_MARK = 'Past the mark means start again.';
const WATER_FIRST =
  'Water first, then the acid, slowly, in a fume cupboard, with goggles and gloves.';
const HOT_WATER =
  'Water heated in a microwave oven can erupt when it is moved; never stopper it hot.';

type Given = Omit<
  Preparation,
  'solventId' | 'cautions' | 'source' | 'from' | 'additions' | 'sinceEdition'
> &
  Partial<Preparation>;

function preparation(given: Given): Preparation {
  return {
    solventId: 'water',
    from: null,
    additions: [],
    cautions: [],
    sinceEdition: 1,
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

/** Something that grows with the volume only. */
function volumeOf(what: string, volumeMl: number): Addition {
  return { what, volumeMl, growsWithSolute: false };
}

/** A solid, or a concentrate, is never taken from its bottle with the pipette. */
const POUR_SOME = 'Pour a little more than that into a small beaker; what is left there is waste.';

const ACID_INTO_WATER = [
  step('add', 'Put most of the water into the beaker first.'),
  step('measure', `${POUR_SOME} Measure the concentrate and add it to the water slowly, stirring.`),
  step('to-room-temperature', 'Let it cool.', 20),
  step('mix', 'Make it up with water and stir. Mixed?'),
] as const;

const DILUTING = [
  step(
    'measure',
    'Pour some of the solution into a small beaker, never the pipette into the bottle. Rinse the pipette with it twice, then pipette. What is left there is waste.',
  ),
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
    step('transfer', 'Rinse all of it into the flask with the same solvent.'),
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

function hydroxideFromSolid(
  given: Pick<Preparation, 'id' | 'name' | 'soluteId' | 'sinceEdition'>,
): Preparation {
  return approximate({
    ...given,
    route: 'weighed',
    molarityMolPerL: 0.1,
    volumeMl: 1000,
    steps: [
      ...BOIL_WATER,
      step(
        'weigh',
        'Weigh quickly on the coarse balance: it takes up water and carbon dioxide from the air.',
      ),
      step('dissolve', 'Add it to the water in small portions, stirring. Dissolved?'),
      step('to-room-temperature', 'Let it come to room temperature, covered.', 30),
      ...BOTTLE_AND_LABEL,
    ],
    cautions: ['Hydroxide on the eyes is worse than acid: goggles.', HOT_WATER],
  });
}

/** What reduces permanganate in the water is used up before the filtering; manganese dioxide would go on with it. */
function permanganateFromSolid(
  id: string,
  name: string,
  sinceEdition: number,
  usingUp: readonly PreparationStep[],
): Preparation {
  return approximate({
    id,
    name,
    soluteId: 'potassium-permanganate',
    route: 'weighed',
    molarityMolPerL: 0.02,
    volumeMl: 1000,
    sinceEdition,
    steps: [
      step('weigh', 'Weigh on the coarse balance, onto a watch glass, not onto paper.'),
      step(
        'dissolve',
        'Dissolve it in water, stirring long: crystals hide in the dark. Dissolved?',
      ),
      ...usingUp,
      step('filter', 'Filter it through sintered glass, never paper. Its age counts from now.'),
      ...bottled('Fill it into a clean brown bottle, rinsed with a little of it.'),
    ],
    cautions: ['It stains, and oxidizes organic matter: paper on the bench, none in the flask.'],
  });
}

/**
 * Acetic anhydride for the water that 8.6 mL of 70 % perchloric acid bring into a litre: 4.3 g of water take up 24 g of
 * anhydride, which are 22 mL.
 */
const ANHYDRIDE: Addition = {
  what: 'acetic anhydride',
  volumeMl: 22,
  growsWithSolute: true,
};

/** Sulfuric acid for 1 mol/L in a litre, from 96 % of 1.84 g/mL. */
const SULFURIC_FOR_ONE_MOLAR = volumeOf('96 % sulfuric acid', 56);

const FROM_COVERED_BEAKER = step(
  'transfer',
  'Look at funnel and flask: clean glass wets evenly. Rinse watch glass, beaker, funnel and neck into the flask: all of it.',
);

/** What water alone does not dissolve, or does not keep. */
const SOLUTIONS_WITH_MORE_THAN_WATER: readonly Preparation[] = [
  preparation({
    id: 'calcium-carbonate-standard',
    name: 'calcium standard, calcium carbonate in acid',
    soluteId: 'calcium-carbonate',
    route: 'weighed',
    exactness: 'exact',
    molarityMolPerL: 0.01,
    volumeMl: 250,
    sinceEdition: 2,
    // Twice the acid that 2.5 mmol of carbonate take.
    additions: [{ what: '6 mol/L hydrochloric acid', volumeMl: 1.7, growsWithSolute: true }],
    steps: [
      step('dry', 'Dry the standard as the catalogue says.'),
      COOL_IN_DESICCATOR,
      step('weigh', 'Weigh by difference or tared, into a beaker; write every digit.'),
      step(
        'add',
        'Wet the solid with water and cover the beaker with a watch glass. Add acid in drops past its edge until nothing froths, then the rest.',
      ),
      step('heat', 'Boil it gently to drive the carbon dioxide out.', 5),
      step('cool', 'Let it cool, covered.', 30),
      FROM_COVERED_BEAKER,
      ...FILL_AND_MIX,
      ...BOTTLE_AND_LABEL,
    ],
    cautions: [PAST_THE_MARK, 'It froths: acid in drops, and never in a closed flask.'],
  }),
  preparation({
    id: 'zinc-standard',
    name: 'zinc standard, the metal in acid',
    soluteId: 'zinc',
    route: 'weighed',
    exactness: 'exact',
    molarityMolPerL: 0.01,
    volumeMl: 250,
    sinceEdition: 2,
    // Four times the acid that 2.5 mmol of zinc take, or the last of it dissolves too slowly.
    additions: [{ what: '6 mol/L hydrochloric acid', volumeMl: 3.4, growsWithSolute: true }],
    steps: [
      step(
        'weigh',
        'Etch the metal with a little dilute acid, rinse it with water and then ethanol, and dry it. Weigh it into a beaker; write every digit.',
      ),
      step(
        'add',
        'In the fume cupboard, away from flames: cover the beaker with a watch glass and add acid past its edge. Hydrogen comes off.',
      ),
      step('dissolve', 'Warm it a little until no metal is left. Dissolved?'),
      FROM_COVERED_BEAKER,
      ...FILL_AND_MIX,
      ...BOTTLE_AND_LABEL,
    ],
    cautions: [PAST_THE_MARK, 'Hydrogen comes off: no flame, no spark; ventilate.'],
  }),
  approximate({
    id: 'perchloric-acid-in-acetic-acid',
    name: 'perchloric acid in glacial acetic acid',
    soluteId: 'perchloric-acid',
    route: 'from-solution',
    molarityMolPerL: 0.1,
    volumeMl: 1000,
    from: { kind: 'concentrate', concentrateId: 'perchloric-acid-70-percent' },
    solventId: 'glacial-acetic-acid',
    sinceEdition: 2,
    additions: [ANHYDRIDE],
    steps: [
      step(
        'add',
        'In the fume cupboard: put most of the glacial acetic acid into a dry flask that stands in cold water.',
      ),
      step(
        'measure',
        'Measure the perchloric acid with dry glass and add it slowly, stirring. Rinse what spills with much water at once; no paper.',
      ),
      step('to-room-temperature', 'Let it cool to 20 °C.', 30),
      step(
        'add',
        'Only into this diluted, cold mixture, never to the perchloric acid itself: add anhydride drop by drop, stirring and cooling. It stays at or below 25 °C.',
      ),
      step('mix', 'Make it up with glacial acetic acid and stir. Mixed?'),
      step('stand', 'Let it stand for a day, closed, at no more than 25 °C.', 24 * 60),
      step(
        'procedure',
        'Check its water as your procedure says; add a little anhydride where too much is left, a drop of water where none is.',
      ),
      ...BOTTLE_AND_LABEL,
    ],
    cautions: ['Never put acetic anhydride and strong perchloric acid together by themselves.'],
  }),
  approximate({
    id: 'iodine-with-iodide',
    name: 'iodine in potassium iodide',
    soluteId: 'iodine',
    route: 'weighed',
    molarityMolPerL: 0.05,
    volumeMl: 1000,
    sinceEdition: 2,
    additions: [{ what: 'potassium iodide', massG: 40, growsWithSolute: true }],
    steps: [
      step('add', 'Put iodide into the beaker, and only as much water as just dissolves it.'),
      step(
        'weigh',
        'Weigh the iodine on the coarse balance in a closed weighing bottle: its vapour attacks balances.',
      ),
      step(
        'dissolve',
        'Stir it into the strong iodide solution, in the fume cupboard. It dissolves slowly there and hardly at all once diluted. Dissolved?',
      ),
      step('mix', 'Only then make it up with water and stir. Mixed?'),
      ...bottled('Fill it into a brown bottle and close it tightly.'),
    ],
    cautions: ['Iodine vapour irritates and stains: fume cupboard, gloves.'],
  }),
  approximate({
    id: 'cerium-iv-in-sulfuric-acid',
    name: 'cerium(IV) in sulfuric acid',
    soluteId: 'ammonium-cerium-iv-sulfate-dihydrate',
    route: 'weighed',
    molarityMolPerL: 0.1,
    volumeMl: 1000,
    sinceEdition: 2,
    additions: [SULFURIC_FOR_ONE_MOLAR],
    steps: [
      step('weigh', 'Weigh on the coarse balance.'),
      step(
        'add',
        'Put half of the water into a beaker that stands in cold water. Add acid to it slowly, stirring.',
      ),
      step(
        'dissolve',
        'Stir the salt into the warm acid: in water alone it would hydrolyse. Dissolved?',
      ),
      step('to-room-temperature', 'Let it come to room temperature.', 60),
      step('mix', 'Make it up with water and stir. Mixed?'),
      step('filter', 'Filter it through sintered glass where it is turbid.'),
      ...BOTTLE_AND_LABEL,
    ],
    cautions: [WATER_FIRST],
  }),
  approximate({
    id: 'sodium-thiosulfate-from-crystals',
    name: 'sodium thiosulfate with a stabilizer',
    soluteId: 'sodium-thiosulfate-pentahydrate',
    route: 'weighed',
    molarityMolPerL: 0.1,
    volumeMl: 1000,
    sinceEdition: 2,
    additions: [{ what: 'sodium carbonate', massG: 0.1, growsWithSolute: false }],
    steps: [
      // Whatever the house rule for bases says: bacteria live in water that was not boiled.
      step('heat', 'Boil the water for five minutes.', 5),
      step('cool', 'Let it cool, covered.', 45),
      step('weigh', 'Weigh on the coarse balance.'),
      step('dissolve', 'Dissolve it in the boiled, cold water. Dissolved?'),
      step('add', 'Add the stabilizer: acid and bacteria decompose thiosulfate.'),
      step('mix', 'Make it up with the boiled water and stir. Mixed?'),
      ...bottled('Fill it into a clean brown bottle.'),
    ],
    cautions: [HOT_WATER],
  }),
  approximate({
    id: 'silver-nitrate-in-brown-glass',
    name: 'silver nitrate in brown glass',
    soluteId: 'silver-nitrate',
    route: 'weighed',
    molarityMolPerL: 0.1,
    volumeMl: 1000,
    sinceEdition: 2,
    steps: [
      step('weigh', 'Weigh it into a glass boat, with gloves; no metal spatula.'),
      step('dissolve', 'Dissolve it in water that is free of chloride: it stays clear. Dissolved?'),
      step('mix', 'Make it up with that water and stir. Mixed?'),
      ...bottled('Fill it into a brown bottle, away from light.'),
    ],
    cautions: ['It burns, and blackens skin and cloth: gloves.'],
  }),
  approximate({
    id: 'edta-from-disodium-salt',
    name: 'EDTA from its disodium salt',
    soluteId: 'disodium-edta-dihydrate',
    route: 'weighed',
    molarityMolPerL: 0.01,
    volumeMl: 1000,
    sinceEdition: 2,
    steps: [
      step('weigh', 'Weigh on the coarse balance.'),
      step('dissolve', 'Dissolve it in warm water, stirring: it is slow. Dissolved?'),
      step(
        'add',
        'Where calcium alone will be titrated: a little magnesium chloride, about 0.1 g for each litre, before it is standardized. The indicator needs it to change sharply. Leave it out otherwise.',
      ),
      step('to-room-temperature', 'Let it come to room temperature.', 20),
      step('mix', 'Make it up with water and stir. Mixed?'),
      step('bottle', 'Fill it into a plastic bottle: glass gives off calcium.'),
      step('label', 'Label it at once; say so where it holds magnesium.'),
    ],
  }),
  approximate({
    id: 'iron-ii-sulfate-in-acid',
    name: 'iron(II) sulfate in dilute acid',
    soluteId: 'iron-ii-sulfate-heptahydrate',
    route: 'weighed',
    molarityMolPerL: 0.1,
    volumeMl: 250,
    sinceEdition: 2,
    additions: [volumeOf('1 mol/L sulfuric acid', 20)],
    steps: [
      step('weigh', 'Weigh on the coarse balance.'),
      step('add', 'Add acid to most of the water first, against hydrolysis and air.'),
      step('dissolve', 'Dissolve the salt in it. Dissolved?'),
      step('mix', 'Make it up with water and stir. Mixed?'),
      ...BOTTLE_AND_LABEL,
    ],
  }),
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
    steps: [...DILUTING, ...BOTTLE_AND_LABEL],
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
  hydroxideFromSolid({
    ...{ id: 'sodium-hydroxide-from-pellets', soluteId: 'sodium-hydroxide' },
    ...{ name: 'sodium hydroxide from pellets', sinceEdition: 1 },
  }),
  hydroxideFromSolid({
    ...{ id: 'potassium-hydroxide-from-pellets', soluteId: 'potassium-hydroxide' },
    ...{ name: 'potassium hydroxide from pellets', sinceEdition: 2 },
  }),
  hydroxideFromSolid({
    ...{
      id: 'lithium-hydroxide-monohydrate-from-crystals',
      soluteId: 'lithium-hydroxide-monohydrate',
    },
    ...{ name: 'lithium hydroxide from crystals', sinceEdition: 2 },
  }),
  approximate({
    id: 'sodium-hydroxide-concentrated',
    name: 'sodium hydroxide, concentrated, for its carbonate to settle',
    soluteId: 'sodium-hydroxide',
    route: 'weighed',
    molarityMolPerL: 19,
    volumeMl: 100,
    sinceEdition: 2,
    steps: [
      ...BOIL_WATER,
      step('weigh', 'Weigh on the coarse balance, into a plastic beaker.'),
      step(
        'dissolve',
        'Stand the beaker in cold water. Add the pellets in small portions, stirring: it becomes very hot. Dissolved?',
      ),
      step('to-room-temperature', 'Let it come to room temperature, covered.', 60),
      step('bottle', 'Fill it into a plastic bottle and close it tightly.'),
      step('label', 'Label it at once, with the day from which it is clear.'),
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
      step('measure', `${POUR_SOME} Measure the stock by cylinder and make it up with water.`),
      step('mix', 'Stir. Mixed?'),
      ...BOTTLE_AND_LABEL,
    ],
    cautions: ['It stains: paper on the bench.'],
  }),
  permanganateFromSolid(
    'potassium-permanganate-from-solid',
    'potassium permanganate from the solid, left to stand',
    1,
    [step('stand', 'Let it stand overnight in the dark, covered.', 12 * 60)],
  ),
  permanganateFromSolid(
    'potassium-permanganate-boiled',
    'potassium permanganate from the solid, boiled',
    2,
    [
      step('heat', 'Boil it gently for an hour under a watch glass; replace the water lost.', 60),
      step('cool', 'Let it cool, covered.', 60),
    ],
  ),
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
      additions: [volumeOf('1 mol/L sulfuric acid', 20)],
    },
    [step('add', 'Add acid before the mark, against hydrolysis and air.')],
    false,
  ),
  ...SOLUTIONS_WITH_MORE_THAN_WATER,
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
        step(
          'measure',
          'Rinse the pipette twice with a little of it, poured into a small beaker. Pipette into the flask; the factor is carried into the result.',
        ),
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
    additions: [volumeOf('85 % phosphoric acid', 150)],
    steps: [
      ...ACID_INTO_WATER,
      step('add', 'Add the second acid slowly, stirring.'),
      ...BOTTLE_AND_LABEL,
    ],
    cautions: [WATER_FIRST, 'Much heat: a beaker in cold water, a thin stream.'],
  }),
];
