import type { Knex } from 'knex';
import type { PlainStates } from '#core/ledger';
import type { RecordsNow } from '#core/titration/judging';
import type { RunSetUp } from '#core/titration/setUp';
import { namedRecords } from '#core/titration/setUp';
import { findProjection } from '../ledger/queries';

/** What a run rests on, as it is now. */
export async function partsNow(tx: Knex, setUp: RunSetUp): Promise<RecordsNow> {
  return {
    bottles: await partsOf(tx, setUp, 'bottle'),
    lots: await partsOf(tx, setUp, 'lot'),
    equipment: await partsOf(tx, setUp, 'equipment'),
  };
}

/** The same of one kind. */
export async function partsOf<K extends 'bottle' | 'lot' | 'equipment' | 'sample'>(
  tx: Knex,
  setUp: RunSetUp,
  kind: K,
): Promise<PlainStates[K][]> {
  const found: PlainStates[K][] = [];
  for (const part of namedRecords(setUp).filter((one) => one.kind === kind)) {
    const state = await findProjection(tx, kind, part.at.id);
    if (state) found.push(state);
  }
  return found;
}
