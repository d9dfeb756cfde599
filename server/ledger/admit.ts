import type { AroundFact } from '#core/ledger';
import { beginsRecord, checkFact, foldRecord, isObservation } from '#core/ledger';
import type { Fact, Finding } from '#core/record';
import { factsSeenBy } from '#core/record';
import type { LoadedRecord } from './references';
import { foldLoaded } from './references';

/**
 * What core has against a fact, given its record and what is around it. A decision is checked against the record as it is. An
 * observation is taken when it made sense to its author, whatever somebody else has entered meanwhile, or when it makes sense now.
 */
export function admit(fact: Fact, record: LoadedRecord, around: AroundFact): readonly Finding[] {
  const findings = checkFact(fact, stateOf(record), around);
  if (findings.length === 0 || !isObservation(fact.kind) || beginsRecord(fact.kind)) {
    return findings;
  }
  const seen = factsSeenBy(fact, record.facts);
  if (seen.length === record.facts.length) return findings;
  return checkFact(fact, stateOf({ ...record, facts: seen }), around);
}

function stateOf(record: LoadedRecord) {
  return record.kind === 'run'
    ? (foldLoaded(record)?.state ?? null)
    : foldRecord(record.kind, record.facts);
}
