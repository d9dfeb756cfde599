import type { Determination, Dilution, Known, TitrationReplicate } from '../determination';
import type { Expression } from '../measurement';
import { coherentValue, exact, figureText, product, UNITS } from '../measurement';
import { readingSlips } from '../slip';
import { slipQuestion } from '../wording';

/** What a run found and what it ought to have found, as far as hypotheses may change it. */
export interface Suspected {
  readonly determination: Determination;
  readonly replicates: readonly TitrationReplicate[];
  /** Molarity by the label, an earlier standardization, or a second standard. */
  readonly expectedMolPerL: number;
}

/** What is known beside the run and makes further hypotheses possible. */
export interface Surroundings {
  /** Forms for which the standard may have been taken. */
  readonly otherForms: readonly { readonly name: string; readonly molarMassGPerMol: number }[];
  /** nu by the balanced equation, where another one may have been used: moles of titrant to a mole of standard. */
  readonly balancedRatio: number | null;
  /** Density of the concentrate from which the titrant was made, g/mL. */
  readonly concentrateDensityGPerMl: number | null;
  /** Factor of a dilution in the preparation of the titrant. */
  readonly titrantDilutionFactor: number | null;
  /** What the empty vessel weighs, g. */
  readonly tareG: number | null;
  /** Of the excess in each flask, for a back-titration. */
  readonly excessMl: number | null;
  readonly buretteCapacityMl: number;
  readonly readingDecimals: number;
  /** Molarities of the same bottle found before, oldest first. */
  readonly history: readonly number[];
}

/** The entry that a hypothesis suspects, and what it would then have been. */
export interface Suspect {
  /** Null when all replicates are concerned. */
  readonly replicateId: string | null;
  readonly entry:
    | 'initial-reading'
    | 'final-reading'
    | 'mass'
    | 'aliquot'
    | 'molar-mass'
    | 'mole-ratio'
    | 'dilution'
    | 'label'
    | 'standard'
    | 'titrant'
    | 'burette';
  readonly meant: number | null;
}

/** One way in which a hypothesis would change the inputs. */
interface Variant {
  readonly suspected: Suspected;
  readonly suspects: readonly Suspect[];
  /** What would have happened, as a clause. */
  readonly detail: string;
}

export interface Hypothesis {
  readonly id: string;
  readonly name: string;
  readonly check: string;
  /** How often it is met, against the others; a number that a free size makes smaller. */
  readonly weight: number;
  readonly variants: (suspected: Suspected, surroundings: Surroundings) => readonly Variant[];
}

/** So many times the excess, as it was measured or as a blank gives it. */
function withExcess(suspected: Suspected, share: number): Suspected {
  const { determination } = suspected;
  const { excess, blank } = determination;
  const scaled = (volume: Expression): Expression => product([exact(share), volume]);
  if (excess) {
    const changed = { ...excess, volume: scaled(excess.volume) };
    return { ...suspected, determination: { ...determination, excess: changed } };
  }
  if (blank.kind !== 'gives-the-excess') return suspected;
  const changed = { ...blank, volume: scaled(blank.volume) };
  return { ...suspected, determination: { ...determination, blank: changed } };
}

/** A change of what is known, where that is a kind that the change is about. */
function withKnown<Kind extends Known['kind']>(
  suspected: Suspected,
  known: Extract<Known, { readonly kind: Kind }>,
  change: Partial<Extract<Known, { readonly kind: Kind }>>,
): Suspected {
  // The kind stays, so that what may stand in the burette goes on doing so.
  const determination = { ...suspected.determination, known: { ...known, ...change } };
  return { ...suspected, determination: determination as Determination };
}

function withRatio(suspected: Suspected, ratio: number): Suspected {
  const determination = { ...suspected.determination, soughtPerKnown: exact(ratio) };
  return { ...suspected, determination };
}

/** Moles of titrant to a mole of standard, as they were taken. */
function ratioOf({ determination }: Suspected): number {
  return coherentValue(determination.soughtPerKnown);
}

/** Two ratios of small whole numbers are the same or far apart. */
function isSameRatio(a: number, b: number): boolean {
  return Math.abs(a / b - 1) < 1e-9;
}

/** Whether the ratio in use is that of the balanced equation, so that it cannot be at fault. */
function isRatioBalanced(suspected: Suspected, { balancedRatio }: Surroundings): boolean {
  return balancedRatio !== null && isSameRatio(balancedRatio, ratioOf(suspected));
}

