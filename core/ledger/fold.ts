import type { Fact } from '../record';
import type { PlainRecordKind, PlainStates } from './registry';
import { PLAIN_RECORDS } from './registry';

/** Folds by kind, as what works on all of them sees them. */
const FOLDS: {
  readonly [K in PlainRecordKind]: { fold(facts: readonly Fact[]): PlainStates[K] | null };
} = PLAIN_RECORDS;

/**
 * Folds the facts of one record that stands on its own; null before its first fact. The facts must be of the
 * record's kind, as they are when they come from its stream.
 */
export function foldRecord<K extends PlainRecordKind>(
  kind: K,
  facts: readonly Fact[],
): PlainStates[K] | null {
  return FOLDS[kind].fold(facts);
}

const APPLIED: {
  readonly [K in PlainRecordKind]: {
    apply(state: PlainStates[K] | null, fact: Fact): PlainStates[K] | null;
  };
} = PLAIN_RECORDS;

/** A record that stands on its own after one more fact of its stream; one that is in it already changes nothing. */
export function applyToRecord<K extends PlainRecordKind>(
  kind: K,
  state: PlainStates[K] | null,
  fact: Fact,
): PlainStates[K] | null {
  return APPLIED[kind].apply(state, fact);
}
