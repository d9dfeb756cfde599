import type * as v from 'valibot';
import {
  auditVerdictAnswer,
  historyAnswer,
  anyListAnswer,
  anyRecordAnswer,
  certificateAnswer,
  reportAnswer,
  descriptionAnswer,
  liveEvent,
  preparationAnswer,
  runAnswer,
  sessionAnswer,
  sessionsEnded,
  stockAnswer,
} from './answers';
import { certificateFileSchema } from './certificateFile';
import { reportFileSchema } from './reportFile';
import type { ProblemCode } from './problem';
import { factSchema, LIST_SCHEMAS, personState, preparedBottle, storedFileSchema } from './states';
import {
  bottlingSchema,
  certifyRequestSchema,
  reportRequestSchema,
  withdrawReportRequestSchema,
  withdrawRequestSchema,
  signRequestSchema,
  changePasswordSchema,
  demoSignInSchema,
  firstAccountSchema,
  labelsSchema,
  LIST_ORDERS,
  newPersonSchema,
  printSchema,
  proposedFactSchema,
  signInSchema,
} from './messages';

/** What success means, and what comes with it. */
interface Answer {
  readonly meaning: string;
  readonly type?:
    'application/json' | 'application/pdf' | 'application/octet-stream' | 'text/event-stream';
  /** Of the body, or of the data of an event. */
  readonly schema?: v.GenericSchema;
}

function json(meaning: string, schema: v.GenericSchema): Answer {
  return { meaning, type: 'application/json', schema };
}

/** One thing that the server can be asked. The interface's description is made from these, and the fuzz too. */
export interface Route {
  readonly method: 'get' | 'post' | 'delete';
  /** Below `/api`, with parameters in braces. */
  readonly path: string;
  readonly summary: string;
  readonly needsSession: boolean;
  readonly body: v.GenericSchema | null;
  /** Parameters in the path and in the query. */
  readonly parameters: Readonly<Record<string, { in: 'path' | 'query'; meaning: string }>>;
  /** What success looks like, by status. */
  readonly answers: Readonly<Record<number, Answer>>;
  /** How it can fail beside the ways that every route can. */
  readonly problems: readonly ProblemCode[];
}

const KIND = { in: 'path', meaning: Object.keys(LIST_SCHEMAS).join(', ') } as const;
const RUN_ID = { runId: { in: 'path', meaning: 'id of a run' } } as const;
const DECIDED = ['impossible-entry', 'reason-needed', 'stale-version', 'fact-id-reused'] as const;

