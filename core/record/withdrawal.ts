import type { Fact, Provenance } from './fact';
import { provenance } from './fact';

/** Why a lot, a bottle or a piece of equipment is not to be used, or may be used again. */
export interface WithdrawalBody {
  readonly reason: string;
}

/** Taken out of use until somebody returns it: quarantine, damage, doubt. */
export interface Withdrawal extends Provenance {
  readonly reason: string;
}

/** Whether a record's last word on its use was a withdrawal; null when it is in use. */
export function withdrawalOf(facts: readonly Fact[]): Withdrawal | null {
  const last = facts.findLast(({ kind }) => /\.(withdrawn|returned)$/.test(kind));
  if (!last?.kind.endsWith('.withdrawn')) return null;
  return { ...provenance(last), reason: (last.body as WithdrawalBody).reason };
}
