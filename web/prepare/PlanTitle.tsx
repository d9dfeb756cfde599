import type { PreparationPlan } from '#core/preparation';
import { ShortName } from '../ui/ShortName';
import { strengthText } from './wording';

/** What a preparation makes, typeset. */
export function PlanTitle({ plan }: { readonly plan: PreparationPlan }) {
  return (
    <>
      <ShortName of={plan.soluteId} own={plan.own} />
      {strengthText(plan)}
    </>
  );
}
