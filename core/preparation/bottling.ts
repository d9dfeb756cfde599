import type { Container, Own } from '../chemistry';
import type { Id, PlainDate } from '../grammar';
import type { DecimalText } from '../measurement';
import { decimalOf, roundSignificant } from '../measurement';
import type { EquipmentState } from '../metrology';
import type { PreparedBottle } from '../reagent';
import { statedMolarity } from '../reagent';
import type { PreparationState } from './record';
import type { PreparationRecords, PreparationResult } from './result';
import { overallDilutionFactor } from './solution';
import type { PreparationSource } from './work';
import { parentsOf } from './work';

/** What whoever fills the bottle decides. */
interface BottlingDecision {
  readonly code: string;
  readonly container: Container;
  readonly useBy: PlainDate | null;
  readonly preparedBy: Id;
  readonly preparedOn: PlainDate;
}

/** What goes on the shelf from a preparation, with the figures that it came to. */
export function bottleOf(
  preparation: PreparationState,
  result: PreparationResult,
  { equipment }: PreparationRecords,
  decision: BottlingDecision,
): PreparedBottle {
  const { plan } = preparation;
  const { source } = plan;
  const made = result.kind === 'made' ? result : null;
  const nominal = result.kind === 'nominal' ? result : null;
  // The recipe stays with the preparation.
  const content: Own = (plan.own ?? []).filter(({ entry }) => entry.kind !== 'recipe');
  const isSample = source.kind === 'dilute' && source.from.kind === 'sample';
  return {
    ...decision,
    // A solution that was to be a standard and is not one waits to be standardized.
    purpose: nominal && plan.purpose === 'standard' ? 'titrant' : plan.purpose,
    substanceId: plan.soluteId,
    ...(content.length > 0 && { own: content }),
    nominalMolarity: made ? plan.targetMolarity : (nominal?.molarity ?? null),
    volumeMl: volumeMl(preparation, equipment),
    parents: parentsOf(source),
    preparationId: preparation.id,
    made: made && statedMolarity(made),
    plausibleMolarity: nominal?.range ?? null,
    dilutionFactor: isSample ? roundSignificant(factorOf(source, equipment), 6) : null,
    note: [isSample ? source.from.name : '', plan.note].filter((text) => text !== '').join('. '),
  };
}

function sizeOf(equipment: readonly EquipmentState[], vesselId: string): number {
  const vessel = equipment.find(({ id }) => id === vesselId)?.equipment;
  if (vessel?.type === 'glassware') return Number(vessel.volumeMl);
  throw new RangeError(`vessel ${vesselId} was not given`);
}

function factorOf(
  source: Extract<PreparationSource, { kind: 'dilute' }>,
  equipment: readonly EquipmentState[],
): number {
  return overallDilutionFactor(
    source.stages.map(({ pipetteId, flaskId }) => ({
      aliquotMl: sizeOf(equipment, pipetteId),
      flaskMl: sizeOf(equipment, flaskId),
    })),
  );
}

/** What is in the bottle in the end: the last flask, or what was planned. */
function volumeMl({ plan }: PreparationState, equipment: readonly EquipmentState[]): DecimalText {
  const { source } = plan;
  const flaskId =
    source.kind === 'weigh'
      ? source.flaskId
      : source.kind === 'dilute'
        ? (source.stages.at(-1)?.flaskId ?? null)
        : null;
  return flaskId === null ? plan.volumeMl : decimalOf(sizeOf(equipment, flaskId));
}
