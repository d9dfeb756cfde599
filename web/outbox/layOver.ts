import type { PlainRecordKind, PlainStates } from '#core/ledger';
import { applyToRecord } from '#core/ledger';
import type { Fact } from '#core/record';

/** A list of records with facts of this device laid over it; a record that one of them begins is added. */
export function layOver<K extends PlainRecordKind>(
  kind: K,
  known: readonly PlainStates[K][],
  facts: readonly Fact[],
): readonly PlainStates[K][] {
  return facts.reduce((states, fact) => {
    const before = states.find(({ id }) => id === fact.recordId) ?? null;
    const after = applyToRecord(kind, before, fact);
    if (!after || after === before) return states;
    return before ? states.map((one) => (one === before ? after : one)) : [...states, after];
  }, known);
}
