import * as v from 'valibot';
import type { ClientFactKind, FactBodies } from '#core/ledger';
import type {
  Balance,
  Burette,
  Calibration,
  Equipment,
  Glassware,
  Heater,
  Thermometer,
  Weighing,
} from '#core/metrology';
import type { Pin, PreparationPlan } from '#core/preparation';
import type { CorrectedBottle, Lot, PreparedBottle } from '#core/reagent';
import { ROLES } from '#core/rights';
import type { AnalysisSetUp, RunSetUp, StandardizationSetUp } from '#core/titration/setUp';
import { FLASKS_AT_MOST } from '#core/titration/setUp';
import type { VoidCause } from '#core/wording';
import { VOID_CAUSES } from '#core/wording';
import { hazardCode, methodSchema, own, ownEntrySchema } from './catalogue';
import type { SchemaOf } from './fields';
import {
  count,
  decimal,
  decimalUpTo,
  distribution,
  id,
  line,
  localMinute,
  nonNegativeDecimal,
  plainDate,
  positiveDecimal,
  reason,
  recordVersion,
  remark,
} from './fields';
import { houseRulesSchema, settingsSchema } from './houseRules';
import { SAMPLE_FACT_SCHEMAS } from './samples';

const optionalReason = v.nullable(reason);

const molarity = decimalUpTo(20, 'No aqueous solution is stronger than 20 mol/L.');

export const lotSchema = v.strictObject({
  substanceId: line,
  own,
  lotNumber: line,
  supplier: line,
  certificateNumber: v.exactOptional(remark),
  purity: decimalUpTo(1, 'Nothing is purer than 100 %.'),
  purityHalfWidth: nonNegativeDecimal,
  purityDistribution: distribution,
  dissolved: v.nullable(
    v.variant('meaning', [
      v.strictObject({
        meaning: v.literal('by-mass'),
        densityGPerMl: v.pipe(
          decimalUpTo(4, 'No solution is denser than 4 g/mL.'),
          v.check((typed) => Number(typed) >= 0.5, 'No solution is lighter than 0.5 g/mL.'),
        ),
      }),
      v.strictObject({ meaning: v.literal('by-volume') }),
      v.strictObject({ meaning: v.literal('by-molarity'), molarity }),
    ]),
  ),
  statedMolarMass: v.nullable(
    v.strictObject({
      valueGPerMol: positiveDecimal,
      standardUncertaintyGPerMol: nonNegativeDecimal,
    }),
  ),
  amountReceived: v.nullable(positiveDecimal),
  store: remark,
  receivedOn: plainDate,
  openedOn: v.nullable(plainDate),
  useBy: v.nullable(plainDate),
}) satisfies SchemaOf<Lot>;

export const balanceSchema = v.strictObject({
  type: v.literal('balance'),
  name: line,
  readabilityG: decimalUpTo(10, 'The readability is the smallest step shown, in grams.'),
  repeatabilityG: nonNegativeDecimal,
  linearityG: nonNegativeDecimal,
  maxLoadG: positiveDecimal,
  calibrationDue: v.nullable(plainDate),
}) satisfies SchemaOf<Balance>;

export const buretteSchema = v.strictObject({
  type: v.literal('burette'),
  name: line,
  construction: v.picklist(['glass', 'piston']),
  capacityMl: decimalUpTo(1000, 'Burettes hold up to 1000 mL.'),
  divisionMl: decimalUpTo(10, 'The division is the smallest step, in mL.'),
  toleranceMl: nonNegativeDecimal,
  toleranceDistribution: distribution,
  dropMl: decimalUpTo(1, 'A drop is at most 1 mL.'),
  calibrationDue: v.nullable(plainDate),
}) satisfies SchemaOf<Burette>;

export const glasswareSchema = v.strictObject({
  type: v.literal('glassware'),
  name: line,
  kind: v.picklist(['volumetric-flask', 'one-mark-pipette', 'measuring-cylinder']),
  volumeMl: decimalUpTo(10_000, 'Glassware holds at most 10 L.'),
  toleranceMl: positiveDecimal,
  toleranceDistribution: distribution,
  calibrationDue: v.nullable(plainDate),
}) satisfies SchemaOf<Glassware>;

