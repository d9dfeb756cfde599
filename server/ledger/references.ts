import type { Knex } from 'knex';
import { findMethod } from '#core/chemistry';
import type { HouseRules, LaboratoryFact, RuleOverrides } from '#core/laboratory';
import { deviatingRules, rulesAt, UNWRITTEN_RULES, withOverrides } from '#core/laboratory';
import type { PlainRecordKind, PlainStates } from '#core/ledger';
import { foldRecord } from '#core/ledger';
import { calibratedBurette, isPipette } from '#core/metrology';
import type { Fact, RecordKind } from '#core/record';
import { enteredAt } from '#core/record';
import type { RecordVersion, RunFact, RunReferences, RunSetUp, RunState } from '#core/titration';
import { foldRun, partsOf } from '#core/titration';
import { AppError } from '../http/appError';
import { listFactsOf, listLaboratoryFacts } from './queries';

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

/** Records with all that is needed to fold them, by id. */
export async function loadRecords(
  db: Knex,
  records: readonly { readonly id: string; readonly kind: RecordKind }[],
): Promise<Map<string, LoadedRecord>> {
  const streams = await listFactsOf(
    db,
    records.map(({ id }) => id),
  );
  const starts = [...streams.values()].flatMap(startOf);
  const rested = starts.length === 0 ? NOTHING : await loadRested(db, starts);
  return new Map(
    records.map(({ id, kind }) => {
      const facts = streams.get(id) ?? [];
      const [start] = startOf(facts);
      return [id, { id, kind, facts, references: start ? foldReferences(rested, start) : null }];
    }),
  );
}

/** A record with all that is needed to fold it. */
export async function loadRecord(db: Knex, id: string, kind: RecordKind): Promise<LoadedRecord> {
  const record = (await loadRecords(db, [{ id, kind }])).get(id);
  if (!record) throw new RangeError(`record ${id} was not loaded`);
  return record;
}

type RunStart = Extract<RunFact, { kind: 'run.started' }>;

/** What the run of a stream began with; nothing for other records. */
function startOf([start]: readonly Fact[]): RunStart[] {
  return start?.kind === 'run.started' ? [start as RunStart] : [];
}

/** A run by its id; null when there is none. */
export async function findRun(db: Knex, runId: string): Promise<LoadedRun | null> {
  return foldLoaded(await loadRecord(db, runId, 'run'));
}

/** The run that a record is; null when it is none. */
export function foldLoaded({ facts, references }: LoadedRecord): LoadedRun | null {
  // The stream of a run holds run facts: the contract let nothing else in.
  const runFacts = facts as readonly RunFact[];
  const state = references && foldRun(runFacts, references);
  return state && { facts: runFacts, references, state };
}

/** The records that a run's start names, at the versions that it names. @throws AppError `unknown-reference` */
export async function loadReferences(db: Knex, start: Fact): Promise<RunReferences> {
  // The caller has seen its kind.
  const run = start as RunStart;
  return foldReferences(await loadRested(db, [run]), run);
}

/** Streams of what runs rest on. */
interface Rested {
  readonly streams: ReadonlyMap<string, readonly Fact[]>;
  readonly laboratory: readonly LaboratoryFact[];
}

const NOTHING: Rested = { streams: new Map(), laboratory: [] };

async function loadRested(db: Knex, starts: readonly RunStart[]): Promise<Rested> {
  const ids = starts.flatMap(({ body }) => partsOf(body).map(({ at }) => at.id));
  return {
    streams: await listFactsOf(db, [...new Set(ids)]),
    laboratory: await listLaboratoryFacts(db),
  };
}

/** The rules of laboratory and method when a run began; those of its arrival where it follows them. */
function rulesInForceFor(
  laboratory: readonly LaboratoryFact[],
  overrides: RuleOverrides,
  start: RunStart,
): HouseRules {
  const arrived = start.recordedAt ?? start.deviceTime;
  const [then, now] = [enteredAt(start), arrived].map((at) =>
    withOverrides(rulesAt(laboratory, at), overrides),
  );
  const { rules } = start.body;
  return now && deviatingRules(rules, now).length === 0 ? now : (then ?? UNWRITTEN_RULES);
}

function foldReferences({ streams, laboratory }: Rested, start: RunStart): RunReferences {
  const setUp = start.body;
  const method =
    setUp.method.kind === 'catalogue'
      ? findMethod(setUp.method.id)
      : foldVersion(streams, 'method', setUp.method, 'method').method;
  if (!method) throw unknownReference('method', 'The catalogue has no such method.');
  const bottle = foldVersion(streams, 'bottle', setUp.bottle, 'bottle');
  const burette = calibratedBurette(foldVersion(streams, 'equipment', setUp.burette, 'burette'));
  if (!burette) throw unknownReference('burette', 'This is not a burette.');
  return {
    method,
    bottle,
    standard: foldStandard(streams, setUp),
    excess: foldExcess(streams, setUp),
    burette,
    rulesInForce: rulesInForceFor(laboratory, method.rules, start),
  };
}

function foldStandard(
  streams: ReadonlyMap<string, readonly Fact[]>,
  { standard }: RunSetUp,
): RunReferences['standard'] {
  if (standard.kind === 'lot') {
    const lot = foldVersion(streams, 'lot', standard.lot, 'standard.lot');
    const at = standard.balance;
    const { equipment } = foldVersion(streams, 'equipment', at, 'standard.balance');
    if (equipment.type === 'balance') return { kind: 'lot', lot, balance: equipment };
    throw unknownReference('standard.balance', 'This is not a balance.');
  }
  const bottle = foldVersion(streams, 'bottle', standard.bottle, 'standard.bottle');
  const vessel = foldVersion(streams, 'equipment', standard.vessel, 'standard.vessel');
  if (isPipette(vessel.equipment) || vessel.equipment.type === 'burette') {
    return { kind: 'bottle', bottle, vessel };
  }
  const message = 'An aliquot is measured with a pipette or a burette.';
  throw unknownReference('standard.vessel', message);
}

function foldExcess(
  streams: ReadonlyMap<string, readonly Fact[]>,
  { excess }: RunSetUp,
): RunReferences['excess'] {
  if (!excess) return null;
  const bottle = foldVersion(streams, 'bottle', excess.bottle, 'excess.bottle');
  const vessel = foldVersion(streams, 'equipment', excess.vessel, 'excess.vessel');
  if (isPipette(vessel.equipment)) return { bottle, vessel };
  throw unknownReference('excess.vessel', 'An excess is measured with a pipette.');
}

function foldVersion<K extends PlainRecordKind>(
  streams: ReadonlyMap<string, readonly Fact[]>,
  kind: K,
  at: RecordVersion,
  field: string,
): PlainStates[K] {
  const facts = (streams.get(at.id) ?? []).slice(0, at.version);
  const isThere = facts.length === at.version && facts[0]?.recordKind === kind;
  const state = isThere ? foldRecord(kind, facts) : null;
  if (!state) throw unknownReference(field, `There is no such ${field} at this version.`);
  return state;
}

/** A fact that names something which is not there. */
export function unknownReference(field: string, message: string): AppError {
  return new AppError('unknown-reference', message, [{ field: `body.${field}`, message }]);
}
