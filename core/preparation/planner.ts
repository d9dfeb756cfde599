import type { Component } from '../measurement';
import { combineComponents } from '../measurement';
import type { Balance } from '../metrology';
import { weighingLinearity, weighingRepeatability } from '../metrology';
import { requirePositive } from '../problem';
import type { Concentrate } from './solution';
import { concentrateMolarity, massForSolutionG } from './solution';

/** A vessel that measures a volume, with what is known of it. */
export interface MeasuringVessel {
  readonly id: string;
  readonly name: string;
  readonly kind: 'volumetric-flask' | 'one-mark-pipette' | 'measuring-cylinder';
  readonly volumeMl: number;
  readonly tolerance: Component;
}

export interface SolidOnShelf {
  readonly id: string;
  readonly name: string;
  readonly molarMassGPerMol: number;
  readonly purity: number;
  /** Relative, of purity and molar mass together. */
  readonly relativeUncertainty: number;
  /** Whether it is a standard: weighed exactly, its solution is one too. */
  readonly isStandard: boolean;
}

export interface ConcentrateOnShelf {
  readonly id: string;
  readonly name: string;
  readonly concentrate: Concentrate;
}

export interface SolutionOnShelf {
  readonly id: string;
  readonly name: string;
  readonly molarityMolPerL: number;
  /** Relative standard uncertainty of a certified molarity; null while it is only nominal. */
  readonly relativeUncertainty: number | null;
  readonly leftMl: number;
}

/** What a laboratory has, as far as a plan goes. */
export interface PlannerShelf {
  readonly solids: readonly SolidOnShelf[];
  readonly concentrates: readonly ConcentrateOnShelf[];
  readonly solutions: readonly SolutionOnShelf[];
  readonly vessels: readonly MeasuringVessel[];
  readonly balances: readonly { readonly id: string; readonly balance: Balance }[];
}

export interface Wish {
  readonly molarityMolPerL: number;
  readonly volumeMl: number;
  /** A standard must be exact; a titrant that will be standardized need not be. */
  readonly exactness: 'exact' | 'approximate';
}

/** One quantity of a plan: how much, with what, how exactly, and why. */
export interface PlannedQuantity {
  readonly what: string;
  readonly amount: number;
  readonly unit: 'g' | 'mL';
  readonly with: string;
  readonly exactness: 'exact' | 'approximate';
  readonly why: string;
}

/** A way to what is wanted. */
export interface Route {
  readonly kind: 'weigh' | 'concentrate' | 'dilute' | 'dilute-twice';
  readonly sourceId: string;
  readonly sourceName: string;
  readonly quantities: readonly PlannedQuantity[];
  readonly molarityMolPerL: number;
  readonly volumeMl: number;
  /** Relative standard uncertainty of the molarity; null where it is nominal. */
  readonly relativeUncertainty: number | null;
  /** What most of that uncertainty comes from. */
  readonly dominatedBy: string | null;
  /** What speaks against it, in sentences; the route is then not offered first. */
  readonly objections: readonly string[];
}

/** A molarity within this of the one wanted is near enough: it is known, not round. */
const NEAR_ENOUGH = 0.02;

/** A flask may hold this many times what is wanted. */
const MOST_WASTE = 2.5;

/** A balance whose u is more than this part of the mass is too coarse for a standard. */
const TOO_COARSE = 0.001;

/** Best routes that are shown. */
const MOST_ROUTES = 8;

/**
 * The routes that a shelf allows to a solution: weigh a solid, take from a concentrate, dilute a stronger solution in one step or
 * two. Amounts, vessels, the molarity that comes out, its uncertainty and what dominates it; the most exact first, the ones that
 * something speaks against last.
 *
 * @throws Unanswerable `non-positive` for a molarity or volume of nothing.
 */
