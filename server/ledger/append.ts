import type { Knex } from 'knex';
import { v7 as uuidv7 } from 'uuid';
import type { Laboratory } from '#core/laboratory';
import { DEFAULT_HOUSE_RULES } from '#core/laboratory';
import type { Fact, Finding } from '#core/record';
import { currentSchemaVersion } from '#core/record';
import type { Person, ProposedFact } from '#contract';
import { DECISION_KINDS } from '#contract';
import { auditEntryOfFact } from '../audit/entry';
import { canonicalText } from '../audit/text';
import { durably } from '../database/durably';
import { AppError, factIdReused } from '../http/appError';
import type { Services } from '../services';
import { admit } from './admit';
import { projectionOf } from './project';
import { lockRecords, storeFacts } from './queries';
import type { LoadedRecord } from './references';
import { loadRecords, loadReferences } from './references';

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
  author: Person,
  proposed: ProposedFact,
): Promise<Appended> {
  refuseForeign(author, proposed);
  const [outcome] = await appendFacts(services, [proposed]);
  if (!outcome || outcome instanceof AppError) throw outcome ?? new RangeError('no outcome');
  return outcome;
}

/** Refuses what this author, or this version of the program, may not send. @throws AppError */
export function refuseForeign(author: Person, proposed: ProposedFact): void {
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
    const records = await loadRecords(
      tx,
      ids.map((id) => ({ id, kind: locked.get(id)?.kind ?? kinds.get(id) ?? 'run' })),
    );
    const outcomes: (Appended | AppError)[] = [];
    for (const one of proposed) outcomes.push(await appendOne(tx, services, one, records));
    const facts = outcomes.flatMap((outcome) =>
      outcome instanceof AppError || !outcome.isNew ? [] : [outcome.fact],
    );
    if (facts.length > 0) await store(tx, facts, records);
    return outcomes;
  });
}

/** Decides over one fact and, when it is taken, adds it to its record among those that are loaded. */
async function appendOne(
  tx: Knex,
  services: Services,
  proposed: ProposedFact,
  records: Map<string, LoadedRecord>,
): Promise<Appended | AppError> {
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
    refuseUnexplained(await admit(tx, services, fact, record), proposed.body);
    // The first fact of a run brings what the run rests on.
    const references =
      fact.kind === 'run.started' ? await loadReferences(tx, fact) : record.references;
    records.set(record.id, { ...record, facts: [...record.facts, fact], references });
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
): Promise<void> {
  const touched = [...new Set(facts.map(({ recordId }) => recordId))];
  const projections = touched.map((id) => {
    const record = records.get(id);
    const projection = record && projectionOf(record);
    if (!projection) throw new RangeError(`record ${id} has no state to project`);
    return projection;
  });
  const auditEntries = facts.map((fact) => auditEntryOfFact(fact));
  refuseAltered(auditEntries, await storeFacts(tx, { facts, projections, auditEntries }));
}

/** The log must vouch for what is kept. @throws AppError when the database keeps something else than was digested. */
function refuseAltered(auditEntries: readonly string[], kept: readonly Fact[]): void {
  const digested = new Set(auditEntries);
  const isAltered = kept.some((fact) => !digested.has(auditEntryOfFact(fact)));
  if (!isAltered && kept.length === digested.size) return;
  const message = 'This entry could not be kept just as it was sent; nothing was stored.';
  throw new AppError('invalid-request', message);
}

/** What a fact that the server makes says of itself; the rest follows from who asked for it, and when. */
type Made = Pick<Fact, 'recordId' | 'recordKind' | 'kind' | 'body'> &
  Partial<Pick<Fact, 'id' | 'deviceId' | 'deviceTime' | 'clockOffsetMs' | 'basedOn'>>;

/**
 * A fact of the server's own making on somebody's behalf, not numbered yet.
 *
 * @throws RangeError when a figure in it is none: what has not been computed must not be put on record
 */
export function makeServerFact(services: Services, authorId: string, made: Made): Fact {
  const now = services.now().toISOString();
  refuseNoFigures(made.body);
  return {
    id: uuidv7(),
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

/** Stores facts that the server made, each as the next of its locked record. */
export async function storeNext(
  tx: Knex,
  made: readonly Fact[],
  locked: ReadonlyMap<string, LoadedRecord>,
): Promise<void> {
  const records = new Map(locked);
  const facts = made.map((fact) => {
    const record = recordOf(records, fact.recordId);
    const next = { ...fact, sequence: record.facts.length + 1 };
    records.set(record.id, { ...record, facts: [...record.facts, next] });
    return next;
  });
  await store(tx, facts, records);
}

/** A record that must be among the loaded ones. */
export function recordOf(records: ReadonlyMap<string, LoadedRecord>, id: string): LoadedRecord {
  const record = records.get(id);
  if (!record) throw new RangeError(`record ${id} was not loaded`);
  return record;
}

/** Refuses a decision that was based on another version of the record than the present one. */
export function refuseStale(basedOn: number | null, version: number): void {
  if (basedOn === version) return;
  throw new AppError(
    'stale-version',
    'Somebody has added to this record since you looked. Look again, then decide.',
  );
}

function refuseStaleDecision(proposed: ProposedFact, version: number): void {
  if (DECISION_KINDS.has(proposed.kind)) refuseStale(proposed.basedOn, version);
}

/** The stored fact, if the sent one says the same. @throws AppError `fact-id-reused` */
function sameFact(known: Fact, sent: ProposedFact): Fact {
  const { sequence: _sequence, recordedAt: _recordedAt, ...content } = known;
  // As the log compares: -0 is kept as 0.
  if (canonicalText(content) === canonicalText(sent)) return known;
  throw factIdReused();
}

/** Refuses what cannot be, and what is unlikely when no reason is given. */
export function refuseUnexplained(findings: readonly Finding[], body: object): void {
  const cannotBe = findings.filter((finding) => finding.severity === 'impossible');
  if (cannotBe[0]) throw fromFindings('impossible-entry', cannotBe[0], cannotBe);
  const hasReason = 'reason' in body && body.reason !== null;
  if (findings[0] && !hasReason) throw fromFindings('reason-needed', findings[0], findings);
}

function fromFindings(
  code: 'impossible-entry' | 'reason-needed',
  first: Finding,
  findings: readonly Finding[],
): AppError {
  const fields = findings.map(({ field, message }) => ({ field: `body.${field}`, message }));
  return new AppError(code, first.message, fields);
}

/**
 * Founds the laboratory: the first facts of all, with the rules that the program ships, so that a later version which
 * ships others does not rewrite them.
 *
 * @throws AppError `already-exists`
 */
export async function foundLaboratory(
  services: Services,
  authorId: string,
  laboratory: Laboratory,
): Promise<void> {
  const record = { recordId: uuidv7(), recordKind: 'laboratory' } as const;
  const rules = { rules: DEFAULT_HOUSE_RULES, reason: 'The rules that the program ships.' };
  const facts = [
    { ...record, kind: 'laboratory.founded', body: laboratory },
    { ...record, kind: 'laboratory.rules-set', body: rules },
  ].map((made) => makeServerFact(services, authorId, made));
  const before = { id: record.recordId, kind: 'laboratory', facts: [], references: null } as const;
  await storeNext(services.db, facts, new Map([[record.recordId, before]]));
}
