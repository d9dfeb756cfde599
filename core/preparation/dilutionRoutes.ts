import { decimalOf } from '../measurement';
import type {
  MeasuringVessel,
  PlannedQuantity,
  PlannerShelf,
  Route,
  SolutionOnShelf,
  Wish,
} from './route';
import { combineRelative, figure, NEAR_ENOUGH, notEnough, vesselUncertainty } from './route';

/** Pipettes are rinsed and beakers keep a rest: this much more is poured than is pipetted, mL. */
const RINSE_ML = 15;

/** A flask may hold this many times what is wanted. */
const MOST_WASTE = 2.5;

/** A pipette into a flask. */
interface Step {
  readonly pipette: MeasuringVessel;
  readonly flask: MeasuringVessel;
  readonly factor: number;
  /** Relative standard variance of the two volumes, and of the pipette's alone. */
  readonly variance: number;
  readonly pipetteVariance: number;
}

/** Relative standard uncertainties of a chain's vessels; one that is used twice is off twice, in the same direction. */
function vesselParts(
  chain: readonly Step[],
): readonly (readonly [name: string, relative: number])[] {
  const parts = new Map<string, readonly [name: string, relative: number]>();
  const add = (vessel: MeasuringVessel, what: string): void => {
    const before = parts.get(vessel.id)?.[1] ?? 0;
    const name = `the ${what} of ${String(vessel.volumeMl)} mL`;
    parts.set(vessel.id, [name, before + vesselUncertainty(vessel)]);
  };
  for (const { pipette, flask } of chain) {
    add(pipette, 'pipette');
    add(flask, 'flask');
  }
  return [...parts.values()];
}

/**
 * Relative standard variance of a step, and of what follows it, from different flasks: (a + a)² = a² + a² + 2 a² where a
 * pipette is used again. Thousands of pairs are compared, so that nothing is made for each.
 */
function varianceOf(step: Step, then: Step | null): number {
  if (!then) return step.variance;
  const isSamePipette = step.pipette.id === then.pipette.id;
  return step.variance + then.variance + (isSamePipette ? 2 * step.pipetteVariance : 0);
}

/** Every pipette into every larger flask, the weakest dilution first: looked up by halving, not by trying all. */
function stepsOf(vessels: readonly MeasuringVessel[]): readonly Step[] {
  // Those of one size differ by their tolerance only: the best are taken.
  const bestOf = (kind: MeasuringVessel['kind'], atMost: number): readonly MeasuringVessel[] => {
    const bySize = new Map<number, MeasuringVessel[]>();
    for (const vessel of vessels) {
      if (vessel.kind !== kind) continue;
      const known = bySize.get(vessel.volumeMl) ?? [];
      bySize.set(vessel.volumeMl, [...known, vessel]);
    }
    return [...bySize.values()].flatMap((all) =>
      all.toSorted((a, b) => vesselUncertainty(a) - vesselUncertainty(b)).slice(0, atMost),
    );
  };
  // The first flask is full while the second is filled; a pipette is rinsed and used again.
  const flasks = bestOf('volumetric-flask', 2);
  return bestOf('one-mark-pipette', 1)
    .flatMap((pipette) =>
      flasks
        .filter((flask) => flask.volumeMl > pipette.volumeMl)
        .map((flask) => ({
          pipette,
          flask,
          factor: flask.volumeMl / pipette.volumeMl,
          variance: vesselUncertainty(pipette) ** 2 + vesselUncertainty(flask) ** 2,
          pipetteVariance: vesselUncertainty(pipette) ** 2,
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

/** A stronger solution diluted by pipette and flask, in one step or two. */
export function dilutions(wish: Wish, { solutions, vessels }: PlannerShelf): readonly Route[] {
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
      ({ flask }) => flask.id !== last.flask.id && flask.volumeMl >= last.pipette.volumeMl,
      last,
    );
    if (!first) continue;
    const variance = varianceOf(first, last);
    if (variance >= least) continue;
    least = variance;
    best = [first, last];
  }
  return best && diluting(wish, solution, best);
}

/** The step whose factor is near enough to the one wanted and that is the most exact, with what follows it. */
function mostExact(
  steps: readonly Step[],
  wanted: number,
  isFit: (step: Step) => boolean,
  then: Step | null = null,
): Step | null {
  let best: Step | null = null;
  let least = Number.POSITIVE_INFINITY;
  const end = wanted * (1 + NEAR_ENOUGH);
  for (let i = lowerBound(steps, wanted * (1 - NEAR_ENOUGH)); i < steps.length; i += 1) {
    const step = steps[i];
    if (!step || step.factor > end) break;
    const variance = varianceOf(step, then);
    if (variance >= least || !isFit(step)) continue;
    least = variance;
    best = step;
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
      : combineRelative([
          [`the molarity of ${solution.name}`, solution.relativeUncertainty],
          ...vesselParts(chain),
        ]);
  return {
    kind: chain.length === 1 ? 'dilute' : 'dilute-twice',
    source: {
      kind: 'dilute',
      from: solution.isSample
        ? { kind: 'sample', name: solution.name, molarity: decimalOf(solution.molarityMolPerL) }
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
        why: 'It enters the equation.',
        how: `c = c′ × ${figure(step.pipette.volumeMl, 'mL')} ÷ ${figure(step.flask.volumeMl, 'mL')}: of the glassware at hand, what comes near enough most exactly`,
      },
      {
        what: 'made up to the mark',
        amount: step.flask.volumeMl,
        unit: 'mL',
        with: step.flask.name,
        exactness: 'exact',
        why: 'It enters the equation.',
      },
    ]),
    molarityMolPerL: solution.molarityMolPerL / factor,
    volumeMl: chain.at(-1)?.flask.volumeMl ?? 0,
    ...uncertainty,
    objections: [
      ...notEnough(needsMl + RINSE_ML, solution.leftMl, 'mL', solution.name),
      // Nobody expects to know a sample: it is diluted to be found out.
      ...(wish.exactness === 'exact' && solution.relativeUncertainty === null && !solution.isSample
        ? [`${solution.name} has not been standardized: what is made from it is nominal too.`]
        : []),
    ],
  };
}