export const thermometerSchema = v.strictObject({
  type: v.literal('thermometer'),
  name: line,
  resolutionK: decimalUpTo(10, 'The resolution is the smallest step shown, in kelvin.'),
  toleranceK: decimalUpTo(20, 'A thermometer is off by at most 20 K.'),
  calibrationDue: v.nullable(plainDate),
}) satisfies SchemaOf<Thermometer>;

export const heaterSchema = v.strictObject({
  type: v.literal('heater'),
  name: line,
  kind: v.picklist(['hot-plate', 'oven']),
  maxTemperatureC: decimalUpTo(2000, 'No oven is hotter than 2000 °C.'),
  calibrationDue: v.nullable(plainDate),
}) satisfies SchemaOf<Heater>;

export const equipmentSchema = v.variant('type', [
  balanceSchema,
  buretteSchema,
  glasswareSchema,
  thermometerSchema,
  heaterSchema,
]) satisfies SchemaOf<Equipment>;

const solutionMl = decimalUpTo(100_000, 'A bottle holds at most 100 L.');
const purpose = v.picklist(['titrant', 'standard', 'auxiliary']);

/** What is written on a bottle, and what it is made of. */
export const bottleCode = v.pipe(
  v.string('Give the bottle its code.'),
  v.regex(/^[0-9A-Z-]{1,12}$/, 'A code has 1 to 12 capital letters, figures or hyphens.'),
);
export const container = v.picklist(['plastic', 'brown-glass', 'clear-glass']);

/**
 * A bottle that is only written down: what a guided preparation would have computed is not claimed; a standard that was bought
 * has the molarity of its certificate.
 */
export const bottleSchema = v.strictObject({
  code: bottleCode,
  purpose: v.picklist(['titrant', 'standard', 'auxiliary']),
  substanceId: line,
  own,
  nominalMolarity: molarity,
  volumeMl: solutionMl,
  parents: v.pipe(
    v.array(v.strictObject({ kind: v.literal('lot'), id })),
    v.minLength(1, 'Say from which lot it was made.'),
    v.maxLength(1, 'It is made from one lot.'),
  ),
  preparationId: v.null(),
  made: v.nullable(
    v.strictObject({
      molarity,
      expandedUncertainty: positiveDecimal,
      coverageFactor: positiveDecimal,
      unrounded: v.null(),
    }),
  ),
  plausibleMolarity: v.null(),
  dilutionFactor: v.null(),
  preparedOn: plainDate,
  preparedBy: id,
  useBy: v.nullable(plainDate),
  container,
  note: remark,
}) satisfies SchemaOf<PreparedBottle>;

/** What of a bottle is put right; an indicator has no molarity. */
export const correctedBottleSchema = v.strictObject({
  code: bottleCode,
  nominalMolarity: v.nullable(molarity),
  volumeMl: solutionMl,
  preparedOn: plainDate,
  preparedBy: id,
  useBy: v.nullable(plainDate),
  container,
  note: remark,
  reason,
}) satisfies SchemaOf<CorrectedBottle & { readonly reason: string }>;

const sourceSchema = v.variant('kind', [
  v.strictObject({
    kind: v.literal('weigh'),
    lotId: id,
    massG: positiveDecimal,
    balanceId: id,
    flaskId: v.nullable(id),
  }),
  v.strictObject({
    kind: v.literal('concentrate'),
    lotId: id,
    takeMl: positiveDecimal,
    cylinderId: v.nullable(id),
    flaskId: v.nullable(id),
  }),
  v.strictObject({
    kind: v.literal('add-volumes'),
    bottleId: id,
    takeMl: positiveDecimal,
    weakerBottleId: v.nullable(id),
    fillMl: positiveDecimal,
    cylinderId: v.nullable(id),
  }),
  v.strictObject({
    kind: v.literal('dilute'),
    from: v.variant('kind', [
      v.strictObject({ kind: v.literal('bottle'), bottleId: id }),
      v.strictObject({ kind: v.literal('sample'), name: line, molarity }),
    ]),
    stages: v.pipe(
      v.array(v.strictObject({ pipetteId: id, flaskId: id })),
      v.minLength(1, 'A dilution has at least one stage.'),
      v.maxLength(4, 'A dilution has at most four stages.'),
      v.readonly(),
    ),
  }),
  v.strictObject({ kind: v.literal('indicator') }),
]);

