import type { FieldProblem } from '#contract';

/** Why something was not taken: in a sentence, and at the fields that are at fault. */
export class Refusal extends Error {
  readonly fields: readonly FieldProblem[];

  constructor(message: string, fields: readonly FieldProblem[]) {
    super(message);
    this.fields = fields;
  }

  /** What is wrong with a field, by the last part of its path. */
  fieldMessage(field: string): string | undefined {
    return this.fields.find((item) => item.field.split('.').at(-1) === field)?.message;
  }
}
