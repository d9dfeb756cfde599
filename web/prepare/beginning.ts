import { useNavigate } from 'react-router';
import { RECIPE_EDITION } from '#core/chemistry';
import type { PreparationPlan, Route } from '#core/preparation';
import type { HouseRules } from '#core/laboratory';
import { correctionRulesOf } from '#core/laboratory';
import { decimalOf, roundHalfEven, roundSignificant } from '#core/measurement';
import { useBeginRecord } from '../app/entering';
import type { Wanted } from './PlanForm';

/** The plan that a way makes of what is wanted; null where something that it needs is missing. */
export function planOfRoute(
  route: Route,
  wanted: Wanted,
  rules: HouseRules,
): PreparationPlan | null {
  const { source } = route;
  if (!source) return null;
  return {
    purpose: wanted.purpose === 'sample' ? 'auxiliary' : wanted.purpose,
    soluteId: wanted.substanceId,
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
