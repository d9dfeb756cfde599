import { figureText } from '../measurement';
import type { EntryState } from '../chemistry';
import { checkOwn, findContent, refersToOwn } from '../chemistry';
import { correctionRulesOf, UNWRITTEN_RULES } from '../laboratory';
import type { EquipmentState } from '../metrology';
import { weighingText } from '../metrology';
import type { BottleState, LotState } from '../reagent';
import type { Around, Fact, Finding, Reference } from '../record';
import { defineRecord, enteredAt, impossible, lasting, provenance } from '../record';
import { PREPARATION_INCIDENTS } from './incidents';
import type { Pin, PreparationFactBodies, PreparationState, Quantity, StepState } from './record';
import { takenFor } from './record';
import type { PreparationRecords } from './result';
import { checkPreparationStart, equipmentOf, missingFor } from './startChecks';
import { checkDone, checkMeasured, drawsFromParent } from './stepChecks';
import type { PreparationPlan } from './work';
import { parentsOf, recipeFits, recipeOf, stepsOf } from './work';

/** The kinds of record that a preparation rests on. */
interface Rested {
  readonly lot: LotState;
  readonly bottle: BottleState;
  readonly equipment: EquipmentState;
}
type AroundPreparation = Around<Rested & { readonly entry: EntryState }>;

/** What came from a concentrate was made up in a beaker, and water for bases boiled. */
function toPlanInBeaker(body: unknown): unknown {
  const { source, ...rest } = body as { readonly source: { readonly kind: string } };
  return {
    ...rest,
    carbonDioxide: 'boiled',
    source: source.kind === 'concentrate' ? { flaskId: null, ...source } : source,
  };
}

/** Nothing was corrected. */
function toPlanAsRead(body: unknown): unknown {
  const corrections = correctionRulesOf(UNWRITTEN_RULES);
  return { ...(body as object), corrections, thermometerId: null };
}

/** There was only one edition of the recipes. */
function toPlanOfFirstEdition(body: unknown): unknown {
  return { ...(body as object), recipeEdition: 1 };
}

/** Nobody wrote down at which version something was drawn. */
function toStepWithPins(body: unknown): unknown {
  return { ...(body as object), pins: [] };
}

const byPins = ({ pins }: { readonly pins: readonly Pin[] }): readonly Reference[] =>
  pins.map((pin) => ({ field: 'pins', ...pin }));

/** A preparation: planned, done step by step, discarded or bottled. */
export const PREPARATION_RECORD = defineRecord<
  'preparation',
  PreparationFactBodies,
  PreparationState,
  AroundPreparation,
  'preparation.bottled'
>({
  kind: 'preparation',
  first: 'preparation.started',
  begin: (fact) =>
    fact.kind === 'preparation.started'
      ? {
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
          drawn: null,
          late: [],
          bottleId: null,
          closed: null,
        }
      : null,
  closed: ({ status }) =>
    status === 'open' ? [] : [impossible('preparation-closed', 'step', { status })],
  late: ({ late }, fact) => ({ late: [...late, fact] }),
  listed: ({ plan, status }) => {
    const content = findContent(plan.soluteId, plan.own);
    return {
      name: content?.name ?? plan.soluteId,
      words: [content?.shortName, plan.purpose].filter((word) => word !== undefined),
      aboutId: null,
      standing: lasting(status),
      atHandUntil: status === 'open' ? null : 'over',
    };
  },
  taken: (state, around) =>
    takenFor(state, recordsOf(state, around).equipment).map(({ parent: { id }, amount }) => ({
      ...{ id, amount },
      at: state.started.at,
    })),
  facts: {
    'preparation.started': {
      nature: 'decision',
      asks: 'stock',
      earlier: [toPlanInBeaker, toPlanAsRead, toPlanOfFirstEdition],
      refersTo: (plan) => [
        ...namedBy(plan).map((named) => ({ field: 'source', ...named, version: null })),
        ...refersToOwn(plan),
      ],
      check: ({ body }, _state, around) => checkPlan(body, around),
      apply: () => ({}),
      sentence: ({ soluteId, targetMolarity }) =>
        `preparing ${soluteId}${targetMolarity === null ? '' : `, ${figureText(targetMolarity)} mol/L`}.`,
    },
    'preparation.step-begun': {
      nature: 'observation',
      check: ({ body }, state) => onStep(state, body.step, () => []),
      apply: ({ steps }, fact) => ({
        steps: changed(steps, fact.body.step, ({ begun, waitMinutes }) =>
          begun || waitMinutes === null
            ? {}
            : {
                begun: provenance(fact),
                waitsUntil: new Date(
                  Date.parse(enteredAt(fact)) + waitMinutes * 60_000,
                ).toISOString(),
              },
        ),
      }),
      sentence: ({ step }) => `step ${step} begun.`,
    },
    'preparation.step-done': {
      nature: 'observation',
      earlier: [toStepWithPins],
      refersTo: byPins,
      check: (fact, state) =>
        onStep(state, fact.body.step, (step) =>
          checkDone(state, step, fact.body.isLeftOut, enteredAt(fact)),
        ),
      apply: (state, fact) => {
        const { step, isLeftOut, reason } = fact.body;
        return {
          ...drawnBy(state, fact),
          steps: changed(state.steps, step, ({ done }) =>
            done ? {} : { done: { ...provenance(fact), isLeftOut, reason } },
          ),
        };
      },
      sentence: ({ step, isLeftOut }) => `step ${step} ${isLeftOut ? 'left out' : 'done'}.`,
    },
    'preparation.measured': {
      nature: 'observation',
      earlier: [toStepWithPins],
      refersTo: byPins,
      names: ({ replaces }) => replaces,
      check: ({ body }, state, around) =>
        onStep(state, body.step, (step) => checkMeasured(state, step, body, around)),
      apply: (state, fact) => {
        const { step, quantity, replaces, takenFrom, reason } = fact.body;
        const by = provenance(fact);
        return {
          ...drawnBy(state, fact),
          steps: changed(state.steps, step, ({ entries, replaced }) => ({
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
          })),
        };
      },
      sentence: ({ step, quantity }) => `step ${step}, ${quantityText(quantity)}.`,
    },
    'preparation.mishap': {
      nature: 'observation',
      check: ({ body }) =>
        PREPARATION_INCIDENTS.some(({ id }) => id === body.mishapId)
          ? []
          : [impossible('unknown-mishap', 'mishapId')],
      apply: ({ mishaps }, fact) => ({
        mishaps: [...mishaps, { ...provenance(fact), ...fact.body }],
      }),
      sentence: ({ step }) => `step ${step}, an incident.`,
    },
    'preparation.discarded': {
      nature: 'decision',
      check: () => [],
      apply: (_state, fact) => ({
        status: 'discarded',
        closed: { ...provenance(fact), reason: fact.body.reason },
      }),
      sentence: () => 'discarding the preparation.',
    },
    'preparation.bottled': {
      nature: 'decision',
      needsServer: true,
      refersTo: ({ bottleId }) => [
        { field: 'bottleId', kind: 'bottle', id: bottleId, version: null },
      ],
      check: () => [],
      apply: ({ steps }, fact) => ({
        status: 'bottled',
        bottleId: fact.body.bottleId,
        steps: steps.map((step) =>
          step.work === 'bottle' && !step.done
            ? { ...step, done: { ...provenance(fact), isLeftOut: false, reason: null } }
            : step,
        ),
        closed: { ...provenance(fact), reason: null },
      }),
      sentence: () => 'filling it into a bottle.',
    },
  },
});

