import type { Id } from '../grammar';
import type { DecimalText } from '../measurement';
import type { EquipmentState, Weighing } from '../metrology';
import { netMassG } from '../metrology';
import type { Parent } from '../reagent';
import type { Fact, FactOf, Provenance, RecordHead, RecordVersion } from '../record';
import { PREPARATION_INCIDENTS } from './incidents';
import type { PreparationPlan, Step } from './work';
import { isExact } from './work';

/** A figure measured in a step. */
export type Quantity =
  | { readonly kind: 'mass'; readonly weighing: Weighing }
  | { readonly kind: 'volume'; readonly volumeMl: DecimalText }
  | { readonly kind: 'temperature'; readonly temperatureC: DecimalText };

/** A record that a step takes from or is done with, at the version that was in force. */
export interface Pin extends RecordVersion {
  readonly kind: 'lot' | 'bottle' | 'equipment';
}

export interface PreparationFactBodies {
  'preparation.started': PreparationPlan;
  /** What one waits for begins: the oven is shut, the water boils. */
  'preparation.step-begun': { readonly step: string };
  /** Done, or left out for a reason. */
  'preparation.step-done': {
    readonly step: string;
    readonly isLeftOut: boolean;
    /** What it rests on where it draws from a parent; empty for other steps, and for steps of before this was kept. */
    readonly pins: readonly Pin[];
    readonly reason: string | null;
  };
  'preparation.measured': {
    readonly step: string;
    readonly quantity: Quantity;
    /** Entries that this one corrects or settles. */
    readonly replaces: readonly Id[];
    /** The device that the figure was taken from; null when it was typed. */
    readonly takenFrom: string | null;
    /** As for a step that is done. */
    readonly pins: readonly Pin[];
    readonly reason: string | null;
  };
  'preparation.mishap': {
    readonly step: string;
    readonly mishapId: string;
    readonly remark: string;
  };
  'preparation.discarded': { readonly reason: string };
  'preparation.bottled': { readonly bottleId: Id };
}
export type PreparationFact = FactOf<PreparationFactBodies>;

/** A measured figure with who measured it. */
export interface MeasuredEntry extends Provenance {
  readonly quantity: Quantity;
  readonly takenFrom: string | null;
  readonly reason: string | null;
}

export interface StepState extends Step {
  readonly begun: Provenance | null;
  /** ISO 8601: until when one waits, once begun. */
  readonly waitsUntil: string | null;
  readonly done:
    (Provenance & { readonly isLeftOut: boolean; readonly reason: string | null }) | null;
  /** What stands: one; none before; two when two people entered without knowing of each other. */
  readonly entries: readonly MeasuredEntry[];
  /** What was corrected, oldest first, with why. */
  readonly replaced: readonly (MeasuredEntry & { readonly because: string | null })[];
}

/** A preparation as its facts tell it. */
export interface PreparationState extends RecordHead {
  readonly status: 'open' | 'bottled' | 'discarded';
  readonly started: Provenance;
  readonly plan: PreparationPlan;
  readonly steps: readonly StepState[];
  readonly mishaps: readonly (Provenance & PreparationFactBodies['preparation.mishap'])[];
  /** When something was first drawn from its parents, and what it rests on since; null before. */
  readonly drawn: { readonly at: string; readonly pins: readonly Pin[] } | null;
  readonly bottleId: Id | null;
  /** Observations that arrived after it was closed: on record, in no figure. */
  readonly late: readonly Fact[];
  readonly closed: (Provenance & { readonly reason: string | null }) | null;
}

/** The incident that spoilt an exact solution, with its reason; null while there is none. */
export function spoiltBy({
  plan,
  mishaps,
}: PreparationState): (typeof PREPARATION_INCIDENTS)[number] | null {
  if (!isExact(plan)) return null;
  return (
    mishaps
      .map(({ mishapId }) => PREPARATION_INCIDENTS.find(({ id }) => id === mishapId))
      .find((incident) => incident?.spoilsExact) ?? null
  );
}

/** The first step that is neither done nor left out; null at the end. */
export function nextWork({ steps }: PreparationState): StepState | null {
  return steps.find(({ done }) => !done) ?? null;
}

/** The figure that a kind of step measured; null while it is missing or two stand against each other. */
export function measuredIn(
  { steps }: PreparationState,
  kind: Quantity['kind'],
): MeasuredEntry | null {
  const entries = steps.find(({ measures }) => measures?.kind === kind)?.entries ?? [];
  return entries.length === 1 ? (entries[0] ?? null) : null;
}

/** What a preparation took of something on the shelf: g of a solid, mL of a solution. */
export interface Taking {
  readonly parent: Parent;
  readonly amount: number;
}

/**
 * What a preparation has taken so far, also one that was discarded. Pipettes take what they are marked with.
 *
 * @param equipment the pipette among others; one that is not there has taken nothing
 */
export function takenFor(
  preparation: PreparationState,
  equipment: readonly EquipmentState[],
): readonly Taking[] {
  const { source } = preparation.plan;
  const amountOf = (kind: 'mass' | 'volume'): number => {
    const quantity = measuredIn(preparation, kind)?.quantity;
    if (quantity?.kind === 'mass') return Number(netMassG(quantity.weighing));
    return quantity?.kind === 'volume' ? Number(quantity.volumeMl) : 0;
  };
  switch (source.kind) {
    case 'weigh':
      return [{ parent: { kind: 'lot', id: source.lotId }, amount: amountOf('mass') }];
    case 'concentrate':
      return [{ parent: { kind: 'lot', id: source.lotId }, amount: amountOf('volume') }];
    case 'add-volumes':
      return fromBottles(source, amountOf('volume'));
    case 'dilute': {
      if (source.from.kind === 'sample') return [];
      const isTaken = preparation.steps.find(({ work }) => work === 'measure')?.done;
      const first = equipment.find(({ id }) => id === source.stages[0]?.pipetteId)?.equipment;
      const amount = isTaken && first?.type === 'glassware' ? Number(first.volumeMl) : 0;
      return [{ parent: { kind: 'bottle', id: source.from.bottleId }, amount }];
    }
    case 'indicator':
      return [];
  }
}

/** The weaker solution goes with the stronger one, in the measure that was planned. */
function fromBottles(
  { bottleId, weakerBottleId, fillMl }: Extract<PreparationPlan['source'], { kind: 'add-volumes' }>,
  takenMl: number,
): readonly Taking[] {
  const stronger: Taking = { parent: { kind: 'bottle', id: bottleId }, amount: takenMl };
  if (weakerBottleId === null) return [stronger];
  const amount = takenMl > 0 ? Number(fillMl) : 0;
  return [stronger, { parent: { kind: 'bottle', id: weakerBottleId }, amount }];
}
