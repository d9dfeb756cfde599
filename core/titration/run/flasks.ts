import type { Flask, Reading, RunState } from './state';

/** A flask by its number; none for null, nor for one that is not there. */
export function flaskOf(
  { flasks }: Pick<RunState, 'flasks'>,
  number: number | null,
): Flask | undefined {
  return flasks.find((flask) => flask.number === number);
}

/** Whether a flask holds medium and indicator only. */
export function isBlank({ portion }: Pick<Flask, 'portion'>): boolean {
  return portion.value.kind === 'blank';
}

/** The flask under the burette: its initial reading is taken, its final one is not. */
export function flaskUnderBurette(run: RunState): Flask | null {
  return run.flasks.find((flask) => flask.initial && !flask.final && !flask.voided) ?? null;
}

/** The pause that lasts; null while the run is worked on. */
export function pauseOf(run: RunState): RunState['pauses'][number] | null {
  const last = run.pauses.at(-1);
  return last?.resumed === null ? last : null;
}

/** The refill of a flask that waits for the level from which it goes on; null when there is none. */
export function openRefill({ refills }: Pick<Flask, 'refills'>): number | null {
  return refills.at(-1)?.restart === null ? refills.length : null;
}

/** The final reading at which the burette still stands, so that it can serve as the next initial one. */
export function readingToCarryOver(run: RunState): Reading | null {
  return run.level?.final ?? null;
}
