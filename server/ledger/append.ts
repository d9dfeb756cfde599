import type { Knex } from 'knex';
import type { Laboratory } from '#core/laboratory';
import { DEFAULT_HOUSE_RULES } from '#core/laboratory';
import type { AroundFact, RecordKind } from '#core/ledger';
import { beginsRecord, currentSchemaVersion, isObservation, referencesOf } from '#core/ledger';
import type { Fact, Finding } from '#core/record';
import { objections } from '#core/record';
import type { Action, Author } from '#core/rights';
import { ALL_WORK, may, whyNot } from '#core/rights';
import type { PersonState } from '#core/people';
import { authorOf } from '#core/people';
import type { Id } from '#core/grammar';
import type { ProposedFact } from '#contract';
import { newId } from '#contract';
import type { FindingCode } from '#core/wording';
import { findingText } from '#core/wording';
import { auditEntryOfFact } from '../audit/entry';
import { canonicalText } from '../audit/text';
import { durably } from '../database/durably';
import { AppError, factIdReused } from '../http/appError';
import type { Services } from '../services';
import { deleteSessions, listPeople } from '../people/queries';
import { admit } from './admit';
import { aroundOf, NO_SURROUNDINGS } from './around';
import { projected } from './project';
import { edgesOf, lockRecords, storeFacts } from './queries';
import type { LoadedRecord, Opened } from './references';
import { openRecords, recordOf, referencesFor } from './references';

/** What an append did: `isNew` is false when the same fact was there already. */
export interface Appended {
  readonly fact: Fact;
  readonly isNew: boolean;
}

/**
 * Appends a fact that a client sent, with its projection, in one transaction. Sent twice it is stored once.
 *
 * @throws AppError when the author is somebody else, the id is taken by another fact, the decision is
 * stale, something it names is not there, or core finds the entry impossible or unlikely without a reason.
 */
export async function appendFact(
  services: Services,
  author: PersonState,
  proposed: ProposedFact,
): Promise<Appended> {
  refuseForeign(author, proposed);
  const [outcome] = await appendFacts(services, [proposed]);
  if (!outcome || outcome instanceof AppError) throw outcome ?? new RangeError('no outcome');
  return outcome;
}

/** Refuses what this author, or this version of the program, may not send. @throws AppError */
export function refuseForeign(author: PersonState, proposed: ProposedFact): void {
  if (proposed.authorId !== author.id) {
    throw new AppError(
      'wrong-author',
      'This entry was made by somebody else and can only be sent under their name.',
    );
  }
  if (proposed.schemaVersion !== currentSchemaVersion(proposed.kind)) {
    throw new AppError(
      'invalid-request',
      'This entry has none of the shapes that the program ever wrote.',
    );
  }
}

/**
 * Appends facts of any records and authors in one transaction, in the given order; gives for each what it did, or
 * why it was refused. One that is refused does not touch the others.
 */
export async function appendFacts(
  services: Services,
  proposed: readonly ProposedFact[],
): Promise<(Appended | AppError)[]> {
  return durably(services.db, async (tx) => {
    const ids = [...new Set(proposed.map(({ recordId }) => recordId))];
    const locked = await lockRecords(tx, ids);
    const kinds = new Map(proposed.map(({ recordId, recordKind }) => [recordId, recordKind]));
    const inside = { ...services, db: tx };
    const { records, surroundings } = await openRecords(
      inside,
      ids.map((id) => ({ id, kind: locked.get(id)?.kind ?? kinds.get(id) ?? 'run' })),
      proposed,
    );
    const inHand = (id: string): readonly Fact[] | undefined => records.get(id)?.facts;
    const authors = await listPeople(tx, [...new Set(proposed.map(({ authorId }) => authorId))]);
    const outcomes = proposed.map((one) => {
      const person = authors.get(one.authorId);
      const author = person && authorOf(person);
      const around = aroundOf(services, surroundings, author, inHand);
      return appendOne(services, one, records, around);
    });
    const facts = outcomes.flatMap((outcome) =>
      outcome instanceof AppError || !outcome.isNew ? [] : [outcome.fact],
    );
    if (facts.length > 0)
      await store(tx, facts, records, aroundOf(inside, surroundings, undefined, inHand));
    return outcomes;
  });
}

