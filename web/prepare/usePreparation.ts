import { useMemo } from 'react';
import { isObservation } from '#core/ledger';
import type { PreparationFact, PreparationState } from '#core/preparation';
import type { NewFact } from '#contract';
import { makeFact, useRecords } from '../app/records';
import { useSession } from '../app/session';
import { layOver } from '../outbox/layOver';
import { asFact } from '../outbox/outbox';
import { useOutbox, useWaiting } from '../outbox/useOutbox';

/** Preparations as the server knows them, with what this device has entered since; undefined while they are on their way. */
export function usePreparations(): readonly PreparationState[] | undefined {
  const known = useRecords('preparation');
  const waiting = useWaiting();
  return useMemo(() => {
    const own = waiting
      .filter(({ fact, refusal }) => fact.recordKind === 'preparation' && refusal === null)
      .map(({ fact }) => asFact(fact));
    return known && layOver('preparation', known, own);
  }, [known, waiting]);
}

/** Makes and keeps facts of a preparation on this device. */
export function useEnterPreparation(preparation: PreparationState) {
  const outbox = useOutbox();
  const { person } = useSession();
  const waiting = useWaiting();
  const own = waiting.filter(({ fact }) => preparation.factIds.includes(fact.id)).length;
  return {
    /** The fact as it would be entered, for checking it first. */
    propose: (fact: NewFact) => {
      // An observation names what was seen of others; a decision the version that it will meet.
      const seen = preparation.version - (isObservation(fact.kind) ? own : 0);
      const proposed = makeFact(fact, preparation.id, person.id, seen);
      return { proposed, fact: asFact(proposed) as PreparationFact };
    },
    keep: (proposed: ReturnType<typeof makeFact>) => outbox.keep(proposed),
  };
}