function changed(
  steps: readonly StepState[],
  id: string,
  change: (step: StepState) => Partial<StepState>,
): readonly StepState[] {
  return steps.map((step) => (step.id === id ? { ...step, ...change(step) } : step));
}

/** The first step that draws from a parent says what the preparation rests on. */
function drawnBy(
  { drawn, steps }: PreparationState,
  fact: Fact<string, { readonly step: string; readonly pins: readonly Pin[] }>,
): Pick<PreparationState, 'drawn'> {
  const { step: id, pins } = fact.body;
  const step = steps.find((one) => one.id === id);
  if (drawn || !step || !drawsFromParent(step)) return { drawn };
  return { drawn: { at: enteredAt(fact), pins } };
}

function onStep(
  { steps }: PreparationState,
  id: string,
  check: (step: StepState) => readonly Finding[],
): readonly Finding[] {
  const step = steps.find((one) => one.id === id);
  return step ? check(step) : [impossible('unknown-step', 'step')];
}

/** The lots, bottles and pieces of equipment that a plan names. */
function namedBy(plan: PreparationPlan): readonly Pick<Pin, 'kind' | 'id'>[] {
  return [
    ...parentsOf(plan.source),
    ...equipmentOf(plan).map(({ id }) => ({ kind: 'equipment' as const, id })),
  ];
}

/** What a step that first draws from its parents pins: all that the plan names, as it is now. */
export function pinsFor(
  { plan, drawn }: PreparationState,
  step: StepState,
  now: AroundPreparation['now'],
): readonly Pin[] {
  if (drawn || !drawsFromParent(step)) return [];
  return namedBy(plan).flatMap(({ kind, id }) => {
    const version = now(kind, id)?.version;
    return version === undefined ? [] : { kind, id, version };
  });
}

/**
 * What a preparation rests on: its records at the versions that it pinned when it first drew from them, or that they had then;
 * as they are now while nothing has been drawn. What is not there is absent.
 */
export function recordsOf(
  { plan, drawn }: Pick<PreparationState, 'plan' | 'drawn'>,
  around: Pick<AroundPreparation, 'now' | 'at' | 'versionAt'>,
): PreparationRecords {
  const found = <K extends Pin['kind']>(wanted: K): readonly Rested[K][] =>
    namedBy(plan).flatMap(({ kind, id }) => {
      if (kind !== wanted) return [];
      const pinned = drawn?.pins.find((pin) => pin.id === id)?.version;
      const version = pinned ?? (drawn ? around.versionAt(id, drawn.at) : 0);
      return (
        (version > 0 ? around.at(wanted, { id, version }) : null) ?? around.now(wanted, id) ?? []
      );
    });
  return { lots: found('lot'), bottles: found('bottle'), equipment: found('equipment') };
}

function checkPlan(plan: PreparationPlan, around: AroundPreparation): readonly Finding[] {
  const records = recordsOf({ plan, drawn: null }, around);
  const missing = missingFor(plan, records);
  if (missing) return [missing];
  const entries = checkOwn(plan, around);
  if (entries.length > 0) return entries;
  if (!recipeOf(plan) && plan.recipeId !== null) {
    return [impossible('not-in-catalogue', 'recipeId', { kind: 'recipe' })];
  }
  if (!recipeFits(plan)) return [impossible('recipe-does-not-fit', 'recipeId')];
  return checkPreparationStart(plan, records, (id) => around.left(id), around.today);
}

function quantityText(quantity: Quantity): string {
  switch (quantity.kind) {
    case 'mass':
      return weighingText(quantity.weighing);
    case 'volume':
      return `${figureText(quantity.volumeMl)} mL`;
    case 'temperature':
      return `${figureText(quantity.temperatureC)} °C`;
  }
}
