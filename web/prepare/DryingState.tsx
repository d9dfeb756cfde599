import { Link } from 'react-router';
import { findSubstance } from '#core/chemistry';
import { dryness } from '#core/reagent';
import { useSession } from '../app/session';
import type { Stock } from '../app/stock';
import { useNow } from '../app/useNow';
import { clockText } from '../ui/typeset';

/** What the drying log of the lot says: dry enough, or from when on. */
export function DryingState({ lotId, stock }: { readonly lotId: string; readonly stock: Stock }) {
  const { laboratory } = useSession();
  const now = useNow(20_000);
  const lot = stock.lots.find(({ id }) => id === lotId);
  if (!lot) return null;
  const state = dryness(
    findSubstance(lot.lot.substanceId, lot.lot.own)?.drying ?? null,
    lot.drying,
    now,
  );
  return (
    <p
      className={`mt-3 border-l-4 px-3 py-1 ${state.verdict === 'dry' ? 'border-leaf bg-leaf-wash' : 'border-straw bg-straw-wash'}`}
    >
      <b>Dry enough?</b> {state.sentence}
      {state.weighableFrom !== null &&
        state.verdict !== 'dry' &&
        ` It may be weighed from ${clockText(state.weighableFrom, now, laboratory.timeZone)}.`}{' '}
      <Link to={`/lots/${lotId}`} className="font-semibold text-violet underline">
        Drying log
      </Link>
    </p>
  );
}
