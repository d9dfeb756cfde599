import { excessRatioOfMethod, moleRatioOfMethod, ratiosOfAnalysis } from '../../chemistry';
import type {
  Blank,
  Determination,
  Excess,
  KnownSolution,
  WeighedStandard,
} from '../../determination';
import { MOLARITY, PlainDetermination } from '../../determination';
import type { Expression } from '../../measurement';
import { exact, UNITS } from '../../measurement';
import type { EquipmentState } from '../../metrology';
import { calibratedPointOf } from '../../metrology';
import { bottleMolarityInput, lotMolarMassInput, lotPurityInput } from '../../reagent';
import type { AnalysisReferences, RunReferences, StandardizationReferences } from '../setUp';
import {
  isAnalysis,
  pipetteVolumeMl,
  sampleOf,
  soughtIn,
  soughtOf,
  statedBy,
  takesWholeUnits,
} from '../setUp';

/** The records that a determination rests on: of a standardization, or of a series of an analysis. */
export type DeterminingRecords =
  | Pick<StandardizationReferences, 'bottle' | 'standard' | 'method' | 'excess'>
  | Pick<AnalysisReferences, 'titrant' | 'samples' | 'portioning' | 'method' | 'excess'>;

/**
 * What a run determines, from what and how: what of its records enters the balance. `massFactor` makes masses of what the balance
 * shows of a weighed portion; null before there is a run.
 */
export function determinationOf(
  records: DeterminingRecords,
  blank: Blank,
  massFactor: Expression | null = null,
): Determination {
  return isAnalysis(records)
    ? contentDetermination(records, blank, massFactor)
    : molarityDetermination(records, blank, massFactor);
}

type StandardizingRecords = Exclude<DeterminingRecords, { readonly samples: unknown }>;
type AnalysingRecords = Extract<DeterminingRecords, { readonly samples: unknown }>;

function molarityDetermination(
  records: StandardizingRecords,
  blank: Blank,
  massFactor: Expression | null,
): Determination {
  const { method, excess } = records;
  const known = knownOf(records, massFactor);
  const soughtPerKnown = exact(moleRatioOfMethod(method));
  const common = { sought: MOLARITY, soughtPerKnown, blank };
  if (known.kind === 'weighed' || soughtIn(records.standard, method) === 'burette') {
    return { ...common, soughtIn: 'burette', known, excess: null };
  }
  return {
    ...common,
    soughtIn: 'flask',
    known,
    dilutions: [],
    excess: measuredExcess(excess, blank, excessRatioOfMethod(method)),
  };
}

/** A content of a sample, by a titrant of known molarity. */
function contentDetermination(
  records: AnalysingRecords,
  blank: Blank,
  massFactor: Expression | null,
): Determination {
  const { method, titrant, portioning, excess } = records;
  const { state, dilutions } = sampleOf(records);
  const { perTitrant, perExcess } = ratiosOfAnalysis(method, statedBy(method, state).as);
  return {
    soughtIn: 'flask',
    sought: soughtOf(records).as,
    soughtPerKnown: exact(perTitrant),
    blank,
    known: {
      kind: 'solution',
      molarity: bottleMolarityInput(titrant, 'c_t', 'Titrant'),
      dilutions: [],
    },
    dilutions: dilutions.map(({ pipette, flask }) => ({
      aliquot: deliveredBy(pipette),
      flask: deliveredBy(flask),
    })),
    ...(massFactor && takesMasses(portioning) && { massFactor }),
    excess: measuredExcess(excess, blank, perExcess),
  };
}

/** Whether the mass of a portion counts: that of a whole unit is only on record. */
function takesMasses(portioning: AnalysisReferences['portioning']): boolean {
  return portioning.kind === 'weighed' && !takesWholeUnits(portioning);
}

function knownOf(
  { standard }: StandardizingRecords,
  massFactor: Expression | null,
): WeighedStandard | KnownSolution {
  return standard.kind === 'lot'
    ? {
        kind: 'weighed',
        purity: lotPurityInput(standard.lot),
        molarMass: lotMolarMassInput(standard.lot),
        massFactor,
      }
    : {
        kind: 'solution',
        molarity: bottleMolarityInput(standard.bottle, 'c_s', 'Standard solution'),
        dilutions: [],
      };
}

/** The excess as it was measured; null without one, and where a blank tells what it takes. */
function measuredExcess(
  excess: RunReferences['excess'],
  blank: Blank,
  soughtPerExcess: number | null,
): Excess | null {
  if (excess === null || blank.kind === 'gives-the-excess') return null;
  const { bottle, vessel } = excess;
  return {
    molarity: bottleMolarityInput(bottle, 'c_e', 'Excess'),
    volume: deliveredBy(vessel),
    soughtPerExcess: exact(soughtPerExcess ?? 0),
  };
}

/** What a vessel holds or delivers, as its calibration found; how well that is known stands in the model of a run. */
function deliveredBy(vessel: EquipmentState): Expression {
  return exact(pipetteVolumeMl(vessel) + deviationMl(vessel), UNITS.millilitre);
}

/** What a vessel delivers beyond its nominal volume, mL, as its calibration found. */
export function deviationMl(vessel: EquipmentState): number {
  return calibratedPointOf(vessel)?.deviation ?? 0;
}

/** Records never change, and the bench asks at every key. */
const KNOWN = new WeakMap<DeterminingRecords, PlainDetermination>();

/** The determination of a run in plain numbers, before a blank tells anything and before anything is corrected. */
export function plainDeterminationOf(records: DeterminingRecords): PlainDetermination {
  const known = KNOWN.get(records);
  if (known !== undefined) return known;
  const plain = new PlainDetermination(determinationOf(records, { kind: 'none' }));
  KNOWN.set(records, plain);
  return plain;
}
