import type { Id, PlainDate } from '#core/grammar';
import type { Container } from '#core/chemistry';
import { findSubstance, keepingOf, RECIPE_EDITION } from '#core/chemistry';
import { correctionRulesOf, DEFAULT_HOUSE_RULES } from '#core/laboratory';
import type { Chance } from '#core/measurement';
import { decimalText, roundHalfEven } from '#core/measurement';
import type { PreparationPlan, Quantity, Step } from '#core/preparation';
import { stepsOf } from '#core/preparation';
import { suggestValidUntil } from '#core/reagent';
import type { NewFact } from '#contract';
import type { PlannedPreparation } from './cooperative';

/** What whoever prepares a solution needs of the world. */
interface Workplace {
  readonly chance: Chance;
  readonly enter: (fact: NewFact, basedOn?: number) => Promise<void>;
  readonly enterOnLot: (lotId: string, fact: NewFact) => Promise<void>;
  readonly wait: (minutes: number) => void;
  readonly bottle: (
    code: string,
    container: Container,
    useBy: PlainDate | null,
    basedOn: number,
  ) => Promise<void>;
  readonly today: () => PlainDate;
}

/** Works through the steps as they come, until the bottle stands on the shelf, the flask is discarded or the day ends. */
export async function followSteps(
  planned: PlannedPreparation,
  idOf: (key: string) => Id,
  place: Workplace,
): Promise<void> {
  const { targetMolarity } = planned.plan;
  const plan: PreparationPlan = {
    ...planned.plan,
    targetMolarity: targetMolarity === null ? null : decimalText(targetMolarity),
    volumeMl: decimalText(planned.plan.volumeMl),
    recipeId: null,
    recipeEdition: RECIPE_EDITION,
    carbonDioxide: DEFAULT_HOUSE_RULES.carbonDioxide,
    corrections: correctionRulesOf(DEFAULT_HOUSE_RULES),
    thermometerId: idOf('thermometer'),
    source: sourceOf(planned.from, idOf),
    neededBy: null,
    reason: null,
  };
  let version = 0;
  const enter = async (fact: NewFact): Promise<void> => {
    await place.enter(fact, version);
    version += 1;
  };
  // The plan's lists are read only, the fact's are not.
  await enter({ kind: 'preparation.started', body: plan });
  for (const step of stepsOf(plan)) {
    if (step.id === planned.stopAt) {
      if (step.waitMinutes !== null) await beginWait(step, enter);
      return;
    }
    if (step.work === 'bottle' || step.work === 'label') break;
    if (planned.mishap?.at === step.id) {
      const { mishapId, remark } = planned.mishap;
      await enter({ kind: 'preparation.mishap', body: { step: step.id, mishapId, remark } });
      await enter({ kind: 'preparation.discarded', body: { reason: 'Filled past the mark.' } });
      return;
    }
    if (step.work === 'dry' && 'weigh' in planned.from) {
      await beginWait(step, enter);
      await dry(idOf(planned.from.weigh), plan.soluteId, step, place);
    }
    await doStep(step, place, enter);
  }
  if (planned.code === null) return;
  const { soluteId, purpose } = plan;
  const preparedOn = place.today();
  const made = { substanceId: soluteId, nominalMolarity: plan.targetMolarity, preparedOn };
  const useBy = purpose === 'titrant' ? null : suggestValidUntil(made, preparedOn);
  const container = keepingOf(soluteId)?.container ?? 'clear-glass';
  await place.bottle(planned.code, container, useBy, version);
}

function beginWait(step: Step, enter: (fact: NewFact) => Promise<void>): Promise<void> {
  return enter({ kind: 'preparation.step-begun', body: { step: step.id } });
}

/** Dries the lot as the catalogue says, with an entry in its drying log. */
async function dry(
  lotId: string,
  substanceId: string,
  { waitMinutes }: Step,
  { enterOnLot, wait }: Workplace,
): Promise<void> {
  const drying = findSubstance(substanceId)?.drying;
  if (drying?.kind !== 'oven') return;
  const temperatureC = String(drying.temperatureC[0]);
  await enterOnLot(lotId, { kind: 'lot.put-to-dry', body: { temperatureC } });
  wait(waitMinutes ?? 0);
  await enterOnLot(lotId, { kind: 'lot.taken-out', body: {} });
}

async function doStep(
  step: Step,
  { chance, wait }: Workplace,
  enter: (fact: NewFact) => Promise<void>,
): Promise<void> {
  if (step.waitMinutes !== null && step.work !== 'dry') {
    await beginWait(step, enter);
    wait(step.waitMinutes);
  }
  const quantity = quantityOf(step, chance);
  if (quantity === null) {
    // Where the day has just begun, the oven cannot have been shut two hours ago.
    const reason = step.work === 'dry' ? 'See the drying log of the lot.' : null;
    const body = { step: step.id, isLeftOut: false, pins: [], reason };
    await enter({ kind: 'preparation.step-done', body });
    return;
  }
  const body = { step: step.id, quantity, replaces: [], takenFrom: null, pins: [], reason: null };
  await enter({ kind: 'preparation.measured', body });
}

function quantityOf({ measures }: Step, chance: Chance): Quantity | null {
  switch (measures?.kind) {
    case 'mass': {
      const massG = roundHalfEven(measures.targetG * (1 + 0.004 * chance.normal()), 4);
      return { kind: 'mass', weighing: { mode: 'tared', massG } };
    }
    case 'volume':
      return { kind: 'volume', volumeMl: roundHalfEven(measures.targetMl, 1) };
    case 'temperature':
      return { kind: 'temperature', temperatureC: roundHalfEven(chance.between(19.5, 22), 1) };
    case undefined:
      return null;
  }
}

function sourceOf(
  from: PlannedPreparation['from'],
  idOf: (key: string) => Id,
): PreparationPlan['source'] {
  return 'weigh' in from
    ? {
        kind: 'weigh',
        lotId: idOf(from.weigh),
        massG: decimalText(from.massG),
        balanceId: idOf(from.balance),
        flaskId: from.flask === null ? null : idOf(from.flask),
      }
    : {
        kind: 'concentrate',
        lotId: idOf(from.concentrate),
        takeMl: decimalText(from.takeMl),
        cylinderId: idOf(from.cylinder),
        flaskId: null,
      };
}
