import * as v from 'valibot';
import type { PreparationRecords } from '#core/preparation';
import type { RunFact } from '#core/titration/record';
import type { Certificate, Report } from '#core/titration/run';
import { REPORT_FORMS, SIGNATURE_MEANINGS } from '#core/titration/run';
import type {
  AnalysisReferences,
  RunReferences,
  StandardizationReferences,
} from '#core/titration/setUp';
import { analysisSchema, methodSchema, resultUnit } from './catalogue';
import { decimal, id, plainDate } from './fields';
import { houseRulesSchema } from './houseRules';
import type {
  HistoryAnswer,
  ListAnswer,
  ListKind,
  LiveEvent,
  RecordAnswer,
  RunAnswer,
  SessionAnswer,
  StockAnswer,
} from './messages';
import type { SchemaOf } from './fields';
import { balanceSchema, buretteSchema, thermometerSchema } from './records';
import { CONTROL_VERDICTS } from '#core/sample';
import { DETECTIONS } from '#core/titration/judging';
import { requirement } from './samples';
import {
  bottleState,
  certifiedCorrections,
  equipmentState,
  factSchema,
  laboratoryState,
  LIST_SCHEMAS,
  lotState,
  personState,
  sampleState,
} from './states';

const text = v.string();
const number = v.number();

/** Who is signed in, and what the sign-in page needs when nobody is. */
export const sessionAnswer = v.variant('kind', [
  v.strictObject({
    kind: v.literal('signed-in'),
    person: personState,
    csrfToken: text,
    laboratory: laboratoryState,
    today: plainDate,
    now: text,
    liveAfter: number,
  }),
  v.strictObject({
    kind: v.literal('signed-out'),
    needsFirstAccount: v.boolean(),
    demoPeople: v.array(v.pick(personState, ['id', 'name', 'roles'])),
    laboratoryName: v.nullable(text),
  }),
]) satisfies SchemaOf<SessionAnswer>;

export const sessionsEnded = v.strictObject({ ended: number });

/** The records of each kind. */
// One for each kind of the table: the compiler does not follow it through the loop.
export const LIST_ANSWERS = Object.fromEntries(
  Object.entries<v.GenericSchema>(LIST_SCHEMAS).map(([kind, state]) => [
    kind,
    v.strictObject({
      records: v.array(state),
      left: v.record(text, number),
      names: v.record(text, text),
      next: v.nullable(text),
    }),
  ]),
) as unknown as { readonly [K in ListKind]: SchemaOf<ListAnswer<K>> };

/** One record of each kind. */
export const RECORD_ANSWERS = Object.fromEntries(
  Object.entries<v.GenericSchema>(LIST_SCHEMAS).map(([kind, state]) => [
    kind,
    v.strictObject({
      record: state,
      isAtHand: v.boolean(),
      left: v.nullable(number),
      names: v.record(text, text),
    }),
  ]),
) as unknown as { readonly [K in ListKind]: SchemaOf<RecordAnswer<K>> };

export const stockAnswer = v.strictObject({
  left: v.record(text, number),
}) satisfies SchemaOf<StockAnswer>;

/** The records of some kind: the path says of which. */
export const anyListAnswer = v.union(Object.values<v.GenericSchema>(LIST_ANSWERS));
export const anyRecordAnswer = v.union(Object.values<v.GenericSchema>(RECORD_ANSWERS));

/** The points of an instrument's last calibration, in numbers. */
const calibration = v.nullable(
  v.array(
    v.strictObject({
      nominal: number,
      deviation: number,
      expandedUncertainty: number,
      repeatability: v.nullable(number),
    }),
  ),
);

const calibratedBalance = v.strictObject({ ...balanceSchema.entries, calibration });

/** What every run rests on. */
const ofRun = {
  excess: v.nullable(v.strictObject({ bottle: bottleState, vessel: equipmentState })),
  burette: v.strictObject({ ...buretteSchema.entries, calibration }),
  thermometer: v.nullable(v.strictObject({ ...thermometerSchema.entries, calibration })),
  rulesInForce: houseRulesSchema,
};

const ofStandardization = v.strictObject({
  method: methodSchema,
  bottle: bottleState,
  standard: v.variant('kind', [
    v.strictObject({ kind: v.literal('lot'), lot: lotState, balance: calibratedBalance }),
    v.strictObject({ kind: v.literal('bottle'), bottle: bottleState, vessel: equipmentState }),
  ]),
  ...ofRun,
}) satisfies SchemaOf<StandardizationReferences>;

const ofAnalysis = v.strictObject({
  method: analysisSchema,
  titrant: bottleState,
  samples: v.array(
    v.strictObject({
      state: sampleState,
      dilutions: v.array(v.strictObject({ pipette: equipmentState, flask: equipmentState })),
    }),
  ),
  portioning: v.variant('kind', [
    v.strictObject({
      kind: v.literal('weighed'),
      balance: calibratedBalance,
      whole: v.exactOptional(v.literal(true)),
    }),
    v.strictObject({ kind: v.literal('aliquot'), vessel: equipmentState }),
  ]),
  ...ofRun,
}) satisfies SchemaOf<AnalysisReferences>;

const references = v.union([ofStandardization, ofAnalysis]) satisfies SchemaOf<RunReferences>;

/** A run: whoever reads it folds the facts; those of kinds that they do not know they pass over. */
export const runAnswer = v.strictObject({
  facts: v.array(factSchema as SchemaOf<RunFact>),
  references,
}) satisfies SchemaOf<RunAnswer>;

