import type { FactOf, Provenance, Withdrawal, WithdrawalBody } from '../record';
import { provenance, withdrawalOf } from '../record';
import type { Method } from './catalogue/entries';

export interface MethodFactBodies {
  /** The whole method; each writing is a version of its own. */
  'method.written': { readonly method: Method; readonly reason: string };
  'method.withdrawn': WithdrawalBody;
  'method.returned': WithdrawalBody;
}
type MethodFact = FactOf<MethodFactBodies>;

/** A method of a laboratory's own, as its facts tell it. */
export interface MethodState {
  readonly id: string;
  readonly version: number;
  readonly method: Method;
  /** Who wrote each version and why, oldest first. */
  readonly written: readonly (Provenance & { readonly reason: string })[];
  readonly withdrawn: Withdrawal | null;
}

/** Folds the facts of one method; null before the first. */
export function foldMethod(facts: readonly MethodFact[]): MethodState | null {
  const written = facts.filter((fact) => fact.kind === 'method.written');
  const last = written.at(-1);
  if (!last) return null;
  return {
    id: last.recordId,
    version: facts.length,
    method: last.body.method,
    written: written.map((fact) => ({ ...provenance(fact), reason: fact.body.reason })),
    withdrawn: withdrawalOf(facts),
  };
}