export const ROUTES: readonly Route[] = [
  {
    method: 'get',
    path: '/session',
    summary: 'Who is signed in, and what the sign-in page offers when nobody is.',
    needsSession: false,
    body: null,
    parameters: {},
    answers: {
      200: json(
        'The person, the laboratory, the token for changes; or the ways to sign in.',
        sessionAnswer,
      ),
    },
    problems: [],
  },
  {
    method: 'post',
    path: '/session',
    summary: 'Signs in with name and password.',
    needsSession: false,
    body: signInSchema,
    parameters: {},
    answers: { 201: json('The session.', sessionAnswer) },
    problems: ['wrong-credentials', 'too-many-requests'],
  },
  {
    method: 'post',
    path: '/session/demo',
    summary: 'Signs in as one of the made-up people of the demo, on its own machine only.',
    needsSession: false,
    body: demoSignInSchema,
    parameters: {},
    answers: { 201: json('The session.', sessionAnswer) },
    problems: ['not-allowed'],
  },
  {
    method: 'delete',
    path: '/session',
    summary: 'Signs out.',
    needsSession: false,
    body: null,
    parameters: {},
    answers: { 204: { meaning: 'Nobody is signed in.' } },
    problems: [],
  },
  {
    method: 'post',
    path: '/account/password',
    summary: 'Changes one’s own password and ends one’s other sessions.',
    needsSession: true,
    body: changePasswordSchema,
    parameters: {},
    answers: { 204: { meaning: 'It is changed.' } },
    problems: ['wrong-credentials', 'too-many-requests'],
  },
  {
    method: 'delete',
    path: '/account/sessions',
    summary: 'Ends one’s other sessions, on whatever device.',
    needsSession: true,
    body: null,
    parameters: {},
    answers: { 200: json('How many there were.', sessionsEnded) },
    problems: [],
  },
  {
    method: 'post',
    path: '/first-account',
    summary: 'Founds the laboratory with the one-time code that the terminal shows.',
    needsSession: false,
    body: firstAccountSchema,
    parameters: {},
    answers: { 201: json('The session of the first person.', sessionAnswer) },
    problems: ['wrong-code', 'already-exists', 'too-many-requests'],
  },
  {
    method: 'post',
    path: '/people',
    summary: 'Adds a person with an account.',
    needsSession: true,
    body: newPersonSchema,
    parameters: {},
    answers: { 201: json('The person.', personState) },
    problems: ['not-allowed', 'already-exists'],
  },
  {
    method: 'post',
    path: '/facts',
    summary: 'Adds one fact to a record. Sent twice, it is stored once.',
    needsSession: true,
    body: proposedFactSchema,
    parameters: {},
    answers: {
      201: json('The fact as it was stored.', factSchema),
      200: json('The same fact was there already.', factSchema),
    },
    problems: [...DECIDED, 'wrong-author', 'unknown-reference', 'already-exists', 'other-version'],
  },
  {
    method: 'get',
    path: '/records/{kind}',
    summary: 'Records of a kind, as lists show them: at most 100, and where the list goes on.',
    needsSession: true,
    body: null,
    parameters: {
      kind: KIND,
      order: { in: 'query', meaning: `${LIST_ORDERS.join(' or ')}; else ${LIST_ORDERS[0]}` },
      search: { in: 'query', meaning: 'words that are all to be found in it' },
      standing: { in: 'query', meaning: 'standings of which it has one, with commas between' },
      about: { in: 'query', meaning: 'id of the record that it is about: the bottle of a run' },
      restsOn: { in: 'query', meaning: 'id of a record that it names: the lot that was weighed' },
      atHand: { in: 'query', meaning: 'yes: only what may come to hand at a bench' },
      after: { in: 'query', meaning: '`next` of the page before, of a list that was asked alike' },
    },
    answers: { 200: json('The records.', anyListAnswer) },
    problems: [],
  },
  {
    method: 'get',
    path: '/records/{kind}/{recordId}',
    summary: 'One record, as lists show it.',
    needsSession: true,
    body: null,
    parameters: { kind: KIND, recordId: { in: 'path', meaning: 'its id' } },
    answers: { 200: json('The record.', anyRecordAnswer) },
    problems: [],
  },
  {
    method: 'get',
    path: '/stock',
    summary: 'What is left of the lots and bottles that may come to hand.',
    needsSession: true,
    body: null,
    parameters: {},
    answers: { 200: json('g of solids, mL of solutions, by id.', stockAnswer) },
    problems: [],
  },
  {
    method: 'get',
    path: '/history',
    summary: 'What was entered, the newest first: of a record, a person, a kind, between two days.',
    needsSession: true,
    body: null,
    parameters: {
      recordId: { in: 'query', meaning: 'of one record' },
      recordKind: { in: 'query', meaning: 'of one kind of record' },
      by: { in: 'query', meaning: 'id of a person' },
      signed: { in: 'query', meaning: 'yes for signatures only' },
      from: { in: 'query', meaning: 'first day' },
      to: { in: 'query', meaning: 'last day' },
      after: { in: 'query', meaning: 'where the answer before it ended' },
    },
    answers: { 200: json('Facts, with the names of their records.', historyAnswer) },
    problems: [],
  },
  {
    method: 'post',
    path: '/audit/verification',
    summary: 'Verifies the log from its first entry, with all that it vouches for.',
    needsSession: true,
    body: null,
    parameters: {},
    answers: { 200: json('Whole, or the first break.', auditVerdictAnswer) },
    problems: ['not-allowed', 'too-many-requests'],
  },
  {
    method: 'get',
    path: '/runs/{runId}',
    summary: 'A run: its facts and the records that they rest on.',
    needsSession: true,
    body: null,
    parameters: RUN_ID,
    answers: { 200: json('Facts and references; whoever reads them folds them.', runAnswer) },
    problems: [],
  },
  {
    method: 'post',
    path: '/runs/{runId}/signatures',
    summary: 'Signs that what a run came to was performed or checked, with the password.',
    needsSession: true,
    body: signRequestSchema,
    parameters: RUN_ID,
    answers: { 204: { meaning: 'Signed.' } },
    problems: ['wrong-credentials', 'too-many-requests', 'not-allowed', ...DECIDED],
  },
  {
    method: 'get',
    path: '/runs/{runId}/certificates/{number}',
    summary:
      'A certificate as a file: what it states, its figures in SI units, and all that was entered, to be computed again.',
    needsSession: true,
    body: null,
    parameters: { ...RUN_ID, number: { in: 'path', meaning: 'number of a certificate' } },
    answers: { 200: json('The certificate.', certificateFileSchema) },
    problems: [],
  },
  {
    method: 'post',
    path: '/runs/{runId}/certificate',
    summary: 'Certifies a run as it stands and writes the molarity on its bottle.',
    needsSession: true,
    body: certifyRequestSchema,
    parameters: RUN_ID,
    answers: { 201: json('The certificate.', certificateAnswer) },
    problems: ['wrong-credentials', 'too-many-requests', 'not-allowed', ...DECIDED],
  },
  {
    method: 'post',
    path: '/runs/{runId}/withdrawal',
    summary:
      'Withdraws the certificate in force: neither it nor the molarity of the bottle holds any longer, and the run is open to be put right.',
    needsSession: true,
    body: withdrawRequestSchema,
    parameters: RUN_ID,
    answers: { 204: { meaning: 'Withdrawn.' } },
    problems: ['wrong-credentials', 'too-many-requests', 'not-allowed', ...DECIDED],
  },
  {
    method: 'get',
    path: '/runs/{runId}/reports/{number}',
    summary:
      'A report of samples as a file: what it states, its figures in SI units, and all that was entered, to be computed again.',
    needsSession: true,
    body: null,
    parameters: { ...RUN_ID, number: { in: 'path', meaning: 'number of a report' } },
    answers: { 200: json('The report.', reportFileSchema) },
    problems: [],
  },
  {
    method: 'post',
    path: '/runs/{runId}/report',
    summary:
      'Reports what was found of the samples of a run, with the password of whoever signs last.',
    needsSession: true,
    body: reportRequestSchema,
    parameters: RUN_ID,
    answers: { 201: json('The report.', reportAnswer) },
    problems: [...DECIDED, 'wrong-credentials', 'not-allowed', 'too-many-requests'],
  },
  {
    method: 'post',
    path: '/runs/{runId}/report-withdrawal',
    summary:
      'Withdraws the report in force: what it states of each sample holds no longer, and the run is open to be amended.',
    needsSession: true,
    body: withdrawReportRequestSchema,
    parameters: RUN_ID,
    answers: { 204: { meaning: 'It is withdrawn.' } },
    problems: [...DECIDED, 'wrong-credentials', 'not-allowed', 'too-many-requests'],
  },
  {
    method: 'get',
    path: '/preparations/{preparationId}',
    summary:
      'What a preparation rests on: lots, bottles and equipment as they were when it drew from them.',
    needsSession: true,
    body: null,
    parameters: { preparationId: { in: 'path', meaning: 'id of a preparation' } },
    answers: { 200: json('The records.', preparationAnswer) },
    problems: [],
  },
  {
    method: 'post',
    path: '/preparations/{preparationId}/bottle',
    summary: 'Fills what was prepared into a bottle: its molarity is computed from what was done.',
    needsSession: true,
    body: bottlingSchema,
    parameters: { preparationId: { in: 'path', meaning: 'id of a preparation' } },
    answers: { 201: json('The bottle as it was made.', preparedBottle) },
    problems: [...DECIDED, 'already-exists', 'unknown-reference'],
  },
  {
    method: 'post',
    path: '/lots/{lotId}/certificates',
    summary:
      'Attaches a certificate: the file itself as the body, a PDF, PNG or JPEG of at most 8 MB.',
    needsSession: true,
    body: null,
    parameters: {
      lotId: { in: 'path', meaning: 'id of a lot' },
      name: { in: 'query', meaning: 'name of the file' },
    },
    answers: { 201: json('The file as it was stored.', storedFileSchema) },
    problems: ['unsupported-media-type', 'too-large', 'wrong-origin'],
  },
  {
    method: 'post',
    path: '/laboratory/logo',
    summary:
      'Sets the picture on certificates: the file itself as the body, PNG or JPEG, at most 1 MB.',
    needsSession: true,
    body: null,
    parameters: { name: { in: 'query', meaning: 'name of the file' } },
    answers: { 201: json('The file as it was stored.', storedFileSchema) },
    problems: ['not-allowed', 'unsupported-media-type', 'too-large', 'wrong-origin'],
  },
  {
    method: 'post',
    path: '/runs/{runId}/flasks/{flask}/photographs',
    summary:
      'Attaches a photograph of a flask: the file itself as the body, PNG or JPEG, at most 8 MB.',
    needsSession: true,
    body: null,
    parameters: {
      runId: { in: 'path', meaning: 'id of a run' },
      flask: { in: 'path', meaning: 'number of the flask' },
      name: { in: 'query', meaning: 'name of the file' },
    },
    answers: { 201: json('The file as it was stored.', storedFileSchema) },
    problems: ['unsupported-media-type', 'too-large', 'wrong-origin', 'impossible-entry'],
  },
  {
    method: 'get',
    path: '/files/{fileId}',
    summary: 'A file that was attached.',
    needsSession: true,
    body: null,
    parameters: { fileId: { in: 'path', meaning: 'id of a file' } },
    answers: { 200: { meaning: 'The file, to be saved.', type: 'application/octet-stream' } },
    problems: [],
  },
  {
    method: 'post',
    path: '/labels',
    summary: 'Makes labels of bottles or samples as a PDF, and puts on record that they were made.',
    needsSession: true,
    body: labelsSchema,
    parameters: {},
    answers: { 200: { meaning: 'The labels.', type: 'application/pdf' } },
    problems: ['unknown-reference', 'too-large', 'too-many-requests'],
  },
  {
    method: 'post',
    path: '/prints',
    summary: 'Puts on record that a page was printed.',
    needsSession: true,
    body: printSchema,
    parameters: {},
    answers: { 204: { meaning: 'It is on record.' } },
    problems: [],
  },
  {
    method: 'get',
    path: '/events',
    summary: 'What changes, as server-sent events numbered without gaps.',
    needsSession: true,
    body: null,
    parameters: {
      after: { in: 'query', meaning: 'number of the last event that is known; default 0' },
    },
    answers: {
      200: {
        meaning: 'Each event has a number, and this as its data.',
        type: 'text/event-stream',
        schema: liveEvent,
      },
    },
    problems: ['too-many-requests'],
  },
  {
    method: 'get',
    path: '/openapi.json',
    summary: 'This description, in OpenAPI 3.1.',
    needsSession: false,
    body: null,
    parameters: {},
    answers: { 200: json('The description.', descriptionAnswer) },
    problems: [],
  },
];