export const preparationAnswer = v.strictObject({
  records: v.strictObject({
    lots: v.array(lotState),
    bottles: v.array(bottleState),
    equipment: v.array(equipmentState),
  }) satisfies SchemaOf<PreparationRecords>,
});

export const certificateAnswer = v.strictObject({
  number: text,
  molarity: decimal,
  expandedUncertainty: decimal,
  coverageFactor: decimal,
  normality: v.nullable(v.strictObject({ value: decimal, equivalentsPerMole: number })),
  unrounded: v.strictObject({ molarity: number, standardUncertainty: number }),
  effectiveDegreesOfFreedom: v.nullable(number),
  restsOn: v.array(v.strictObject({ id: text, part: number })),
  corrections: certifiedCorrections,
  relativeSdPercent: v.nullable(decimal),
  replicatesMade: number,
  replicatesAveraged: number,
  replicates: v.array(
    v.strictObject({
      flask: number,
      portion: text,
      titreMl: v.nullable(decimal),
      verdict: text,
      why: v.nullable(text),
    }),
  ),
  indicator: text,
  temperatureC: decimal,
  standard: text,
  measuredWith: text,
  burette: text,
  analystIds: v.array(id),
  signatures: v.array(v.strictObject({ means: v.picklist(SIGNATURE_MEANINGS), by: id, at: text })),
  isIndependent: v.nullable(v.boolean()),
  certifiedById: id,
  certifiedOn: plainDate,
  validUntil: plainDate,
  reason: v.nullable(text),
  rules: houseRulesSchema,
  deviations: v.array(text),
  runVersion: number,
  coreVersion: text,
  catalogueVersion: text,
}) satisfies SchemaOf<Certificate>;

export const reportAnswer = v.strictObject({
  number: text,
  form: v.picklist(REPORT_FORMS),
  analysisId: text,
  analysis: text,
  results: v.array(
    v.strictObject({
      sampleId: id,
      code: text,
      unit: resultUnit,
      as: v.nullable(text),
      stated: text,
      parts: v.exactOptional(
        v.array(
          v.strictObject({
            part: text,
            as: v.nullable(text),
            value: decimal,
            expandedUncertainty: decimal,
            coverageFactor: decimal,
            unrounded: v.strictObject({ value: number, standardUncertainty: number }),
          }),
        ),
      ),
      value: decimal,
      expandedUncertainty: decimal,
      coverageFactor: decimal,
      detection: v.picklist(DETECTIONS),
      unrounded: v.strictObject({
        value: number,
        standardUncertainty: number,
        titrationUncertainty: number,
        methodUncertainty: v.nullable(number),
      }),
      effectiveDegreesOfFreedom: v.nullable(number),
      titrationsAveraged: number,
      titrationsMade: number,
      requirement,
      held: v.nullable(v.strictObject({ text, isGood: v.nullable(v.boolean()) })),
    }),
  ),
  controls: v.array(
    v.strictObject({
      code: text,
      unit: text,
      standing: v.strictObject({
        point: v.strictObject({
          runId: v.nullable(id),
          at: text,
          value: number,
          range: v.nullable(number),
          isSettled: v.boolean(),
        }),
        earlier: number,
        limits: v.nullable(v.strictObject({ centre: number, sigma: number })),
        verdict: v.picklist(CONTROL_VERDICTS),
        onOneSide: v.nullable(number),
      }),
    }),
  ),
  notFound: v.array(text),
  titrant: v.strictObject({
    bottleId: id,
    described: text,
    molarity: decimal,
    expandedUncertainty: decimal,
    certificateNumber: v.nullable(text),
  }),
  endPoint: text,
  temperatureC: decimal,
  measuredWith: text,
  burette: text,
  analystIds: v.array(id),
  rules: houseRulesSchema,
  deviations: v.array(text),
  amends: v.nullable(text),
  signatures: v.array(v.strictObject({ means: v.picklist(SIGNATURE_MEANINGS), by: id, at: text })),
  isIndependent: v.boolean(),
  issuedById: id,
  issuedOn: plainDate,
  reason: v.nullable(text),
  runVersion: number,
  coreVersion: text,
  catalogueVersion: text,
}) satisfies SchemaOf<Report>;

export const historyAnswer = v.strictObject({
  lines: v.array(v.strictObject({ fact: factSchema, name: text, about: v.nullable(text) })),
  next: v.nullable(text),
}) satisfies SchemaOf<HistoryAnswer>;

/** What verifying the log of everything found. */
export const auditVerdictAnswer = v.variant('kind', [
  v.strictObject({
    kind: v.literal('whole'),
    entries: number,
    hash: text,
    otherSpellings: number,
    acceptedBreaks: number,
  }),
  v.strictObject({ kind: v.literal('broken'), sequence: number, why: text, found: text }),
]);

/** The data of a server-sent event. */
export const liveEvent = v.variant('kind', [
  v.strictObject({ kind: v.literal('fact'), recordKind: text, recordId: text, version: number }),
  v.strictObject({ kind: v.literal('gap') }),
]) satisfies SchemaOf<LiveEvent>;

/** What the server says of its own interface; OpenAPI allows more than it uses. */
export const descriptionAnswer = v.looseObject({
  openapi: text,
  info: v.looseObject({ version: text, description: text }),
  servers: v.array(v.looseObject({ url: text })),
  paths: v.record(text, v.record(text, v.unknown())),
});
