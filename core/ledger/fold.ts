import type { MethodState } from '../chemistry';
import { foldMethod } from '../chemistry';
import type { LaboratoryState } from '../laboratory';
import { foldLaboratory } from '../laboratory';
import type { EquipmentState } from '../metrology';
import { foldEquipment } from '../metrology';
import type { PreparationState } from '../preparation';
import { foldPreparation } from '../preparation';
import type { BottleState, LotState } from '../reagent';
import { foldBottle, foldLot } from '../reagent';
import type { Fact, RecordKind } from '../record';

/** The states of the records that stand on their own; a run needs the records that it rests on. */
export interface PlainStates {
  readonly laboratory: LaboratoryState;
  readonly method: MethodState;
  readonly lot: LotState;
  readonly equipment: EquipmentState;
  readonly bottle: BottleState;
  readonly preparation: PreparationState;
}
export type PlainRecordKind = Exclude<RecordKind, 'run'>;

const FOLDS: { readonly [K in PlainRecordKind]: (facts: never) => PlainStates[K] | null } = {
  laboratory: foldLaboratory,
  method: foldMethod,
  lot: foldLot,
  equipment: foldEquipment,
  bottle: foldBottle,
  preparation: foldPreparation,
};

/**
 * Folds the facts of one record that stands on its own; null before its first fact. The facts must be of the
 * record's kind, as they are when they come from its stream.
 */
export function foldRecord<K extends PlainRecordKind>(
  kind: K,
  facts: readonly Fact[],
): PlainStates[K] | null {
  // The stream's kind says which facts these are; the compiler cannot follow that through the table.
  return FOLDS[kind](facts as never);
}
