import type { Action, Author } from '../rights';
import { may, whyNot } from '../rights';

/**
 * What a check found wrong with an entry. *Impossible* entries are refused. *Unlikely* ones are
 * kept when the analyst gives a reason.
 */
export interface Finding {
  readonly severity: 'impossible' | 'unlikely';
  /** Stable name of the finding, for tests and translations. */
  readonly code: string;
  /** The field of the entry at fault. */
  readonly field: string;
  /** One sentence that says what is wrong and what to do. */
  readonly message: string;
}

/** A finding that refuses the entry. */
export function impossible(code: string, field: string, message: string): Finding {
  return { severity: 'impossible', code, field, message };
}

/** A finding that asks for a reason. */
export function unlikely(code: string, field: string, message: string): Finding {
  return { severity: 'unlikely', code, field, message };
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
  const message =
    'Something rests on it already, so it cannot become another thing: take it out of use and register it anew.';
  return impossible('rested-on', field, message);
}

/** A finding that something which an entry names is not there. */
export function unknownReference(field: string, message: string): Finding {
  return impossible('unknown-reference', field, message);
}

/** What speaks against somebody doing something that is not open to everybody: nothing, or that they may not. */
export function checkMay(
  author: Author,
  action: Action,
  state?: { readonly startedBy: string },
): readonly Finding[] {
  return may(author, action, state) ? [] : [impossible('not-allowed', 'author', whyNot(action))];
}
