import * as v from 'valibot';
import type { Plain, PlainDate } from '#core/grammar';
import type { LabelSheet } from '#core/label';
import { fitsOnPage } from '#core/label';
import type { Laboratory, LaboratoryState } from '#core/laboratory';
import type { ClientFactKind, RecordKind } from '#core/ledger';
import { RECORD_KINDS, recordKindOf } from '#core/ledger';
import type { PersonState } from '#core/people';
import type { PreparationRecords } from '#core/preparation';
import type { Fact } from '#core/record';
import type { RunFact } from '#core/titration/record';
import { REPORT_FORMS } from '#core/titration/run';
import type { RunReferences } from '#core/titration/setUp';
import type { ClientFactBody } from './records';
import { isCommonPassword } from './commonPasswords';
import type { ListStates } from './states';
import { bottleCode, container, FACT_SCHEMAS, given } from './records';
import { id, instant, line, plainDate, reason, storedInteger } from './fields';

/** A version of a record: how many facts it has. */
const version = storedInteger(0);

/** A device's clock may be wrong by much, but its time must stay a time. */
const CENTURY_MS = 100 * 365.25 * 24 * 3_600_000;

/** Which device something was entered on, when by its clock, and how far that clock was off. */
const device = {
  deviceId: v.nullable(id),
  deviceTime: instant,
  clockOffsetMs: v.nullable(
    v.pipe(v.number(), v.integer(), v.minValue(-CENTURY_MS), v.maxValue(CENTURY_MS)),
  ),
};

/** The part of a sent fact that is the same for every kind. */
const envelope = {
  id,
  recordId: id,
  schemaVersion: storedInteger(1),
  authorId: id,
  ...device,
  basedOn: v.nullable(version),
};

/** A fact of one kind, as the client made it. */
type Proposed<K extends ClientFactKind> = v.InferOutput<
  v.StrictObjectSchema<typeof envelope, undefined>
> & {
  readonly recordKind: RecordKind;
  readonly kind: K;
  readonly body: ClientFactBody<K>;
};

/** A fact as the client made it. */
export type ProposedFact = { [K in ClientFactKind]: Proposed<K> }[ClientFactKind];

const PROPOSED = Object.entries(FACT_SCHEMAS).map(([kind, body]) =>
  v.strictObject({
    ...envelope,
    recordKind: v.literal(recordKindOf(kind)),
    kind: v.literal(kind),
    body,
  }),
);

/** `POST /api/facts`: one fact. */
// A variant for each entry of the table: the compiler does not follow it through the loop.
export const proposedFactSchema = v.variant('kind', PROPOSED) as unknown as v.GenericSchema<
  unknown,
  ProposedFact
>;

/** What a client gives to make a fact, as it was typed; the envelope is added where it is kept. */
export type NewFact<K extends ClientFactKind = ClientFactKind> = {
  [Kind in K]: { readonly kind: Kind; readonly body: Plain<ClientFactBody<Kind>> };
}[K];

/** With this the made-up people of the demo sign; it opens no account. */
export const DEMO_PASSWORD = 'grapes in glass';

/** What every signature takes: the password, and the digest of the draft that was shown. */
const signed = {
  password: v.pipe(v.string(), v.maxLength(1000)),
  draft: v.pipe(v.string(), v.regex(/^[0-9a-f]{64}$/, 'This is no SHA-256.')),
};

/** `POST /api/runs/:runId/signatures`: signs that a run was performed or checked. */
export const signRequestSchema = v.strictObject({
  factId: id,
  ...device,
  basedOn: version,
  means: v.picklist(['performed', 'checked']),
  ...signed,
});
export type SignRequest = v.InferOutput<typeof signRequestSchema>;

/** `POST /api/runs/:runId/certificate` */
export const certifyRequestSchema = v.strictObject({
  factId: id,
  bottleFactId: id,
  ...device,
  basedOn: version,
  validUntil: plainDate,
  reason: v.nullable(reason),
  ...signed,
});
export type CertifyRequest = v.InferOutput<typeof certifyRequestSchema>;

/** `POST /api/runs/:runId/report` */
export const reportRequestSchema = v.strictObject({
  factId: id,
  ...device,
  basedOn: version,
  form: v.picklist(REPORT_FORMS),
  reason: v.nullable(reason),
  ...signed,
});
export type ReportRequest = v.InferOutput<typeof reportRequestSchema>;

/** `POST /api/runs/:runId/report-withdrawal`: the report in force holds no longer. */
export const withdrawReportRequestSchema = v.strictObject({
  factId: id,
  ...device,
  basedOn: version,
  number: v.pipe(v.string(), v.maxLength(100)),
  reason,
  password: signed.password,
});
export type WithdrawReportRequest = v.InferOutput<typeof withdrawReportRequestSchema>;

