import type { Component } from '../measurement';
import { combineComponents, roundHalfEven, roundSignificant } from '../measurement';
import type { Balance } from '../metrology';
import { requirePositive } from '../problem';
import { massUncertainty, TOO_COARSE } from './checks';
import { massForSolutionG } from './solution';
import type { PreparationSource } from './work';

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
  readonly leftG: number;
}

export interface ConcentrateOnShelf {
  readonly id: string;
  readonly name: string;
  readonly molarityMolPerL: number;
  /** What its label would mean in the other way of stating a percentage. */
  readonly remark: string;
  readonly leftMl: number;
}

export interface SolutionOnShelf {
  readonly id: string;
  readonly name: string;
  readonly molarityMolPerL: number;
  /** Relative standard uncertainty of a certified molarity; null while it is only nominal. */
  readonly relativeUncertainty: number | null;
  readonly leftMl: number;
  /** A sample that came to the laboratory, which is not on the shelf. */
  readonly isSample: boolean;
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
  /** Relative expanded uncertainty (k = 2) that is good enough; absent when any is. */
  readonly targetRelativeU?: number;
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
  readonly kind: 'weigh' | 'concentrate' | 'add-volumes' | 'strengthen' | 'dilute' | 'dilute-twice';
  /** The same for whoever starts it; null where something that it needs is missing. */
  readonly source: PreparationSource | null;
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

/** A solution that is hardly stronger than what is wanted is no stock to dilute by cylinder. */
const LEAST_DILUTION = 1.5;

/** Pipettes are rinsed and beakers keep a rest: this much more is poured than is pipetted, mL. */
const RINSE_ML = 15;

/** A flask may hold this many times what is wanted. */
const MOST_WASTE = 2.5;

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
    ...(wish.exactness === 'approximate'
      ? [
          ...shelf.solutions.map((solution) => addingVolumes(wish, solution, shelf.vessels)),
          ...strengthening(wish, shelf),
        ]
      : []),
  ];
  return routes
    .filter((route) => route !== null)
    .map((route) => withTarget(wish, route))
    .toSorted(byMerit)
    .slice(0, MOST_ROUTES);
}

