import type { Knex } from 'knex';
import type { LaboratoryFact, LaboratoryState } from '#core/laboratory';
import type { RecordKind } from '#core/ledger';
import { referencesOf, upcast } from '#core/ledger';
import type { CertifiedMolarity } from '#core/reagent';
import { takeFromRun } from '#core/reagent';
import type { Fact, Taken } from '#core/record';
import type { RunFactBodies } from '#core/titration/record';
import type { ListKind, ListOrder, ListStates } from '#contract';
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
  const facts = await withRunsFigures(db, rows.map(toFact));
  for (const fact of facts) streams.get(fact.recordId)?.push(fact);
  return streams;
}

/** Certificates on bottles that were kept as their labels state them, with what their runs had computed. */
async function withRunsFigures(db: Knex, facts: readonly Fact[]): Promise<readonly Fact[]> {
  const isAsStated = ({ kind, body }: Fact): boolean =>
    kind === 'bottle.certified' && (body as CertifiedMolarity).unrounded === null;
  const asStated = facts.filter(isAsStated).map(({ body }) => (body as CertifiedMolarity).runId);
  if (asStated.length === 0) return facts;
  const rows = (await factsWithKind(db)
    .whereIn('record_id', asStated)
    .where('facts.kind', 'run.certified')) as FactRow[];
  const certificates = new Map(
    rows.map((row) => [
      row.record_id,
      (toFact(row).body as RunFactBodies['run.certified']).certificate,
    ]),
  );
  return facts.map((fact) => {
    if (!isAsStated(fact)) return fact;
    const certified = fact.body as CertifiedMolarity;
    const certificate = certificates.get(certified.runId);
    return certificate ? { ...fact, body: takeFromRun(certified, certificate) } : fact;
  });
}

/** What of the history is asked for. */
export interface HistoryWanted {
  readonly recordId: string | null;
  readonly authorId: string | null;
  /** Kinds of fact; null for every one. */
  readonly kinds: readonly string[] | null;
  /** Plain dates in the laboratory, both counted in. */
  readonly from: string | null;
  readonly to: string | null;
  readonly timeZone: string;
}

/** A place in the history. */
export interface HistoryPlace {
  readonly at: string;
  readonly id: string;
}

