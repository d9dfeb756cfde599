import { expose } from 'comlink';
import type { Correlation, Expression, Simulation, Unit } from '#core/measurement';
import { simulate } from '#core/measurement';
import type { VerifiedCase } from '#verification';
import { PACK, verifyCase } from '#verification';

/** A simulation that crosses into the worker: what is muted goes by id. */
export interface SimulationRequest {
  readonly model: Expression;
  readonly unit: Unit;
  readonly mutedInputIds: readonly string[];
  /** Between inputs that rest on the same. */
  readonly correlations: readonly Correlation[];
  readonly trials: number;
  readonly seed: number;
}

/** What the worker computes. `onProgress` is told the part that is done, 0 to 1. */
const computations = {
  simulate(
    { model, unit, mutedInputIds, correlations, trials, seed }: SimulationRequest,
    onProgress: (part: number) => void,
  ): Simulation {
    const muted = new Set(mutedInputIds);
    const steps = simulate(model, unit, {
      trials,
      seed,
      correlations,
      isMuted: ({ id }) => muted.has(id),
    });
    for (;;) {
      const step = steps.next();
      if (step.done) return step.value;
      onProgress(step.value);
    }
  },

  verify(onProgress: (part: number) => void): readonly VerifiedCase[] {
    return PACK.map((one, i) => {
      onProgress(i / PACK.length);
      return verifyCase(one);
    });
  },
};

export type Computations = typeof computations;

expose(computations);
