import { RECIPE_EDITION } from '#core/chemistry';
import type { Plain } from '#core/grammar';
import { correctionRulesOf, UNWRITTEN_RULES } from '#core/laboratory';
import type { Equipment, EquipmentState, Glassware } from '#core/metrology';
import type {
  PreparationFact,
  PreparationFactBodies,
  PreparationPlan,
  PreparationRecords,
  PreparationState,
} from '#core/preparation';
import { PREPARATION_RECORD } from '#core/preparation';
import type { BottleState, Lot, LotState } from '#core/reagent';
import { balance, khpLot, references } from './runs';
import { stored, idOf } from './stored';

const provenance = { factId: 'f0', by: 'ines', at: '2026-03-02T08:00:00.000Z' };

function equipmentState(id: string, equipment: Plain<Equipment>): EquipmentState {
  const head = { id, version: 1, factIds: ['f0'] };
  return stored({
    ...head,
    registered: provenance,
    equipment,
    calibrations: [],
    corrections: [],
    withdrawn: null,
  });
}

function glass(kind: Glassware['kind'], volumeMl: string, toleranceMl: string): EquipmentState {
  const prefix = { 'volumetric-flask': 'F', 'one-mark-pipette': 'V', 'measuring-cylinder': 'Z' };
  const name = `${prefix[kind]}${volumeMl}`;
  const toleranceDistribution = kind === 'measuring-cylinder' ? 'rectangular' : 'triangular';
  const spread = { toleranceMl, toleranceDistribution } as const;
  return equipmentState(name, {
    ...{ type: 'glassware', name, kind, volumeMl },
    ...spread,
    calibrationDue: null,
  });
}

/** A balance, flasks, pipettes and a cylinder, by names such as F250, V10, Z100. */
export const EQUIPMENT: readonly EquipmentState[] = [
  equipmentState('balance', balance),
  equipmentState('coarse', {
    ...balance,
    ...{ name: 'T2', readabilityG: '0.01', repeatabilityG: '0.01', linearityG: '0.02' },
    maxLoadG: '2200',
  }),
  glass('volumetric-flask', '100', '0.1'),
  glass('volumetric-flask', '250', '0.15'),
  glass('one-mark-pipette', '10', '0.02'),
  glass('one-mark-pipette', '50', '0.05'),
  glass('measuring-cylinder', '100', '0.5'),
];

/** A lot by its substance, with changes. */
export function lotOf(substanceId: string, changes: Partial<Plain<Lot>> = {}): LotState {
  return { ...khpLot({ substanceId, ...changes }), id: idOf(`lot-${substanceId}`) };
}

/** A bottle of sodium chloride, known from how it was made, with changes. */
export function standardBottle(changes: Partial<Plain<BottleState>> = {}): BottleState {
  return stored({
    ...references().bottle,
    id: 'bottle-standard',
    code: 'S1',
    purpose: 'standard',
    substanceId: 'sodium-chloride',
    nominalMolarity: '2',
    volumeMl: '250',
    made: {
      molarity: '2.0012',
      expandedUncertainty: '0.0024',
      coverageFactor: '2.00',
      unrounded: null,
    },
    useBy: '2026-09-01',
    ...changes,
  });
}

/** Writes the facts of one preparation one after another, as an analyst would. */
export class PreparationScript {
  readonly facts: PreparationFact[] = [];

  constructor(plan: Plain<PreparationPlan>) {
    this.add('preparation.started', plan);
  }

  propose<K extends keyof PreparationFactBodies>(
    kind: K,
    body: Plain<PreparationFactBodies[K]>,
    at = '2026-03-02T08:00:00.000Z',
  ): PreparationFact {
    const sequence = this.facts.length + 1;
    return {
      ...{ id: `p${String(sequence)}`, recordId: 'preparation-1', recordKind: 'preparation' },
      ...{ kind, schemaVersion: 1, body, authorId: 'ines', deviceId: null, clockOffsetMs: null },
      ...{ deviceTime: at, basedOn: null, sequence, recordedAt: at },
      // The generic pair of kind and body is one of the union's by construction.
    } as unknown as PreparationFact;
  }

  add<K extends keyof PreparationFactBodies>(
    kind: K,
    body: Plain<PreparationFactBodies[K]>,
    at?: string,
  ): this {
    this.facts.push(this.propose(kind, body, at));
    return this;
  }

  done(step: string): this {
    return this.add('preparation.step-done', { step, isLeftOut: false, pins: [], reason: null });
  }

  weigh(massG: string, replaces: readonly string[] = []): this {
    return this.add('preparation.measured', {
      step: 'weigh',
      quantity: { kind: 'mass', weighing: { mode: 'tared', massG } },
      replaces,
      takenFrom: null,
      pins: [],
      reason: replaces.length > 0 ? 'misread' : null,
    });
  }

  measure(volumeMl: string): this {
    const quantity = { kind: 'volume', volumeMl } as const;
    return this.add('preparation.measured', {
      step: 'measure',
      quantity,
      replaces: [],
      takenFrom: null,
      pins: [],
      reason: null,
    });
  }

  warmTo(temperatureC: string): this {
    const quantity = { kind: 'temperature', temperatureC } as const;
    const step = 'to-room-temperature';
    return this.add('preparation.measured', {
      step,
      quantity,
      replaces: [],
      takenFrom: null,
      pins: [],
      reason: null,
    });
  }

  get state(): PreparationState {
    const state = PREPARATION_RECORD.fold(this.facts);
    if (!state) throw new Error('the preparation has not been started');
    return state;
  }
}

/** A plan with what most of them share. */
export function planOf(
  source: Plain<PreparationPlan['source']>,
  changes: Partial<Plain<PreparationPlan>>,
): PreparationPlan {
  return stored({
    purpose: 'standard',
    soluteId: 'potassium-hydrogen-phthalate',
    recipeId: null,
    recipeEdition: RECIPE_EDITION,
    targetMolarity: '0.1',
    volumeMl: '250',
    source,
    carbonDioxide: 'boiled',
    corrections: correctionRulesOf(UNWRITTEN_RULES),
    thermometerId: null,
    neededBy: null,
    note: '',
    reason: null,
    ...changes,
  });
}

/** 250 mL of 0.1 mol/L KHP, weighed into a flask. */
export const KHP_PLAN = planOf(
  {
    kind: 'weigh',
    lotId: 'lot-potassium-hydrogen-phthalate',
    massG: '5.1066',
    balanceId: 'balance',
    flaskId: 'F250',
  },
  {},
);

export function recordsWith(
  lots: readonly LotState[],
  bottles: readonly BottleState[] = [],
): PreparationRecords {
  return { lots, bottles, equipment: EQUIPMENT };
}