/** Facts with what their records are called, the newest first, beyond a place. */
export async function listHistory(
  db: Knex,
  { recordId, authorId, kinds, from, to, timeZone }: HistoryWanted,
  after: HistoryPlace | null,
  atMost: number,
): Promise<{ fact: Fact; name: string; about: string | null }[]> {
  const asked = factsWithKind(db)
    .leftJoin('projections', 'projections.record_id', 'facts.record_id')
    .leftJoin('projections as about', 'about.record_id', 'projections.about_id')
    .select({ name: 'projections.name', about: 'about.name' })
    .orderBy([
      { column: 'facts.recorded_at', order: 'desc' },
      { column: 'facts.id', order: 'desc' },
    ])
    .limit(atMost);
  const beginning = '(?::date)::timestamp AT TIME ZONE ?';
  const end = '(?::date + 1)::timestamp AT TIME ZONE ?';
  if (recordId !== null) void asked.where('facts.record_id', recordId);
  if (authorId !== null) void asked.where('facts.author_id', authorId);
  if (kinds !== null) void asked.whereIn('facts.kind', [...kinds]);
  if (from !== null) void asked.whereRaw(`facts.recorded_at >= ${beginning}`, [from, timeZone]);
  if (to !== null) void asked.whereRaw(`facts.recorded_at < ${end}`, [to, timeZone]);
  if (after) {
    void asked.whereRaw('(facts.recorded_at, facts.id) < (?::timestamptz, ?::uuid)', [
      after.at,
      after.id,
    ]);
  }
  const rows = (await asked) as (FactRow & { name: string | null; about: string | null })[];
  return rows.map(({ name, about, ...row }) => ({
    fact: toFact(row),
    name: name ?? '',
    about,
  }));
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

/** Writes what lists read of the records in `:projections`, and what those have taken from others. */
const PROJECTED = `
  changed AS (
    SELECT * FROM jsonb_to_recordset(:projections::jsonb) AS given("recordId" uuid, "kind" text,
      "version" integer, "state" jsonb, "name" text, "words" text, "aboutId" uuid,
      "begunAt" timestamptz, "standing" text, "lastDay" date, "standingAfter" text,
      "warningDays" integer, "atHandUntil" date, "counted" jsonb, "taken" jsonb)
  ), projection AS (
    INSERT INTO projections (record_id, kind, version, state, name, words, about_id, begun_at,
      standing, last_day, standing_after, warning_days, at_hand_until)
    SELECT "recordId", "kind", "version", "state", "name", "words", "aboutId", "begunAt",
      "standing", "lastDay", "standingAfter", "warningDays", "atHandUntil" FROM changed
    ON CONFLICT (record_id) DO UPDATE SET (kind, version, state, name, words, about_id, begun_at,
      standing, last_day, standing_after, warning_days, at_hand_until) = (EXCLUDED.kind,
      EXCLUDED.version, EXCLUDED.state, EXCLUDED.name, EXCLUDED.words, EXCLUDED.about_id,
      EXCLUDED.begun_at, EXCLUDED.standing, EXCLUDED.last_day, EXCLUDED.standing_after,
      EXCLUDED.warning_days, EXCLUDED.at_hand_until)
    RETURNING 1
  ), counted AS (
    INSERT INTO stock_counts AS known (record_id, amount, at)
    SELECT "recordId", ("counted"->>'amount')::float8, ("counted"->>'at')::timestamptz
    FROM changed WHERE "counted" IS NOT NULL
    ON CONFLICT (record_id) DO UPDATE SET amount = EXCLUDED.amount, at = EXCLUDED.at
      WHERE (known.amount, known.at) <> (EXCLUDED.amount, EXCLUDED.at)
    RETURNING 1
  ), uncounted AS (
    DELETE FROM stock_counts USING changed WHERE record_id = "recordId" AND "counted" IS NULL
    RETURNING 1
  ), taking AS (
    SELECT "recordId" AS source, (one->>'id')::uuid AS parent, sum((one->>'amount')::float8) AS amount,
      min((one->>'at')::timestamptz) AS at
    FROM changed, jsonb_array_elements("taken") AS one GROUP BY 1, 2
  ), taken AS (
    INSERT INTO stock_taken AS known (source, parent, amount, at) SELECT * FROM taking
    ON CONFLICT (source, parent) DO UPDATE SET amount = EXCLUDED.amount, at = EXCLUDED.at
      WHERE (known.amount, known.at) <> (EXCLUDED.amount, EXCLUDED.at)
    RETURNING 1
  ), given_back AS (
    DELETE FROM stock_taken AS known USING changed WHERE known.source = "recordId"
      AND NOT EXISTS (SELECT FROM taking
        WHERE taking.source = known.source AND taking.parent = known.parent)
    RETURNING 1
  ), projected AS (
    SELECT FROM (SELECT count(*) FROM projection) a, (SELECT count(*) FROM counted) b,
      (SELECT count(*) FROM uncounted) c, (SELECT count(*) FROM taken) d,
      (SELECT count(*) FROM given_back) e
  )`;

const STORE_FACTS = `
  WITH fact AS (
    INSERT INTO facts (id, record_id, sequence, kind, schema_version, body, author_id, based_on,
      device_id, device_time, clock_offset_ms, recorded_at)
    SELECT * FROM jsonb_to_recordset(:facts::jsonb) AS given("id" uuid, "recordId" uuid,
      "sequence" integer, "kind" text, "schemaVersion" integer, "body" jsonb, "authorId" uuid,
      "basedOn" integer, "deviceId" uuid, "deviceTime" timestamptz, "clockOffsetMs" bigint,
      "recordedAt" timestamptz)
    RETURNING *
  ), ${PROJECTED}, record AS (
    INSERT INTO records (id, kind, version) SELECT "recordId", "kind", "version" FROM changed
    ON CONFLICT (id) DO UPDATE SET version = EXCLUDED.version
    RETURNING id, kind
  ), edge AS (
    INSERT INTO edges (fact_id, child, parent, version, kind)
    SELECT * FROM jsonb_to_recordset(:edges::jsonb) AS given("factId" uuid, "child" uuid,
      "parent" uuid, "version" integer, "kind" text)
    RETURNING 1
  ), log AS MATERIALIZED (
    SELECT append_audit(:auditEntries::text[])
    FROM (SELECT count(*) FROM fact) a, (SELECT count(*) FROM record) b,
      (SELECT count(*) FROM projected) c, (SELECT count(*) FROM edge) d
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

/** What some records say of others. */
export async function listEdges(db: Knex, children: readonly string[]): Promise<Edge[]> {
  const rows = await db<EdgeRow>('edges').whereIn('child', children);
  return rows.map(({ fact_id: factId, ...edge }) => ({ factId, ...edge }));
}

/** A row of the projections: one record as lists show it, and what they order, filter and search it by. */
export interface ProjectionRow {
  readonly recordId: string;
  readonly kind: ListKind;
  readonly version: number;
  readonly state: ListStates[ListKind];
  readonly name: string;
  /** In lower case. */
  readonly words: string;
  readonly aboutId: string | null;
  readonly begunAt: string;
  readonly standing: string;
  readonly lastDay: string | null;
  readonly standingAfter: string;
  readonly warningDays: number | null;
  /** `infinity` where it has no last day, `-infinity` where it is over. */
  readonly atHandUntil: string;
  /** At `-infinity` for what it began with; null when nobody counts. */
  readonly counted: { readonly amount: number; readonly at: string } | null;
  /** Sorted by the record from which it was taken. */
  readonly taken: readonly Taken[];
}

/** Writes what lists read of records; what was there of them is replaced. */
export async function writeProjections(tx: Knex, rows: readonly ProjectionRow[]): Promise<void> {
  await tx.raw(`WITH ${PROJECTED} SELECT count(*) FROM projected`, {
    projections: JSON.stringify(rows),
  });
}

/** The projections of records as they are kept. */
export async function listProjectionRows(
  db: Knex,
  ids: readonly string[],
): Promise<ProjectionRow[]> {
  const { rows } = await db.raw<{ rows: { row: ProjectionRow }[] }>(
    `SELECT jsonb_build_object('recordId', record_id, 'kind', kind, 'version', version, 'state', state,
      'name', name, 'words', words, 'aboutId', about_id, 'begunAt', ${instantText('begun_at')},
      'standing', standing, 'lastDay', last_day, 'standingAfter', standing_after,
      'warningDays', warning_days, 'atHandUntil', at_hand_until,
      'counted', (SELECT jsonb_build_object('amount', amount, 'at', ${instantText('at')})
        FROM stock_counts WHERE stock_counts.record_id = projections.record_id),
      'taken', coalesce((SELECT jsonb_agg(jsonb_build_object('id', parent, 'amount', amount,
          'at', ${instantText('at')}) ORDER BY parent)
        FROM stock_taken WHERE source = projections.record_id), '[]')) AS row
    FROM projections WHERE record_id = ANY (:ids)`,
    { ids: [...ids] },
  );
  return rows.map(({ row }) => row);
}

/** An instant as the facts write it. */
function instantText(column: string): string {
  return `CASE WHEN isfinite(${column}) THEN to_char(${column} AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"')
    ELSE ${column}::text END`;
}

/** Records without a fact that are projected or linked all the same. */
export async function listWithoutFacts(db: Knex): Promise<string[]> {
  const { rows } = await db.raw<{ rows: { id: string }[] }>(
    `SELECT id FROM records WHERE version = 0
      AND (EXISTS (SELECT FROM projections WHERE record_id = id)
        OR EXISTS (SELECT FROM edges WHERE child = id))`,
  );
  return rows.map(({ id }) => id);
}

/** What is left of a record: what there was at the last count, less what was begun since and has taken from it. */
const LEFT = `(SELECT counted.amount - coalesce(sum(taken.amount), 0)
  FROM stock_counts AS counted
    LEFT JOIN stock_taken AS taken ON taken.parent = counted.record_id AND taken.at > counted.at
  WHERE counted.record_id = projections.record_id GROUP BY counted.amount)`;

/** What is left of records (g, mL), by id; what nobody counts is absent. */
export async function listLeft(
  db: Knex,
  ids: readonly string[],
): Promise<ReadonlyMap<string, number>> {
  const { rows } = await db.raw<{ rows: { id: string; left: number | null }[] }>(
    `SELECT record_id AS id, ${LEFT} AS left FROM projections WHERE record_id = ANY (:ids)`,
    { ids: [...ids] },
  );
  return new Map(rows.flatMap(({ id, left }) => (left === null ? [] : [[id, left]])));
}

export async function deleteProjections(tx: Knex): Promise<void> {
  for (const table of ['stock_taken', 'stock_counts', 'projections']) await tx(table).delete();
}

/** What of a kind's records a list asks for. */
export interface Wanted {
  readonly kind: ListKind;
  readonly order: ListOrder;
  /** Words that are all to be found. */
  readonly terms: readonly string[];
  /** Standings of which it has one; none for any. */
  readonly standing: readonly string[];
  readonly aboutId: string | null;
  /** A record that it names, whichever of its facts does. */
  readonly restsOnId: string | null;
  /** Only what may come to hand at a bench. */
  readonly isAtHand: boolean;
  /** Today in the laboratory. */
  readonly today: string;
  /** So many days before something runs out it is due. */
  readonly warningDays: number;
}

/** A place in a list: what the record there is ordered by. */
export interface Place {
  readonly key: string;
  readonly id: string;
}

/** A record in a list. */
export interface ListedRow {
  readonly id: string;
  readonly key: string;
  readonly state: ListStates[ListKind];
  /** What is left of it; null when nobody counts. */
  readonly left: number | null;
  readonly about: { readonly id: string; readonly name: string } | null;
}

/** Where a record stands today. */
const STANDING = `CASE
  WHEN projections.last_day < :today::date THEN projections.standing_after
  WHEN projections.warning_days IS NOT NULL
    AND projections.last_day - :today::date <= least(projections.warning_days, :warningDays)
    THEN 'due-soon'
  ELSE projections.standing END`;

/** What lists are ordered by. The ids of what was begun in the same millisecond go on from there. */
const ORDERS = {
  newest: { key: instantText('projections.begun_at'), column: 'projections.begun_at', down: true },
  name: { key: 'projections.name', column: 'projections.name', down: false },
} as const;

/** Records of a list beyond a place, in its order. */
export async function listPage(
  db: Knex,
  wanted: Wanted,
  after: Place | null,
  atMost: number,
): Promise<ListedRow[]> {
  const { key, column, down } = ORDERS[wanted.order];
  const [beyond, way] = down ? ['<', 'DESC'] : ['>', 'ASC'];
  const { rows } = await db.raw<{ rows: ListedRow[] }>(
    `SELECT projections.record_id AS id, ${key} AS key, projections.state, ${LEFT} AS left,
      CASE WHEN about.name IS NOT NULL
        THEN jsonb_build_object('id', about.record_id, 'name', about.name) END AS about
    FROM projections LEFT JOIN projections AS about ON about.record_id = projections.about_id
    WHERE projections.kind = :kind
      AND (:isAtHand::boolean IS FALSE OR projections.at_hand_until >= :today::date)
      AND (:aboutId::uuid IS NULL OR projections.about_id = :aboutId::uuid)
      AND (:restsOnId::uuid IS NULL OR EXISTS (
        SELECT FROM edges WHERE parent = :restsOnId::uuid AND child = projections.record_id))
      AND (cardinality(:standing::text[]) = 0 OR ${STANDING} = ANY (:standing::text[]))
      AND concat_ws(' ', projections.words, about.words) LIKE ALL (:terms::text[])
      AND (:key::text IS NULL OR (${column}, projections.record_id) ${beyond} (:key, :id::uuid))
    ORDER BY ${column} ${way}, projections.record_id ${way} LIMIT :atMost`,
    {
      kind: wanted.kind,
      isAtHand: wanted.isAtHand,
      aboutId: wanted.aboutId,
      restsOnId: wanted.restsOnId,
      standing: [...wanted.standing],
      terms: wanted.terms.map((term) => `%${term.replaceAll(/[\\%_]/g, String.raw`\$&`)}%`),
      today: wanted.today,
      warningDays: wanted.warningDays,
      key: after?.key ?? null,
      id: after?.id ?? null,
      atMost,
    },
  );
  return rows;
}

/** One record as lists show it; null when there is none. */
export async function findListed(
  db: Knex,
  kind: ListKind,
  id: string,
  today: string,
): Promise<(Pick<ListedRow, 'state' | 'left'> & { isAtHand: boolean }) | null> {
  const { rows } = await db.raw<{
    rows: (Pick<ListedRow, 'state' | 'left'> & { isAtHand: boolean })[];
  }>(
    `SELECT state, ${LEFT} AS left, at_hand_until >= :today::date AS "isAtHand"
    FROM projections WHERE kind = :kind AND record_id = :id`,
    { kind, id, today },
  );
  return rows[0] ?? null;
}

/** What is called how of that on which a record rests. */
export async function listParentNames(
  db: Knex,
  child: string,
): Promise<readonly { readonly id: string; readonly name: string }[]> {
  return db('edges')
    .join('projections', 'projections.record_id', 'edges.parent')
    .where({ child })
    .distinct({ id: 'projections.record_id', name: 'projections.name' });
}

/** What is left of what may come to hand, by id, at most so many. */
export async function listLeftAtHand(
  db: Knex,
  today: string,
  atMost: number,
): Promise<ReadonlyMap<string, number>> {
  const { rows } = await db.raw<{ rows: { id: string; left: number }[] }>(
    `SELECT record_id AS id, ${LEFT} AS left FROM projections
    WHERE kind IN ('lot', 'bottle') AND at_hand_until >= :today::date
      AND EXISTS (SELECT FROM stock_counts WHERE stock_counts.record_id = projections.record_id)
    ORDER BY begun_at DESC LIMIT :atMost`,
    { today, atMost },
  );
  return new Map(rows.map(({ id, left }) => [id, left]));
}

/** The rows of a kind's projections; the kind says what their states are. */
type States<K extends ListKind> = PromiseLike<readonly { readonly state: ListStates[K] }[]>;

export async function findProjection<K extends ListKind>(
  db: Knex,
  kind: K,
  recordId: string,
): Promise<ListStates[K] | null> {
  const rows: States<K> = db('projections').where({ kind, record_id: recordId }).select('state');
  return (await rows)[0]?.state ?? null;
}

export async function findLaboratory(db: Knex): Promise<LaboratoryState | null> {
  const rows: States<'laboratory'> = db('projections')
    .where({ kind: 'laboratory' })
    .select('state');
  return (await rows)[0]?.state ?? null;
}

/** Records beyond one, in the order of their ids. */
export async function listRecords(
  db: Knex,
  after: string,
  atMost: number,
): Promise<{ id: string; kind: RecordKind }[]> {
  return db<RecordRow>('records')
    .where('version', '>', 0)
    .where('id', '>', after)
    .orderBy('id')
    .limit(atMost)
    .select('id', 'kind');
}

/** How many records there are. */
export async function countRecords(db: Knex): Promise<number> {
  const [row] = await db('records').where('version', '>', 0).count<{ count: string }[]>();
  return Number(row?.count);
}