/** Says where a route does not reach the uncertainty that is asked for. */
function withTarget({ targetRelativeU }: Wish, route: Route): Route {
  const { relativeUncertainty, dominatedBy } = route;
  if (targetRelativeU === undefined || relativeUncertainty === null) return route;
  if (2 * relativeUncertainty <= targetRelativeU) return route;
  const objection = `U would be ${percent(2 * relativeUncertainty)}, more than the ${percent(targetRelativeU)} asked for; most of it comes from ${dominatedBy ?? 'one input'}.`;
  return { ...route, objections: [...route.objections, objection] };
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
    .map(({ balance, id }) => ({ id, balance, relative: massUncertainty(balance, massG) }))
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
    ...notEnough(massG, solid.leftG, 'g', solid.name),
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
    source: chosen
      ? {
          kind: 'weigh',
          lotId: solid.id,
          massG: isExact ? roundHalfEven(massG, 4) : roundSignificant(massG, 3),
          balanceId: chosen.id,
          flaskId: isExact ? (flask?.id ?? null) : null,
        }
      : null,
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
  { id, name, molarityMolPerL: strength, remark, leftMl }: ConcentrateOnShelf,
  vessels: readonly MeasuringVessel[],
): Route | null {
  if (strength < wish.molarityMolPerL) return null;
  const volumeMl = (wish.molarityMolPerL * wish.volumeMl) / strength;
  const cylinder = smallestHolding(vessels, 'measuring-cylinder', volumeMl);
  return {
    kind: 'concentrate',
    source: {
      kind: 'concentrate',
      lotId: id,
      takeMl: roundSignificant(volumeMl, 3),
      cylinderId: cylinder?.id ?? null,
    },
    sourceId: id,
    sourceName: name,
    quantities: [
      {
        what: name,
        amount: volumeMl,
        unit: 'mL',
        with: cylinder?.name ?? 'a cylinder',
        exactness: 'approximate',
        why: `It has ${String(Number(strength.toPrecision(3)))} mol/L, known to a per cent or two. ${remark}`,
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
    objections: [
      ...notEnough(volumeMl, leftMl, 'mL', name),
      ...(wish.exactness === 'exact'
        ? ['A concentrate gives a nominal molarity: it must be standardized.']
        : []),
    ],
  };
}

/** A solution and water by cylinder, added together: quick, and good for what is standardized afterwards. */
function addingVolumes(
  wish: Wish,
  solution: SolutionOnShelf,
  vessels: readonly MeasuringVessel[],
): Route | null {
  const { molarityMolPerL: strength, name, leftMl } = solution;
  if (strength < LEAST_DILUTION * wish.molarityMolPerL) return null;
  const takeMl = (wish.molarityMolPerL * wish.volumeMl) / strength;
  const waterMl = wish.volumeMl - takeMl;
  const cylinder = smallestHolding(vessels, 'measuring-cylinder', takeMl);
  const why = 'The molarity is found out by titration, whatever the volume was.';
  return {
    kind: 'add-volumes',
    source: {
      kind: 'add-volumes',
      bottleId: solution.id,
      takeMl: roundSignificant(takeMl, 3),
      weakerBottleId: null,
      fillMl: roundSignificant(waterMl, 3),
      cylinderId: cylinder?.id ?? null,
    },
    sourceId: solution.id,
    sourceName: name,
    quantities: [
      {
        what: name,
        amount: takeMl,
        unit: 'mL',
        with: cylinder?.name ?? 'a cylinder',
        exactness: 'approximate',
        why,
      },
      {
        what: 'water, added to it',
        amount: waterMl,
        unit: 'mL',
        with: 'a cylinder',
        exactness: 'approximate',
        why: 'Volumes are added, not made up to a mark: taken as additive.',
      },
    ],
    molarityMolPerL: wish.molarityMolPerL,
    volumeMl: wish.volumeMl,
    relativeUncertainty: null,
    dominatedBy: null,
    objections: notEnough(takeMl, leftMl, 'mL', name),
  };
}

/** A solution weaker than this part of what is wanted is not worth strengthening. */
const WORTH_STRENGTHENING = 0.5;

/** A solution that came out too weak, strengthened with the strongest one of the shelf: both by cylinder. */
function strengthening(wish: Wish, { solutions, vessels }: PlannerShelf): readonly Route[] {
  const { molarityMolPerL: wanted, volumeMl } = wish;
  const [strongest] = solutions
    .filter(({ molarityMolPerL }) => molarityMolPerL > LEAST_DILUTION * wanted)
    .toSorted((a, b) => b.molarityMolPerL - a.molarityMolPerL);
  if (!strongest) return [];
  return solutions
    .filter(
      ({ molarityMolPerL }) =>
        molarityMolPerL < wanted * (1 - NEAR_ENOUGH) &&
        molarityMolPerL >= WORTH_STRENGTHENING * wanted,
    )
    .map((weaker): Route => {
      const takeMl =
        (volumeMl * (wanted - weaker.molarityMolPerL)) /
        (strongest.molarityMolPerL - weaker.molarityMolPerL);
      const fillMl = volumeMl - takeMl;
      const cylinder = smallestHolding(vessels, 'measuring-cylinder', takeMl);
      const why = 'The molarity is found out by titration, whatever the volume was.';
      const approximate = { unit: 'mL', exactness: 'approximate', why } as const;
      return {
        kind: 'strengthen',
        source: {
          kind: 'add-volumes',
          bottleId: strongest.id,
          takeMl: roundSignificant(takeMl, 3),
          weakerBottleId: weaker.id,
          fillMl: roundSignificant(fillMl, 3),
          cylinderId: cylinder?.id ?? null,
        },
        sourceId: weaker.id,
        sourceName: `${weaker.name} with ${strongest.name}`,
        quantities: [
          { ...approximate, what: weaker.name, amount: fillMl, with: 'a cylinder' },
          {
            ...approximate,
            what: `${strongest.name}, added to it`,
            amount: takeMl,
            with: cylinder?.name ?? 'a cylinder',
          },
        ],
        molarityMolPerL: wanted,
        volumeMl,
        relativeUncertainty: null,
        dominatedBy: null,
        objections: [
          ...notEnough(fillMl, weaker.leftMl, 'mL', weaker.name),
          ...notEnough(takeMl, strongest.leftMl, 'mL', strongest.name),
        ],
      };
    });
}

function notEnough(
  needed: number,
  left: number,
  unit: 'g' | 'mL',
  name: string,
): readonly string[] {
  return needed <= left
    ? []
    : [`Only ${String(Number(left.toPrecision(3)))} ${unit} of ${name} are left.`];
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
    source: {
      kind: 'dilute',
      from: solution.isSample
        ? { kind: 'sample', name: solution.name, molarity: String(solution.molarityMolPerL) }
        : { kind: 'bottle', bottleId: solution.id },
      stages: chain.map(({ pipette, flask }) => ({ pipetteId: pipette.id, flaskId: flask.id })),
    },
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
      ...notEnough(needsMl + RINSE_ML, solution.leftMl, 'mL', solution.name),
      ...(wish.exactness === 'exact' && solution.relativeUncertainty === null
        ? [`${solution.name} has not been standardized: what is made from it is nominal too.`]
        : []),
    ],
  };
}

function percent(relative: number): string {
  return `${String(Number((100 * relative).toPrecision(2)))} %`;
}

/** How much larger a preparation is tried when its uncertainty is to become smaller. */
const LARGER = [2, 4, 10] as const;

/**
 * What would halve the uncertainty of a way: the other ways to the same solution, and the same ways to more of it, are tried.
 * Null when the way has no uncertainty of its own.
 */
export function whatWouldHalve(wish: Wish, route: Route, shelf: PlannerShelf): string | null {
  const { relativeUncertainty: now, dominatedBy } = route;
  if (now === null) return null;
  const better = [1, ...LARGER]
    .flatMap((times) => planRoutes({ ...wish, volumeMl: times * wish.volumeMl }, shelf))
    .filter((one) => one.objections.length === 0 && (one.relativeUncertainty ?? 1) < 0.9 * now)
    .toSorted((a, b) => a.volumeMl - b.volumeMl);
  const halved = better.find((one) => (one.relativeUncertainty ?? 1) <= now / 2);
  const best =
    halved ??
    better.toSorted((a, b) => (a.relativeUncertainty ?? 1) - (b.relativeUncertainty ?? 1))[0];
  if (!best) {
    return `Nothing on the shelf makes it smaller: it comes from ${dominatedBy ?? 'all inputs alike'}.`;
  }
  const how = `${best.sourceName}, ${roundHalfEven(best.volumeMl, 0)} mL`;
  const u = percent(2 * (best.relativeUncertainty ?? 0));
  return halved
    ? `Halved by ${how}: U about ${u}.`
    : `Not halved by anything here; ${how} brings it to ${u}.`;
}
