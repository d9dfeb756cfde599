import type { Knex } from 'knex';
import { foldRecord, summarizeRun } from '#core/ledger';
import type { Fact } from '#core/record';
import type { RunFact, RunReferences } from '#core/titration';
import { foldRun } from '#core/titration';
import type { ProjectionRow } from './queries';
import { deleteProjections, listRecords, upsertProjection } from './queries';
import type { LoadedRecord } from './references';
import { loadRecord } from './references';

/** What lists show of a record; null before its first fact. */
export function projectionOf({ id, kind, facts, references }: LoadedRecord): ProjectionRow | null {
  const state = kind === 'run' ? summaryOf(facts, references) : foldRecord(kind, facts);
  return state && { recordId: id, kind, version: state.version, state };
}

function summaryOf(facts: readonly Fact[], references: RunReferences | null) {
  // The stream of a run holds run facts: the contract let nothing else in.
  const run = references && foldRun(facts as readonly RunFact[], references);
  return run && summarizeRun(run);
}

/** Remakes every projection from the facts, all or none; gives the number of records. */
export async function rebuildProjections(db: Knex): Promise<number> {
  return db.transaction(async (tx) => {
    await deleteProjections(tx);
    const records = await listRecords(tx);
    for (const { id, kind } of records) {
      const projection = projectionOf(await loadRecord(tx, id, kind));
      if (!projection) throw new RangeError(`record ${id} of kind ${kind} has no state to project`);
      await upsertProjection(tx, projection);
    }
    return records.length;
  });
}
