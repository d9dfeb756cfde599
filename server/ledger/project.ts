import { isDeepStrictEqual } from 'node:util';
import type { Knex } from 'knex';
import { LATEST_RULES } from '#core/laboratory';
import { foldRecord, summarizeRun } from '#core/ledger';
import type { Services } from '../services';
import type { ProjectionRow } from './queries';
import {
  deleteEdges,
  deleteProjections,
  edgesOf,
  insertEdges,
  insertProjections,
  listEdges,
  listProjectionRows,
  listRecords,
} from './queries';
import type { LoadedRecord } from './references';
import { foldLoaded, loadRecord, openRecords } from './references';

/** What lists show of a record; null before its first fact. */
export function projectionOf(record: LoadedRecord): ProjectionRow | null {
  const { id, kind, facts } = record;
  const state = kind === 'run' ? summaryOf(record) : foldRecord(kind, facts);
  return state && { recordId: id, kind, version: state.version, state };
}

function summaryOf(record: LoadedRecord) {
  const run = foldLoaded(record);
  return run && summarizeRun(run.state);
}

/** Folding asks no clock. */
function asOf(db: Knex): Services {
  return { db, now: () => new Date(0) };
}

/** The records whose projection or edges are not what their facts say; none when all is well. */
export async function listStrayProjections(db: Knex): Promise<string[]> {
  const kept = new Map((await listProjectionRows(db)).map((row) => [row.recordId, row]));
  const edges = new Set((await listEdges(db)).map((edge) => JSON.stringify(edge)));
  const stray: string[] = [];
  for (const { id, kind } of await listRecords(db)) {
    const record = await loadRecord(asOf(db), id, kind);
    const made = projectionOf(record);
    const isLinked = edgesOf(record.facts).every((edge) => edges.delete(JSON.stringify(edge)));
    if (!isLinked) stray.push(id);
    // As PostgreSQL keeps it: without what JSON cannot say.
    const expected: unknown = JSON.parse(JSON.stringify(made));
    if (!isDeepStrictEqual(kept.get(id), expected)) stray.push(id);
    kept.delete(id);
  }
  return [...stray, ...kept.keys(), ...edges];
}

/**
 * Raised when what lists read of a record has another shape than before: every start compares it. A new lot of house rules
 * raises it too.
 */
export const PROJECTIONS_SHAPE = 3 + LATEST_RULES;

/** Records that are folded and stored at once. */
const BATCH = 200;

/** Is told how many of all records have been folded. */
export type Progress = (done: number, total: number) => void;

/** Remakes every projection from the facts, all or none; gives the number of records. */
export async function rebuildProjections(db: Knex, onProgress?: Progress): Promise<number> {
  return db.transaction(async (tx) => {
    await deleteProjections(tx);
    await deleteEdges(tx);
    const records = await listRecords(tx);
    for (let done = 0; done < records.length; done += BATCH) {
      onProgress?.(done, records.length);
      const opened = await openRecords(asOf(tx), records.slice(done, done + BATCH));
      const batch = [...opened.records.values()];
      await insertProjections(tx, batch.map(projected));
      await insertEdges(
        tx,
        batch.flatMap(({ facts }) => edgesOf(facts)),
      );
    }
    return records.length;
  });
}

function projected(record: LoadedRecord): ProjectionRow {
  const projection = projectionOf(record);
  if (projection) return projection;
  throw new RangeError(`record ${record.id} of kind ${record.kind} has no state to project`);
}
