import type { Method } from '#core/chemistry';
import { findMethod } from '#core/chemistry';
import type { Plain } from '#core/grammar';
import type { HouseRules } from '#core/laboratory';
import { DEFAULT_HOUSE_RULES } from '#core/laboratory';
import type {
  CalibratedBalance,
  CalibratedBurette,
  CalibratedThermometer,
  EquipmentState,
} from '#core/metrology';
import type { BottleState, Lot, LotState } from '#core/reagent';
import type { RunFact, RunFactBodies } from '#core/titration/record';
import { foldRun } from '#core/titration/record';
import type { BuretteMoment, RunState } from '#core/titration/run';
import { readingToCarryOver } from '#core/titration/run';
import type { RunReferences, RunSetUp, StandardizationReferences } from '#core/titration/setUp';
import { idOf, stored } from './stored';

/** What we ship, with nothing corrected and nothing pooled, so that a result is calculated by hand in one line. */
export const PLAIN_RULES: HouseRules = {
  ...DEFAULT_HOUSE_RULES,
  volumeCorrection: 'carried',
  buoyancyCorrection: 'left-out',
  pooling: 'own',
};

export const thermometer: CalibratedThermometer = stored({
  type: 'thermometer',
  name: 'T1',
  resolutionK: '0.1',
  toleranceK: '0.3',
  calibrationDue: null,
  calibration: null,
});

const provenance = { factId: 'f0', by: 'ines', at: '2026-03-02T08:00:00.000Z' };

export const balance: CalibratedBalance = stored({
  type: 'balance',
  name: 'B1',
  readabilityG: '0.0001',
  repeatabilityG: '0.0001',
  linearityG: '0.0002',
  maxLoadG: '220',
  calibrationDue: '2026-12-01',
  calibration: null,
});

export const burette: CalibratedBurette = stored({
  type: 'burette',
  name: 'G50',
  construction: 'glass',
  capacityMl: '50',
  divisionMl: '0.1',
  toleranceMl: '0.05',
  toleranceDistribution: 'triangular',
  dropMl: '0.05',
  calibrationDue: null,
  calibration: null,
});

const lot: Lot = stored({
  substanceId: 'potassium-hydrogen-phthalate',
  lotNumber: 'K-22',
  supplier: 'Cellar supply',
  purity: '0.9998',
  purityHalfWidth: '0.0005',
  purityDistribution: 'rectangular',
  dissolved: null,
  statedMolarMass: null,
  amountReceived: '100',
  store: 'desiccator 1',
  receivedOn: '2026-01-10',
  openedOn: null,
  useBy: '2027-01-10',
});

const bottle: BottleState = stored({
  id: 'bottle-1',
  version: 1,
  factIds: ['f0'],
  prepared: provenance,
  code: '0417',
  substanceId: 'sodium-hydroxide',
  nominalMolarity: '0.1',
  volumeMl: '1000',
  purpose: 'titrant',
  parents: [{ kind: 'lot', id: 'lot-naoh' }],
  preparationId: null,
  made: null,
  plausibleMolarity: null,
  dilutionFactor: null,
  useBy: null,
  preparedOn: '2026-03-01',
  preparedBy: 'ines',
  container: 'plastic',
  note: '',
  certified: [],
  certificatesWithdrawn: [],
  corrections: [],
  withdrawn: null,
  labels: [],
});

/** A lot as it was registered. */
export function lotState(registered: Plain<Lot>): LotState {
  return stored({
    id: 'lot-khp',
    version: 1,
    factIds: ['f0'],
    registered: provenance,
    lot: registered,
    counted: null,
    classified: null,
    drying: [],
    certificates: [],
    corrections: [],
    withdrawn: null,
  });
}

/** Potassium hydrogen phthalate weighed for a bottle of sodium hydroxide, with changes. */
export function references({
  lot: lotChanges = {},
  balance: otherBalance = balance,
  ...changes
}: Partial<Omit<Plain<StandardizationReferences>, 'standard'>> & {
  readonly lot?: Partial<Plain<Lot>>;
  readonly balance?: CalibratedBalance;
} = {}): StandardizationReferences {
  return stored({
    method: methodOf('naoh-by-khp'),
    bottle,
    burette,
    standard: { kind: 'lot', lot: khpLot(lotChanges), balance: otherBalance },
    excess: null,
    thermometer: null,
    rulesInForce: PLAIN_RULES,
    ...changes,
  });
}

/** A lot of potassium hydrogen phthalate, with changes. */
export function khpLot(changes: Partial<Plain<Lot>> = {}): LotState {
  return lotState({ ...lot, ...changes });
}

/** A method of the catalogue. */
export function methodOf(id: string): Method {
  const method = findMethod(id);
  if (!method) throw new Error(`the catalogue lacks ${id}`);
  return method;
}

const setUp: RunSetUp = stored({
  method: { kind: 'catalogue', id: 'naoh-by-khp' },
  bottle: { id: 'bottle-1', version: 1 },
  standard: {
    kind: 'lot',
    lot: { id: 'lot-khp', version: 1 },
    balance: { id: 'balance-1', version: 1 },
  },
  excess: null,
  burette: { id: 'burette-1', version: 1 },
  rules: PLAIN_RULES,
  temperatureC: '20',
  temperatureVariationK: '3',
  thermometer: null,
  airDensityKgPerM3: null,
  methodRepeatabilityPercent: null,
  earlierSeries: null,
  reason: null,
});

