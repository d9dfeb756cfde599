import type { Action, Author } from '../rights';
import { may } from '../rights';
import type { FindingCode, FindingValues } from '../wording';

/**
 * What a check found wrong with an entry, by its code and its values; `findingText` makes the sentence. *Impossible* entries
 * are refused. *Unlikely* ones are kept when the analyst gives a reason.
 */
export interface Finding {
  readonly severity: 'impossible' | 'unlikely';
  readonly code: FindingCode;
  /** The field of the entry at fault. */
  readonly field: string;
  readonly values: object;
}

/** The values of a finding whose code says it all. */
const NOTHING = {};

/** A finding that refuses the entry. */
export function impossible<Code extends FindingCode>(
  code: Code,
  field: string,
  ...[values]: FindingValues<Code>
): Finding {
  return { severity: 'impossible', code, field, values: values ?? NOTHING };
}

/** A finding that asks for a reason. */
export function unlikely<Code extends FindingCode>(
  code: Code,
  field: string,
  ...[values]: FindingValues<Code>
): Finding {
  return { severity: 'unlikely', code, field, values: values ?? NOTHING };
}

/** What refuses an entry: all that cannot be; else what is unlikely, unless the entry gives a reason. */
export function objections(findings: readonly Finding[], body: object): readonly Finding[] {
  const cannotBe = findings.filter(({ severity }) => severity === 'impossible');
  if (cannotBe.length > 0) return cannotBe;
  const hasReason = 'reason' in body && body.reason !== null;
  return hasReason ? [] : findings;
}

/** A finding that what something is cannot be changed any more. */
export function restedOn(field: string): Finding {
  return impossible('rested-on', field);
}

/** What speaks against somebody doing something that is not open to everybody: nothing, or that they may not. */
export function checkMay(
  author: Author,
  action: Action,
  state?: { readonly startedBy: string },
): readonly Finding[] {
  return may(author, action, state) ? [] : [impossible('not-allowed', 'author', { action })];
}
