import type { PreparationFact, PreparationState } from '#core/preparation';
import type { NewFact } from '#contract';
import { makeFact, seenWith } from '../app/records';
import { useSession } from '../app/session';
import { asFact } from '../outbox/outbox';
import { useOutbox, useWaiting } from '../outbox/useOutbox';

/** Makes and keeps facts of a preparation on this device. */
export function useEnterPreparation(preparation: PreparationState) {
  const outbox = useOutbox();
  const { person } = useSession();
  const waiting = useWaiting();
  return {
    /** The fact as it would be entered, for checking it first. */
    propose: (fact: NewFact) => {
      const proposed = makeFact(fact, seenWith(preparation, waiting), person.id);
      return { proposed, fact: asFact(proposed) as PreparationFact };
    },
    keep: (proposed: ReturnType<typeof makeFact>) => outbox.keep(proposed),
  };
}
