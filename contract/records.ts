import * as v from 'valibot';
import type { HouseRules } from '#core/laboratory';
import type { Balance, Burette, Equipment, Glassware } from '#core/metrology';
import type { Lot, PreparedBottle } from '#core/reagent';
import type { RunFactBodies, RunSetUp, Weighing } from '#core/titration';
import {
  decimal,
  decimalUpTo,
  distribution,
  id,
  line,
  nonNegativeDecimal,
  plainDate,
  positiveDecimal,
  reason,
  remark,
} from './fields';

/** A schema whose output is exactly a type of core, checked by the compiler. */
type SchemaOf<T> = v.GenericSchema<unknown, T>;

const optionalReason = v.nullable(reason);

export const lotSchema = v.strictObject({
  substanceId: line,
  lotNumber: line,
  supplier: line,
  purity: decimalUpTo(1, 'A purity is a mass fraction: it cannot be above 1 (100 %).'),
  purityHalfWidth: nonNegativeDecimal,
  purityDistribution: distribution,
  statedMolarMass: v.nullable(
    v.strictObject({
      valueGPerMol: positiveDecimal,
      standardUncertaintyGPerMol: nonNegativeDecimal,
    }),
  ),
  receivedOn: plainDate,
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

const equipmentSchema = v.variant('type', [
  balanceSchema,
  buretteSchema,
  glasswareSchema,
]) satisfies SchemaOf<Equipment>;

export const bottleSchema = v.strictObject({
  code: v.pipe(
    v.string('Give the bottle its code.'),
    v.regex(/^[0-9A-Z-]{1,12}$/, 'A code has 1 to 12 capital letters, figures or hyphens.'),
  ),
  substanceId: line,
  nominalMolarity: decimalUpTo(20, 'No aqueous titrant is stronger than 20 mol/L.'),
  volumeMl: decimalUpTo(100_000, 'A bottle holds at most 100 L.'),
  lotId: id,
  preparedOn: plainDate,
  preparedBy: id,
  container: v.picklist(['plastic', 'brown-glass', 'clear-glass']),
  note: remark,
}) satisfies SchemaOf<PreparedBottle>;

const count = (most: number) => v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(most));
const flask = count(99);

const houseRulesSchema = v.strictObject({
  concordanceRelativeRangePercent: positiveDecimal,
  agreeAtLeast: count(10),
  titrationsAtMost: count(20),
  firstIsRough: v.boolean(),
  readingDecimals: v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(3)),
  rinses: v.pipe(v.number(), v.integer(), v.minValue(0), v.maxValue(10)),
  rinseMl: nonNegativeDecimal,
  farFromNominalAskPercent: positiveDecimal,
  farFromNominalReasonPercent: positiveDecimal,
  nominalTolerancePercent: positiveDecimal,
}) satisfies SchemaOf<HouseRules>;

const recordVersion = v.strictObject({
  id,
  version: v.pipe(v.number(), v.integer(), v.minValue(1)),
});

const runSetUpSchema = v.strictObject({
  methodId: line,
  bottle: recordVersion,
  lot: recordVersion,
  balance: recordVersion,
  burette: recordVersion,
  rules: houseRulesSchema,
  temperatureC: v.pipe(
    decimal,
    v.check(
      (typed) => Number(typed) >= 5 && Number(typed) <= 45,
      'A laboratory is between 5 and 45 °C.',
    ),
  ),
  temperatureVariationK: nonNegativeDecimal,
  methodRepeatabilityPercent: v.nullable(positiveDecimal),
  reason: optionalReason,
}) satisfies SchemaOf<RunSetUp>;

const weighingSchema = v.variant('mode', [
  v.strictObject({ mode: v.literal('tared'), massG: decimal }),
  v.strictObject({ mode: v.literal('by-difference'), beforeG: decimal, afterG: decimal }),
]) satisfies SchemaOf<Weighing>;

type RunBody<K extends keyof RunFactBodies> = SchemaOf<RunFactBodies[K]>;

/**
 * The facts that a client may send, by kind: the record they belong to and the schema of their body. Facts
 * that only the server makes (the founding of the laboratory, certificates) are not among them.
 */
export const CLIENT_FACTS = {
  'lot.registered': { recordKind: 'lot', body: lotSchema },
  'equipment.registered': { recordKind: 'equipment', body: equipmentSchema },
  'bottle.prepared': { recordKind: 'bottle', body: bottleSchema },
  'run.started': { recordKind: 'run', body: runSetUpSchema },
  'run.flask-weighed': {
    recordKind: 'run',
    body: v.strictObject({
      flask,
      weighing: weighingSchema,
      reason: optionalReason,
    }) satisfies RunBody<'run.flask-weighed'>,
  },
  'run.burette-read': {
    recordKind: 'run',
    body: v.strictObject({
      flask,
      moment: v.picklist(['initial', 'final']),
      readingMl: decimal,
      carriedFrom: v.nullable(id),
      reason: optionalReason,
    }) satisfies RunBody<'run.burette-read'>,
  },
  'run.weighing-corrected': {
    recordKind: 'run',
    body: v.strictObject({
      corrects: id,
      weighing: weighingSchema,
      reason,
    }) satisfies RunBody<'run.weighing-corrected'>,
  },
  'run.reading-corrected': {
    recordKind: 'run',
    body: v.strictObject({
      corrects: id,
      readingMl: decimal,
      reason,
    }) satisfies RunBody<'run.reading-corrected'>,
  },
  'run.conflict-settled': {
    recordKind: 'run',
    body: v.strictObject({ keeps: id, reason }) satisfies RunBody<'run.conflict-settled'>,
  },
  'run.flask-voided': {
    recordKind: 'run',
    body: v.strictObject({ flask, reason }) satisfies RunBody<'run.flask-voided'>,
  },
  'run.abandoned': {
    recordKind: 'run',
    body: v.strictObject({ reason }) satisfies RunBody<'run.abandoned'>,
  },
} as const;

export type ClientFactKind = keyof typeof CLIENT_FACTS;

/** Body of a fact that a client may send. */
export type ClientFactBody<K extends ClientFactKind> = v.InferOutput<
  (typeof CLIENT_FACTS)[K]['body']
>;

/**
 * Kinds that decide something on the strength of what the analyst saw: they name the version of the record
 * that they were based on, and are refused when it has moved on.
 */
export const DECISION_KINDS: ReadonlySet<string> = new Set<ClientFactKind>([
  'run.weighing-corrected',
  'run.reading-corrected',
  'run.conflict-settled',
  'run.flask-voided',
  'run.abandoned',
]);
