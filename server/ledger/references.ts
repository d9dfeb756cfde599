import type { Knex } from 'knex';
import { findMethod } from '#core/chemistry';
import type { PlainRecordKind, PlainStates } from '#core/ledger';
import { foldRecord } from '#core/ledger';
import type { RecordVersion, RunFact, RunReferences, RunSetUp, RunState } from '#core/titration';
import { foldRun } from '#core/titration';
import { AppError } from '../http/appError';
import { listFacts } from './queries';

/** A run's facts with the records that it rests on, and what they fold to. */
export interface LoadedRun {
  readonly facts: readonly RunFact[];
  readonly references: RunReferences;
  readonly state: RunState;
}

/** A run by its id; null when there is none. */
export async function findRun(db: Knex, runId: string): Promise<LoadedRun | null> {
  const facts = await listFacts(db, runId);
  const [start] = facts;
  if (start?.kind !== 'run.started') return null;
  // The stream of a run holds run facts: the contract let nothing else in.
  const runFacts = facts as readonly RunFact[];
  const references = await loadReferences(db, start.body as RunSetUp);
  const state = foldRun(runFacts, references);
  return state && { facts: runFacts, references, state };
}

/** The records that a set-up names, at the versions that it names. @throws AppError `unknown-reference` */
export async function loadReferences(db: Knex, setUp: RunSetUp): Promise<RunReferences> {
  const method = findMethod(setUp.methodId);
  if (!method) throw unknownReference('methodId', 'The catalogue has no such method.');
  const bottle = await loadVersion(db, 'bottle', setUp.bottle, 'bottle');
  const lot = await loadVersion(db, 'lot', setUp.lot, 'lot');
  const { equipment: balance } = await loadVersion(db, 'equipment', setUp.balance, 'balance');
  const { equipment: burette } = await loadVersion(db, 'equipment', setUp.burette, 'burette');
  if (balance.type !== 'balance') throw unknownReference('balance', 'This is not a balance.');
  if (burette.type !== 'burette') throw unknownReference('burette', 'This is not a burette.');
  return { method, bottle, lot, balance, burette };
}

async function loadVersion<K extends PlainRecordKind>(
  db: Knex,
  kind: K,
  at: RecordVersion,
  field: string,
): Promise<PlainStates[K]> {
  const facts = await listFacts(db, at.id, at.version);
  const isThere = facts.length === at.version && facts[0]?.recordKind === kind;
  const state = isThere ? foldRecord(kind, facts) : null;
  if (!state) throw unknownReference(field, `There is no such ${field} at this version.`);
  return state;
}

/** A fact that names something which is not there. */
export function unknownReference(field: string, message: string): AppError {
  return new AppError('unknown-reference', message, [{ field: `body.${field}`, message }]);
}
