import * as v from 'valibot';
import type { ComparedPlace, Tolerance } from './compare';
import { compare, inShapeOf } from './compare';
import { calculate } from './record';
import type { Json } from './tasks/task';

const limit = { absolute: v.optional(v.number()), relative: v.optional(v.number()) };

/** What is given, what is expected of it, and how far it may be off. */
export const vectorCase = v.object({
  id: v.string(),
  given: v.record(v.string(), v.any()),
  expected: v.record(v.string(), v.any()),
  tolerance: v.optional(
    v.object({ ...limit, fields: v.optional(v.record(v.string(), v.object(limit))) }),
    {},
  ),
});

/** A file of cases with their expected values; prose beside them is left aside. */
const vectorFile = v.object({
  topic: v.optional(v.string(), 'cases'),
  cases: v.array(vectorCase),
});

type VectorCase = v.InferOutput<typeof vectorCase>;

/** A case that was computed and compared. */
export interface CheckedCase {
  readonly id: string;
  /** What was got, cut down to the keys that are expected; numbers unrounded. */
  readonly got: Json;
  readonly places: readonly ComparedPlace[];
}

/** Reads a file of cases. @throws ValiError when it has another shape. */
export function readVectorFile(content: unknown): { topic: string; cases: readonly VectorCase[] } {
  return v.parse(vectorFile, content);
}

/** Computes a case and compares it with what is expected. */
export function checkCase({ id, given, expected, tolerance }: VectorCase): CheckedCase {
  const outcome = calculate(asRecord(given));
  const got: Json =
    outcome.kind === 'results'
      ? outcome.results
      : { error: outcome.problem, field: outcome.field, detail: outcome.sentence };
  const shaped = inShapeOf(expected, got);
  return { id, got: shaped, places: compare(expected, got, tolerance as Tolerance) };
}

/** The cases rest on atomic weights abridged to five figures; a record takes the full ones unless it says so. */
function asRecord(given: Record<string, unknown>): Record<string, unknown> {
  return given.task === 'molar-mass' ? { atomic_weights: 'abridged', ...given } : given;
}
