import type { Method } from '../../chemistry';
import type { HouseRules } from '../../laboratory';
import type {
  CalibratedBalance,
  CalibratedBurette,
  CalibratedThermometer,
  EquipmentState,
} from '../../metrology';
import type { BottleState, LotState } from '../../reagent';

/** The standard of a run, as its records say: the lot that is weighed, or the solution whose molarity is known. */
export type RunStandard =
  | { readonly kind: 'lot'; readonly lot: LotState; readonly balance: CalibratedBalance }
  | { readonly kind: 'bottle'; readonly bottle: BottleState; readonly vessel: EquipmentState };

/** The records that a run rests on, each at the version that its set-up names. */
export interface RunReferences {
  readonly method: Method;
  readonly bottle: BottleState;
  readonly standard: RunStandard;
  /** The solution of which every flask gets a pipette full, for a back-titration; null without one. */
  readonly excess: RunExcess | null;
  readonly burette: CalibratedBurette;
  /** What read the temperature of the titrant; null where nobody measured it. */
  readonly thermometer: CalibratedThermometer | null;
  /** The house rules of laboratory and method in force when the run began: it should follow them. */
  readonly rulesInForce: HouseRules;
}

/** The reagent of a back-titration, and the pipette that measures it. */
interface RunExcess {
  readonly bottle: BottleState;
  readonly vessel: EquipmentState;
}
