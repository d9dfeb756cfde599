import { useNavigate } from 'react-router';
import type { Own } from '#core/chemistry';
import { RECIPE_EDITION } from '#core/chemistry';
import type { PreparationPlan, Route } from '#core/preparation';
import { recipeFits } from '#core/preparation';
import type { HouseRules } from '#core/laboratory';
import { correctionRulesOf } from '#core/laboratory';
import { decimalOf, roundHalfEven, roundSignificant } from '#core/measurement';
import { useBeginRecord } from '../app/entering';
import { naming } from '../app/ownEntries';
import type { Wanted } from './PlanForm';

/** The plan that a way makes of what is wanted; null where something that it needs is missing. */
export function planOfRoute(
  route: Route,
  wanted: Wanted,
  rules: HouseRules,
  own: Own,
): PreparationPlan | null {
  const { source } = route;
  if (!source) return null;
  const recipes = own.flatMap(({ entry }) =>
    entry.kind === 'recipe' && entry.recipe.soluteId === wanted.substanceId
      ? [entry.recipe.id]
      : [],
  );
  const plan: PreparationPlan = {
    purpose: wanted.purpose === 'sample' ? 'auxiliary' : wanted.purpose,
    soluteId: wanted.substanceId,
    ...naming(own, [wanted.substanceId, ...recipes]),
    recipeId: wanted.recipeId,
    recipeEdition: RECIPE_EDITION,
    targetMolarity: decimalOf(Number(roundSignificant(route.molarityMolPerL, 4))),
    volumeMl: roundHalfEven(route.volumeMl, 0),
    source,
    carbonDioxide: rules.carbonDioxide,
    corrections: correctionRulesOf(rules),
    thermometerId: wanted.purpose === 'standard' ? wanted.thermometerId : null,
    neededBy: wanted.neededBy === '' ? null : wanted.neededBy,
    note: '',
    reason: null,
  };
  return recipeFits(plan) ? plan : { ...plan, recipeId: null };
}

/** Begins a guided preparation and goes to it. */
export function useBeginPreparation() {
  const begin = useBeginRecord();
  const navigate = useNavigate();
  return {
    isBusy: begin.isPending,
    /** Rejects with what the server has against it. */
    begin: async (plan: PreparationPlan): Promise<void> => {
      const id = await begin.mutateAsync({ kind: 'preparation.started', body: plan });
      await navigate(`/preparations/${id}`);
    },
  };
}