function withReplicate(
  suspected: Suspected,
  index: number,
  change: (replicate: TitrationReplicate) => TitrationReplicate,
): Suspected {
  return {
    ...suspected,
    replicates: suspected.replicates.map((one, i) => (i === index ? change(one) : one)),
  };
}

const all = (entry: Suspect['entry'], meant: number | null): readonly Suspect[] => [
  { replicateId: null, entry, meant },
];

/** Sizes in which pipettes come, mL. */
const PIPETTES_ML = [1, 2, 5, 10, 15, 20, 25, 50, 100];

/** Mole ratios of volumetric analysis other than one to one. */
const COMMON_RATIOS = [2, 1 / 2, 5, 1 / 5, 6, 1 / 6, 2 / 5, 5 / 2, 3];

function ratioVariants(
  suspected: Suspected,
  ratios: readonly number[],
  detail: (ratio: number) => string,
): Variant[] {
  return ratios.map((ratio) => ({
    suspected: withRatio(suspected, ratio),
    suspects: all('mole-ratio', ratio),
    detail: detail(ratio),
  }));
}

const shown = (value: number): string => String(Number(value.toPrecision(4)));

/** A variant for each replicate that a change makes sense for. */
function eachReplicate(
  suspected: Suspected,
  make: (replicate: TitrationReplicate, index: number) => readonly (Variant | null)[],
): Variant[] {
  return suspected.replicates
    .flatMap((replicate, index) =>
      (replicate.isVoided ?? false) || (replicate.isRough ?? false) ? [] : make(replicate, index),
    )
    .filter((variant) => variant !== null);
}

/** `Off by 1 mL?` within a sentence. */
function asClause(question: string): string {
  return question.charAt(0).toLowerCase() + question.slice(1).replace(/\?$/, '');
}

/** A reading changed wherever it stands: as the end of one titration, and as the start of the next when it was carried over. */
function withReading(
  suspected: Suspected,
  typedMl: number,
  at: { readonly index: number; readonly entry: 'initial' | 'final'; readonly carried: boolean },
  meantMl: number,
): Suspected {
  return {
    ...suspected,
    replicates: suspected.replicates.map((replicate, i) => ({
      ...replicate,
      fillings: replicate.fillings.map(({ initialMl, finalMl }) => ({
        initialMl:
          initialMl === typedMl &&
          ((i === at.index && at.entry === 'initial') || (at.carried && i === at.index + 1))
            ? meantMl
            : initialMl,
        finalMl:
          finalMl === typedMl &&
          ((i === at.index && at.entry === 'final') ||
            (at.carried && at.entry === 'initial' && i === at.index - 1))
            ? meantMl
            : finalMl,
      })),
    })),
  };
}

function readingVariants(
  suspected: Suspected,
  { buretteCapacityMl, readingDecimals }: Surroundings,
): Variant[] {
  const { replicates } = suspected;
  return eachReplicate(suspected, (replicate, index) => {
    const [filling] = replicate.fillings;
    if (!filling || replicate.fillings.length > 1) return [];
    return (['initial', 'final'] as const).flatMap((entry) => {
      const typedMl = entry === 'initial' ? filling.initialMl : filling.finalMl;
      const neighbour = replicates[entry === 'final' ? index + 1 : index - 1]?.fillings[0];
      const isCarried =
        neighbour !== undefined &&
        (entry === 'final' ? neighbour.initialMl : neighbour.finalMl) === typedMl;
      return readingSlips(typedMl, readingDecimals)
        .filter(({ kind, meant }) => kind !== 'digit-dropped' && meant <= buretteCapacityMl)
        .map(({ meant, ...slip }): Variant => ({
          suspected: withReading(suspected, typedMl, { index, entry, carried: isCarried }, meant),
          suspects: [{ replicateId: replicate.id, entry: `${entry}-reading`, meant }],
          detail: `the ${entry} reading of ${replicate.id}, ${figureText(typedMl.toFixed(readingDecimals))} mL, stands for ${figureText(meant.toFixed(readingDecimals))} mL (${asClause(slipQuestion(slip))})`,
        }));
    });
  });
}

function dilutionVariants(suspected: Suspected): Variant[] {
  const { known } = suspected.determination;
  if (known.kind === 'weighed' || known.dilutions.length === 0) return [];
  const change = (dilutions: readonly Dilution[], detail: string): Variant => ({
    suspected: withKnown(suspected, known, { dilutions }),
    suspects: all('dilution', null),
    detail,
  });
  return [
    change([], 'the standard was not diluted at all, or the factor was applied twice'),
    change([...known.dilutions, ...known.dilutions], 'the standard was diluted twice'),
  ];
}

