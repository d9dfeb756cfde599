import type { Own } from '../chemistry';
import { findContent, findSubstance, shortNameOf, solventOf } from '../chemistry';
import type { Id, PlainDate } from '../grammar';
import { combineComponents } from '../measurement';
import type { Balance, EquipmentState, Glassware } from '../metrology';
import { isCalibrationOverdue, weighingLinearity, weighingRepeatability } from '../metrology';
import type { BottleState, LotState } from '../reagent';
import {
  freshnessOf,
  isLotExpired,
  labelledMolarity,
  lotMolarity,
  mayBeUsed,
  readyFrom,
} from '../reagent';
import type { Finding } from '../record';
import { impossible, unlikely } from '../record';
import type { PreparationRecords } from './result';
import type { Wish } from './route';
import { exceededSolubility } from './route';
import type { PreparationPlan } from './work';
import { isExact, parentsOf } from './work';

/** A balance whose u is more than this part of the mass is too coarse for a standard. */
export const TOO_COARSE = 0.001;

/** Relative standard uncertainty of a mass on a balance. */
export function massUncertainty(balance: Balance, massG: number): number {
  return (
    combineComponents([...weighingRepeatability(balance), ...weighingLinearity(balance)]) / massG
  );
}

/** What is left of a lot (g, mL) or a bottle (mL) by its id; undefined when nobody counts. */
export type Left = (id: string) => number | undefined;

/** What speaks against a plan on a day, with records that hold all that it names. */
export function checkPreparationStart(
  plan: PreparationPlan,
  records: PreparationRecords,
  left: Left,
  today: PlainDate,
): readonly Finding[] {
  if (!findContent(plan.soluteId, plan.own)) {
    return [impossible('not-in-catalogue', 'soluteId', { kind: 'substance' })];
  }
  return [
    ...checkSolubility(plan),
    ...checkSource(plan, records, today),
    ...checkStock(plan, records, left),
    ...equipmentOf(plan).flatMap(({ id }) => checkEquipmentInUse(records.equipment, id, today)),
  ];
}

/** What a substance is dissolved in, and how much of it dissolves there. */
export function dissolvingOf(
  substanceId: string,
  own: Own = [],
): Pick<Wish, 'solventName' | 'solubilityMolPerL'> {
  const substance = findSubstance(substanceId, own);
  return {
    solventName: solventOf(substance?.solution.solventId ?? 'water').name,
    solubilityMolPerL: substance?.solubilityMolPerL ?? null,
  };
}

/** Nobody dissolves more than dissolves; it would lie undissolved at the mark. */
function checkSolubility({ soluteId, own, targetMolarity }: PreparationPlan): readonly Finding[] {
  const molarityMolPerL = Number(targetMolarity ?? 0);
  const solubilityMolPerL = exceededSolubility({ ...dissolvingOf(soluteId, own), molarityMolPerL });
  if (solubilityMolPerL === null) return [];
  const substance = shortNameOf({ substanceId: soluteId, own });
  return [impossible('does-not-dissolve', 'targetMolarity', { substance, solubilityMolPerL })];
}

/** A piece of equipment that a plan names, and what it must be. */
interface NeededEquipment {
  readonly id: Id;
  readonly kind: 'balance' | 'thermometer' | Glassware['kind'];
}

function one(id: Id | null, kind: NeededEquipment['kind']): readonly NeededEquipment[] {
  return id === null ? [] : [{ id, kind }];
}

/** The balance, flasks, pipettes, cylinders and the thermometer that a plan names. */
export function equipmentOf(plan: PreparationPlan): readonly NeededEquipment[] {
  return [...equipmentFor(plan.source), ...one(plan.thermometerId, 'thermometer')];
}

function equipmentFor(source: PreparationPlan['source']): readonly NeededEquipment[] {
  switch (source.kind) {
    case 'weigh':
      return [...one(source.balanceId, 'balance'), ...one(source.flaskId, 'volumetric-flask')];
    case 'concentrate':
      return [
        ...one(source.cylinderId, 'measuring-cylinder'),
        ...one(source.flaskId, 'volumetric-flask'),
      ];
    case 'add-volumes':
      return one(source.cylinderId, 'measuring-cylinder');
    case 'dilute':
      return source.stages.flatMap(({ pipetteId, flaskId }) => [
        ...one(pipetteId, 'one-mark-pipette'),
        ...one(flaskId, 'volumetric-flask'),
      ]);
    case 'indicator':
      return [];
  }
}

