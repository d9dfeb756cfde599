import type { HouseRules } from '../../laboratory';
import type { Id } from '../../grammar';
import type { DecimalText } from '../../measurement';
import type { BottleState, StatedMolarity } from '../../reagent';
import { knownMolarity } from '../../reagent';
import type { RecordVersion } from '../../record';
import { isAnalysis } from './references';

/** A method that ships, or one of the laboratory's own at the version that was in force. */
export type MethodChoice =
  { readonly kind: 'catalogue'; readonly id: string } | ({ readonly kind: 'own' } & RecordVersion);

/**
 * Where the standard comes from: a lot, weighed into each flask; or a bottle of known molarity, of which an aliquot is
 * titrated, or into an aliquot of the titrant if the method says so. The vessel measures the aliquots.
 */
export type StandardChoice =
  | { readonly kind: 'lot'; readonly lot: RecordVersion; readonly balance: RecordVersion }
  | { readonly kind: 'bottle'; readonly bottle: RecordVersion; readonly vessel: RecordVersion };

/** What the last series by a method showed of how well one titration is repeated. */
export interface EarlierSeries {
  readonly series: number;
  /** Relative standard deviation of a single titration, pooled over them. */
  readonly relativeSdPercent: DecimalText;
  readonly degreesOfFreedom: number;
}

/** What was chosen before the first flask, whatever is sought. */
interface Circumstances {
  readonly method: MethodChoice;
  /** For a back-titration: the bottle of known molarity of which each flask gets an excess, and its pipette. */
  readonly excess: { readonly bottle: RecordVersion; readonly vessel: RecordVersion } | null;
  readonly burette: RecordVersion;
  readonly rules: HouseRules;
  /** Of the titrant where a thermometer read it, else of the laboratory. */
  readonly temperatureC: DecimalText;
  /** Half-width of a 95 % interval. */
  readonly temperatureVariationK: DecimalText;
  /** What read it; null where nobody measured it, so that no volume is corrected by it. */
  readonly thermometer: RecordVersion | null;
  /** As measured; null for the conventional density. */
  readonly airDensityKgPerM3: DecimalText | null;
  /** Relative standard deviation of a single titration, when it is known from validation. */
  readonly methodRepeatabilityPercent: DecimalText | null;
  /** By the same method and kind of burette; null where there were none. */
  readonly earlierSeries: EarlierSeries | null;
  /** Why it goes on in spite of a warning, such as an overdue calibration. */
  readonly reason: string | null;
}

/** A titrant is standardized: `bottle` is the one whose molarity is wanted. */
export interface StandardizationSetUp extends Circumstances {
  readonly bottle: RecordVersion;
  readonly standard: StandardChoice;
}

/** How portions of samples are measured into the flasks. */
export type PortioningChoice =
  | { readonly kind: 'weighed'; readonly balance: RecordVersion; readonly whole?: true }
  | { readonly kind: 'aliquot'; readonly vessel: RecordVersion };

/** A sample that is titrated, and how it was diluted before: the first of its dilutions, or none of them. */
export interface SampleChoice {
  readonly sample: RecordVersion;
  readonly dilutions: readonly { readonly pipette: RecordVersion; readonly flask: RecordVersion }[];
}

/** What a standardization came to, before it is certified. */
export interface CalculatedMolarity extends StatedMolarity {
  readonly runId: Id;
}

/** A titrant with the molarity that was calculated of it; as it is where a better one is known. */
export function asCalculated(
  titrant: BottleState,
  calculated: CalculatedMolarity | undefined,
): BottleState {
  if (!calculated || knownMolarity(titrant)) return titrant;
  const { runId: _runId, ...made } = calculated;
  return { ...titrant, made };
}

/** Samples are titrated with a bottle of known molarity; `method` names the analysis. */
export interface AnalysisSetUp extends Circumstances {
  readonly titrant: RecordVersion;
  readonly samples: readonly SampleChoice[];
  readonly portioning: PortioningChoice;
  /**
   * The molarity that a standardization came to and that nobody has authorized yet: it may be worked with, no report rests on it. Absent
   * where the titrant is certified, or made up to be known.
   */
  readonly calculated?: CalculatedMolarity;
  /** Where the burette stands as the run before it ended, mL; absent where it is filled anew. */
  readonly levelMl?: DecimalText;
  /** The runs that hold a batch together, in their order, this one among them; absent where it holds in one. */
  readonly batch?: { readonly runIds: readonly Id[] };
}

/** As many flasks as a run may have. */
export const FLASKS_AT_MOST = 60;

/** How many samples fit into a run by its rules: a flask for each determination, a rough one included. */
export function samplesPerRun({
  agreeAtLeast,
  firstIsRough,
}: Pick<HouseRules, 'agreeAtLeast' | 'firstIsRough'>): number {
  return Math.floor(FLASKS_AT_MOST / (agreeAtLeast + Number(firstIsRough)));
}

/** The samples of a batch, in as few runs as hold them, of like size. */
export function inRuns<T>(samples: readonly T[], perRun: number): readonly (readonly T[])[] {
  const runs = Math.ceil(samples.length / perRun);
  const size = Math.ceil(samples.length / runs);
  return Array.from({ length: runs }, (_, i) => samples.slice(i * size, (i + 1) * size));
}

export type RunSetUp = StandardizationSetUp | AnalysisSetUp;

/** A record whose newer version a run goes on with. */
export interface Adopted extends RecordVersion {
  readonly kind: 'method' | 'entry' | 'lot' | 'bottle' | 'equipment' | 'sample';
}

/** A set-up with the versions that were adopted since. */
export function withAdopted(setUp: RunSetUp, adopted: readonly Adopted[]): RunSetUp {
  const latest = new Map(adopted.map(({ id, version }) => [id, version]));
  const at = <V extends RecordVersion>(named: V): V => ({
    ...named,
    version: latest.get(named.id) ?? named.version,
  });
  const { method, excess, burette, thermometer } = setUp;
  const circumstances = {
    method: method.kind === 'own' ? at(method) : method,
    excess: excess && { bottle: at(excess.bottle), vessel: at(excess.vessel) },
    burette: at(burette),
    thermometer: thermometer && at(thermometer),
  };
  if (isAnalysis(setUp)) {
    const { titrant, samples, portioning } = setUp;
    return {
      ...setUp,
      ...circumstances,
      titrant: at(titrant),
      samples: samples.map(({ sample, dilutions }) => ({
        sample: at(sample),
        dilutions: dilutions.map(({ pipette, flask }) => ({
          pipette: at(pipette),
          flask: at(flask),
        })),
      })),
      portioning:
        portioning.kind === 'weighed'
          ? { ...portioning, balance: at(portioning.balance) }
          : { kind: 'aliquot', vessel: at(portioning.vessel) },
    };
  }
  const { bottle, standard } = setUp;
  return {
    ...setUp,
    ...circumstances,
    bottle: at(bottle),
    standard:
      standard.kind === 'lot'
        ? { ...standard, lot: at(standard.lot), balance: at(standard.balance) }
        : { ...standard, bottle: at(standard.bottle), vessel: at(standard.vessel) },
  };
}

/** The bottle that a run is about: the one that is standardized, or that samples are titrated with. */
export function bottleIdOf(setUp: RunSetUp): Id {
  return isAnalysis(setUp) ? setUp.titrant.id : setUp.bottle.id;
}
