import { plainDate } from '#core/grammar';
import { DEFAULT_HOUSE_RULES } from '#core/laboratory';
import type { AroundFact, PlainStates } from '#core/ledger';
import type { RecordHead } from '#core/record';
import type { Author } from '#core/rights';
import { ALL_WORK } from '#core/rights';
import { idOf } from './stored';

/** Somebody who may do everything. */
const CHIEF: Author = { id: idOf('ines'), roles: ALL_WORK };

type Records = { readonly [K in keyof PlainStates]?: readonly PlainStates[K][] };

/** What is around a fact on 2 March 2026: these records, as they are now. */
export function aroundWith(records: Records = {}, changes: Partial<AroundFact> = {}): AroundFact {
  const now = <K extends keyof PlainStates>(kind: K, id: string): PlainStates[K] | null =>
    (records[kind] ?? []).find((one) => one.id === id) ?? null;
  return {
    today: plainDate('2026-03-02'),
    author: CHIEF,
    now,
    at: (kind, { id, version }) =>
      (records[kind] ?? []).find((one) => one.id === id && one.version === version) ?? null,
    versionAt: (id) =>
      Object.values(records)
        .flatMap((some): readonly RecordHead[] => some)
        .find((one) => one.id === id)?.version ?? 0,
    isUsed: () => false,
    left: () => undefined,
    personNamed: () => null,
    bottleCoded: () => null,
    sampleCoded: () => null,
    rulesAt: () => DEFAULT_HOUSE_RULES,
    ...changes,
  };
}
