import { isObservation } from '#core/ledger';
import type { PreparationFact, PreparationState } from '#core/preparation';
import type { NewFact } from '#contract';
import { makeFact } from '../app/records';
import { useSession } from '../app/session';
import { asFact } from '../outbox/outbox';
import { useOutbox, useWaiting } from '../outbox/useOutbox';

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