/**
 * The slips that leave a signature in a standardization, each a transformation of the inputs.
 * Source: common practice of volumetric analysis; the weights are judgement, not statistics.
 */
export const HYPOTHESES: readonly Hypothesis[] = [
  {
    id: 'other-hydrate',
    name: 'Another form of the standard was weighed',
    check: 'Read the formula on the bottle of the standard: hydrate, anhydrous, or another salt?',
    weight: 0.15,
    variants: (suspected, { otherForms }) => {
      const { known } = suspected.determination;
      if (known.kind === 'solution') return [];
      const own = shown(coherentValue(known.molarMass));
      return otherForms.map(({ name, molarMassGPerMol }) => ({
        suspected: withKnown(suspected, known, {
          molarMass: exact(molarMassGPerMol, UNITS.gramPerMole),
        }),
        suspects: all('molar-mass', molarMassGPerMol),
        detail: `${name} was weighed, with ${shown(molarMassGPerMol)} g/mol instead of ${own} g/mol`,
      }));
    },
  },
  {
    id: 'ratio-upside-down',
    name: 'The mole ratio is upside down',
    check: 'Balance the equation and compare the ratio of titrant to standard.',
    weight: 0.08,
    variants: (suspected, surroundings) => {
      const taken = ratioOf(suspected);
      return isSameRatio(taken, 1) || isRatioBalanced(suspected, surroundings)
        ? []
        : ratioVariants(
            suspected,
            [1 / taken],
            (ratio) =>
              `${shown(ratio)} mol of titrant react with 1 mol of standard, not ${shown(taken)}`,
          );
    },
  },
  {
    id: 'ratio-forgotten',
    name: 'The mole ratio was forgotten',
    check: 'Balance the equation and compare the ratio of titrant to standard.',
    weight: 0.1,
    variants: (suspected, surroundings) => {
      const { balancedRatio } = surroundings;
      if (isRatioBalanced(suspected, surroundings)) return [];
      if (!isSameRatio(ratioOf(suspected), 1)) {
        return ratioVariants(suspected, [1], () => 'a ratio was applied where it is 1 to 1');
      }
      const ratios = balancedRatio === null ? COMMON_RATIOS : [balancedRatio];
      return ratioVariants(
        suspected,
        ratios.filter((ratio) => ratio !== 1),
        (ratio) => `${shown(ratio)} mol of titrant react with 1 mol of standard, not 1`,
      );
    },
  },
  {
    id: 'mass-per-volume',
    name: 'The concentrate was read as % m/V instead of % m/m',
    check: 'Read on the bottle whether its percentage is by mass or by volume.',
    weight: 0.08,
    variants: (suspected, { concentrateDensityGPerMl: density }) =>
      density === null
        ? []
        : [
            {
              suspected: { ...suspected, expectedMolPerL: suspected.expectedMolPerL * density },
              suspects: all('label', suspected.expectedMolPerL * density),
              detail: `the titrant is stronger than its label by the density of the concentrate, ${shown(density)}`,
            },
            {
              suspected: { ...suspected, expectedMolPerL: suspected.expectedMolPerL / density },
              suspects: all('label', suspected.expectedMolPerL / density),
              detail: `the titrant is weaker than its label by the density of the concentrate, ${shown(density)}`,
            },
          ],
  },
  {
    id: 'dilution',
    name: 'A dilution was forgotten, or applied twice',
    check: 'Go through the dilutions of standard and titrant, step by step.',
    weight: 0.1,
    variants: (suspected, { titrantDilutionFactor: factor }) => [
      ...dilutionVariants(suspected),
      ...(factor === null
        ? []
        : [factor, 1 / factor].map((times): Variant => ({
            suspected: { ...suspected, expectedMolPerL: suspected.expectedMolPerL * times },
            suspects: all('label', suspected.expectedMolPerL * times),
            detail:
              times > 1
                ? `the titrant was not diluted by its factor of ${shown(factor)}`
                : `the titrant was diluted twice by its factor of ${shown(factor)}`,
          }))),
    ],
  },
  {
    id: 'decimal-point',
    name: 'The decimal point of a mass slipped',
    check: 'Compare the mass with the balance printout or the bottle.',
    weight: 0.1,
    variants: (suspected) => {
      const factors = [10, 0.1];
      const { known } = suspected.determination;
      const madeUp = factors.flatMap((factor): Variant[] => {
        if (known.kind !== 'made-up') return [];
        const taken = coherentValue(known.mass);
        const massG = taken * factor;
        return [
          {
            suspected: withKnown(suspected, known, { mass: exact(massG, UNITS.gram) }),
            suspects: all('mass', massG),
            detail: `${shown(massG)} g were weighed into the standard, not ${shown(taken)} g`,
          },
        ];
      });
      const weighed = eachReplicate(suspected, (replicate, index) =>
        factors.map((factor) => {
          if (!('massG' in replicate.portion)) return null;
          const massG = replicate.portion.massG * factor;
          return {
            suspected: withReplicate(suspected, index, (one) => ({ ...one, portion: { massG } })),
            suspects: [{ replicateId: replicate.id, entry: 'mass', meant: massG }],
            detail: `${shown(massG)} g were weighed for ${replicate.id}, not ${shown(replicate.portion.massG)} g`,
          };
        }),
      );
      const everywhere = factors.flatMap((factor): Variant[] =>
        suspected.replicates.every(({ portion }) => 'massG' in portion)
          ? [
              {
                suspected: {
                  ...suspected,
                  replicates: suspected.replicates.map((one) =>
                    'massG' in one.portion
                      ? { ...one, portion: { massG: one.portion.massG * factor } }
                      : one,
                  ),
                },
                suspects: all('mass', null),
                detail: `every mass was ${factor > 1 ? 'ten times' : 'a tenth of'} what is written`,
              },
            ]
          : [],
      );
      return [...madeUp, ...weighed, ...everywhere];
    },
  },
  {
    id: 'wrong-pipette',
    name: 'Another pipette was used',
    check: 'Read the size on the pipette that is still at the bench.',
    weight: 0.08,
    variants: (suspected) => {
      const [first] = suspected.replicates;
      if (!first || !('aliquotMl' in first.portion)) return [];
      const usualMl = first.portion.aliquotMl;
      const nearby = PIPETTES_ML.filter(
        (size) => size !== usualMl && size >= usualMl / 2.5 && size <= usualMl * 2.5,
      );
      return nearby.flatMap((size): Variant[] => [
        {
          suspected: {
            ...suspected,
            replicates: suspected.replicates.map((one) => ({
              ...one,
              portion: { aliquotMl: size },
            })),
          },
          suspects: all('aliquot', size),
          detail: `${shown(size)} mL were pipetted, not ${shown(usualMl)} mL`,
        },
        ...eachReplicate(suspected, (replicate, index) => [
          {
            suspected: withReplicate(suspected, index, (one) => ({
              ...one,
              portion: { aliquotMl: size },
            })),
            suspects: [{ replicateId: replicate.id, entry: 'aliquot', meant: size }],
            detail: `${shown(size)} mL were pipetted into ${replicate.id}, not ${shown(usualMl)} mL`,
          },
        ]),
      ]);
    },
  },
  {
    id: 'excess-pipette',
    name: 'The excess was measured with another pipette',
    check: 'Read the size on the pipette of the excess.',
    weight: 0.06,
    variants: (suspected, { excessMl }) =>
      excessMl === null
        ? []
        : PIPETTES_ML.filter((size) => size !== excessMl).map((size) => ({
            suspected: withExcess(suspected, size / excessMl),
            suspects: all('standard', null),
            detail: `${shown(size)} mL of the excess went into every flask, not ${shown(excessMl)} mL`,
          })),
  },
  {
    id: 'reading',
    name: 'A burette reading is wrong',
    check: 'Look at the reading again: between which marks did the meniscus stand?',
    weight: 0.2,
    variants: readingVariants,
  },
  {
    id: 'tare',
    name: 'The empty vessel was not subtracted',
    check: 'Compare gross, tare and net mass.',
    weight: 0.05,
    variants: (suspected, { tareG }) =>
      tareG === null
        ? []
        : eachReplicate(suspected, (replicate, index) => {
            if (!('massG' in replicate.portion) || replicate.portion.massG <= tareG) return [];
            const massG = replicate.portion.massG - tareG;
            return [
              {
                suspected: withReplicate(suspected, index, (one) => ({
                  ...one,
                  portion: { massG },
                })),
                suspects: [{ replicateId: replicate.id, entry: 'mass', meant: massG }],
                detail: `the mass of ${replicate.id} still holds the vessel, ${shown(tareG)} g`,
              },
            ];
          }),
  },
  {
    id: 'flasks-exchanged',
    name: 'Two flasks were exchanged',
    check: 'Read the numbers on the flasks, and the order in which they were titrated.',
    weight: 0.06,
    variants: (suspected) =>
      eachReplicate(suspected, (first, i) =>
        suspected.replicates.map((second, j) => {
          if (j <= i || !('massG' in first.portion) || !('massG' in second.portion)) return null;
          const exchanged = withReplicate(suspected, i, (one) => ({
            ...one,
            portion: second.portion,
          }));
          return {
            suspected: withReplicate(exchanged, j, (one) => ({ ...one, portion: first.portion })),
            suspects: [first, second].map(({ id, portion }, place) => ({
              replicateId: id,
              entry: 'mass' as const,
              meant:
                'massG' in portion
                  ? ([second, first].map((one) =>
                      'massG' in one.portion ? one.portion.massG : null,
                    )[place] ?? null)
                  : null,
            })),
            detail: `the masses of ${first.id} and ${second.id} belong with each other’s titres`,
          };
        }),
      ),
  },
  {
    id: 'impure-standard',
    name: 'The standard was wet, not dried, or partly lost',
    check: 'Was it dried, and cooled in the desiccator? Was anything left on the boat or the wall?',
    weight: 0.02,
    variants: (suspected) =>
      freeShare(
        suspected,
        [0.93, 0.998],
        'standard',
        (percent) => `${percent} % of what was weighed never reached the flask as standard`,
      ),
  },
  {
    id: 'diluted-titrant',
    name: 'Water in the burette, or a bubble in its tip',
    check:
      'Was the burette rinsed with titrant, was the tip full? The first titrations suffer most.',
    weight: 0.02,
    variants: (suspected) => firstsDiluted(suspected),
  },
  {
    id: 'drift',
    name: 'The titrant has drifted',
    check:
      'Compare with the earlier standardizations: hydroxide takes up carbon dioxide, permanganate decomposes.',
    weight: 0.03,
    variants: (suspected, { history }) => {
      const previous = history.at(-1);
      if (history.length < 2 || previous === undefined || previous >= (history[0] ?? 0)) return [];
      // The same step down once more, from where the last standardization left it.
      const stepsDown = history.slice(1).map((molarity, i) => molarity / (history[i] ?? molarity));
      const step = Math.min(...stepsDown);
      const expected = previous * step;
      return [
        {
          suspected: { ...suspected, expectedMolPerL: expected },
          suspects: all('titrant', expected),
          detail: `it has been falling, and at that rate would now be ${shown(expected)} mol/L`,
        },
      ];
    },
  },
];

