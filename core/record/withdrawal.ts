import type { Action } from '../rights';
import type { Around } from './around';
import type { FactDefinition, Whose } from './definition';
import type { Provenance } from './fact';
import { provenance } from './fact';
import { checkMay, impossible } from './finding';

/** Why a lot, a bottle or a piece of equipment is not to be used, or may be used again. */
export interface WithdrawalBody {
  readonly reason: string;
}

/** Taken out of use until somebody returns it: damage, doubt, an inquiry. */
export interface Withdrawal extends Provenance {
  readonly reason: string;
}

/** A record that can be taken out of use. */
export interface Withdrawable {
  /** Its last word on its use, if that was a withdrawal; null while it is in use. */
  readonly withdrawn: Withdrawal | null;
}

/** A kind of fact of anything that can be taken out of use. */
type UseFact = FactDefinition<
  string,
  WithdrawalBody,
  Withdrawable,
  Pick<Around, 'author'>,
  Withdrawable
> &
  Whose<string, never>;

/** Takes a record out of use. */
export const WITHDRAWN: UseFact = {
  nature: 'decision',
  check: (_fact, { withdrawn }) => (withdrawn ? [impossible('out-of-use-already', 'reason')] : []),
  apply: (_state, fact) => ({ withdrawn: { ...provenance(fact), reason: fact.body.reason } }),
  sentence: ({ reason }) => `out of use: ${reason}.`,
};

/** Returns a record to use. */
export const RETURNED: UseFact = {
  nature: 'decision',
  check: (_fact, { withdrawn }) => (withdrawn ? [] : [impossible('in-use-already', 'reason')]),
  apply: () => ({ withdrawn: null }),
  sentence: ({ reason }) => `back in use: ${reason}.`,
};

/** The same fact where it takes a right. */
export function takes(fact: UseFact, action: Action): UseFact {
  return {
    ...fact,
    check: (given, state, around) => [
      ...checkMay(around.author, action),
      ...fact.check(given, state, around),
    ],
  };
}