/** Whether all that a plan names is there and of its kind; else what is not, in a sentence. */
export function missingFor(plan: PreparationPlan, records: PreparationRecords): Finding | null {
  const parents = parentsOf(plan.source);
  if (parents.some(({ kind, id }) => kind === 'lot' && !has(records.lots, id))) {
    return impossible('unknown-reference', 'source', { kind: 'lot', isAtVersion: false });
  }
  if (parents.some(({ kind, id }) => kind === 'bottle' && !has(records.bottles, id))) {
    return impossible('unknown-reference', 'source', { kind: 'bottle', isAtVersion: false });
  }
  for (const { id, kind } of equipmentOf(plan)) {
    const item = records.equipment.find((one) => one.id === id)?.equipment;
    const isKind = item?.type === 'glassware' ? item.kind === kind : item?.type === kind;
    if (!isKind) return impossible('not-a', 'source', { kind });
  }
  return null;
}

function has(among: readonly { readonly id: string }[], id: string): boolean {
  return among.some((one) => one.id === id);
}

function checkSource(
  plan: PreparationPlan,
  records: PreparationRecords,
  today: PlainDate,
): readonly Finding[] {
  const { source } = plan;
  switch (source.kind) {
    case 'weigh': {
      const lot = records.lots.find(({ id }) => id === source.lotId);
      const balance = records.equipment.find(({ id }) => id === source.balanceId)?.equipment;
      if (!lot || balance?.type !== 'balance') return [];
      const relative = massUncertainty(balance, Number(source.massG));
      return [
        ...checkLotInUse(lot, plan, today),
        ...(lot.lot.dissolved
          ? [impossible('not-solid', 'source', { lotNumber: lot.lot.lotNumber })]
          : []),
        ...(isExact(plan) && relative > TOO_COARSE
          ? [
              unlikely('balance-too-coarse', 'source', {
                massG: source.massG,
                balance: balance.name,
                percent: 100 * relative,
              }),
            ]
          : []),
      ];
    }
    case 'concentrate': {
      const lot = records.lots.find(({ id }) => id === source.lotId);
      if (!lot) return [];
      const strength = lotMolarity(lot.lot);
      if (strength === null) {
        return [impossible('not-dissolved', 'source', { lotNumber: lot.lot.lotNumber })];
      }
      return [
        ...checkLotInUse(lot, plan, today),
        ...tooStrong(plan, strength, `lot ${lot.lot.lotNumber}`),
      ];
    }
    case 'add-volumes':
      return [
        ...checkBottleInUse(plan, records.bottles, source.bottleId, today),
        ...(source.weakerBottleId === null
          ? []
          : checkWeaker(plan, records.bottles, source.weakerBottleId, today)),
      ];
    case 'dilute':
      return source.from.kind === 'sample'
        ? tooStrong(plan, Number(source.from.molarity), source.from.name)
        : checkBottleInUse(plan, records.bottles, source.from.bottleId, today);
    case 'indicator':
      return [];
  }
}

function tooStrong(plan: PreparationPlan, strength: number, name: string): readonly Finding[] {
  if (Number(plan.targetMolarity ?? 0) <= strength) return [];
  return [
    impossible('cannot-concentrate', 'targetMolarity', {
      name,
      strength,
      target: plan.targetMolarity ?? '',
    }),
  ];
}

function checkLotInUse(
  { lot, withdrawn }: LotState,
  plan: PreparationPlan,
  today: PlainDate,
): readonly Finding[] {
  const name = `Lot ${lot.lotNumber}`;
  if (lot.substanceId !== plan.soluteId) {
    const other = findSubstance(lot.substanceId, lot.own)?.name ?? 'another substance';
    return [impossible('lot-of-another', 'source', { name, other })];
  }
  if (withdrawn) {
    return [impossible('out-of-use', 'source', { name, reason: withdrawn.reason })];
  }
  if (!isLotExpired(lot, today)) return [];
  return [unlikely('lot-expired', 'source', { name, useBy: lot.useBy ?? '' })];
}

