import type { AroundFact, RecordKind } from '#core/ledger';
import { referencesOf } from '#core/ledger';
import type { Fact, Finding } from '#core/record';
import type { RunFact } from '#core/titration/record';
import type { RunState } from '#core/titration/run';
import type { RunReferences } from '#core/titration/setUp';
import { foldRun, restedOnBy } from '#core/titration/record';
import { findingText } from '#core/wording';
import { AppError } from '../http/appError';
import type { Services } from '../services';
import type { Surroundings } from './around';
import { aroundOf, loadSurroundings } from './around';
import { listFactsOf } from './queries';

/** A record's facts with what a run among them rests on. */
export interface LoadedRecord {
  readonly id: string;
  readonly kind: RecordKind;
  readonly facts: readonly Fact[];
  /** Null for anything but a run that has been started. */
  readonly references: RunReferences | null;
}

/** A run's facts with the records that it rests on, and what they fold to. */
export interface LoadedRun {
  readonly facts: readonly RunFact[];
  readonly references: RunReferences;
  readonly state: RunState;
}

/** Records, and what they and facts to come refer to. */
export interface Opened {
  readonly records: Map<string, LoadedRecord>;
  readonly surroundings: Surroundings;
}

/** Records with all that is needed to fold them, by id, and what they and facts to come refer to. */
export async function openRecords(
  services: Services,
  records: readonly { readonly id: string; readonly kind: RecordKind }[],
  proposed: readonly Pick<Fact, 'recordId' | 'kind' | 'body'>[] = [],
): Promise<Opened> {
  const streams = await listFactsOf(
    services.db,
    records.map(({ id }) => id),
  );
  const facts = [...[...streams.values()].flat(), ...proposed];
  const surroundings = await loadSurroundings(services.db, facts.flatMap(referencesOf), proposed);
  const around = aroundOf(services, surroundings);
  const loaded = records.map(({ id, kind }): [string, LoadedRecord] => {
    const own = streams.get(id) ?? [];
    return [id, { id, kind, facts: own, references: referencesFor(own, around) }];
  });
  return { records: new Map(loaded), surroundings };
}

/** What the run of a stream rests on; null for other records and before the first fact. @throws AppError `unknown-reference` */
export function referencesFor(facts: readonly Fact[], around: AroundFact): RunReferences | null {
  if (facts[0]?.recordKind !== 'run') return null;
  // The stream of a run holds run facts: the contract let nothing else in.
  const references = restedOnBy(facts as readonly RunFact[], around);
  if (references && 'severity' in references) throw unknownReference(references);
  return references;
}

/** A record with all that is needed to fold it. */
async function loadRecord(services: Services, id: string, kind: RecordKind): Promise<LoadedRecord> {
  const record = (await openRecords(services, [{ id, kind }])).records.get(id);
  if (!record) throw new RangeError(`record ${id} was not loaded`);
  return record;
}

/** A run by its id; null when there is none. */
export async function findRun(services: Services, runId: string): Promise<LoadedRun | null> {
  return foldLoaded(await loadRecord(services, runId, 'run'));
}

/** The run that a record is; null when it is none. */
export function foldLoaded({ facts, references }: LoadedRecord): LoadedRun | null {
  // The stream of a run holds run facts: the contract let nothing else in.
  const runFacts = facts as readonly RunFact[];
  const state = references && foldRun(runFacts, references);
  return state && { facts: runFacts, references, state };
}

/** A fact that names something which is not there. */
export function unknownReference(finding: Finding): AppError {
  const message = findingText(finding);
  return new AppError('unknown-reference', message, [{ field: `body.${finding.field}`, message }]);
}

/** A record that must be among the loaded ones. */
export function recordOf(records: ReadonlyMap<string, LoadedRecord>, id: string): LoadedRecord {
  const record = records.get(id);
  if (!record) throw new RangeError(`record ${id} was not loaded`);
  return record;
}