/** All replicates off by one free share within limits that the slip can reach. */
function freeShare(
  suspected: Suspected,
  [least, most]: readonly [number, number],
  entry: Suspect['entry'],
  detail: (percent: string) => string,
): readonly Variant[] {
  const steps = 30;
  return Array.from({ length: steps + 1 }, (_, i) => least + ((most - least) * i) / steps).map(
    (share) => ({
      suspected: scalePortions(suspected, () => share),
      suspects: all(entry, null),
      detail: detail(figureText((100 * (1 - share)).toFixed(1))),
    }),
  );
}

/** The first titration, or the first two, took more titrant than they should by a volume that a wet burette or a bubble brings. */
function firstsDiluted(suspected: Suspected): readonly Variant[] {
  return [1, 2].flatMap((firsts) =>
    [0.05, 0.1, 0.15, 0.2, 0.3, 0.4, 0.5].map((volumeMl) => ({
      suspected: {
        ...suspected,
        replicates: suspected.replicates.map((one, i) =>
          i < firsts
            ? {
                ...one,
                fillings: one.fillings.map((filling, j) =>
                  j === 0 ? { ...filling, initialMl: filling.initialMl + volumeMl } : filling,
                ),
              }
            : one,
        ),
      },
      suspects: suspected.replicates
        .slice(0, firsts)
        .map(({ id }) => ({ replicateId: id, entry: 'burette' as const, meant: null })),
      detail: `about ${shown(volumeMl)} mL of the first ${firsts === 1 ? 'titre' : 'two titres'} were not titrant`,
    })),
  );
}

function scalePortions(suspected: Suspected, share: (index: number) => number): Suspected {
  return {
    ...suspected,
    replicates: suspected.replicates.map((one, i) => ({
      ...one,
      portion:
        'massG' in one.portion
          ? { massG: one.portion.massG * share(i) }
          : { aliquotMl: one.portion.aliquotMl * share(i) },
    })),
  };
}
