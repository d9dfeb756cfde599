import type { Knex } from 'knex';
import type { LaboratoryFact, LaboratoryState } from '#core/laboratory';
import type { RecordKind } from '#core/ledger';
import { referencesOf, upcast } from '#core/ledger';
import type { Fact } from '#core/record';
import type { ListKind, ListStates } from '#contract';
import type { FactRow as StoredFactRow } from '../audit/digests';
import { DIGEST_VERSION, DIGESTS } from '../audit/digests';

/** A row of `facts`, with the kind of its record. */
interface FactRow extends StoredFactRow {
  readonly record_kind: RecordKind;
}

interface RecordRow {
  id: string;
  kind: RecordKind;
  version: number;
}

/** A fact in the very shape in which it was stored. */
function toStoredFact(row: FactRow): Fact {
  return { ...DIGESTS[DIGEST_VERSION].factOf(row), recordKind: row.record_kind };
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

/** Facts as their rows are, by id, for the audit. */
export async function findFactRows(
  db: Knex,
  ids: readonly string[],
): Promise<ReadonlyMap<string, StoredFactRow>> {
  const rows = (await factsWithKind(db).whereIn('facts.id', ids)) as FactRow[];
  return new Map(rows.map((row) => [row.id, row]));
}

/** How many facts there are. */
export async function countFacts(db: Knex): Promise<number> {
  const [row] = await db('facts').count<{ count: string }[]>();
  return Number(row?.count);
}

/** The facts of several records, each record's in order. */
export async function listFactsOf(
  db: Knex,
  recordIds: readonly string[],
): Promise<ReadonlyMap<string, readonly Fact[]>> {
  if (recordIds.length === 0) return new Map();
  const rows = (await factsWithKind(db)
    .whereIn('record_id', recordIds)
    .orderBy('sequence')) as FactRow[];
  const streams = new Map<string, Fact[]>(recordIds.map((id) => [id, []]));
  for (const row of rows) streams.get(row.record_id)?.push(toFact(row));
  return streams;
}

/** The facts of the laboratory, in order. */
export async function listLaboratoryFacts(db: Knex): Promise<LaboratoryFact[]> {
  const rows = (await factsWithKind(db)
    .where('records.kind', 'laboratory')
    .orderBy('sequence')) as FactRow[];
  // The stream of the laboratory holds its facts: the contract let nothing else in.
  return rows.map((row) => toFact(row) as LaboratoryFact);
}

/**
 * Locks records until the transaction ends: whoever else adds to them waits, so that sequence numbers have no gaps.
 * Always in the order of their ids, so that no two wait for each other. Those that have no fact yet are not among them.
 */
export async function lockRecords(
  tx: Knex,
  ids: readonly string[],
): Promise<ReadonlyMap<string, RecordRow>> {
  const rows = await tx<RecordRow>('records').whereIn('id', ids).orderBy('id').forUpdate();
  return new Map(rows.map((row) => [row.id, row]));
}

/** What a transaction adds: facts, and for each record that they touch its new projection. */
export interface Additions {
  readonly facts: readonly Fact[];
  readonly projections: readonly ProjectionRow[];
  readonly edges: readonly Edge[];
  /** Texts of the entries in the audit log, in order. */
  readonly auditEntries: readonly string[];
}

/**
 * Stores facts as the next of their records, with the records' new versions, their projections and the entries in
 * the audit log: one statement, one way to the server. The log comes last, because everybody else waits for it until
 * the transaction ends. Gives the facts as PostgreSQL keeps them.
 */
export async function storeFacts(tx: Knex, additions: Additions): Promise<Fact[]> {
  const { rows } = await tx.raw<{ rows: FactRow[] }>(STORE_FACTS, {
    facts: JSON.stringify(additions.facts),
    projections: JSON.stringify(additions.projections),
    edges: JSON.stringify(additions.edges),
    auditEntries: [...additions.auditEntries],
  });
  return rows.map(toStoredFact);
}

const STORE_FACTS = `
  WITH fact AS (
    INSERT INTO facts (id, record_id, sequence, kind, schema_version, body, author_id, based_on,
      device_id, device_time, clock_offset_ms, recorded_at)
    SELECT * FROM jsonb_to_recordset(:facts::jsonb) AS given("id" uuid, "recordId" uuid,
      "sequence" integer, "kind" text, "schemaVersion" integer, "body" jsonb, "authorId" uuid,
      "basedOn" integer, "deviceId" uuid, "deviceTime" timestamptz, "clockOffsetMs" bigint,
      "recordedAt" timestamptz)
    RETURNING *
  ), changed AS (
    SELECT * FROM jsonb_to_recordset(:projections::jsonb) AS given("recordId" uuid, "kind" text,
      "version" integer, "state" jsonb)
  ), record AS (
    INSERT INTO records (id, kind, version) SELECT "recordId", "kind", "version" FROM changed
    ON CONFLICT (id) DO UPDATE SET version = EXCLUDED.version
    RETURNING id, kind
  ), projection AS (
    INSERT INTO projections (record_id, kind, version, state) SELECT * FROM changed
    ON CONFLICT (record_id) DO UPDATE
      SET kind = EXCLUDED.kind, version = EXCLUDED.version, state = EXCLUDED.state
    RETURNING 1
  ), edge AS (
    INSERT INTO edges (fact_id, child, parent, version, kind)
    SELECT * FROM jsonb_to_recordset(:edges::jsonb) AS given("factId" uuid, "child" uuid,
      "parent" uuid, "version" integer, "kind" text)
    RETURNING 1
  ), log AS MATERIALIZED (
    SELECT append_audit(:auditEntries::text[])
    FROM (SELECT count(*) FROM fact) a, (SELECT count(*) FROM record) b,
      (SELECT count(*) FROM projection) c, (SELECT count(*) FROM edge) d
  )
  SELECT fact.*, record.kind AS record_kind
  FROM log, fact JOIN record ON record.id = fact.record_id`;

/** That a record rests on another one: the fact that says so, and the version that it names, if it names one. */
export interface Edge {
  readonly factId: string;
  readonly child: string;
  readonly parent: string;
  readonly version: number | null;
  /** Of the parent. */
  readonly kind: string;
}

/** What facts say of other records. */
export function edgesOf(facts: readonly Fact[]): readonly Edge[] {
  return facts.flatMap((fact) =>
    referencesOf(fact).map(({ id, version, kind }) => ({
      ...{ factId: fact.id, child: fact.recordId },
      ...{ parent: id, version, kind },
    })),
  );
}

interface EdgeRow {
  readonly fact_id: string;
  readonly child: string;
  readonly parent: string;
  readonly version: number | null;
  readonly kind: string;
}

export async function insertEdges(tx: Knex, edges: readonly Edge[]): Promise<void> {
  const rows = edges.map(({ factId, ...edge }): EdgeRow => ({ fact_id: factId, ...edge }));
  await tx.batchInsert('edges', rows);
}

export async function deleteEdges(tx: Knex): Promise<void> {
  await tx('edges').delete();
}

/** Those of some records on which another one rests. */
export async function listUsed(db: Knex, ids: readonly string[]): Promise<ReadonlySet<string>> {
  if (ids.length === 0) return new Set();
  const rows = await db<EdgeRow>('edges').whereIn('parent', ids).distinct('parent');
  return new Set(rows.map(({ parent }) => parent));
}

/** All edges, in an order of their own. */
export async function listEdges(db: Knex): Promise<Edge[]> {
  const rows = await db<EdgeRow>('edges').orderBy(['fact_id', 'parent', 'version']);
  return rows.map(({ fact_id: factId, ...edge }) => ({ factId, ...edge }));
}

/** A row of the projections: the state of one record as lists show it. */
export interface ProjectionRow {
  readonly recordId: string;
  readonly kind: ListKind;
  readonly version: number;
  readonly state: ListStates[ListKind];
}

export async function insertProjections(tx: Knex, rows: readonly ProjectionRow[]): Promise<void> {
  await tx('projections').insert(
    rows.map(({ recordId, kind, version, state }) => ({
      ...{ record_id: recordId, kind, version },
      state: JSON.stringify(state),
    })),
  );
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