/** Decides over one fact and, when it is taken, adds it to its record among those that are loaded. */
function appendOne(
  services: Services,
  proposed: ProposedFact,
  records: Map<string, LoadedRecord>,
  around: AroundFact,
): Appended | AppError {
  const record = recordOf(records, proposed.recordId);
  try {
    const known = record.facts.find((fact) => fact.id === proposed.id);
    if (known) return { fact: sameFact(known, proposed), isNew: false };
    if (record.kind !== proposed.recordKind) {
      throw new AppError('unknown-reference', 'This entry does not belong to such a record.');
    }
    refuseStaleDecision(proposed, record.facts.length);
    const fact: Fact = {
      ...proposed,
      sequence: record.facts.length + 1,
      recordedAt: services.now().toISOString(),
    };
    refuseUnexplained(admit(fact, record, around), proposed.body);
    const facts = [...record.facts, fact];
    // A fact that names other records may bring what its own rests on.
    const isNaming = referencesOf(fact).length > 0;
    const references = isNaming ? referencesFor(facts, around) : record.references;
    records.set(record.id, { ...record, facts, references });
    return { fact, isNew: true };
  } catch (error) {
    if (error instanceof AppError) return error;
    throw error;
  }
}

/** Stores facts, given their locked records with these facts already among the others. */
async function store(
  tx: Knex,
  facts: readonly Fact[],
  records: ReadonlyMap<string, LoadedRecord>,
  around: AroundFact,
): Promise<void> {
  const touched = [...new Set(facts.map(({ recordId }) => recordId))];
  const projections = touched.map((id) => projected(recordOf(records, id), around));
  const auditEntries = facts.map((fact) => auditEntryOfFact(fact));
  const kept = await storeFacts(tx, { facts, projections, edges: edgesOf(facts), auditEntries });
  refuseAltered(auditEntries, kept);
  for (const fact of facts) await CONSEQUENCES[fact.kind]?.(tx, fact);
}

/** What goes with a fact in the same transaction. */
const CONSEQUENCES: Readonly<Record<string, (tx: Knex, fact: Fact) => Promise<unknown>>> = {
  // Whoever leaves is signed out everywhere.
  'person.left': (tx, { recordId }) => deleteSessions(tx, recordId),
};

/** The log must vouch for what is kept. @throws AppError when the database keeps something else than was digested. */
function refuseAltered(auditEntries: readonly string[], kept: readonly Fact[]): void {
  const digested = new Set(auditEntries);
  const isAltered = kept.some((fact) => !digested.has(auditEntryOfFact(fact)));
  if (!isAltered && kept.length === digested.size) return;
  const message = 'This entry could not be kept just as it was sent; nothing was stored.';
  throw new AppError('invalid-request', message);
}

/** What a fact that the server makes says of itself; the rest follows from who asked for it, and when. */
type Made = Pick<Fact, 'recordId' | 'kind' | 'body'> & {
  readonly recordKind: RecordKind;
} & Partial<Pick<Fact, 'id' | 'deviceId' | 'deviceTime' | 'clockOffsetMs' | 'basedOn'>>;

/** What a request says of the device that made it. */
export function deviceOf({
  deviceId,
  deviceTime,
  clockOffsetMs,
}: Pick<Fact, 'deviceId' | 'deviceTime' | 'clockOffsetMs'>) {
  return { deviceId, deviceTime, clockOffsetMs };
}

/**
 * A fact of the server's own making on somebody's behalf, not numbered yet.
 *
 * @throws RangeError when a figure in it is none: what has not been computed must not be put on record
 */
export function makeServerFact(services: Services, authorId: Id, made: Made): Fact {
  const now = services.now().toISOString();
  refuseNoFigures(made.body);
  return {
    id: newId(),
    schemaVersion: currentSchemaVersion(made.kind),
    authorId,
    deviceId: null,
    deviceTime: now,
    clockOffsetMs: null,
    basedOn: null,
    sequence: null,
    recordedAt: now,
    ...made,
  };
}

function refuseNoFigures(part: unknown): void {
  const isNone =
    typeof part === 'number'
      ? !Number.isFinite(part)
      : typeof part === 'string' && /^-?(NaN|Infinity)$/.test(part);
  if (isNone) {
    throw new RangeError('a figure of a fact is none');
  }
  if (typeof part === 'object' && part !== null) Object.values(part).forEach(refuseNoFigures);
}

/**
 * Locks records and loads them, with what they refer to, for facts of the server's own making.
 *
 * @throws AppError `not-found` where one is of another kind
 */
export async function lockAndOpen(
  services: Services,
  records: readonly { readonly id: string; readonly kind: RecordKind }[],
): Promise<Opened> {
  const locked = await lockRecords(
    services.db,
    records.map(({ id }) => id),
  );
  const other = records.find(({ id, kind }) => (locked.get(id)?.kind ?? kind) !== kind);
  if (other) throw new AppError('not-found', `There is no such ${other.kind}.`);
  return openRecords(services, records);
}