/** A bottle that may be taken from for a plan: of its substance, not withdrawn, in date. */
function checkUsable(
  plan: PreparationPlan,
  bottle: BottleState,
  today: PlainDate,
): readonly Finding[] {
  const name = `Bottle ${bottle.code}`;
  if (bottle.substanceId !== plan.soluteId) {
    return [impossible('wrong-bottle', 'source', { name })];
  }
  if (bottle.withdrawn) {
    return [impossible('out-of-use', 'source', { name, reason: bottle.withdrawn.reason })];
  }
  const from = readyFrom(bottle);
  if (from !== null && today < from) return [unlikely('not-settled', 'source', { name, from })];
  return mayBeUsed(freshnessOf(bottle, today))
    ? []
    : [unlikely('bottle-expired', 'source', { name })];
}

function strengthOf(bottle: BottleState): number {
  return Number(labelledMolarity(bottle) ?? 0);
}

function checkBottleInUse(
  plan: PreparationPlan,
  bottles: readonly BottleState[],
  bottleId: string,
  today: PlainDate,
): readonly Finding[] {
  const bottle = bottles.find(({ id }) => id === bottleId);
  if (!bottle) return [];
  return [
    ...checkUsable(plan, bottle, today),
    ...tooStrong(plan, strengthOf(bottle), `Bottle ${bottle.code}`),
  ];
}

/** The weaker of two solutions that are added together must be weaker than what is wanted. */
function checkWeaker(
  plan: PreparationPlan,
  bottles: readonly BottleState[],
  bottleId: string,
  today: PlainDate,
): readonly Finding[] {
  const bottle = bottles.find(({ id }) => id === bottleId);
  if (!bottle) return [];
  const isWeaker = strengthOf(bottle) < Number(plan.targetMolarity ?? 0);
  return [
    ...checkUsable(plan, bottle, today),
    ...(isWeaker ? [] : [impossible('not-weaker', 'source', { code: bottle.code })]),
  ];
}

/** A stock that does not suffice is said before, not after. */
function checkStock(
  { source }: PreparationPlan,
  { lots, bottles, equipment }: PreparationRecords,
  left: Left,
): readonly Finding[] {
  return needsOf(source, equipment).flatMap(({ id, amount, unit }) => {
    const there = left(id);
    if (there === undefined || there >= amount) return [];
    const lot = lots.find((one) => one.id === id)?.lot.lotNumber;
    const code = bottles.find((one) => one.id === id)?.code;
    const name = lot === undefined ? `bottle ${code ?? ''}` : `lot ${lot}`;
    return [
      impossible('not-enough', 'source', { name, unit, left: Math.max(0, there), needed: amount }),
    ];
  });
}

interface Need {
  readonly id: string;
  readonly amount: number;
  readonly unit: 'g' | 'mL';
}

/** What a plan will take of which lot or bottle. */
export function needsOf(
  source: PreparationPlan['source'],
  equipment: readonly EquipmentState[],
): readonly Need[] {
  switch (source.kind) {
    case 'weigh':
      return [{ id: source.lotId, amount: Number(source.massG), unit: 'g' }];
    case 'concentrate':
      return [{ id: source.lotId, amount: Number(source.takeMl), unit: 'mL' }];
    case 'add-volumes': {
      const { bottleId, takeMl, weakerBottleId, fillMl } = source;
      const stronger: Need = { id: bottleId, amount: Number(takeMl), unit: 'mL' };
      return weakerBottleId === null
        ? [stronger]
        : [stronger, { id: weakerBottleId, amount: Number(fillMl), unit: 'mL' }];
    }
    case 'dilute': {
      const pipette = equipment.find(({ id }) => id === source.stages[0]?.pipetteId)?.equipment;
      if (source.from.kind === 'sample' || pipette?.type !== 'glassware') return [];
      return [{ id: source.from.bottleId, amount: Number(pipette.volumeMl), unit: 'mL' }];
    }
    case 'indicator':
      return [];
  }
}

function checkEquipmentInUse(
  equipment: readonly EquipmentState[],
  id: string,
  today: PlainDate,
): readonly Finding[] {
  const found = equipment.find((one) => one.id === id);
  if (!found) return [];
  const { name, calibrationDue } = found.equipment;
  if (found.withdrawn) {
    return [impossible('out-of-use', 'source', { name, reason: found.withdrawn.reason })];
  }
  if (!isCalibrationOverdue(found.equipment, today)) return [];
  return [unlikely('calibration-overdue', 'source', { name, due: calibrationDue ?? '' })];
}
