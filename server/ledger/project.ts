import { isDeepStrictEqual } from 'node:util';
import type { Knex } from 'knex';
import { LATEST_RULES } from '#core/laboratory';
import type { AroundFact, PlainRecordKind } from '#core/ledger';
import {
  countedOf,
  foldRecord,
  listedRun,
  listingOf,
  summarizeRun,
  takenByRun,
  takenOf,
} from '#core/ledger';
import type { Counted, Listing, Taken } from '#core/record';
import { enteredAt, searchedText } from '#core/record';
import type { ListKind, ListStates } from '#contract';
import type { Services } from '../services';
import { aroundOf } from './around';
import type { ProjectionRow } from './queries';
import {
  countRecords,
  deleteEdges,
  deleteProjections,
  edgesOf,
  insertEdges,
  listEdges,
  listProjectionRows,
  listRecords,
  listWithoutFacts,
  writeProjections,
} from './queries';
import type { LoadedRecord } from './references';
import { foldLoaded, openRecords } from './references';

/** A record as lists are to show it. */
interface Projected {
  readonly state: ListStates[ListKind];
  readonly listing: Listing;
  readonly counted: Counted | null;
  readonly taken: readonly Taken[];
}

/** What lists show of a record, and what they order, filter and search it by; null before its first fact. */
function projectionOf(record: LoadedRecord, around: AroundFact): ProjectionRow | null {
  const { id, kind, facts } = record;
  const [first] = facts;
  const projected = kind === 'run' ? projectedRun(record) : projectedPlain(kind, record, around);
  if (!first || !projected) return null;
  const { state, listing, counted, taken } = projected;
  const { name, aboutId, standing, atHandUntil } = listing;
  return {
    ...{ recordId: id, kind, version: state.version, state, name, aboutId },
    words: searchedText(listing),
    begunAt: enteredAt(first),
    standing: standing.now,
    lastDay: standing.lastDay,
    standingAfter: standing.after,
    warningDays: standing.warningDays,
    atHandUntil: atHandUntil === 'over' ? '-infinity' : (atHandUntil ?? 'infinity'),
    counted: counted && { ...counted, at: counted.at ?? '-infinity' },
    taken: summed(taken),
  };
}

function projectedRun(record: LoadedRecord): Projected | null {
  const run = foldLoaded(record);
  const state = run && summarizeRun(run.state);
  return state && { state, listing: listedRun(state), counted: null, taken: takenByRun(state) };
}

function projectedPlain(
  kind: PlainRecordKind,
  { facts }: LoadedRecord,
  around: AroundFact,
): Projected | null {
  const state = foldRecord(kind, facts);
  if (!state) return null;
  const listing = listingOf(kind, state);
  const taken = takenOf(kind, state, around);
  return { state, listing, counted: countedOf(kind, state), taken };
}

/** One entry for each record that was taken from, in the order of their ids. */
function summed(taken: readonly Taken[]): readonly Taken[] {
  const byId = new Map<string, Taken>();
  for (const one of taken) {
    const before = byId.get(one.id)?.amount ?? 0;
    byId.set(one.id, { ...one, amount: before + one.amount });
  }
  return [...byId.values()].toSorted((a, b) => (a.id < b.id ? -1 : 1));
}

/** Folding asks no clock. */
function asOf(db: Knex): Services {
  return { db, now: () => new Date(0) };
}

/** Before every id. */
const FIRST = '00000000-0000-0000-0000-000000000000';

/** Records that are folded at once. */
const BATCH = 200;

/** All records, so many at a time, with what is needed to fold them. */
async function* batchesOf(db: Knex) {
  for (let after = FIRST; ;) {
    const records = await listRecords(db, after, BATCH);
    const last = records.at(-1);
    if (!last) return;
    after = last.id;
    const opened = await openRecords(asOf(db), records);
    const around = aroundOf(asOf(db), opened.surroundings);
    yield { records: opened.records, around };
  }
}

/** The records whose projection or edges are not what their facts say; none when all is well. */
export async function listStrayProjections(db: Knex): Promise<string[]> {
  const stray = new Set<string>();
  for await (const { records, around } of batchesOf(db)) {
    const ids = [...records.keys()];
    const kept = new Map((await listProjectionRows(db, ids)).map((row) => [row.recordId, row]));
    const edges = new Set((await listEdges(db, ids)).map((edge) => JSON.stringify(edge)));
    for (const [id, record] of records) {
      const isLinked = edgesOf(record.facts).every((edge) => edges.delete(JSON.stringify(edge)));
      // As PostgreSQL keeps it: without what JSON cannot say.
      const made = JSON.parse(JSON.stringify(projectionOf(record, around))) as unknown;
      if (!isLinked || !isDeepStrictEqual(kept.get(id), made)) stray.add(id);
    }
    for (const edge of edges) stray.add(edge);
  }
  return [...stray, ...(await listWithoutFacts(db))];
}

/**
 * Raised when what lists read of a record has another shape than before: every start compares it. A new lot of house rules
 * raises it too.
 */
export const PROJECTIONS_SHAPE = 14 + LATEST_RULES;

/** Is told how many of all records have been folded. */
export type Progress = (done: number, total: number) => void;

/** Remakes every projection from the facts, all or none; gives the number of records. */
export async function rebuildProjections(db: Knex, onProgress?: Progress): Promise<number> {
  return db.transaction(async (tx) => {
    await deleteProjections(tx);
    await deleteEdges(tx);
    const total = await countRecords(tx);
    let done = 0;
    for await (const { records, around } of batchesOf(tx)) {
      onProgress?.(done, total);
      const batch = [...records.values()];
      await writeProjections(
        tx,
        batch.map((record) => projected(record, around)),
      );
      await insertEdges(
        tx,
        batch.flatMap(({ facts }) => edgesOf(facts)),
      );
      done += batch.length;
    }
    return done;
  });
}

/** What lists show of a record that has facts. */
export function projected(record: LoadedRecord, around: AroundFact): ProjectionRow {
  const projection = projectionOf(record, around);
  if (projection) return projection;
  throw new RangeError(`record ${record.id} of kind ${record.kind} has no state to project`);
}