export function planRoutes(wish: Wish, shelf: PlannerShelf): readonly Route[] {
  requirePositive(wish.molarityMolPerL, 'molarity');
  requirePositive(wish.volumeMl, 'volumeMl');
  const flask = smallestHolding(shelf.vessels, 'volumetric-flask', wish.volumeMl);
  const routes = [
    ...shelf.solids.map((solid) => weighing(wish, solid, flask, shelf.balances)),
    ...shelf.concentrates.map((one) => fromConcentrate(wish, one, shelf.vessels)),
    ...dilutions(wish, shelf),
  ];
  return routes
    .filter((route) => route !== null)
    .toSorted(byMerit)
    .slice(0, MOST_ROUTES);
}

function byMerit(a: Route, b: Route): number {
  const rank = (route: Route): number =>
    route.objections.length * 1000 + (route.relativeUncertainty ?? 10);
  return rank(a) - rank(b);
}

function smallestHolding(
  vessels: readonly MeasuringVessel[],
  kind: MeasuringVessel['kind'],
  volumeMl: number,
): MeasuringVessel | null {
  return (
    vessels
      .filter((vessel) => vessel.kind === kind && vessel.volumeMl >= volumeMl)
      .toSorted((a, b) => a.volumeMl - b.volumeMl)[0] ?? null
  );
}

/** Relative standard uncertainty of the volume of a vessel. */
function vesselUncertainty({ tolerance, volumeMl }: MeasuringVessel): number {
  return combineComponents([tolerance]) / volumeMl;
}

/** Parts of a relative uncertainty, combined, and the name of the largest. */
function combine(parts: readonly (readonly [name: string, relative: number])[]): {
  readonly relativeUncertainty: number;
  readonly dominatedBy: string | null;
} {
  const [largest] = parts.toSorted((a, b) => b[1] - a[1]);
  return {
    relativeUncertainty: Math.hypot(...parts.map(([, relative]) => relative)),
    dominatedBy: largest?.[0] ?? null,
  };
}

function massUncertaintyG(balance: Balance): number {
  return combineComponents([...weighingRepeatability(balance), ...weighingLinearity(balance)]);
}

function weighing(
  wish: Wish,
  solid: SolidOnShelf,
  flask: MeasuringVessel | null,
  balances: PlannerShelf['balances'],
): Route {
  const isExact = wish.exactness === 'exact' && solid.isStandard;
  const volumeMl = isExact ? (flask?.volumeMl ?? wish.volumeMl) : wish.volumeMl;
  const massG = massForSolutionG(wish.molarityMolPerL, volumeMl, solid);
  const suitable = balances
    .filter(({ balance }) => Number(balance.maxLoadG) >= massG)
    .map(({ balance }) => ({ balance, relative: massUncertaintyG(balance) / massG }))
    .toSorted((a, b) => a.relative - b.relative);
  // A titrant that will be standardized goes on the coarsest balance that shows it to a per cent.
  const chosen = isExact
    ? suitable[0]
    : (suitable.filter(({ relative }) => relative < 0.01).at(-1) ?? suitable[0]);
  const objections = [
    ...(chosen ? [] : ['No balance carries this mass.']),
    ...(isExact && chosen && chosen.relative > TOO_COARSE
      ? [
          `The mass is too small for ${chosen.balance.name}: uncertain by ${percent(chosen.relative)}.`,
        ]
      : []),
    ...(isExact && !flask ? ['There is no volumetric flask that large.'] : []),
    ...(wish.exactness === 'exact' && !solid.isStandard
      ? [`${solid.name} is no standard: its solution stays nominal until it is standardized.`]
      : []),
  ];
  const uncertainty =
    isExact && chosen && flask
      ? combine([
          ['the mass', chosen.relative],
          ['the purity', solid.relativeUncertainty],
          ['the flask', vesselUncertainty(flask)],
        ])
      : { relativeUncertainty: null, dominatedBy: null };
  return {
    kind: 'weigh',
    sourceId: solid.id,
    sourceName: solid.name,
    quantities: [
      {
        what: solid.name,
        amount: massG,
        unit: 'g',
        with: chosen?.balance.name ?? 'a balance',
        exactness: isExact ? 'exact' : 'approximate',
        why: isExact
          ? 'It stands in the equation: near this mass, every digit written down.'
          : 'The molarity is found out by titration, whatever the mass was.',
      },
      isExact
        ? {
            what: 'made up to the mark',
            amount: volumeMl,
            unit: 'mL',
            with: flask?.name ?? 'a volumetric flask',
            exactness: 'exact',
            why: 'It stands in the equation.',
          }
        : {
            what: 'water',
            amount: volumeMl,
            unit: 'mL',
            with: 'a cylinder and a beaker',
            exactness: 'approximate',
            why: 'The molarity is found out by titration, whatever the volume was.',
          },
    ],
    molarityMolPerL: wish.molarityMolPerL,
    volumeMl,
    ...uncertainty,
    objections,
  };
}

