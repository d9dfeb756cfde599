import type { FieldProblem } from '#contract';
import type { Finding } from '#core/record';
import { findingText } from '#core/wording';

/** Why something was not taken: in a sentence, and at the fields that are at fault. */
export class Refusal extends Error {
  readonly fields: readonly FieldProblem[];

  constructor(message: string, fields: readonly FieldProblem[]) {
    super(message);
    this.fields = fields;
  }

  /** Why an entry was not taken, by what speaks against it. */
  static of(findings: readonly Finding[]): Refusal {
    const fields = findings.map((finding) => ({
      field: finding.field,
      message: findingText(finding),
    }));
    return new Refusal(fields[0]?.message ?? '', fields);
  }

  /** What is wrong with a field, by the last part of its path. */
  fieldMessage(field: string): string | undefined {
    return this.fields.find((item) => item.field.split('.').at(-1) === field)?.message;
  }
}
