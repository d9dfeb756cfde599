import type {
  MeasuringVessel,
  PlannedQuantity,
  PlannerShelf,
  Route,
  SolutionOnShelf,
  Wish,
} from './route';
import { combineRelative, NEAR_ENOUGH, notEnough, vesselUncertainty } from './route';

/** Pipettes are rinsed and beakers keep a rest: this much more is poured than is pipetted, mL. */
const RINSE_ML = 15;

/** A flask may hold this many times what is wanted. */
const MOST_WASTE = 2.5;

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
      : combineRelative([
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
      // Nobody expects to know a sample: it is diluted to be found out.
      ...(wish.exactness === 'exact' && solution.relativeUncertainty === null && !solution.isSample
        ? [`${solution.name} has not been standardized: what is made from it is nominal too.`]
        : []),
    ],
  };
}
