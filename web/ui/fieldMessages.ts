import * as v from 'valibot';
import { reason } from '#contract';

/** What is wrong with a form, by the path of the field. */
export type FieldMessages = Readonly<Record<string, string>>;

/** The first thing that a schema has against each field. */
export function fieldMessages(
  issues: [v.BaseIssue<unknown>, ...v.BaseIssue<unknown>[]],
): FieldMessages {
  const { nested = {} } = v.flatten(issues);
  return Object.fromEntries(
    Object.entries(nested).map(([path, messages]) => [path, messages?.[0] ?? '']),
  );
}

/** What is wrong with a reason as typed; undefined when it says why. */
export function reasonProblem(typed: string): string | undefined {
  const parsed = v.safeParse(reason, typed);
  return parsed.success ? undefined : parsed.issues[0].message;
}

/** A reason as facts hold it: null where none was typed. */
export function reasonOrNull(typed: string): string | null {
  return typed.trim() === '' ? null : typed.trim();
}
