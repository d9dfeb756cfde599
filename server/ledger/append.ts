import { isDeepStrictEqual } from 'node:util';
import type { Knex } from 'knex';
import { v7 as uuidv7 } from 'uuid';
import type { Laboratory } from '#core/laboratory';
import type { Fact, Finding } from '#core/record';
import { currentSchemaVersion } from '#core/record';
import type { RunSetUp } from '#core/titration';
import type { Person, ProposedFact } from '#contract';
import { DECISION_KINDS } from '#contract';
import { auditEntryOfFact } from '../audit/entry';
import { durably } from '../database/durably';
import { AppError } from '../http/appError';
import type { Services } from '../services';
import { admit } from './admit';
import { projectionOf } from './project';
import { lockRecord, storeFact } from './queries';
import type { LoadedRecord } from './references';
import { loadRecord, loadReferences } from './references';

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
  if (proposed.authorId !== author.id) {
    throw new AppError(
      'wrong-author',
      'This entry was made by somebody else and can only be sent under their name.',
    );
  }
  if (proposed.schemaVersion !== currentSchemaVersion(proposed.kind)) {
    throw new AppError(
      'invalid-request',
      'This page is older or newer than the server: reload it.',
    );
  }
  return durably(services.db, async (tx) => {
    const { kind, version } = await lockRecord(tx, proposed.recordId, proposed.recordKind);
    const record = await loadRecord(tx, proposed.recordId, kind);
    const known = record.facts.find((fact) => fact.id === proposed.id);
    if (known) return { fact: sameFact(known, proposed), isNew: false };
    if (kind !== proposed.recordKind) {
      throw new AppError('unknown-reference', 'This entry does not belong to such a record.');
    }
    refuseStaleDecision(proposed, version);
    const fact: Fact = {
      ...proposed,
      sequence: version + 1,
      recordedAt: services.now().toISOString(),
    };
    refuseUnexplained(await admit(tx, services, fact, record), proposed.body);
    await store(tx, fact, await withReferences(tx, fact, record));
    return { fact, isNew: true };
  });
}

/** The first fact of a run brings what the run rests on. */
async function withReferences(tx: Knex, fact: Fact, record: LoadedRecord): Promise<LoadedRecord> {
  return fact.kind === 'run.started'
    ? { ...record, references: await loadReferences(tx, fact.body as RunSetUp) }
    : record;
}

/** Adds a fact to a locked record, given what the record was before it. */
export async function store(tx: Knex, fact: Fact, record: LoadedRecord): Promise<void> {
  const projection = projectionOf({ ...record, facts: [...record.facts, fact] });
  if (!projection) throw new RangeError(`record ${record.id} has no state to project`);
  await storeFact(tx, fact, projection, auditEntryOfFact(fact));
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
  if (isDeepStrictEqual(content, { ...sent })) return known;
  throw new AppError(
    'fact-id-reused',
    'Another entry already has this id with other content; nothing was stored.',
  );
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

/** Founds the laboratory: the first fact of all. @throws AppError `already-exists` */
export async function foundLaboratory(
  services: Services,
  authorId: string,
  laboratory: Laboratory,
): Promise<void> {
  const now = services.now().toISOString();
  const recordId = uuidv7();
  await lockRecord(services.db, recordId, 'laboratory');
  const fact: Fact = {
    id: uuidv7(),
    recordId,
    recordKind: 'laboratory',
    kind: 'laboratory.founded',
    schemaVersion: currentSchemaVersion('laboratory.founded'),
    body: laboratory,
    authorId,
    deviceId: null,
    deviceTime: now,
    clockOffsetMs: null,
    basedOn: null,
    sequence: 1,
    recordedAt: now,
  };
  await store(services.db, fact, { id: recordId, kind: 'laboratory', facts: [], references: null });
}