/**
 * Stores facts that the server made, each as the next of its locked record, after the same checks as any other.
 *
 * @throws AppError for what core has against one
 */
export async function storeNext(
  services: Services,
  author: Author,
  made: readonly Fact[],
  opened: Opened,
): Promise<void> {
  const records = new Map(opened.records);
  const around = aroundOf(services, opened.surroundings, author, (id) => records.get(id)?.facts);
  const facts = made.map((fact) => {
    const record = recordOf(records, fact.recordId);
    const next = { ...fact, sequence: record.facts.length + 1 };
    const findings = admit(next, record, around);
    refuseUnexplained(
      findings.filter(({ severity }) => severity === 'impossible'),
      {},
    );
    records.set(record.id, { ...record, facts: [...record.facts, next] });
    return next;
  });
  await store(services.db, facts, records, around);
}

/** Refuses a decision that was based on another version of the record than the present one. */
export function refuseStale(basedOn: number | null, version: number): void {
  if (basedOn !== version) throw staleVersion();
}

export function staleVersion(): AppError {
  const message = 'Somebody has added to this record since you looked. Look again, then decide.';
  return new AppError('stale-version', message);
}

function refuseStaleDecision(proposed: ProposedFact, version: number): void {
  if (isObservation(proposed.kind) || (version === 0 && beginsRecord(proposed.kind))) return;
  refuseStale(proposed.basedOn, version);
}

/** The stored fact, if the sent one says the same. @throws AppError `fact-id-reused` */
function sameFact(known: Fact, sent: ProposedFact): Fact {
  const { sequence: _sequence, recordedAt: _recordedAt, ...content } = known;
  // As the log compares: -0 is kept as 0.
  if (canonicalText(content) === canonicalText(sent)) return known;
  throw factIdReused();
}

type OwnCode = 'not-found' | 'not-allowed' | 'unknown-reference';

/** Findings that are refused with a code of their own, the first of these first. */
const OWN_CODES: readonly (readonly [OwnCode, readonly FindingCode[]])[] = [
  ['not-found', ['not-found']],
  ['not-allowed', ['not-allowed', 'may-not-deviate']],
  [
    'unknown-reference',
    [
      'unknown-reference',
      'not-in-catalogue',
      'not-a',
      'aliquot-not-measured',
      'excess-not-measured',
    ],
  ],
];

/** @throws AppError `not-allowed` for somebody who may not do this */
export function refuseUnlessMay(author: Author, action: Action): void {
  if (!may(author, action)) throw new AppError('not-allowed', whyNot(action));
}

/** Refuses what cannot be, and what is unlikely when no reason is given. */
export function refuseUnexplained(findings: readonly Finding[], body: object): void {
  const against = objections(findings, body);
  for (const [code, findingCodes] of OWN_CODES) {
    const own = against.filter((finding) => findingCodes.includes(finding.code));
    if (own[0]) throw fromFindings(code, own[0], own);
  }
  const [first] = against;
  if (!first) return;
  const code = first.severity === 'impossible' ? 'impossible-entry' : 'reason-needed';
  throw fromFindings(code, first, against);
}

function fromFindings(
  code: 'impossible-entry' | 'reason-needed' | OwnCode,
  first: Finding,
  findings: readonly Finding[],
): AppError {
  const fields = findings.map((finding) => ({
    field: `body.${finding.field}`,
    message: findingText(finding),
  }));
  return new AppError(code, findingText(first), fields);
}

/**
 * Founds the laboratory: the first facts of all, with the rules that the program ships, so that a later version which
 * ships others does not rewrite them.
 *
 * @throws AppError `already-exists`
 */
export async function foundLaboratory(
  services: Services,
  authorId: Id,
  laboratory: Laboratory,
): Promise<void> {
  const record = { recordId: newId(), recordKind: 'laboratory' } as const;
  const rules = { rules: DEFAULT_HOUSE_RULES, reason: 'The rules that the program ships.' };
  const facts = [
    { ...record, kind: 'laboratory.founded', body: laboratory },
    { ...record, kind: 'laboratory.rules-set', body: rules },
  ].map((made) => makeServerFact(services, authorId, made));
  const nothing = { id: record.recordId, kind: 'laboratory', facts: [], references: null } as const;
  const opened = { records: new Map([[record.recordId, nothing]]), surroundings: NO_SURROUNDINGS };
  await storeNext(services, { id: authorId, roles: ALL_WORK }, facts, opened);
}
