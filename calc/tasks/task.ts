import * as v from 'valibot';

/** What a record's results are made of. */
export type Json =
  null | boolean | number | string | readonly Json[] | { readonly [key: string]: Json | undefined };

/** A kind of calculation: what it is given, and how its results are found. */
export interface Task {
  readonly name: string;
  readonly schema: TaskSchema;
  readonly compute: (given: unknown) => Json;
}

type TaskSchema = v.ObjectSchema<
  v.ObjectEntries & { readonly task: v.LiteralSchema<string, undefined> },
  undefined
>;

/**
 * Declares a task. Keys carry their unit at the end, as everywhere in the record format; `name` and `note` are labels
 * that any record may have.
 *
 * @throws valibot's ValiError and core's Unanswerable from `compute`.
 */
export function task<const Entries extends v.ObjectEntries>(
  name: string,
  entries: Entries,
  compute: (given: v.InferOutput<v.ObjectSchema<Entries, undefined>>) => Json,
): Task {
  const schema = v.object({
    task: v.literal(name),
    name: v.optional(v.string()),
    note: v.optional(v.string()),
    ...entries,
  }) as unknown as TaskSchema;
  return {
    name,
    schema,
    compute: (given) =>
      compute(v.parse(schema, given) as v.InferOutput<v.ObjectSchema<Entries, undefined>>),
  };
}

/** A number that is one. */
export const number = v.pipe(v.number(), v.finite());
export const optionalNumber = v.optional(number);
export const numbers = v.array(number);
const confidence = v.pipe(number, v.gtValue(0), v.ltValue(100));
export const confidencePercent = v.optional(confidence, 95);
export const confidencesPercent = v.array(confidence);

/** A dilution: an aliquot made up to the mark of a flask. */
export const dilutionSteps = v.array(v.object({ aliquot_mL: number, flask_mL: number }));

/** Dilution steps in core's words; none when absent. */
export function stepsOf(
  steps: v.InferOutput<typeof dilutionSteps> | undefined,
): { aliquotMl: number; flaskMl: number }[] {
  return (steps ?? []).map((step) => ({ aliquotMl: step.aliquot_mL, flaskMl: step.flask_mL }));
}

/** A value for each of a list of keys, such as confidences. */
export function byKey<T extends Json>(
  keys: readonly (number | string)[],
  value: (key: number) => T,
): Record<string, T> {
  return Object.fromEntries(keys.map((key) => [String(key), value(Number(key))]));
}
