import type { PreparationPlan } from '#core/preparation';
import { whyByProcedure } from '#core/preparation';

/** Says that a solution has no guided steps, and why; nothing where it has. */
export function ByProcedure({ plan }: { readonly plan: PreparationPlan }) {
  const why = whyByProcedure(plan);
  return why && <p className="mt-1 border-l-4 border-blush bg-blush-wash px-3 py-1">{why}</p>;
}
