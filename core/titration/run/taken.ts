import { arrangementOf } from '../setUp';
import { portionAmount } from './portion';
import type { RunState } from './state';

/**
 * What the burette took from its bottle, in mL: the rinses before the first filling, and for each filling the
 * burette from its first reading to its last mark. What stays in the burette is discarded, not poured back.
 */
export function titrantTakenMl(run: RunState): number {
  if (run.fillings.length === 0) return 0;
  const capacity = Number(run.references.burette.capacityMl);
  const rinses = run.setUp.rules.rinses * Number(run.setUp.rules.rinseMl);
  return run.fillings.reduce((total, first) => total + capacity - Number(first), rinses);
}

/** What a run took from each lot (g), bottle and sample (mL or g), void flasks too. */
export function takenBy(
  run: RunState,
): readonly { readonly id: string; readonly amount: number }[] {
  const { inBurette, portion, excess } = arrangementOf(run.references);
  const amountOf = (flasks: RunState['flasks']): number =>
    flasks.reduce((total, flask) => total + Number(portionAmount(flask.portion.value)), 0);
  // What is left of a sample that was diluted first nobody counts here.
  const portions =
    portion.recordId === null ? [] : [{ id: portion.recordId, amount: amountOf(run.flasks) }];
  return [
    { id: inBurette.id, amount: titrantTakenMl(run) },
    ...portions,
    ...(excess ? [{ id: excess.recordId, amount: run.flasks.length * excess.fixedMl }] : []),
  ];
}
