import { useQueryClient } from '@tanstack/react-query';
import { useMemo } from 'react';
import type { AroundFact, PlainRecordKind, PlainStates } from '#core/ledger';
import { authorOf, nameKey } from '#core/people';
import { recordRead } from './atHand';
import { useRecords } from './records';
import { useSession } from './session';
import { useStock } from './stock';

/** What is around a fact that is entered here, as far as this device has read it; undefined while it is on its way. */
export function useAround(): AroundFact | undefined {
  const { laboratory, person, today } = useSession();
  const stock = useStock();
  const methods = useRecords('method');
  const entries = useRecords('entry');
  const people = useRecords('person');
  const samples = useRecords('sample');
  const client = useQueryClient();
  return useMemo(() => {
    if (!stock || !methods || !entries || !people || !samples) return undefined;
    const known: { readonly [K in keyof PlainStates]: readonly PlainStates[K][] } = {
      laboratory: [laboratory],
      method: methods,
      entry: entries,
      lot: stock.lots,
      bottle: stock.bottles,
      equipment: stock.equipment,
      preparation: stock.preparations,
      person: people,
      sample: samples,
    };
    const kinds = Object.keys(known) as readonly PlainRecordKind[];
    const now: AroundFact['now'] = (kind, id) =>
      known[kind].find((one) => one.id === id) ?? recordRead(client, kind, id);
    const versionOf = (id: string): number =>
      kinds.map((kind) => now(kind, id)).find((one) => one !== null)?.version ?? 0;
    return {
      today,
      author: authorOf(person),
      now,
      at: (kind, { id, version }) => {
        const record = now(kind, id);
        return record?.version === version ? record : null;
      },
      versionAt: versionOf,
      isUsed: () => false,
      left: (id) => stock.left.get(id),
      bottleCoded: (code) => stock.bottles.find((one) => one.code === code)?.id ?? null,
      sampleCoded: (code) => samples.find(({ sample }) => sample.code === code)?.id ?? null,
      personNamed: (name) => people.find((one) => one.nameKey === nameKey(name))?.id ?? null,
      rulesAt: () => laboratory.rules,
    };
  }, [client, entries, laboratory, methods, people, person, samples, stock, today]);
}
