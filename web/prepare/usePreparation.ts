import { checkFact } from '#core/ledger';
import type { PreparationState } from '#core/preparation';
import type { NewFact } from '#contract';
import { useAroundSoon, useKeeping } from '../app/entering';
import { seenWith } from '../app/records';
import { useWaiting } from '../outbox/useOutbox';

/** Enters facts of a preparation, checked against it as it is shown. */
export function useEnterPreparation(preparation: PreparationState) {
  const keep = useKeeping();
  const waiting = useWaiting();
  const aroundSoon = useAroundSoon();
  return async (entry: NewFact): Promise<void> => {
    const around = await aroundSoon();
    await keep(entry, seenWith(preparation, waiting), (fact) =>
      checkFact(fact, preparation, around),
    );
  };
}
