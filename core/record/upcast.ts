import type { UpcastStep } from './definition';
import type { Fact } from './fact';

/**
 * The fact in the shape that this program understands.
 *
 * @param steps from each earlier shape of its kind to the next
 * @throws RangeError when the fact was written by a newer program.
 */
export function upcastBy(fact: Fact, steps: readonly UpcastStep[]): Fact {
  const current = steps.length + 1;
  if (fact.schemaVersion > current) {
    throw new RangeError(
      `${fact.kind} of schema version ${String(fact.schemaVersion)} was written by a newer program; this one knows ${String(current)}`,
    );
  }
  const body = steps.slice(fact.schemaVersion - 1).reduce((older, step) => step(older), fact.body);
  return { ...fact, schemaVersion: current, body };
}
