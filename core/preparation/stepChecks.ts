import { decimalPlaces } from '../measurement';
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
      ? [impossible('figure-needed', 'step')]
      : [unlikely('left-out', 'step')];
  }
  if (step.measures && step.entries.length === 0) {
    return [impossible('must-be-measured', 'step')];
  }
  const { waitsUntil, waitMinutes } = step;
  if (waitMinutes !== null && waitsUntil === null) {
    return [unlikely('wait-not-begun', 'step', { waitMinutes })];
  }
  if (waitsUntil !== null && at < waitsUntil) {
    const leftMinutes = Math.ceil((Date.parse(waitsUntil) - Date.parse(at)) / 60_000);
    return [
      unlikely('too-early', 'step', { waitMinutes: waitMinutes ?? leftMinutes, leftMinutes }),
    ];
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
  return [unlikely('out-of-order', 'step', { text: missing.text })];
}

function checkReplaced(step: StepState, replaces: readonly string[]): readonly Finding[] {
  if (replaces.some((id) => !step.entries.some(({ factId }) => factId === id))) {
    return [impossible('no-entry-to-replace', 'replaces')];
  }
  return replaces.length > 0 ? [unlikely('correction', 'reason')] : [];
}

function checkQuantity(
  plan: PreparationPlan,
  measures: Measure | null,
  quantity: Quantity,
  around: Pick<AroundStep, 'now'>,
): readonly Finding[] {
  if (measures?.kind !== quantity.kind) {
    return [impossible('not-measured-here', 'quantity')];
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
        return [impossible('no-volume', 'volumeMl')];
      }
      if (Math.abs(volumeMl / measures.targetMl - 1) <= STRAY.approximate) return [];
      return [unlikely('volume-off-plan', 'volumeMl', { targetMl: measures.targetMl })];
    }
    case 'temperature': {
      const temperatureC = Number(quantity.temperatureC);
      if (temperatureC < 5 || temperatureC > 40) {
        return [impossible('no-room-temperature', 'temperatureC')];
      }
      if (Math.abs(temperatureC - 20) <= 5) return [];
      return [unlikely('off-20', 'temperatureC')];
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
  return [unlikely('mass-off-plan', 'massG', { targetG, decimals, slip })];
}

/** What speaks against bottling a preparation now. */
export function checkBottling(
  preparation: PreparationState,
  hasResult: boolean,
): readonly Finding[] {
  if (preparation.status !== 'open') {
    return [impossible('preparation-over', 'preparation', { status: preparation.status })];
  }
  const spoilt = spoiltBy(preparation);
  if (spoilt) {
    return [impossible('spoilt', 'preparation', { incident: spoilt.name, reason: spoilt.reason })];
  }
  if (preparation.steps.some(({ entries }) => entries.length > 1)) {
    return [impossible('entries-contradict', 'preparation')];
  }
  const undone = preparation.steps.find(
    ({ done, work }) => !done && work !== 'bottle' && work !== 'label',
  );
  if (!hasResult) {
    return [impossible('figure-missing', 'preparation')];
  }
  return undone ? [unlikely('not-finished', 'preparation', { text: undone.text })] : [];
}
