import * as v from 'valibot';
import type { ClientFactKind } from '#core/ledger';
import type { Requirement, Sample, SampleFactBodies, SampleRequest } from '#core/sample';
import { DECISION_RULES } from '#core/sample';
import { own, resultUnit } from './catalogue';
import {
  decimalUpTo,
  id,
  line,
  nonNegativeDecimal,
  plainDate,
  positiveDecimal,
  reason,
  recordVersion,
  remark,
} from './fields';
import type { SchemaOf } from './fields';

export const requirement = v.variant('kind', [
  v.strictObject({ kind: v.literal('none') }),
  v.strictObject({
    kind: v.literal('limits'),
    lower: v.nullable(nonNegativeDecimal),
    upper: v.nullable(nonNegativeDecimal),
    rule: v.picklist(DECISION_RULES),
  }),
  v.strictObject({
    kind: v.literal('label-claim'),
    claim: positiveDecimal,
    window: v.nullable(
      v.strictObject({ fromPercent: positiveDecimal, toPercent: positiveDecimal }),
    ),
  }),
  v.strictObject({
    kind: v.literal('accepted-value'),
    value: positiveDecimal,
    expandedUncertainty: v.nullable(positiveDecimal),
    withinPercent: v.nullable(positiveDecimal),
  }),
]) satisfies SchemaOf<Requirement>;

const sampleRequestSchema = v.strictObject({
  analysisId: line,
  unit: resultUnit,
  as: v.nullable(line),
  expected: v.nullable(positiveDecimal),
  requirement,
  onDryMatter: v.exactOptional(v.boolean()),
  part: v.exactOptional(line),
}) satisfies SchemaOf<SampleRequest>;

/** The longest list of requests for one sample. */
const MOST_REQUESTS = 20;

const density = v.strictObject({
  value: v.pipe(
    decimalUpTo(4, 'No liquid of a bench is denser than 4 g/mL.'),
    v.check((typed) => Number(typed) >= 0.5, 'No liquid of a bench is lighter than 0.5 g/mL.'),
  ),
  plusMinus: nonNegativeDecimal,
});

export const sampleSchema = v.strictObject({
  code: line,
  description: line,
  source: remark,
  customer: remark,
  sampledBy: remark,
  sampledOn: v.nullable(plainDate),
  receivedOn: plainDate,
  condition: remark,
  amount: v.nullable(v.strictObject({ value: positiveDecimal, unit: v.picklist(['mL', 'g']) })),
  density: v.nullable(density),
  unitMass: v.nullable(v.strictObject({ value: positiveDecimal, plusMinus: nonNegativeDecimal })),
  dryMatter: v.exactOptional(
    v.nullable(
      v.strictObject({
        value: decimalUpTo(100, 'Nothing leaves more than 100 % of itself.'),
        plusMinus: nonNegativeDecimal,
      }),
    ),
  ),
  isControl: v.exactOptional(v.boolean()),
  store: remark,
  keepUntil: v.nullable(plainDate),
  requests: v.pipe(
    v.array(sampleRequestSchema),
    v.maxLength(MOST_REQUESTS, 'It asks for too much.'),
    v.readonly(),
  ),
  own,
}) satisfies SchemaOf<Sample>;

export const dilutionSchema = { pipette: recordVersion, flask: recordVersion };

/** Earlier points of a control, at most: those of some years. */
const MOST_POINTS = 500;

export const takenOver = {
  analysisId: line,
  unit: resultUnit,
  points: v.pipe(
    v.array(v.strictObject({ on: plainDate, value: positiveDecimal })),
    v.minLength(1, 'Write a day and a value in each line.'),
    v.maxLength(MOST_POINTS, 'Take over the last 500.'),
    v.readonly(),
  ),
  source: reason,
};

/** The bodies of the facts of a sample. */
export const SAMPLE_FACT_SCHEMAS = {
  'sample.received': sampleSchema,
  'sample.corrected': v.strictObject({ sample: sampleSchema, reason }),
  'sample.diluted': v.strictObject({ ...dilutionSchema, reason: v.nullable(reason) }),
  'sample.dilution-struck': v.strictObject({ dilutionId: id, reason }),
  'sample.disposed': v.strictObject({ how: reason }),
  'sample.points-taken-over': v.strictObject(takenOver),
} satisfies {
  readonly [K in keyof SampleFactBodies & ClientFactKind]: SchemaOf<SampleFactBodies[K]>;
};