/** Writes facts one after another, as an analyst would. */
export class RunScript {
  readonly facts: RunFact[] = [];
  readonly references: RunReferences;

  /** A run with rules of its own follows the house, unless that is said to have others. */
  constructor(
    given: RunReferences = references(),
    changes: Partial<Plain<RunSetUp>> = {},
    whole: Plain<RunSetUp> = setUp,
  ) {
    const { rules = PLAIN_RULES } = stored<Partial<RunSetUp>>(changes);
    const isSaid = given.rulesInForce !== PLAIN_RULES;
    this.references = isSaid ? given : { ...given, rulesInForce: rules };
    // Changes are of the same kind of run as the whole.
    this.add('run.started', { ...whole, ...changes });
  }

  propose<K extends keyof RunFactBodies>(kind: K, body: Plain<RunFactBodies[K]>): RunFact {
    const sequence = this.facts.length + 1;
    return {
      id: `f${String(sequence)}`,
      recordId: 'run-1',
      recordKind: 'run',
      kind,
      schemaVersion: 1,
      body,
      authorId: 'ines',
      deviceId: null,
      clockOffsetMs: null,
      deviceTime: '2026-03-02T08:00:00.000Z',
      basedOn: null,
      sequence,
      recordedAt: '2026-03-02T08:00:00.000Z',
      // The generic pair of kind and body is one of the union's by construction.
    } as unknown as RunFact;
  }

  add<K extends keyof RunFactBodies>(kind: K, body: Plain<RunFactBodies[K]>): this {
    this.facts.push(this.propose(kind, body));
    return this;
  }

  weigh(flask: number, massG: string): this {
    const weighing = { mode: 'tared', massG } as const;
    return this.add('run.flask-weighed', { flask, weighing, reason: null });
  }

  read(flask: number, moment: BuretteMoment, readingMl: string): this {
    const reading = { flask, moment, readingMl, carriedFrom: null, reason: null };
    return this.add('run.burette-read', reading);
  }

  carryOver(flask: number): this {
    const last = readingToCarryOver(this.state);
    if (!last) throw new Error('nothing to carry over');
    return this.add('run.burette-read', {
      flask,
      moment: 'initial',
      readingMl: last.value,
      carriedFrom: last.factId,
      reason: null,
    });
  }

  titrate(flask: number, massG: string, initialMl: string, finalMl: string): this {
    return this.weigh(flask, massG).read(flask, 'initial', initialMl).read(flask, 'final', finalMl);
  }

  get state(): RunState {
    const state = foldRun(this.facts, this.references);
    if (!state) throw new Error('the run has not been started');
    return state;
  }
}

/** A rough titration and three that agree. */
export function concordantSeries(): RunScript {
  return new RunScript()
    .titrate(1, '0.4802', '0.10', '23.60')
    .titrate(2, '0.4795', '0.05', '23.44')
    .titrate(3, '0.4811', '23.44', '46.91')
    .titrate(4, '0.4788', '0.00', '23.37');
}

/** A pipette of 25 mL. */
const pipette: EquipmentState = stored({
  id: 'pipette-1',
  version: 1,
  factIds: ['f0'],
  registered: provenance,
  equipment: {
    type: 'glassware',
    name: 'P25',
    kind: 'one-mark-pipette',
    volumeMl: '25',
    toleranceMl: '0.03',
    toleranceDistribution: 'triangular',
    calibrationDue: null,
  },
  calibrations: [],
  corrections: [],
  withdrawn: null,
});

/** A bottle of another substance, with changes. */
export function bottleOf(substanceId: string, changes: Partial<Plain<BottleState>>): BottleState {
  return stored({ ...bottle, id: `bottle-${substanceId}`, substanceId, ...changes });
}

/** What a standard solution says of its molarity. */
export function made(molarity: string): Plain<Pick<BottleState, 'made' | 'useBy'>> {
  const expandedUncertainty = (Number(molarity) * 0.001).toFixed(8);
  return {
    made: { molarity, expandedUncertainty, coverageFactor: '2.00', unrounded: null },
    useBy: '2026-12-31',
  };
}

/** A one-mark pipette of another volume. */
export function pipetteOf(volumeMl: string): EquipmentState {
  const name = `P${volumeMl}`;
  const equipment = { ...pipette.equipment, name, volumeMl } as EquipmentState['equipment'];
  return { ...pipette, id: idOf(`pipette-${volumeMl}`), equipment };
}

/**
 * A run that takes aliquots of one solution, by a method of the catalogue; with a pipette full of an excess, for a
 * back-titration.
 */
export function aliquots(
  methodId: string,
  standard: BottleState,
  titrant: { readonly substanceId: string; readonly nominalMolarity: string },
  excess: RunReferences['excess'] = null,
): RunScript {
  const refs = {
    method: methodOf(methodId),
    bottle: bottleOf(titrant.substanceId, { ...titrant, id: 'bottle-1' }),
    burette,
    standard: { kind: 'bottle' as const, bottle: standard, vessel: pipette },
    excess,
    thermometer: null,
    rulesInForce: PLAIN_RULES,
  };
  return new RunScript(refs, {
    method: { kind: 'catalogue', id: methodId },
    standard: {
      kind: 'bottle',
      bottle: { id: standard.id, version: 1 },
      vessel: { id: pipette.id, version: 1 },
    },
    excess: excess && {
      bottle: { id: excess.bottle.id, version: 1 },
      vessel: { id: excess.vessel.id, version: 1 },
    },
    rules: { ...PLAIN_RULES, firstIsRough: false },
  });
}
