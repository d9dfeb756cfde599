import type { DecimalText } from '../measurement';
import type { Weighing } from '../metrology';
import { netMassG } from '../metrology';
import type { Parent } from '../reagent';
import type { FactOf, Provenance } from '../record';
import { enteredAt, provenance } from '../record';
import { MISHAPS } from './mishaps';
import type { PreparationPlan, Step } from './work';
import { isExact, stepsOf } from './work';

/** A figure measured in a step. */
export type Quantity =
  | { readonly kind: 'mass'; readonly weighing: Weighing }
  | { readonly kind: 'volume'; readonly volumeMl: DecimalText }
  | { readonly kind: 'temperature'; readonly temperatureC: DecimalText };

export interface PreparationFactBodies {
  'preparation.started': PreparationPlan;
  /** What one waits for begins: the oven is shut, the water boils. */
  'preparation.step-begun': { readonly step: string };
  /** Done, or left out for a reason. */
  'preparation.step-done': {
    readonly step: string;
    readonly isLeftOut: boolean;
    readonly reason: string | null;
  };
  'preparation.measured': {
    readonly step: string;
    readonly quantity: Quantity;
    /** Entries that this one corrects or settles. */
    readonly replaces: readonly string[];
    /** The device that the figure was taken from; null when it was typed. */
    readonly takenFrom: string | null;
    readonly reason: string | null;
  };
  'preparation.mishap': {
    readonly step: string;
    readonly mishapId: string;
    readonly remark: string;
  };
  'preparation.discarded': { readonly reason: string };
  'preparation.bottled': { readonly bottleId: string };
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
export interface PreparationState {
  readonly id: string;
  readonly version: number;
  readonly factIds: readonly string[];
  readonly status: 'open' | 'bottled' | 'discarded';
  readonly started: Provenance;
  readonly plan: PreparationPlan;
  readonly steps: readonly StepState[];
  readonly mishaps: readonly (Provenance & PreparationFactBodies['preparation.mishap'])[];
  readonly bottleId: string | null;
  readonly closed: (Provenance & { readonly reason: string | null }) | null;
}

/** Folds the facts of one preparation; null before the first. */
export function foldPreparation(facts: readonly PreparationFact[]): PreparationState | null {
  return facts.reduce<PreparationState | null>(applyPreparationFact, null);
}

/**
 * The preparation after one more fact. A fact that is in it already changes nothing, so that a device may lay what it still has to
 * send over what it has read.
 */
export function applyPreparationFact(
  before: PreparationState | null,
  fact: PreparationFact,
): PreparationState | null {
  if (!before) {
    if (fact.kind !== 'preparation.started') return null;
    return {
      id: fact.recordId,
      version: 1,
      factIds: [fact.id],
      status: 'open',
      started: provenance(fact),
      plan: fact.body,
      steps: stepsOf(fact.body).map((step) => ({
        ...step,
        begun: null,
        waitsUntil: null,
        done: null,
        entries: [],
        replaced: [],
      })),
      mishaps: [],
      bottleId: null,
      closed: null,
    };
  }
  if (before.factIds.includes(fact.id)) return before;
  return {
    ...before,
    ...changeOf(before, fact),
    version: before.version + 1,
    factIds: [...before.factIds, fact.id],
  };
}

function changeOf(before: PreparationState, fact: PreparationFact): Partial<PreparationState> {
  const by = provenance(fact);
  const change = (id: string, made: (step: StepState) => Partial<StepState>) => ({
    steps: before.steps.map((step) => (step.id === id ? { ...step, ...made(step) } : step)),
  });
  switch (fact.kind) {
    case 'preparation.started':
      return {};
    case 'preparation.step-begun':
      return change(fact.body.step, ({ begun, waitMinutes }) =>
        begun || waitMinutes === null
          ? {}
          : {
              begun: by,
              waitsUntil: new Date(
                Date.parse(enteredAt(fact)) + waitMinutes * 60_000,
              ).toISOString(),
            },
      );
    case 'preparation.step-done': {
      const { step, ...how } = fact.body;
      return change(step, ({ done }) => (done ? {} : { done: { ...by, ...how } }));
    }
    case 'preparation.measured': {
      const { step, quantity, replaces, takenFrom, reason } = fact.body;
      return change(step, ({ entries, replaced }) => ({
        entries: [
          ...entries.filter(({ factId }) => !replaces.includes(factId)),
          { ...by, quantity, takenFrom, reason },
        ],
        replaced: [
          ...replaced,
          ...entries
            .filter(({ factId }) => replaces.includes(factId))
            .map((entry) => ({ ...entry, because: reason })),
        ],
        done: { ...by, isLeftOut: false, reason: null },
      }));
    }
    case 'preparation.mishap':
      return { mishaps: [...before.mishaps, { ...by, ...fact.body }] };
    case 'preparation.discarded':
      return { status: 'discarded', closed: { ...by, reason: fact.body.reason } };
    case 'preparation.bottled':
      return {
        status: 'bottled',
        bottleId: fact.body.bottleId,
        steps: before.steps.map((step) =>
          step.work === 'bottle' && !step.done
            ? { ...step, done: { ...by, isLeftOut: false, reason: null } }
            : step,
        ),
        closed: { ...by, reason: null },
      };
  }
}

/** The mishap that spoilt an exact solution, with its reason; null while there is none. */
export function spoiltBy({ plan, mishaps }: PreparationState): (typeof MISHAPS)[number] | null {
  if (!isExact(plan)) return null;
  return (
    mishaps
      .map(({ mishapId }) => MISHAPS.find(({ id }) => id === mishapId))
      .find((mishap) => mishap?.spoilsExact) ?? null
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

/** What a preparation has taken so far, also one that was discarded. Pipettes take what they are marked with. */
export function takenFor(
  preparation: PreparationState,
  volumeOfVesselMl: (vesselId: string) => number,
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
      const first = source.stages[0]?.pipetteId;
      const amount = isTaken && first !== undefined ? volumeOfVesselMl(first) : 0;
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
