import type { Knex } from 'knex';
import { rebuildProjections } from '../../ledger/project';

/** Projections of runs that know other standards than weighed ones, and of a laboratory with its house rules. */
export async function up(db: Knex): Promise<void> {
  await rebuildProjections(db);
}

/** Nothing to undo: the facts are as they were. */
export function down(): Promise<void> {
  return Promise.resolve();
}
