import type { Analysis, Method, Part } from '../../chemistry';
import type { HouseRules } from '../../laboratory';
import type {
  CalibratedBalance,
  CalibratedBurette,
  CalibratedThermometer,
  EquipmentState,
} from '../../metrology';
import type { BottleState, LotState } from '../../reagent';
import type { SampleState } from '../../sample';

/** The standard of a run, as its records say: the lot that is weighed, or the solution whose molarity is known. */
export type RunStandard =
  | { readonly kind: 'lot'; readonly lot: LotState; readonly balance: CalibratedBalance }
  | { readonly kind: 'bottle'; readonly bottle: BottleState; readonly vessel: EquipmentState };

/** What every run rests on. */
interface Common {
  /** The solution of which every flask gets a pipette full, for a back-titration; null without one. */
  readonly excess: RunExcess | null;
  readonly burette: CalibratedBurette;
  /** What read the temperature of the titrant; null where nobody measured it. */
  readonly thermometer: CalibratedThermometer | null;
  /** The house rules of laboratory and method in force when the run began: it should follow them. */
  readonly rulesInForce: HouseRules;
}

/** The records that a standardization rests on, each at the version that its set-up names. */
export interface StandardizationReferences extends Common {
  readonly method: Method;
  readonly bottle: BottleState;
  readonly standard: RunStandard;
}

/** What measures portions of samples. */
export type Portioning =
  | {
      readonly kind: 'weighed';
      readonly balance: CalibratedBalance;
      /** Each portion is one unit of the sample, such as a tablet. */
      readonly whole?: true;
    }
  | { readonly kind: 'aliquot'; readonly vessel: EquipmentState };

/** Whether each flask holds one whole unit of its sample. */
export function takesWholeUnits(portioning: Portioning): boolean {
  return portioning.kind === 'weighed' && portioning.whole === true;
}

/** A sample in a run. */
export interface RunSample {
  readonly state: SampleState;
  /** The ware of the dilutions that what is titrated went through, in their order. */
  readonly dilutions: readonly {
    readonly pipette: EquipmentState;
    readonly flask: EquipmentState;
  }[];
}

/** An analysis, or what it tells of one part of what a sample holds. */
export type StatedAnalysis = Analysis & { readonly part?: Part };

/** The records that an analysis of samples rests on. A series of it has one sample. */
export interface AnalysisReferences extends Common {
  readonly method: StatedAnalysis;
  readonly titrant: BottleState;
  readonly samples: readonly RunSample[];
  readonly portioning: Portioning;
}

export type RunReferences = StandardizationReferences | AnalysisReferences;

/** The reagent of a back-titration, and the pipette that measures it. */
interface RunExcess {
  readonly bottle: BottleState;
  readonly vessel: EquipmentState;
}

/** Whether samples are titrated, and not a titrant standardized. */
export function isAnalysis<T extends object>(
  of: T,
): of is Extract<T, { readonly samples: readonly unknown[] }> {
  return 'samples' in of;
}