/** How a safety data sheet classifies a lot. */
export const classification = {
  codes: v.pipe(
    v.array(hazardCode),
    v.maxLength(40, 'A safety data sheet states no more than 40 hazards.'),
    v.readonly(),
  ),
  sheet: line,
};

export const planSchema = v.strictObject({
  purpose,
  soluteId: line,
  own,
  recipeId: v.nullable(line),
  recipeEdition: count(1, 99),
  targetMolarity: v.nullable(molarity),
  volumeMl: solutionMl,
  source: sourceSchema,
  carbonDioxide: houseRulesSchema.entries.carbonDioxide,
  corrections: v.strictObject({
    volumeCorrection: houseRulesSchema.entries.volumeCorrection,
    referenceTemperatureC: houseRulesSchema.entries.referenceTemperatureC,
    buoyancyCorrection: houseRulesSchema.entries.buoyancyCorrection,
  }),
  thermometerId: v.nullable(id),
  neededBy: v.nullable(localMinute),
  note: remark,
  reason: optionalReason,
}) satisfies SchemaOf<PreparationPlan>;

const stepId = v.pipe(v.string(), v.regex(/^[a-z-]{1,30}(-\d{1,2})?$/, 'This is no step.'));

const flask = count(1, 99);

/** What a step of a preparation rests on. */
const pins = v.pipe(
  v.array(
    v.strictObject({ kind: v.picklist(['lot', 'bottle', 'equipment']), ...recordVersion.entries }),
  ),
  v.maxLength(20),
  v.readonly(),
) satisfies SchemaOf<readonly Pin[]>;

/** What every run is set up with. */
const circumstances = {
  method: v.variant('kind', [
    v.strictObject({ kind: v.literal('catalogue'), id: line }),
    v.strictObject({ kind: v.literal('own'), ...recordVersion.entries }),
  ]),
  excess: v.nullable(v.strictObject({ bottle: recordVersion, vessel: recordVersion })),
  burette: recordVersion,
  rules: houseRulesSchema,
  temperatureC: v.pipe(
    decimal,
    v.check(
      (typed) => Number(typed) >= 5 && Number(typed) <= 40,
      'A laboratory is between 5 and 40 °C.',
    ),
  ),
  temperatureVariationK: v.pipe(
    nonNegativeDecimal,
    v.check((typed) => Number(typed) <= 15, 'No laboratory is that uneven: at most 15 K.'),
  ),
  thermometer: v.nullable(recordVersion),
  airDensityKgPerM3: v.nullable(
    v.pipe(
      decimal,
      v.check(
        (typed) => Number(typed) >= 0.8 && Number(typed) <= 1.4,
        'Air has 0.8 to 1.4 kg/m³; where nobody measured it, leave it empty.',
      ),
    ),
  ),
  methodRepeatabilityPercent: v.nullable(
    v.pipe(
      decimalUpTo(5, 'A titration repeats better than that: at most 5 %.'),
      v.check((typed) => Number(typed) >= 0.005, 'No titration repeats better than to 0.005 %.'),
    ),
  ),
  earlierSeries: v.nullable(
    v.strictObject({
      series: count(1, 10),
      relativeSdPercent: decimalUpTo(5, 'A titration repeats better than that: at most 5 %.'),
      degreesOfFreedom: count(1, 1000),
    }),
  ),
  reason: optionalReason,
};

const standardizationSetUp = v.strictObject({
  ...circumstances,
  bottle: recordVersion,
  standard: v.variant('kind', [
    v.strictObject({ kind: v.literal('lot'), lot: recordVersion, balance: recordVersion }),
    v.strictObject({ kind: v.literal('bottle'), bottle: recordVersion, vessel: recordVersion }),
  ]),
}) satisfies SchemaOf<StandardizationSetUp>;

