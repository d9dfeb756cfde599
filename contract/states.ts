import * as v from 'valibot';
import type { EntryState, MethodState } from '#core/chemistry';
import type { LaboratoryState } from '#core/laboratory';
import type { PlainStates, RunSummary } from '#core/ledger';
import type { EquipmentState } from '#core/metrology';
import type { PersonState } from '#core/people';
import type { PreparationState } from '#core/preparation';
import type { BottleState, LotState, PreparedBottle } from '#core/reagent';
import type { Fact, Provenance, StoredFile } from '#core/record';
import type { SampleState } from '#core/sample';
import { SIGNATURE_MEANINGS } from '#core/titration/run';
import { STEP_CODES } from '#core/wording';
import { methodSchema, ownEntries, ownEntrySchema, resultUnit, stepWork } from './catalogue';
import { decimal, id, plainDate } from './fields';
import { houseRulesSchema, settingsSchema } from './houseRules';
import type { SchemaOf } from './fields';
import { dilutionSchema, sampleSchema, takenOver } from './samples';
import {
  bottleSchema,
  calibrationSchema,
  correctedBottleSchema,
  equipmentSchema,
  FACT_SCHEMAS,
  lotSchema,
  planSchema,
  given,
  classification,
} from './records';

const text = v.string();
const number = v.number();

/** What every record says of itself. */
const head = { id, version: number, factIds: v.array(id) };

const said = { factId: id, by: id, at: text };
const provenance = v.strictObject(said) satisfies SchemaOf<Provenance>;
const withReason = v.strictObject({ ...said, reason: text });
const withdrawable = { withdrawn: v.nullable(withReason) };

function corrections<Was>(was: SchemaOf<Was>) {
  return v.array(v.strictObject({ ...said, was, reason: text, version: number }));
}

export const factSchema = v.strictObject({
  id,
  recordId: id,
  recordKind: text,
  kind: text,
  schemaVersion: number,
  body: v.unknown(),
  authorId: id,
  deviceId: v.nullable(id),
  deviceTime: text,
  clockOffsetMs: v.nullable(number),
  basedOn: v.nullable(number),
  sequence: v.nullable(number),
  recordedAt: v.nullable(text),
}) satisfies SchemaOf<Fact>;

export const storedFileSchema = v.strictObject({
  fileId: id,
  name: text,
  type: v.picklist(['application/pdf', 'application/json', 'image/png', 'image/jpeg']),
  sizeBytes: number,
  sha256: text,
}) satisfies SchemaOf<StoredFile>;

export const laboratoryState = v.strictObject({
  ...head,
  name: text,
  timeZone: text,
  rules: houseRulesSchema,
  settings: settingsSchema,
  letterhead: v.array(text),
  logo: v.nullable(storedFileSchema),
}) satisfies SchemaOf<LaboratoryState>;

export const personState = v.strictObject({
  ...head,
  name: text,
  nameKey: text,
  ...given,
  isDemo: v.boolean(),
  joined: provenance,
  left: v.nullable(withReason),
}) satisfies SchemaOf<PersonState>;

const methodState = v.strictObject({
  ...head,
  ...withdrawable,
  method: methodSchema,
  written: v.array(withReason),
}) satisfies SchemaOf<MethodState>;

const entryState = v.strictObject({
  ...head,
  ...withdrawable,
  entry: ownEntrySchema,
  own: ownEntries,
  written: v.array(withReason),
}) satisfies SchemaOf<EntryState>;

export const lotState = v.strictObject({
  ...head,
  ...withdrawable,
  registered: provenance,
  lot: lotSchema,
  counted: v.nullable(v.strictObject({ ...said, amountLeft: decimal })),
  // A server of before does not say.
  classified: v.optional(v.nullable(v.strictObject({ ...said, ...classification })), null),
  drying: v.array(
    v.strictObject({
      temperatureC: decimal,
      putIn: provenance,
      takenOut: v.nullable(provenance),
    }),
  ),
  certificates: v.array(storedFileSchema),
  corrections: corrections(lotSchema),
}) satisfies SchemaOf<LotState>;

export const equipmentState = v.strictObject({
  ...head,
  ...withdrawable,
  registered: provenance,
  equipment: equipmentSchema,
  calibrations: v.array(v.strictObject({ ...said, ...calibrationSchema.entries })),
  corrections: corrections(equipmentSchema),
}) satisfies SchemaOf<EquipmentState>;

const correction = v.nullable(
  v.strictObject({ percent: decimal, how: v.picklist(['corrected', 'carried', 'left-out']) }),
);

/** What was corrected in a certified result; null on those of before. */
export const certifiedCorrections = v.nullable(
  v.strictObject({
    referenceC: decimal,
    asMeasured: decimal,
    temperature: correction,
    buoyancy: correction,
    thermometer: v.nullable(text),
  }),
);

const stated = { molarity: decimal, expandedUncertainty: decimal, coverageFactor: decimal };

/** With what whoever computes with it takes. */
const passedOn = {
  ...stated,
  unrounded: v.nullable(
    v.strictObject({
      molarity: v.number(),
      standardUncertainty: v.number(),
      effectiveDegreesOfFreedom: v.nullable(v.number()),
      restsOn: v.array(v.strictObject({ id: text, part: number })),
    }),
  ),
};

/** A bottle as it was made, by whatever way. */
export const preparedBottle = v.strictObject({
  ...bottleSchema.entries,
  purpose: planSchema.entries.purpose,
  nominalMolarity: v.nullable(decimal),
  parents: v.array(v.strictObject({ kind: v.picklist(['lot', 'bottle']), id })),
  preparationId: v.nullable(id),
  made: v.nullable(v.strictObject(passedOn)),
  plausibleMolarity: v.nullable(v.strictTuple([decimal, decimal])),
  dilutionFactor: v.nullable(decimal),
}) satisfies SchemaOf<PreparedBottle>;