/** `POST /api/runs/:runId/withdrawal`: the certificate in force holds no longer. */
export const withdrawRequestSchema = v.strictObject({
  ...withdrawReportRequestSchema.entries,
  bottleFactId: id,
});
export type WithdrawRequest = v.InferOutput<typeof withdrawRequestSchema>;

/** `POST /api/preparations/:preparationId/bottle`: fills what was made into a bottle. */
export const bottlingSchema = v.strictObject({
  factId: id,
  bottleFactId: id,
  bottleId: id,
  ...device,
  basedOn: version,
  code: bottleCode,
  container,
  useBy: v.nullable(plainDate),
  reason: v.nullable(reason),
});
export type BottlingRequest = v.InferOutput<typeof bottlingSchema>;

const password = v.pipe(
  v.string('Give a password.'),
  v.minLength(10, 'A password has at least 10 characters.'),
  v.maxLength(200, 'A password has at most 200 characters.'),
  v.check(
    (text) => !isCommonPassword(text),
    'This is one of the passwords that are tried first: take a few words that do not belong together.',
  ),
);

/** `POST /api/session` */
export const signInSchema = v.strictObject({
  name: line,
  password: v.pipe(v.string(), v.maxLength(200, 'That is too long for a password.')),
});

/** `POST /api/account/password`: changes one's own. */
export const changePasswordSchema = v.strictObject({
  current: v.pipe(v.string(), v.maxLength(200, 'That is too long for a password.')),
  password,
});

/** `POST /api/session/demo` */
export const demoSignInSchema = v.strictObject({ personId: id });

const timeZone = v.pipe(
  line,
  v.check(isTimeZone, 'This is not a time zone, such as Europe/Vienna.'),
);

function isTimeZone(name: string): boolean {
  try {
    new Intl.DateTimeFormat('en', { timeZone: name });
    return true;
  } catch {
    return false;
  }
}

const laboratorySchema = v.strictObject({
  name: line,
  timeZone,
}) satisfies v.GenericSchema<unknown, Laboratory>;

/** `POST /api/first-account`: founds the laboratory. */
export const firstAccountSchema = v.strictObject({
  code: v.pipe(line, v.toUpperCase()),
  name: line,
  password,
  laboratory: laboratorySchema,
});

/** `POST /api/people` */
export const newPersonSchema = v.strictObject({
  name: line,
  password,
  ...given,
});

/** `GET /api/session`: who is signed in, and what the sign-in page needs when nobody is. */
export type SessionAnswer =
  | {
      readonly kind: 'signed-in';
      readonly person: PersonState;
      readonly csrfToken: string;
      readonly laboratory: LaboratoryState;
      /** Today in the laboratory's time zone, a plain date. */
      readonly today: PlainDate;
      /** The server's clock, ISO 8601 in UTC: by it a device measures how far its own is off. */
      readonly now: string;
      /** Number of the last event that what is read from now on takes in: `GET /api/events?after=` goes on there. */
      readonly liveAfter: number;
    }
  | {
      readonly kind: 'signed-out';
      /** No account exists yet: the next one is made with the code from the terminal. */
      readonly needsFirstAccount: boolean;
      /** The demo's people; empty outside the demo and beyond loopback. */
      readonly demoPeople: readonly Pick<PersonState, 'id' | 'name' | 'roles'>[];
      readonly laboratoryName: string | null;
    };

export type ListKind = keyof ListStates;

/** In what order lists come: what was begun last first, or by name. */
export const LIST_ORDERS = ['newest', 'name'] as const;
export type ListOrder = (typeof LIST_ORDERS)[number];

/** How a list of records is asked for; all of it is text, as addresses are. */
export const listRequestSchema = v.object({
  order: v.optional(v.picklist(LIST_ORDERS), 'newest'),
  search: v.optional(v.pipe(v.string(), v.maxLength(200)), ''),
  standing: v.optional(v.pipe(v.string(), v.maxLength(200)), ''),
  about: v.optional(id),
  restsOn: v.optional(id),
  atHand: v.optional(v.picklist(['yes', 'no']), 'no'),
  after: v.optional(v.pipe(v.string(), v.maxLength(2000))),
});
export type ListRequest = v.InferOutput<typeof listRequestSchema>;

/** `GET /api/history`: what was entered, the newest first. */
export const historyRequestSchema = v.object({
  recordId: v.optional(id),
  recordKind: v.optional(v.picklist(RECORD_KINDS)),
  by: v.optional(id),
  signed: v.optional(v.picklist(['yes', 'no']), 'no'),
  from: v.optional(plainDate),
  to: v.optional(plainDate),
  after: v.optional(v.pipe(v.string(), v.maxLength(200))),
});
export type HistoryRequest = v.InferOutput<typeof historyRequestSchema>;

