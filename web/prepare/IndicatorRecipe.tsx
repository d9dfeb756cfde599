import type { DecimalText } from '#core/measurement';
import type { Indicator, Own } from '#core/chemistry';
import { RECIPE_EDITION } from '#core/chemistry';
import { hazardsOfSolution } from '#core/label';
import { correctionRulesOf } from '#core/laboratory';
import { naming } from '../app/ownEntries';
import { useSession } from '../app/session';
import type { Stock } from '../app/stock';
import { useStock } from '../app/stock';
import { HazardMarks } from '../ui/HazardMarks';
import { Term } from '../ui/Term';
import { capitalized } from '../ui/typeset';
import { BeginButton } from './BeginButton';

interface IndicatorRecipeProps {
  readonly indicator: Indicator;
  /** The laboratory's own entries. */
  readonly own: Own;
  readonly volumeMl: DecimalText | null;
}

/** An indicator is made up as the catalogue says; only how much of it is asked. */
export function IndicatorRecipe({ indicator, own, volumeMl }: IndicatorRecipeProps) {
  const stock: Stock | undefined = useStock();
  const { laboratory } = useSession();
  const isAsked = volumeMl !== null && Number(volumeMl) > 0;
  return (
    <article>
      <div className="flex items-start justify-between gap-6">
        <h2 className="text-lg font-bold">{capitalized(indicator.name)}</h2>
        {stock && isAsked && (
          <BeginButton
            stock={stock}
            isPrimary
            plan={{
              purpose: 'auxiliary',
              soluteId: indicator.id,
              ...naming(own, [indicator.id]),
              recipeId: null,
              recipeEdition: RECIPE_EDITION,
              targetMolarity: null,
              volumeMl,
              source: { kind: 'indicator' },
              carbonDioxide: laboratory.rules.carbonDioxide,
              corrections: correctionRulesOf(laboratory.rules),
              thermometerId: null,
              neededBy: null,
              note: '',
              reason: null,
            }}
          />
        )}
      </div>
      <p className="mt-1 text-lg">{indicator.preparation}.</p>
      <p className="my-2 text-ink-soft">
        <b>Approximate.</b> Two drops of it go into every flask; the <Term of="blank" /> takes care
        of what they consume.
      </p>
      <HazardMarks of="the solution" hazards={hazardsOfSolution(indicator.id, null, own)} />
    </article>
  );
}
