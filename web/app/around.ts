import { useMemo } from 'react';
import type { AroundFact, PlainStates } from '#core/ledger';
import { authorOf, nameKey } from '#core/people';
import type { RecordHead } from '#core/record';
import { useRecords } from './records';
import { useSession } from './session';
import { useStock } from './stock';

/** What is around a fact that is entered here, as far as this device has read it; undefined while it is on its way. */
export function useAround(): AroundFact | undefined {
  const { laboratory, person, today } = useSession();
  const stock = useStock();
  const methods = useRecords('method');
  const people = useRecords('person');
  return useMemo(() => {
    if (!stock || !methods || !people) return undefined;
    const known: { readonly [K in keyof PlainStates]: readonly PlainStates[K][] } = {
      laboratory: [laboratory],
      method: methods,
      lot: stock.lots,
      bottle: stock.bottles,
      equipment: stock.equipment,
      preparation: stock.preparations,
      person: people,
    };
    const versions = new Map<string, number>(
      Object.values(known)
        .flatMap((some): readonly RecordHead[] => some)
        .map(({ id, version }) => [id, version]),
    );
    const now: AroundFact['now'] = (kind, id) => known[kind].find((one) => one.id === id) ?? null;
    const versionOf = (id: string): number => versions.get(id) ?? 0;
    return {
      today,
      author: authorOf(person),
      now,
      at: (kind, { id, version }) => (versionOf(id) === version ? now(kind, id) : null),
      versionAt: versionOf,
      isUsed: () => false,
      left: (id) => stock.left.get(id),
      bottleCoded: (code) => stock.bottles.find((one) => one.code === code)?.id ?? null,
      personNamed: (name) => people.find((one) => one.nameKey === nameKey(name))?.id ?? null,
      rulesAt: () => laboratory.rules,
    };
  }, [laboratory, methods, people, person, stock, today]);
}
