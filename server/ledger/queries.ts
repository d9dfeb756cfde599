import type { Knex } from 'knex';
import type { LaboratoryState } from '#core/laboratory';
import type { Fact, RecordKind } from '#core/record';
import { upcast } from '#core/record';
import type { ListKind, ListStates } from '#contract';

interface FactRow {
  id: string;
  record_id: string;
  record_kind: RecordKind;
  sequence: number;
  kind: string;
  schema_version: number;
  body: unknown;
  author_id: string;
  based_on: number | null;
  device_time: Date;
  recorded_at: Date;
}

interface RecordRow {
  id: string;
  kind: RecordKind;
  version: number;
}

function toFact(row: FactRow): Fact {
  return upcast({
    id: row.id,
    recordId: row.record_id,
    recordKind: row.record_kind,
    kind: row.kind,
    schemaVersion: row.schema_version,
    body: row.body,
    authorId: row.author_id,
    deviceTime: row.device_time.toISOString(),
    basedOn: row.based_on,
    sequence: row.sequence,
    recordedAt: row.recorded_at.toISOString(),
  });
}

function factsWithKind(db: Knex): Knex.QueryBuilder {
  return db('facts')
    .join('records', 'records.id', 'facts.record_id')
    .select('facts.*', 'records.kind as record_kind');
}

export async function findFact(db: Knex, id: string): Promise<Fact | null> {
  const row = (await factsWithKind(db).where('facts.id', id).first()) as FactRow | undefined;
  return row ? toFact(row) : null;
}

/** The facts of a record in order, all of them or those up to a version. */
export async function listFacts(db: Knex, recordId: string, upTo?: number): Promise<Fact[]> {
  const query = factsWithKind(db).where('record_id', recordId).orderBy('sequence');
  if (upTo !== undefined) query.where('sequence', '<=', upTo);
  return ((await query) as FactRow[]).map(toFact);
}

/**
 * Makes sure that the record exists and locks it until the transaction ends: whoever else adds to it waits, so
 * that sequence numbers have no gaps.
 */
export async function lockRecord(
  tx: Knex,
  id: string,
  kind: RecordKind,
): Promise<{ kind: RecordKind; version: number }> {
  await tx<RecordRow>('records').insert({ id, kind, version: 0 }).onConflict('id').ignore();
  const record = await tx<RecordRow>('records').where({ id }).forUpdate().first();
  if (!record) throw new RangeError(`record ${id} vanished while it was being locked`);
  return record;
}

/** Adds a fact as the next of its record, which the caller has locked. */
export async function insertFact(tx: Knex, fact: Fact): Promise<void> {
  await tx('facts').insert({
    id: fact.id,
    record_id: fact.recordId,
    sequence: fact.sequence,
    kind: fact.kind,
    schema_version: fact.schemaVersion,
    body: JSON.stringify(fact.body),
    author_id: fact.authorId,
    based_on: fact.basedOn,
    device_time: fact.deviceTime,
    recorded_at: fact.recordedAt,
  });
  await tx('records').where({ id: fact.recordId }).update({ version: fact.sequence });
}

/** A row of the projections: the state of one record as lists show it. */
export interface ProjectionRow {
  readonly recordId: string;
  readonly kind: ListKind;
  readonly version: number;
  readonly state: ListStates[ListKind];
}

export async function upsertProjection(tx: Knex, row: ProjectionRow): Promise<void> {
  await tx('projections')
    .insert({
      record_id: row.recordId,
      kind: row.kind,
      version: row.version,
      state: JSON.stringify(row.state),
    })
    .onConflict('record_id')
    .merge();
}

export async function deleteProjections(tx: Knex): Promise<void> {
  await tx('projections').delete();
}

/** The rows of a kind's projections; the kind says what their states are. */
type States<K extends ListKind> = PromiseLike<readonly { readonly state: ListStates[K] }[]>;

export async function listProjections<K extends ListKind>(
  db: Knex,
  kind: K,
): Promise<ListStates[K][]> {
  const rows: States<K> = db('projections').where({ kind }).orderBy('record_id').select('state');
  return (await rows).map((row) => row.state);
}

export async function findProjection<K extends ListKind>(
  db: Knex,
  kind: K,
  recordId: string,
): Promise<ListStates[K] | null> {
  const rows: States<K> = db('projections').where({ kind, record_id: recordId }).select('state');
  return (await rows)[0]?.state ?? null;
}

export async function findLaboratory(db: Knex): Promise<LaboratoryState | null> {
  return (await listProjections(db, 'laboratory'))[0] ?? null;
}

export async function listRecords(db: Knex): Promise<{ id: string; kind: RecordKind }[]> {
  return db<RecordRow>('records').where('version', '>', 0).orderBy('id').select('id', 'kind');
}
