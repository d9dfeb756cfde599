import { decimalPlaces, roundHalfEven, roundSignificant } from '../measurement';
import type { Balance, EquipmentState } from '../metrology';
import { checkWeighing, netMassG } from '../metrology';
import type { Around, Finding } from '../record';
import { impossible, unlikely } from '../record';
import { suspectWeighing } from '../slip';
import type { PreparationFactBodies, PreparationState, Quantity, StepState } from './record';
import { spoiltBy } from './record';
import type { Measure, PreparationPlan } from './work';
import { isExact } from './work';

/** A mass or volume may stray this far from what was planned before it is asked about. */
const STRAY: Readonly<Record<'exact' | 'approximate', number>> = { exact: 0.1, approximate: 0.2 };

/** Whether a step takes from a lot or a bottle: from then on it counts what that was. */
export function drawsFromParent({ work, measures }: StepState): boolean {
  return work === 'measure' || (measures !== null && measures.kind !== 'temperature');
}

/** What speaks against a figure for a step. */
export function checkMeasured(
  preparation: PreparationState,
  step: StepState,
  { replaces, quantity }: PreparationFactBodies['preparation.measured'],
  around: Pick<AroundStep, 'now'>,
): readonly Finding[] {
  return [
    ...checkOrder(preparation, step),
    ...checkReplaced(step, replaces),
    ...checkQuantity(preparation.plan, step.measures, quantity, around),
  ];
}

/** The balances that a step may be done with. */
type AroundStep = Around<{ readonly equipment: EquipmentState }>;

/** What speaks against a step being done, or left out, at a time (ISO 8601, UTC). */
export function checkDone(
  preparation: PreparationState,
  step: StepState,
  isLeftOut: boolean,
  at: string,
): readonly Finding[] {
  if (isLeftOut) {
    return step.measures && step.measures.kind !== 'temperature'
      ? [impossible('must-be-measured', 'step', 'Without this figure there is no molarity.')]
      : [unlikely('left-out', 'step', 'Say why this step is left out.')];
  }
  if (step.measures && step.entries.length === 0) {
    return [impossible('must-be-measured', 'step', 'Write down what was measured.')];
  }
  const { waitsUntil, waitMinutes } = step;
  if (waitsUntil !== null && at < waitsUntil) {
    const leftMinutes = Math.ceil((Date.parse(waitsUntil) - Date.parse(at)) / 60_000);
    const message = `It wants ${String(waitMinutes)} minutes; ${String(leftMinutes)} of them are left. If it goes on now, say why.`;
    return [unlikely('too-early', 'step', message)];
  }
  return checkOrder(preparation, step);
}

/** Steps are in an order for a reason: a mark reached before all is dissolved is no mark. */
function checkOrder({ steps }: PreparationState, step: StepState): readonly Finding[] {
  const before = steps.slice(
    0,
    steps.findIndex(({ id }) => id === step.id),
  );
  const missing = before.find(({ done }) => !done);
  if (!missing) return [];
  const message = `“${missing.text}” comes before this. If it was not done, say why.`;
  return [unlikely('out-of-order', 'step', message)];
}

function checkReplaced(step: StepState, replaces: readonly string[]): readonly Finding[] {
  if (replaces.some((id) => !step.entries.some(({ factId }) => factId === id))) {
    return [impossible('unknown-entry', 'replaces', 'There is no such entry to correct.')];
  }
  return replaces.length > 0 ? [unlikely('correction', 'reason', 'Say why it is corrected.')] : [];
}

function checkQuantity(
  plan: PreparationPlan,
  measures: Measure | null,
  quantity: Quantity,
  around: Pick<AroundStep, 'now'>,
): readonly Finding[] {
  if (measures?.kind !== quantity.kind) {
    return [impossible('not-measured-here', 'quantity', 'This step does not measure that.')];
  }
  switch (quantity.kind) {
    case 'mass': {
      if (measures.kind !== 'mass') return [];
      const balance = around.now('equipment', measures.balanceId)?.equipment;
      if (balance?.type !== 'balance') return [];
      const found = checkWeighing(quantity.weighing, balance);
      if (found.some(({ severity }) => severity === 'impossible')) return found;
      const massG = Number(netMassG(quantity.weighing));
      return [...found, ...checkMass(plan, massG, measures.targetG, balance)];
    }
    case 'volume': {
      if (measures.kind !== 'volume') return [];
      const volumeMl = Number(quantity.volumeMl);
      if (volumeMl <= 0) {
        return [impossible('no-volume', 'volumeMl', 'The volume must be more than 0 mL.')];
      }
      if (Math.abs(volumeMl / measures.targetMl - 1) <= STRAY.approximate) return [];
      const message = `${roundSignificant(measures.targetMl, 3)} mL were planned. If it stands, say why.`;
      return [unlikely('off-plan', 'volumeMl', message)];
    }
    case 'temperature': {
      const temperatureC = Number(quantity.temperatureC);
      if (temperatureC < 5 || temperatureC > 45) {
        const message = 'A laboratory is between 5 and 45 °C.';
        return [impossible('no-room-temperature', 'temperatureC', message)];
      }
      if (Math.abs(temperatureC - 20) <= 5) return [];
      const message =
        'Flasks are marked for 20 °C: let it come nearer, or say why it is filled now.';
      return [unlikely('off-20', 'temperatureC', message)];
    }
  }
}

function checkMass(
  plan: PreparationPlan,
  massG: number,
  targetG: number,
  balance: Balance,
): readonly Finding[] {
  const stray = STRAY[isExact(plan) ? 'exact' : 'approximate'];
  if (Math.abs(massG / targetG - 1) <= stray) return [];
  const decimals = decimalPlaces(balance.readabilityG);
  const slip = suspectWeighing(massG, {
    intendedG: targetG,
    toleranceG: stray * targetG,
    decimals,
  });
  const planned = `${roundHalfEven(targetG, Math.min(decimals, 4))} g were planned.`;
  const message = slip
    ? `${planned} ${slip.question} Then ${roundHalfEven(slip.meant, decimals)} g was meant.`
    : `${planned} If it stands, say why.`;
  return [unlikely('off-plan', 'massG', message)];
}

/** What speaks against bottling a preparation now. */
export function checkBottling(
  preparation: PreparationState,
  hasResult: boolean,
): readonly Finding[] {
  if (preparation.status !== 'open') {
    const message = `This preparation is ${preparation.status} already.`;
    return [impossible('preparation-closed', 'preparation', message)];
  }
  const spoilt = spoiltBy(preparation);
  if (spoilt) {
    const message = `Discard it: ${spoilt.name}. ${spoilt.reason}`;
    return [impossible('spoilt', 'preparation', message)];
  }
  if (preparation.steps.some(({ entries }) => entries.length > 1)) {
    const message = 'Two entries for one figure contradict each other: correct one of them first.';
    return [impossible('conflict-open', 'preparation', message)];
  }
  const undone = preparation.steps.find(
    ({ done, work }) => !done && work !== 'bottle' && work !== 'label',
  );
  if (!hasResult) {
    const message = 'A figure is missing that the molarity needs.';
    return [impossible('no-result', 'preparation', message)];
  }
  return undone
    ? [unlikely('not-finished', 'preparation', `“${undone.text}” is not done. Say why.`)]
    : [];
}
