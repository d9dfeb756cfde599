import { excessRatioOfMethod, moleRatioOfMethod } from '../../chemistry';
import type {
  Blank,
  Determination,
  Excess,
  KnownSolution,
  WeighedStandard,
} from '../../determination';
import { PlainDetermination } from '../../determination';
import type { Expression } from '../../measurement';
import { exact, UNITS } from '../../measurement';
import type { EquipmentState } from '../../metrology';
import { calibratedPointOf } from '../../metrology';
import { bottleMolarityInput, lotMolarMassInput, lotPurityInput } from '../../reagent';
import type { RunReferences } from '../setUp';
import { pipetteVolumeMl, soughtIn, soughtOf } from '../setUp';

/** The records that a determination rests on. */
export type DeterminingRecords = Pick<RunReferences, 'bottle' | 'standard' | 'method' | 'excess'>;

/**
 * What a run determines, from what and how: what of its records enters the balance. `massFactor` makes masses of what the balance
 * shows of a weighed standard; null before there is a run.
 */
export function determinationOf(
  records: DeterminingRecords,
  blank: Blank,
  massFactor: Expression | null = null,
): Determination {
  const { method, excess } = records;
  const known = knownOf(records, massFactor);
  const soughtPerKnown = exact(moleRatioOfMethod(method));
  const common = { sought: soughtOf(records).as, soughtPerKnown, blank };
  if (known.kind === 'weighed' || soughtIn(records.standard, method) === 'burette') {
    return { ...common, soughtIn: 'burette', known, excess: null };
  }
  const isMeasured = excess !== null && blank.kind !== 'gives-the-excess';
  return {
    ...common,
    soughtIn: 'flask',
    known,
    dilutions: [],
    excess: isMeasured ? excessOf(records, excess) : null,
  };
}

function knownOf(
  { standard }: DeterminingRecords,
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

function excessOf(
  { method }: DeterminingRecords,
  { bottle, vessel }: NonNullable<RunReferences['excess']>,
): Excess {
  return {
    molarity: bottleMolarityInput(bottle, 'c_e', 'Excess'),
    volume: exact(pipetteVolumeMl(vessel) + deviationMl(vessel), UNITS.millilitre),
    soughtPerExcess: exact(excessRatioOfMethod(method) ?? 0),
  };
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