/** As many samples as a run may hold at two flasks each. */
const MOST_SAMPLES = FLASKS_AT_MOST / 2;

/** As many things as a molarity rests on, at most. */
const MOST_ORIGINS = 200;

const analysisSetUp = v.strictObject({
  ...circumstances,
  titrant: recordVersion,
  samples: v.pipe(
    v.array(
      v.strictObject({
        sample: recordVersion,
        dilutions: v.array(v.strictObject({ pipette: recordVersion, flask: recordVersion })),
      }),
    ),
    v.minLength(1, 'Choose a sample.'),
    v.maxLength(MOST_SAMPLES, `At most ${String(MOST_SAMPLES)} samples in one run: begin another.`),
    v.readonly(),
  ),
  portioning: v.variant('kind', [
    v.strictObject({
      kind: v.literal('weighed'),
      balance: recordVersion,
      whole: v.exactOptional(v.literal(true)),
    }),
    v.strictObject({ kind: v.literal('aliquot'), vessel: recordVersion }),
  ]),
  calculated: v.exactOptional(
    v.strictObject({
      runId: id,
      molarity: positiveDecimal,
      expandedUncertainty: positiveDecimal,
      coverageFactor: positiveDecimal,
      unrounded: v.strictObject({
        molarity: v.pipe(v.number(), v.finite(), v.gtValue(0)),
        standardUncertainty: v.pipe(v.number(), v.finite(), v.minValue(0)),
        effectiveDegreesOfFreedom: v.nullable(v.pipe(v.number(), v.finite(), v.gtValue(0))),
        restsOn: v.pipe(
          v.array(v.strictObject({ id: line, part: v.pipe(v.number(), v.finite()) })),
          v.maxLength(MOST_ORIGINS),
          v.readonly(),
        ),
      }),
    }),
  ),
  levelMl: v.exactOptional(decimal),
  batch: v.exactOptional(
    v.strictObject({ runIds: v.pipe(v.array(id), v.minLength(2), v.maxLength(20), v.readonly()) }),
  ),
}) satisfies SchemaOf<AnalysisSetUp>;

/** By what is in it: what is wrong with the one kind is not said of the other. */
const runSetUpSchema: SchemaOf<RunSetUp> = v.lazy((input) =>
  isOfSamples(input) ? analysisSetUp : standardizationSetUp,
);

/** Whether something names samples. */
function isOfSamples(input: unknown): boolean {
  return typeof input === 'object' && input !== null && 'samples' in input;
}

const weighingSchema = v.variant('mode', [
  v.strictObject({ mode: v.literal('tared'), massG: decimal }),
  v.strictObject({ mode: v.literal('by-difference'), beforeG: decimal, afterG: decimal }),
]) satisfies SchemaOf<Weighing>;

export const calibrationSchema = v.strictObject({
  calibratedOn: plainDate,
  due: v.nullable(plainDate),
  certificate: line,
  found: v.variant('kind', [
    v.strictObject({
      kind: v.literal('points'),
      points: v.pipe(
        v.array(
          v.strictObject({
            nominal: nonNegativeDecimal,
            deviation: decimal,
            expandedUncertainty: nonNegativeDecimal,
          }),
        ),
        v.minLength(1, 'A calibration has at least one point.'),
        v.maxLength(50),
        v.readonly(),
      ),
    }),
    v.strictObject({
      kind: v.literal('weighings'),
      temperatureC: v.pipe(
        decimal,
        v.check((typed) => Number(typed) >= 5 && Number(typed) <= 40, 'The water has 5 to 40 °C.'),
      ),
      volumes: v.pipe(
        v.array(
          v.strictObject({
            nominalMl: positiveDecimal,
            weighingsG: v.pipe(
              v.array(positiveDecimal),
              v.minLength(2, 'Weigh it at least twice.'),
              v.maxLength(50),
              v.readonly(),
            ),
          }),
        ),
        v.minLength(1, 'A calibration has at least one volume.'),
        v.maxLength(50),
        v.readonly(),
      ),
    }),
  ]),
}) satisfies SchemaOf<Calibration>;

