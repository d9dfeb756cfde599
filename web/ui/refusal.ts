import type { FieldProblem } from '#contract';
import type { Finding } from '#core/record';
import { findingText } from '#core/wording';
import type { FieldMessages } from './fieldMessages';

/** Why something was not taken: in a sentence, at the fields that are at fault, and as what a check found. */
export class Refusal extends Error {
  readonly fields: readonly FieldProblem[];
  /** Empty where it cannot be read as an entry at all. */
  readonly findings: readonly Finding[];

  constructor(message: string, fields: readonly FieldProblem[], findings: readonly Finding[] = []) {
    super(message);
    this.fields = fields;
    this.findings = findings;
  }

  /** Why an entry was not taken, by what speaks against it. */
  static of(findings: readonly Finding[]): Refusal {
    const fields = findings.map((finding) => ({
      field: finding.field,
      message: findingText(finding),
    }));
    return new Refusal(fields[0]?.message ?? '', fields, findings);
  }

  /** What is wrong with a field, by the last part of its path. */
  fieldMessage(field: string): string | undefined {
    return messagesOf(this)[field];
  }
}

/** What is wrong with each field, by the last part of its path, the first thing first; nothing where it was taken. */
export function messagesOf(error: Error | null): FieldMessages {
  if (!(error instanceof Refusal)) return {};
  const messages = error.fields.map(({ field, message }) => [field.split('.').at(-1), message]);
  return Object.fromEntries(messages.toReversed()) as FieldMessages;
}