function fromConcentrate(
  wish: Wish,
  { id, name, concentrate }: ConcentrateOnShelf,
  vessels: readonly MeasuringVessel[],
): Route | null {
  const strength = concentrateMolarity(concentrate);
  if (strength < wish.molarityMolPerL) return null;
  const volumeMl = (wish.molarityMolPerL * wish.volumeMl) / strength;
  const cylinder = smallestHolding(vessels, 'measuring-cylinder', volumeMl);
  return {
    kind: 'concentrate',
    sourceId: id,
    sourceName: name,
    quantities: [
      {
        what: name,
        amount: volumeMl,
        unit: 'mL',
        with: cylinder?.name ?? 'a cylinder',
        exactness: 'approximate',
        why: 'Strength and density of a concentrate are known to a per cent or two.',
      },
      {
        what: 'water, first, up to',
        amount: wish.volumeMl,
        unit: 'mL',
        with: 'a beaker and a cylinder',
        exactness: 'approximate',
        why: 'The molarity is found out by titration, whatever the volume was.',
      },
    ],
    molarityMolPerL: wish.molarityMolPerL,
    volumeMl: wish.volumeMl,
    relativeUncertainty: null,
    dominatedBy: null,
    objections:
      wish.exactness === 'exact'
        ? ['A concentrate gives a nominal molarity: it must be standardized.']
        : [],
  };
}

/** A pipette into a flask. */
interface Step {
  readonly pipette: MeasuringVessel;
  readonly flask: MeasuringVessel;
  readonly factor: number;
  readonly uncertainty: number;
}

/** Every pipette into every larger flask, the weakest dilution first: looked up by halving, not by trying all. */
function stepsOf(vessels: readonly MeasuringVessel[]): readonly Step[] {
  // Two of one size differ by their tolerance only: the better one is taken.
  const bestOf = (kind: MeasuringVessel['kind']): readonly MeasuringVessel[] => {
    const bySize = new Map<number, MeasuringVessel>();
    for (const vessel of vessels) {
      if (vessel.kind !== kind) continue;
      const known = bySize.get(vessel.volumeMl);
      if (!known || vesselUncertainty(vessel) < vesselUncertainty(known)) {
        bySize.set(vessel.volumeMl, vessel);
      }
    }
    return [...bySize.values()];
  };
  const flasks = bestOf('volumetric-flask');
  return bestOf('one-mark-pipette')
    .flatMap((pipette) =>
      flasks
        .filter((flask) => flask.volumeMl > pipette.volumeMl)
        .map((flask) => ({
          pipette,
          flask,
          factor: flask.volumeMl / pipette.volumeMl,
          uncertainty: Math.hypot(vesselUncertainty(pipette), vesselUncertainty(flask)),
        })),
    )
    .toSorted((a, b) => a.factor - b.factor);
}

function lowerBound(steps: readonly Step[], factor: number): number {
  let low = 0;
  let high = steps.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((steps[middle]?.factor ?? 0) < factor) low = middle + 1;
    else high = middle;
  }
  return low;
}

function dilutions(wish: Wish, { solutions, vessels }: PlannerShelf): readonly Route[] {
  const steps = stepsOf(vessels);
  return solutions
    .filter(({ molarityMolPerL }) => molarityMolPerL > wish.molarityMolPerL)
    .flatMap((solution) => {
      const route = bestDilution(wish, solution, steps);
      return route ? [route] : [];
    });
}