/** What somebody is given: each role once, and the last day of an auditor. */
export const given = {
  roles: v.pipe(
    v.array(v.picklist(ROLES)),
    v.check((roles) => new Set(roles).size === roles.length, 'Each role is given once.'),
    v.readonly(),
  ),
  auditsUntil: v.nullable(plainDate),
};

const withdrawalSchema = v.strictObject({ reason });

/** What stands under the name of a laboratory, a line each. */
export const letterheadSchema = v.pipe(
  v.array(line),
  v.maxLength(6, 'A letterhead has at most six lines.'),
);

/**
 * The schema of the body of every kind of fact that a client may send; the compiler sees that none is missing. The others (the
 * founding of the laboratory, certificates) only the server makes.
 */
export const FACT_SCHEMAS = {
  'laboratory.rules-set': v.strictObject({ rules: houseRulesSchema, reason }),
  'laboratory.settings-set': v.strictObject({ settings: settingsSchema, reason }),
  'person.renamed': v.strictObject({ name: line, reason }),
  'person.rights-changed': v.strictObject({ ...given, reason }),
  'person.left': withdrawalSchema,
  'person.returned': withdrawalSchema,
  'method.written': v.strictObject({ method: methodSchema, reason }),
  'method.withdrawn': withdrawalSchema,
  'method.returned': withdrawalSchema,
  'entry.written': v.strictObject({ entry: ownEntrySchema, own, reason }),
  'entry.withdrawn': withdrawalSchema,
  'entry.returned': withdrawalSchema,
  'lot.registered': lotSchema,
  'equipment.registered': equipmentSchema,
  'bottle.prepared': bottleSchema,
  'lot.corrected': v.strictObject({ lot: lotSchema, reason }),
  'equipment.corrected': v.strictObject({ equipment: equipmentSchema, reason }),
  'bottle.corrected': correctedBottleSchema,
  'laboratory.renamed': v.strictObject({ name: line, reason }),
  'laboratory.letterhead-set': v.strictObject({ lines: letterheadSchema, reason }),
  'laboratory.logo-removed': v.strictObject({ reason }),
  'lot.opened': v.strictObject({ openedOn: plainDate }),
  'lot.classified': v.strictObject(classification),
  'lot.counted': v.strictObject({
    amountLeft: nonNegativeDecimal,
    reason,
  }),
  'lot.put-to-dry': v.strictObject({
    temperatureC: v.pipe(
      decimal,
      v.check(
        (typed) => Number(typed) >= 20 && Number(typed) <= 1200,
        'An oven or furnace has 20 to 1200 °C.',
      ),
    ),
  }),
  'lot.taken-out': v.strictObject({}),
  ...SAMPLE_FACT_SCHEMAS,
  'lot.withdrawn': withdrawalSchema,
  'lot.returned': withdrawalSchema,
  'equipment.calibrated': calibrationSchema,
  'equipment.withdrawn': withdrawalSchema,
  'equipment.returned': withdrawalSchema,
  'bottle.withdrawn': withdrawalSchema,
  'bottle.returned': withdrawalSchema,
  'preparation.started': planSchema,
  'preparation.step-begun': v.strictObject({ step: stepId }),
  'preparation.step-done': v.strictObject({
    step: stepId,
    isLeftOut: v.boolean(),
    pins,
    reason: optionalReason,
  }),
  'preparation.measured': v.strictObject({
    step: stepId,
    quantity: v.variant('kind', [
      v.strictObject({ kind: v.literal('mass'), weighing: weighingSchema }),
      v.strictObject({ kind: v.literal('volume'), volumeMl: decimal }),
      v.strictObject({ kind: v.literal('temperature'), temperatureC: decimal }),
    ]),
    replaces: v.pipe(v.array(id), v.maxLength(10), v.readonly()),
    takenFrom: v.nullable(line),
    pins,
    reason: optionalReason,
  }),
  'preparation.mishap': v.strictObject({
    step: stepId,
    mishapId: line,
    remark,
  }),
  'preparation.discarded': v.strictObject({ reason }),
  'run.started': runSetUpSchema,
  'run.flask-weighed': v.strictObject({
    flask,
    sampleId: v.exactOptional(id),
    weighing: weighingSchema,
    reason: optionalReason,
  }),
  'run.flask-pipetted': v.strictObject({
    flask,
    sampleId: v.exactOptional(id),
    volumeMl: decimal,
    reason: optionalReason,
  }),
  'run.blank-made': v.strictObject({ flask }),
  'run.burette-refilled': v.strictObject({
    flask,
    refill: v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(20)),
    moment: v.picklist(['stop', 'restart']),
    readingMl: decimal,
    reason: optionalReason,
  }),
  'run.provisional-read': v.strictObject({
    flask,
    readingMl: decimal,
  }),
  'run.electrode-read': v.strictObject({
    flask,
    refill: v.pipe(v.number(), v.integer(), v.minValue(0), v.maxValue(20)),
    readingMl: decimal,
    quantity: v.picklist(['pH', 'mV']),
    value: decimal,
    flaskVolumeMl: v.nullable(positiveDecimal),
  }),
  'run.electrode-reading-struck': v.strictObject({ strikes: id, reason }),
  'run.temperature-taken': v.strictObject({
    flask,
    temperatureC: decimal,
    reason: optionalReason,
  }),
  'run.reading-confirmed': v.strictObject({ confirms: id }),
  'run.paused': v.strictObject({ toId: v.nullable(id), remark }),
  'run.resumed': v.strictObject({ remark }),
  'run.end-point-graded': v.strictObject({
    flask,
    grade: v.picklist(['good', 'drop-over', 'far-over']),
  }),
  'run.end-point-taken-back': v.strictObject({ flask, reason }),
  'run.burette-read': v.strictObject({
    flask,
    moment: v.picklist(['initial', 'first-end', 'final']),
    readingMl: decimal,
    carriedFrom: v.nullable(id),
    reason: optionalReason,
  }),
  'run.burette-checked': v.strictObject({
    faults: v.pipe(
      v.array(v.strictObject({ checkId: line, remark })),
      v.maxLength(20),
      v.readonly(),
    ),
  }),
  'run.incident-noted': v.strictObject({
    flask,
    incidentId: line,
    measured: v.nullable(
      v.strictObject({
        what: v.picklist(['volumeMl', 'massG', 'drops', 'alkalinityMmolPerL']),
        value: positiveDecimal,
      }),
    ),
    waterMl: v.nullable(positiveDecimal),
    volumetricFlaskMl: v.nullable(positiveDecimal),
    remark,
  }),
  'run.weighing-corrected': v.strictObject({
    corrects: id,
    weighing: weighingSchema,
    reason,
  }),
  'run.volume-corrected': v.strictObject({
    corrects: id,
    volumeMl: decimal,
    reason,
  }),
  'run.reading-corrected': v.strictObject({
    corrects: id,
    readingMl: decimal,
    reason,
  }),
  'run.conflict-settled': v.strictObject({ keeps: id, reason }),
  'run.flask-voided': v.strictObject({
    flask,
    reason,
    cause: v.exactOptional(v.picklist(Object.keys(VOID_CAUSES) as VoidCause[])),
  }),
  'run.record-adopted': v.strictObject({
    kind: v.picklist(['method', 'entry', 'lot', 'bottle', 'equipment', 'sample']),
    ...recordVersion.entries,
    reason,
  }),
  'run.abandoned': v.strictObject({ reason }),
  'run.returned': v.strictObject({ remarks: reason }),
  'run.answered': v.strictObject({ answer: reason }),
} satisfies { readonly [K in ClientFactKind]: SchemaOf<FactBodies[K]> };

/** Body of a fact that a client may send. */
export type ClientFactBody<K extends ClientFactKind> = v.InferOutput<(typeof FACT_SCHEMAS)[K]>;