/** One thing that was entered, with what the record is called that it belongs to. */
export interface HistoryLine {
  readonly fact: Fact;
  /** Empty for a record without a name of its own. */
  readonly name: string;
  /** What the record is about, such as the bottle of a run; null where it is about nothing else. */
  readonly about: string | null;
}

/** As many lines as go into one answer. */
export interface HistoryAnswer {
  readonly lines: readonly HistoryLine[];
  /** Where it goes on; null at the beginning of all. */
  readonly next: string | null;
}

/** `GET /api/records/:kind`: as many records as go into one answer. */
export interface ListAnswer<K extends ListKind> {
  readonly records: readonly ListStates[K][];
  /** What is left of them (g, mL), by id; of what nobody counts, nothing. */
  readonly left: Readonly<Record<string, number>>;
  /** Names of the records that they are about, by id. */
  readonly names: Readonly<Record<string, string>>;
  /** Where the list goes on; null at its end. */
  readonly next: string | null;
}

/** `GET /api/records/:kind/:recordId` */
export interface RecordAnswer<K extends ListKind> {
  readonly record: ListStates[K];
  /** Whether it may come to hand at a bench. */
  readonly isAtHand: boolean;
  /** What is left of it (g, mL); null when nobody counts. */
  readonly left: number | null;
  /** Names of the records that it rests on, by id. */
  readonly names: Readonly<Record<string, string>>;
}

/** `GET /api/stock`: what is left of the lots and bottles that may come to hand (g, mL), by id. */
export interface StockAnswer {
  readonly left: Readonly<Record<string, number>>;
}

/** `GET /api/runs/:runId`: the facts and what they rest on; the client folds them itself. */
export interface RunAnswer {
  readonly facts: readonly RunFact[];
  readonly references: RunReferences;
}

/** `GET /api/preparations/:preparationId`: the records that it rests on, at the versions at which it drew from them. */
export interface PreparationAnswer {
  readonly records: PreparationRecords;
}

/** `GET /api/events`: what has changed, as the data of one server-sent event. */
export type LiveEvent =
  | {
      readonly kind: 'fact';
      readonly recordKind: string;
      readonly recordId: string;
      /** The version that the record has now. */
      readonly version: number;
    }
  /** More than can be told: read everything again. */
  | { readonly kind: 'gap' };

const millimetres = v.pipe(v.number(), v.minValue(0), v.maxValue(1000));
const pairOfMillimetres = v.pipe(v.strictTuple([millimetres, millimetres]), v.readonly());
const labelCount = v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(30));

const labelSheetSchema = v.pipe(
  v.strictObject({
    name: line,
    pageMm: pairOfMillimetres,
    labelMm: v.pipe(
      v.strictTuple([
        v.pipe(millimetres, v.minValue(25, 'A label is at least 25 mm wide.')),
        v.pipe(millimetres, v.minValue(15, 'A label is at least 15 mm high.')),
      ]),
      v.readonly(),
    ),
    columns: labelCount,
    rows: labelCount,
    marginMm: pairOfMillimetres,
    gapMm: pairOfMillimetres,
  }),
  v.check(fitsOnPage, 'These labels do not fit on that page: check the millimetres.'),
) satisfies v.GenericSchema<unknown, LabelSheet>;

/** `POST /api/labels`: labels of bottles or samples as a PDF. */
export const labelsSchema = v.pipe(
  v.strictObject({
    /** One as often as it is to have labels. */
    bottleIds: v.optional(v.pipe(v.array(id), v.maxLength(100)), []),
    sampleIds: v.optional(v.pipe(v.array(id), v.maxLength(100)), []),
    sheet: labelSheetSchema,
    /** The first free label on the sheet, from 0: sheets are used up. */
    startAt: v.pipe(v.number(), v.integer(), v.minValue(0), v.maxValue(899)),
  }),
  v.check(
    ({ bottleIds, sampleIds }) => bottleIds.length + sampleIds.length > 0,
    'Choose a bottle or a sample.',
  ),
);
export type LabelsRequest = v.InferOutput<typeof labelsSchema>;

const UUID = '[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}';

/** The pages that there are; a record's carries its id. */
const PAGES = new RegExp(
  `^/(?:|interface|prepare(?:/write-down|/day)?|titrate(?:/set-up|/samples)?|judge|samples|lots|equipment|verification|rules|words|settings|methods|catalogue|history|people|account` +
    `|bottles/${UUID}(?:/label)?|preparations/${UUID}|runs/${UUID}(?:/sheet|/judge|/(?:certificates|reports)/[^/]{1,120})?|samples/${UUID}(?:/label)?|lots/${UUID}|equipment/${UUID}|(?:methods|catalogue)/(?:new|${UUID}|[a-z0-9-]+))$`,
);

/** `POST /api/prints`: a page was printed. */
export const printSchema = v.strictObject({
  path: v.pipe(v.string(), v.maxLength(300), v.regex(PAGES, 'There is no such page.')),
});