/** One step where glassware allows it, two where one would be too large; the most exact of those that give enough. */
function bestDilution(wish: Wish, solution: SolutionOnShelf, steps: readonly Step[]): Route | null {
  const wanted = solution.molarityMolPerL / wish.molarityMolPerL;
  const fits = ({ flask }: Step): boolean =>
    flask.volumeMl >= wish.volumeMl && flask.volumeMl <= MOST_WASTE * wish.volumeMl;
  const single = mostExact(steps, wanted, fits);
  if (single) return diluting(wish, solution, [single]);
  let best: readonly Step[] | null = null;
  let least = Number.POSITIVE_INFINITY;
  for (const last of steps) {
    if (!fits(last)) continue;
    const first = mostExact(
      steps,
      wanted / last.factor,
      ({ flask }) => flask.volumeMl >= last.pipette.volumeMl,
    );
    if (!first) continue;
    const uncertainty = Math.hypot(first.uncertainty, last.uncertainty);
    if (uncertainty >= least) continue;
    least = uncertainty;
    best = [first, last];
  }
  return best && diluting(wish, solution, best);
}

/** The most exact of the steps whose factor is near enough to the one wanted. */
function mostExact(
  steps: readonly Step[],
  wanted: number,
  isFit: (step: Step) => boolean,
): Step | null {
  let best: Step | null = null;
  const end = wanted * (1 + NEAR_ENOUGH);
  for (let i = lowerBound(steps, wanted * (1 - NEAR_ENOUGH)); i < steps.length; i += 1) {
    const step = steps[i];
    if (!step || step.factor > end) break;
    if ((!best || step.uncertainty < best.uncertainty) && isFit(step)) best = step;
  }
  return best;
}

function diluting(wish: Wish, solution: SolutionOnShelf, chain: readonly Step[]): Route {
  const factor = chain.reduce((total, step) => total * step.factor, 1);
  const [first] = chain;
  const needsMl = first?.pipette.volumeMl ?? 0;
  const uncertainty =
    solution.relativeUncertainty === null
      ? { relativeUncertainty: null, dominatedBy: null }
      : combine([
          [`the molarity of ${solution.name}`, solution.relativeUncertainty],
          ...chain.flatMap((step) => [
            [
              `the pipette of ${String(step.pipette.volumeMl)} mL`,
              vesselUncertainty(step.pipette),
            ] as const,
            [
              `the flask of ${String(step.flask.volumeMl)} mL`,
              vesselUncertainty(step.flask),
            ] as const,
          ]),
        ]);
  return {
    kind: chain.length === 1 ? 'dilute' : 'dilute-twice',
    sourceId: solution.id,
    sourceName: solution.name,
    quantities: chain.flatMap((step, i): readonly PlannedQuantity[] => [
      {
        what: i === 0 ? solution.name : 'of that',
        amount: step.pipette.volumeMl,
        unit: 'mL',
        with: step.pipette.name,
        exactness: 'exact',
        why: 'It stands in the equation.',
      },
      {
        what: 'made up to the mark',
        amount: step.flask.volumeMl,
        unit: 'mL',
        with: step.flask.name,
        exactness: 'exact',
        why: 'It stands in the equation.',
      },
    ]),
    molarityMolPerL: solution.molarityMolPerL / factor,
    volumeMl: chain.at(-1)?.flask.volumeMl ?? 0,
    ...uncertainty,
    objections: [
      ...(needsMl > solution.leftMl
        ? [`Only ${String(Math.floor(solution.leftMl))} mL of ${solution.name} are left.`]
        : []),
      ...(wish.exactness === 'exact' && solution.relativeUncertainty === null
        ? [`${solution.name} has not been standardized: what is made from it is nominal too.`]
        : []),
    ],
  };
}

function percent(relative: number): string {
  return `${String(Number((100 * relative).toPrecision(2)))} %`;
}
