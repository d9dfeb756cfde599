import type { Knex } from 'knex';
import { foldRecord, summarizeRun } from '#core/ledger';
import type { RecordKind } from '#core/record';
import type { ListKind, ListStates } from '#contract';
import { deleteProjections, listFacts, listRecords, upsertProjection } from './queries';
import { findRun } from './references';

/** Brings the projection of one record up to its facts. */
export async function project(tx: Knex, recordId: string, kind: RecordKind): Promise<void> {
  const state = await foldForList(tx, recordId, kind);
  if (!state) throw new RangeError(`record ${recordId} of kind ${kind} has no state to project`);
  await upsertProjection(tx, { recordId, kind, version: state.version, state });
}

async function foldForList(
  tx: Knex,
  recordId: string,
  kind: RecordKind,
): Promise<ListStates[ListKind] | null> {
  if (kind !== 'run') return foldRecord(kind, await listFacts(tx, recordId));
  const run = await findRun(tx, recordId);
  return run && summarizeRun(run.state);
}

/** Remakes every projection from the facts, all or none; gives the number of records. */
export async function rebuildProjections(db: Knex): Promise<number> {
  return db.transaction(async (tx) => {
    await deleteProjections(tx);
    const records = await listRecords(tx);
    for (const { id, kind } of records) await project(tx, id, kind);
    return records.length;
  });
}
