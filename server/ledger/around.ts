import type { Knex } from 'knex';
import { plainDateAt, rulesAt, LABORATORY_RECORD } from '#core/laboratory';
import type { LaboratoryFact } from '#core/laboratory';
import type { AroundFact, PlainRecordKind, StatesAround } from '#core/ledger';
import { foldRecord, stockLeft } from '#core/ledger';
import type { Fact, Reference } from '#core/record';
import type { Author } from '#core/rights';
import { AppError } from '../http/appError';
import { listPeopleById } from '../people/queries';
import type { Services } from '../services';
import { listFactsOf, listLaboratoryFacts, listProjections } from './queries';

/** What the facts at hand refer to, as it is on record. */
export interface Surroundings {
  readonly laboratory: readonly LaboratoryFact[];
  readonly streams: ReadonlyMap<string, readonly Fact[]>;
  readonly people: ReadonlyMap<string, Author>;
  /** What is left of lots and bottles; null when nobody asked. */
  readonly left: ReadonlyMap<string, number> | null;
}

/** Loads what facts refer to. @param needsStock whether somebody will ask for what is left */
export async function loadSurroundings(
  tx: Knex,
  references: readonly Reference[],
  needsStock: boolean,
): Promise<Surroundings> {
  const idsOf = (isPerson: boolean): string[] => [
    ...new Set(
      references.filter(({ kind }) => (kind === 'person') === isPerson).map(({ id }) => id),
    ),
  ];
  return {
    laboratory: await listLaboratoryFacts(tx),
    streams: await listFactsOf(tx, idsOf(false)),
    people: await listPeopleById(tx, idsOf(true)),
    left: needsStock ? await loadLeft(tx) : null,
  };
}

/** What is left of each lot and bottle. */
async function loadLeft(tx: Knex): Promise<ReadonlyMap<string, number>> {
  return stockLeft({
    lots: await listProjections(tx, 'lot'),
    bottles: await listProjections(tx, 'bottle'),
    equipment: await listProjections(tx, 'equipment'),
    preparations: await listProjections(tx, 'preparation'),
    runs: await listProjections(tx, 'run'),
  });
}

/** Nobody in particular: for what is folded, not checked. */
const NOBODY: Author = { id: '', rights: [] };

/**
 * What is around a fact.
 *
 * @param inHand streams of records that have been added to since the surroundings were loaded
 */
export function aroundOf(
  services: Services,
  { laboratory, streams, people, left }: Surroundings,
  author: Author = NOBODY,
  inHand: (id: string) => readonly Fact[] | undefined = () => undefined,
): AroundFact {
  const streamOf = (id: string): readonly Fact[] => inHand(id) ?? streams.get(id) ?? [];
  const folded = <K extends keyof StatesAround>(kind: K, facts: readonly Fact[]) =>
    // A person has no stream: `people` is asked for them.
    (facts[0]?.recordKind === kind ? foldRecord(kind as PlainRecordKind, facts) : null) as
      StatesAround[K] | null;
  return {
    get today() {
      return todayIn(services, laboratory);
    },
    author,
    now: <K extends keyof StatesAround>(kind: K, id: string) =>
      kind === 'person'
        ? ((people.get(id) ?? null) as StatesAround[K] | null)
        : folded(kind, streamOf(id)),
    at: (kind, { id, version }) => {
      const facts = streamOf(id);
      return facts.length < version ? null : folded(kind, facts.slice(0, version));
    },
    versionAt: (id, time) =>
      streamOf(id).filter(({ recordedAt }) => (recordedAt ?? '') <= time).length,
    left: (id) => {
      if (!left) throw new RangeError('what is left was not loaded');
      return left.get(id);
    },
    rulesAt: (time) => rulesAt(laboratory, time),
  };
}

/** Today in the laboratory. @throws AppError `not-found` before it is founded */
function todayIn(services: Services, facts: readonly LaboratoryFact[]): string {
  const laboratory = LABORATORY_RECORD.fold(facts);
  if (!laboratory) throw new AppError('not-found', 'The laboratory has not been founded yet.');
  return plainDateAt(services.now().toISOString(), laboratory.timeZone);
}

/** Today's date in the laboratory. @throws AppError `not-found` before the laboratory is founded. */
export async function today(tx: Knex, services: Services): Promise<string> {
  return todayIn(services, await listLaboratoryFacts(tx));
}
