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
  device_id: string | null;
  device_time: Date;
  // A bigint comes as text.
  clock_offset_ms: string | null;
  recorded_at: Date;
}

interface RecordRow {
  id: string;
  kind: RecordKind;
  version: number;
}

/** A fact in the very shape in which it was stored. */
function toStoredFact(row: FactRow): Fact {
  return {
    id: row.id,
    recordId: row.record_id,
    recordKind: row.record_kind,
    kind: row.kind,
    schemaVersion: row.schema_version,
    body: row.body,
    authorId: row.author_id,
    deviceId: row.device_id,
    deviceTime: row.device_time.toISOString(),
    clockOffsetMs: row.clock_offset_ms === null ? null : Number(row.clock_offset_ms),
    basedOn: row.based_on,
    sequence: row.sequence,
    recordedAt: row.recorded_at.toISOString(),
  };
}

/** A fact in the shape that this program works with. */
function toFact(row: FactRow): Fact {
  return upcast(toStoredFact(row));
}

function factsWithKind(db: Knex): Knex.QueryBuilder {
  return db('facts')
    .join('records', 'records.id', 'facts.record_id')
    .select('facts.*', 'records.kind as record_kind');
}

/** Facts as they were stored, by id, for the audit. */
export async function findStoredFacts(
  db: Knex,
  ids: readonly string[],
): Promise<ReadonlyMap<string, Fact>> {
  const rows = (await factsWithKind(db).whereIn('facts.id', ids)) as FactRow[];
  return new Map(rows.map((row) => [row.id, toStoredFact(row)]));
}

/** All facts as they were stored, in the order of recording. */
export async function listStoredFacts(db: Knex): Promise<Fact[]> {
  const rows = (await factsWithKind(db).orderBy(
    ['recorded_at', 'record_id', 'sequence'].map((column) => ({ column })),
  )) as FactRow[];
  return rows.map(toStoredFact);
}

/** The facts of a record in order. */
export async function listFacts(db: Knex, recordId: string): Promise<Fact[]> {
  return (
    (await factsWithKind(db).where({ record_id: recordId }).orderBy('sequence')) as FactRow[]
  ).map(toFact);
}

/** The facts of several records, each record's in order. */
export async function listFactsOf(
  db: Knex,
  recordIds: readonly string[],
): Promise<ReadonlyMap<string, readonly Fact[]>> {
  const rows = (await factsWithKind(db)
    .whereIn('record_id', recordIds)
    .orderBy('sequence')) as FactRow[];
  const streams = new Map<string, Fact[]>(recordIds.map((id) => [id, []]));
  for (const row of rows) streams.get(row.record_id)?.push(toFact(row));
  return streams;
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
  const lock = () => tx<RecordRow>('records').where({ id }).forUpdate().first();
  const known = await lock();
  if (known) return known;
  await tx<RecordRow>('records').insert({ id, kind, version: 0 }).onConflict('id').ignore();
  const record = await lock();
  if (!record) throw new RangeError(`record ${id} vanished while it was being locked`);
  return record;
}

/**
 * Stores a fact as the next of its record, which the caller has locked, with the record's new version, its
 * projection and the entry in the audit log: one statement, one way to the server. The log comes last, because
 * everybody else waits for it until the transaction ends.
 */
export async function storeFact(
  tx: Knex,
  fact: Fact,
  projection: ProjectionRow,
  auditEntry: string,
): Promise<void> {
  await tx.raw(STORE_FACT, {
    id: fact.id,
    recordId: fact.recordId,
    recordKind: fact.recordKind,
    sequence: fact.sequence,
    kind: fact.kind,
    schemaVersion: fact.schemaVersion,
    body: JSON.stringify(fact.body),
    authorId: fact.authorId,
    basedOn: fact.basedOn,
    deviceId: fact.deviceId,
    deviceTime: fact.deviceTime,
    clockOffsetMs: fact.clockOffsetMs,
    recordedAt: fact.recordedAt,
    version: projection.version,
    state: JSON.stringify(projection.state),
    auditEntry,
  });
}

const STORE_FACT = `
  WITH fact AS (
    INSERT INTO facts (id, record_id, sequence, kind, schema_version, body, author_id, based_on,
      device_id, device_time, clock_offset_ms, recorded_at)
    VALUES (:id, :recordId, :sequence, :kind, :schemaVersion, :body, :authorId, :basedOn,
      :deviceId, :deviceTime, :clockOffsetMs, :recordedAt)
    RETURNING 1
  ), record AS (
    UPDATE records SET version = :sequence WHERE id = :recordId RETURNING 1
  ), projection AS (
    INSERT INTO projections (record_id, kind, version, state)
    VALUES (:recordId, :recordKind, :version, :state)
    ON CONFLICT (record_id) DO UPDATE
      SET kind = EXCLUDED.kind, version = EXCLUDED.version, state = EXCLUDED.state
    RETURNING 1
  )
  SELECT append_audit(ARRAY[:auditEntry]) FROM fact, record, projection`;

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

/** All projections as they are kept. */
export async function listProjectionRows(db: Knex): Promise<ProjectionRow[]> {
  interface Row {
    record_id: string;
    kind: ListKind;
    version: number;
    state: ListStates[ListKind];
  }
  const rows: Row[] = await db<Row>('projections').select();
  return rows.map(({ record_id: recordId, kind, version, state }) => ({
    recordId,
    kind,
    version,
    state,
  }));
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
