import type { EquipmentState } from '#core/metrology';
import { calibratedBalance, calibratedBurette, calibratedThermometer } from '#core/metrology';
import type { HouseRules } from '#core/laboratory';
import { withOverrides } from '#core/laboratory';
import type { BottleState, LotState } from '#core/reagent';
import type { RecordVersion } from '#core/record';
import type { RunStandard, StandardChoice, StandardizationReferences } from '#core/titration/setUp';
import type { MethodOption, Shelf } from './methodOptions';
import { methodOptionsFor } from './methodOptions';
import { pipettesOf, vesselsFor } from './vessels';

/** What a laboratory has for a run. */
export interface Stores {
  /** Titrants before standards, the newest first. */
  readonly titrants: readonly BottleState[];
  readonly shelf: Shelf;
  /** What is in service. */
  readonly equipment: readonly EquipmentState[];
  readonly rules: HouseRules;
}

/** What was chosen; the first of its kind where nothing was. */
export interface Chosen {
  readonly bottleId: string | null;
  readonly optionKey: string | null;
  readonly standardId: string | null;
  readonly instrumentId: string | null;
  readonly excessId: string | null;
  readonly pipetteId: string | null;
  readonly buretteId: string | null;
  /** Null where nobody measures the temperature of the titrant. */
  readonly thermometerId: string | null;
}

/** What a choice comes to: the records chosen, those to choose from, and the run as it would begin. */
export type OnTheBench = NonNullable<ReturnType<typeof onTheBench>>;

/** What stands on the bench by a choice; null while the laboratory lacks a titrant, a way or a burette. */
export function onTheBench(chosen: Chosen, { titrants, shelf, equipment, rules }: Stores) {
  const bottle = pick(titrants, chosen.bottleId);
  const options = bottle ? methodOptionsFor(bottle, shelf, rules) : [];
  const option = options.find(({ key }) => key === chosen.optionKey) ?? options[0];
  const burettes = equipment.filter((item) => item.equipment.type === 'burette');
  const burette = pick(burettes, chosen.buretteId);
  const delivering = burette && calibratedBurette(burette);
  if (!bottle || !option || !delivering) return null;
  const { method } = option;
  const instruments = instrumentsFor(option, equipment);
  const instrument = pick(instruments, chosen.instrumentId);
  const standardRecord = pick([...option.lots, ...option.bottles], chosen.standardId);
  const standard = standardOf(standardRecord, instrument);
  const excess = excessOf(option, chosen, equipment);
  const thermometers = equipment.filter((item) => item.equipment.type === 'thermometer');
  const thermometer = thermometers.find(({ id }) => id === chosen.thermometerId);
  const rulesInForce = withOverrides(rules, method.rules);
  const references: StandardizationReferences | null = standard && {
    method,
    bottle,
    standard: standard.record,
    excess: excess.complete,
    burette: delivering,
    thermometer: (thermometer && calibratedThermometer(thermometer)) ?? null,
    rulesInForce,
  };
  const isComplete = standard !== null && (method.excess === null || excess.complete !== null);
  return {
    ...{ bottle, options, option, method, burettes, burette, instruments, instrument },
    ...{ standardRecord, standard, excess, thermometers, thermometer },
    ...{ rulesInForce, references, isComplete },
  };
}

/** The chosen record, or the first; undefined when there is nothing to choose from. */
function pick<T extends { readonly id: string }>(
  items: readonly T[],
  id: string | null,
): T | undefined {
  return items.find((item) => item.id === id) ?? items[0];
}

/** With what the standard is measured: balances for a lot, pipettes for a solution. */
function instrumentsFor(
  option: MethodOption,
  equipment: readonly EquipmentState[],
): readonly EquipmentState[] {
  return option.takes === 'lot'
    ? equipment.filter((item) => item.equipment.type === 'balance')
    : vesselsFor(option.method, equipment);
}

/** What is added in excess and with which pipette, as far as the laboratory has them. */
function excessOf(option: MethodOption, chosen: Chosen, equipment: readonly EquipmentState[]) {
  const bottle = pick(option.excesses, chosen.excessId);
  const pipettes = pipettesOf(equipment);
  const pipette = pick(pipettes, chosen.pipetteId);
  const complete = option.method.excess && bottle && pipette ? { bottle, vessel: pipette } : null;
  return { bottle, pipettes, pipette, complete };
}

/** A record at the version that it has now. */
export function at({ id, version }: RecordVersion): RecordVersion {
  return { id, version };
}

/** What the standard and its instrument come to: as the run names them, and as their records say. */
function standardOf(
  record: LotState | BottleState | undefined,
  instrument: EquipmentState | undefined,
): { readonly choice: StandardChoice; readonly record: RunStandard } | null {
  if (!record || !instrument) return null;
  if (!('lot' in record)) {
    return {
      choice: { kind: 'bottle', bottle: at(record), vessel: at(instrument) },
      record: { kind: 'bottle', bottle: record, vessel: instrument },
    };
  }
  const balance = calibratedBalance(instrument);
  if (!balance) return null;
  return {
    choice: { kind: 'lot', lot: at(record), balance: at(instrument) },
    record: { kind: 'lot', lot: record, balance },
  };
}
