import { requirePositive } from '../problem';
import { combineComponents, componentDistribution } from './component';
import { Chance, correlationFactor, drawingOf } from './draw';
import type { Expression, Input } from './expression';
import type { Correlation, EvaluationOptions } from './propagate';
import type { Column } from './tape';
import { withTailsInOrder } from './tails';
import { BLOCK, compileTape } from './tape';
import type { Unit } from './unit';

/** How a simulation is run. */
export interface SimulationOptions extends EvaluationOptions {
  readonly trials: number;
  readonly seed: number;
  /** Coverage probability of the intervals, 0.95 unless given. */
  readonly coverage?: number;
}

/** What a simulation found, in the unit asked for. */
export interface Simulation {
  readonly trials: number;
  readonly mean: number;
  /** Null when an effect has no variance: Student's t of one or two degrees of freedom. */
  readonly standardDeviation: number | null;
  /** Leaves out equal parts at both ends. */
  readonly symmetricInterval: readonly [number, number];
  readonly shortestInterval: readonly [number, number];
  /** Counts of trials in equal classes over the range shown, for a histogram. */
  readonly histogram: {
    readonly from: number;
    readonly to: number;
    readonly counts: readonly number[];
  };
}

/** Trials between two reports of progress. */
const TRIALS_PER_STEP = 64 * BLOCK;

/**
 * Propagates distributions by the Monte Carlo method: the equation compiled to a tape, every effect drawn by its
 * distribution, inputs that correlate drawn jointly normal. Yields the part that is done, 0 to 1, so that whoever runs
 * it can show progress and stop; the same seed gives the same figures.
 * Source: JCGM 101:2008, 5 to 7.
 */
export function* simulate(
  root: Expression,
  unit: Unit,
  { trials, seed, coverage = 0.95, isMuted = () => false, correlations = [] }: SimulationOptions,
): Generator<number, Simulation> {
  requirePositive(trials, 'trials');
  const tape = compileTape(root, isMuted);
  const fill = fillerOf(tape.inputs, correlations, new Chance(seed));
  const results = new Float64Array(trials);
  const scale = 1 / unit.toCoherent;
  for (let done = 0; done < trials; done += BLOCK) {
    const count = Math.min(BLOCK, trials - done);
    fill(count);
    tape.run(count);
    for (let i = 0; i < count; i += 1) results[done + i] = (tape.result[i] as number) * scale;
    if (done % TRIALS_PER_STEP === 0) yield done / trials;
  }
  return summarizeTrials(
    results,
    coverage,
    tape.inputs.every(({ input }) => hasVariance(input)),
  );
}

/** Runs a simulation to its end. */
export function runSimulation(
  root: Expression,
  unit: Unit,
  options: SimulationOptions,
): Simulation {
  const steps = simulate(root, unit, options);
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
  }
}

function hasVariance({ components }: Input): boolean {
  return components.every(
    (component) =>
      componentDistribution(component) !== 'student' || (component.degreesOfFreedom ?? 3) > 2,
  );
}

/** Writes the draws of all inputs into their columns. */
function fillerOf(
  inputs: readonly { readonly input: Input; readonly column: Column }[],
  correlations: readonly Correlation[],
  chance: Chance,
): (count: number) => void {
  const correlated = new Set(correlations.flatMap(({ between }) => between));
  const together = inputs.filter(({ input }) => correlated.has(input.id));
  const fillers = inputs
    .filter(({ input }) => !correlated.has(input.id))
    .map(({ input, column }) => independentFiller(input, column, chance));
  if (together.length > 0) fillers.push(jointFiller(together, correlations, chance));
  return (count) => {
    for (const filler of fillers) filler(count);
  };
}

function independentFiller(input: Input, column: Column, chance: Chance): (count: number) => void {
  const { toCoherent } = input.unit;
  const value = input.value * toCoherent;
  const drawings = input.components.map((component) => drawingOf(component, chance, toCoherent));
  return (count) => {
    column.fill(value, 0, count);
    for (const draw of drawings) draw(column, count);
  };
}

function jointFiller(
  inputs: readonly { readonly input: Input; readonly column: Column }[],
  correlations: readonly Correlation[],
  chance: Chance,
): (count: number) => void {
  const coefficient = (a: string, b: string): number =>
    a === b
      ? 1
      : (correlations.find(({ between }) => between.includes(a) && between.includes(b))
          ?.coefficient ?? 0);
  const factor = correlationFactor(
    inputs.map((one) => inputs.map((other) => coefficient(one.input.id, other.input.id))),
  );
  const scaled = inputs.map(({ input, column }, i) => ({
    column,
    value: input.value * input.unit.toCoherent,
    weights: (factor[i] ?? []).map(
      (weight) => weight * combineComponents(input.components) * input.unit.toCoherent,
    ),
  }));
  const normals = inputs.map(() => 0);
  return (count) => {
    for (let i = 0; i < count; i += 1) {
      for (let j = 0; j < normals.length; j += 1) normals[j] = chance.normal();
      for (const { column, value, weights } of scaled) {
        let trial = value;
        for (let j = 0; j < weights.length; j += 1) trial += (weights[j] ?? 0) * (normals[j] ?? 0);
        column[i] = trial;
      }
    }
  };
}

const CLASSES = 60;

/** Source of the intervals: JCGM 101:2008, 7.7.1 and 5.3.4. */
function summarizeTrials(
  results: Float64Array,
  coverage: number,
  isVarianceFinite: boolean,
): Simulation {
  const trials = results.length;
  let sum = 0;
  for (const result of results) sum += result;
  const mean = sum / trials;
  let squares = 0;
  for (const result of results) squares += (result - mean) ** 2;
  const inside = Math.min(trials - 1, Math.round(coverage * trials));
  // Only what lies outside an interval decides its ends.
  const sorted = withTailsInOrder(results, trials - inside + 1);
  const at = (rank: number): number =>
    sorted[Math.min(trials - 1, Math.max(0, rank))] ?? Number.NaN;
  const low = Math.round((trials - inside) / 2);
  // The interval fills a good half of the picture; tails may reach very far.
  const widening = 0.4 * (at(low + inside) - at(low));
  let shortest = 0;
  for (let rank = 0; rank + inside < trials; rank += 1) {
    if (at(rank + inside) - at(rank) < at(shortest + inside) - at(shortest)) shortest = rank;
  }
  return {
    trials,
    mean,
    standardDeviation: isVarianceFinite ? Math.sqrt(squares / (trials - 1)) : null,
    symmetricInterval: [at(low), at(low + inside)],
    shortestInterval: [at(shortest), at(shortest + inside)],
    histogram: histogramOf(sorted, at(low) - widening, at(low + inside) + widening),
  };
}

function histogramOf(results: Float64Array, from: number, to: number): Simulation['histogram'] {
  const counts = new Array<number>(CLASSES).fill(0);
  const width = (to - from) / CLASSES;
  for (const result of results) {
    const place = Math.min(CLASSES - 1, Math.floor((result - from) / width));
    if (result >= from && result <= to && width > 0) counts[place] = (counts[place] ?? 0) + 1;
  }
  return { from, to, counts };
}
