import { useMemo } from 'react';
import type { PreparationFact, PreparationState } from '#core/preparation';
import { applyPreparationFact } from '#core/preparation';
import type { NewFact } from '#contract';
import { makeFact, useRecords } from '../app/records';
import { useSession } from '../app/session';
import { asFact } from '../outbox/outbox';
import { useOutbox, useWaiting } from '../outbox/useOutbox';

/** Preparations as the server knows them, with what this device has entered since; undefined while they are on their way. */
export function usePreparations(): readonly PreparationState[] | undefined {
  const known = useRecords('preparation');
  const waiting = useWaiting();
  return useMemo(
    () =>
      known?.map((state) =>
        waiting
          .filter(({ fact, refusal }) => fact.recordId === state.id && refusal === null)
          .reduce(
            // A fact of this record is a fact of a preparation.
            (laid, { fact }) => applyPreparationFact(laid, asFact(fact) as PreparationFact) ?? laid,
            state,
          ),
      ),
    [known, waiting],
  );
}

/** Makes and keeps facts of a preparation on this device. */
export function useEnterPreparation(preparation: PreparationState) {
  const outbox = useOutbox();
  const { person } = useSession();
  return {
    /** The fact as it would be entered, for checking it first. */
    propose: (fact: NewFact) => {
      const proposed = makeFact(fact, preparation.id, person.id, preparation.version);
      return { proposed, fact: asFact(proposed) as PreparationFact };
    },
    keep: (proposed: ReturnType<typeof makeFact>) => outbox.keep(proposed),
  };
}