const { reason: _, ...whatIsPutRight } = correctedBottleSchema.entries;

export const bottleState = v.strictObject({
  ...head,
  ...withdrawable,
  ...preparedBottle.entries,
  prepared: provenance,
  certified: v.array(
    v.strictObject({
      ...passedOn,
      runId: id,
      certificateNumber: text,
      certifiedOn: plainDate,
      validUntil: plainDate,
      corrections: certifiedCorrections,
      indicatorId: v.exactOptional(v.nullable(text)),
    }),
  ),
  // A certificate's file that was kept before there were any has none.
  certificatesWithdrawn: v.optional(
    v.array(v.strictObject({ ...said, runId: id, certificateNumber: text, reason: text })),
    [],
  ),
  corrections: corrections(v.strictObject(whatIsPutRight)),
  labels: v.array(v.strictObject({ ...said, sheet: text })),
}) satisfies SchemaOf<BottleState>;

const measured = FACT_SCHEMAS['preparation.measured'].entries;
const measuredEntry = {
  ...said,
  quantity: measured.quantity,
  takenFrom: v.nullable(text),
  reason: v.nullable(text),
};

const preparationState = v.strictObject({
  ...head,
  status: v.picklist(['open', 'bottled', 'discarded']),
  started: provenance,
  plan: planSchema,
  steps: v.array(
    v.strictObject({
      id: text,
      work: stepWork,
      text,
      waitMinutes: v.nullable(number),
      measures: v.nullable(
        v.variant('kind', [
          v.strictObject({ kind: v.literal('mass'), targetG: number, balanceId: id }),
          v.strictObject({
            kind: v.literal('volume'),
            targetMl: number,
            vesselId: v.nullable(id),
          }),
          v.strictObject({ kind: v.literal('temperature') }),
        ]),
      ),
      vesselId: v.nullable(id),
      caution: v.nullable(text),
      begun: v.nullable(provenance),
      waitsUntil: v.nullable(text),
      done: v.nullable(
        v.strictObject({ ...said, isLeftOut: v.boolean(), reason: v.nullable(text) }),
      ),
      entries: v.array(v.strictObject(measuredEntry)),
      replaced: v.array(v.strictObject({ ...measuredEntry, because: v.nullable(text) })),
    }),
  ),
  mishaps: v.array(v.strictObject({ ...said, ...FACT_SCHEMAS['preparation.mishap'].entries })),
  drawn: v.nullable(v.strictObject({ at: text, pins: measured.pins })),
  bottleId: v.nullable(id),
  late: v.array(factSchema),
  closed: v.nullable(v.strictObject({ ...said, reason: v.nullable(text) })),
}) satisfies SchemaOf<PreparationState>;

const dilution = { ...said, ...dilutionSchema };

export const sampleState = v.strictObject({
  ...head,
  received: provenance,
  sample: sampleSchema,
  dilutions: v.array(v.strictObject(dilution)),
  struck: v.array(v.strictObject({ ...dilution, because: text })),
  corrections: corrections(sampleSchema),
  disposed: v.nullable(v.strictObject({ ...said, how: text })),
  takenOver: v.optional(v.array(v.strictObject({ ...said, ...takenOver })), []),
  // Of before there were reports nothing was reported.
  reported: v.optional(
    v.array(
      v.strictObject({
        runId: id,
        reportNumber: text,
        analysisId: text,
        unit: resultUnit,
        as: v.nullable(text),
        stated: text,
        reportedOn: plainDate,
        withdrawn: v.nullable(withReason),
      }),
    ),
    [],
  ),
}) satisfies SchemaOf<SampleState>;

const runSummary = v.strictObject({
  id,
  version: number,
  bottleId: id,
  status: v.picklist(['open', 'certified', 'reported', 'abandoned']),
  startedBy: text,
  startedAt: text,
  closedAt: v.nullable(text),
  titrationsMade: number,
  signed: v.optional(v.array(v.picklist(SIGNATURE_MEANINGS)), []),
  isReturned: v.optional(v.boolean(), false),
  taken: v.array(v.strictObject({ id, amount: number })),
  molarity: v.nullable(number),
  analysisId: v.optional(v.nullable(text), null),
  samples: v.optional(
    v.array(
      v.strictObject({
        id,
        code: text,
        content: v.nullable(number),
        unit: text,
        range: v.optional(v.nullable(number), null),
      }),
    ),
    [],
  ),
  next: v.strictObject({
    code: v.picklist(STEP_CODES),
    values: v.record(v.string(), v.unknown()),
  }),
  certificate: v.nullable(v.strictObject({ ...stated, number: text })),
  report: v.optional(
    v.nullable(v.strictObject({ number: text, titrantCertificate: v.nullable(text) })),
    null,
  ),
  method: text,
  temperatureC: decimal,
  scatter: v.nullable(
    v.strictObject({
      methodId: text,
      burette: text,
      relativeSdPercent: number,
      degreesOfFreedom: number,
    }),
  ),
}) satisfies SchemaOf<RunSummary>;

/** What lists show of each kind of record. */
export const LIST_SCHEMAS = {
  laboratory: laboratoryState,
  person: personState,
  method: methodState,
  entry: entryState,
  lot: lotState,
  equipment: equipmentState,
  bottle: bottleState,
  preparation: preparationState,
  sample: sampleState,
  run: runSummary,
} satisfies {
  readonly [K in keyof ListStates]: SchemaOf<ListStates[K]>;
};

/** What lists show of each kind of record. */
export interface ListStates extends PlainStates {
  readonly run: RunSummary;
}
