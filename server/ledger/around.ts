import type { Knex } from 'knex';
import type { Id, PlainDate } from '#core/grammar';
import { plainDateAt } from '#core/grammar';
import { LABORATORY_RECORD, rulesAt } from '#core/laboratory';
import type { LaboratoryFact, LaboratoryState, Settings } from '#core/laboratory';
import type { AroundFact, PlainRecordKind } from '#core/ledger';
import { asksFor, foldRecord, referencesOf } from '#core/ledger';
import type { Fact, Reference } from '#core/record';
import { nameKey } from '#core/people';
import type { Author } from '#core/rights';
import { AppError } from '../http/appError';
import { findNamed } from '../people/queries';
import type { Services } from '../services';
import { findLaboratory, listFactsOf, listLaboratoryFacts, listLeft, listUsed } from './queries';

/** What the facts at hand refer to, as it is on record. */
export interface Surroundings {
  readonly laboratory: readonly LaboratoryFact[];
  readonly streams: ReadonlyMap<string, readonly Fact[]>;
  /** Who has the names that facts ask for, by what names are compared. */
  readonly named: ReadonlyMap<string, string>;
  /** Those that were asked about on which another record rests. */
  readonly used: ReadonlySet<string>;
  /** What is left of lots and bottles; null when nobody asked. */
  readonly left: ReadonlyMap<string, number> | null;
}

/** Loads what facts that are on record refer to, and what those that are to come will ask for. */
export async function loadSurroundings(
  tx: Knex,
  references: readonly Reference[],
  proposed: readonly Pick<Fact, 'recordId' | 'kind' | 'body'>[],
): Promise<Surroundings> {
  const asking = (what: ReturnType<typeof asksFor>) =>
    proposed.filter(({ kind }) => asksFor(kind) === what);
  const names = asking('name').map(({ body }) => (body as { readonly name: string }).name);
  const used = asking('use').map(({ recordId }) => recordId);
  return {
    laboratory: await listLaboratoryFacts(tx),
    streams: await listFactsOf(tx, [...new Set(references.map(({ id }) => id))]),
    named: await namedBy(tx, names),
    used: await listUsed(tx, used),
    left: await leftOf(tx, asking('stock')),
  };
}

/** Who has names, by what names are compared; nobody else takes one before the transaction ends. */
async function namedBy(tx: Knex, names: readonly string[]): Promise<ReadonlyMap<string, string>> {
  const named = new Map<string, string>();
  for (const name of names) {
    const id = await findNamed(tx, name);
    if (id !== null) named.set(nameKey(name), id);
  }
  return named;
}

/** Nothing at all: for facts that refer to nothing. */
export const NO_SURROUNDINGS: Surroundings = {
  laboratory: [],
  streams: new Map(),
  named: new Map(),
  used: new Set(),
  left: null,
};

/** What is left of the records that facts name; null when there are none. */
async function leftOf(
  tx: Knex,
  asking: readonly Pick<Fact, 'kind' | 'body'>[],
): Promise<ReadonlyMap<string, number> | null> {
  if (asking.length === 0) return null;
  return listLeft(
    tx,
    asking.flatMap(referencesOf).map(({ id }) => id),
  );
}

/** Nobody in particular: for what is folded, not checked. */
const NOBODY: Author = { id: '' as Id, roles: [] };

/**
 * What is around a fact.
 *
 * @param inHand streams of records that have been added to since the surroundings were loaded
 */
export function aroundOf(
  services: Services,
  { laboratory, streams, named, used, left }: Surroundings,
  author: Author = NOBODY,
  inHand: (id: string) => readonly Fact[] | undefined = () => undefined,
): AroundFact {
  const streamOf = (id: string): readonly Fact[] => inHand(id) ?? streams.get(id) ?? [];
  const folded = <K extends PlainRecordKind>(kind: K, facts: readonly Fact[]) =>
    facts[0]?.recordKind === kind ? foldRecord(kind, facts) : null;
  return {
    get today() {
      return todayIn(services, LABORATORY_RECORD.fold(laboratory));
    },
    author,
    now: (kind, id) => folded(kind, streamOf(id)),
    at: (kind, { id, version }) => {
      const facts = streamOf(id);
      return facts.length < version ? null : folded(kind, facts.slice(0, version));
    },
    // Indexes of the database see to it.
    bottleCoded: () => null,
    sampleCoded: () => null,
    personNamed: (name) => named.get(nameKey(name)) ?? null,
    versionAt: (id, time) =>
      streamOf(id).filter(({ recordedAt }) => (recordedAt ?? '') <= time).length,
    isUsed: (id) => used.has(id),
    left: (id) => {
      if (!left) throw new RangeError('what is left was not loaded');
      return left.get(id);
    },
    rulesAt: (time) => rulesAt(laboratory, time),
  };
}

/** Today in the laboratory. @throws AppError `not-found` before it is founded */
function todayIn(services: Services, laboratory: LaboratoryState | null): PlainDate {
  return plainDateAt(services.now().toISOString(), founded(laboratory).timeZone);
}

/** Today's date in the laboratory, and what it has set. @throws AppError `not-found` before the laboratory is founded. */
export async function laboratoryNow(
  tx: Knex,
  services: Services,
): Promise<{
  readonly today: PlainDate;
  readonly timeZone: string;
  readonly settings: Settings;
}> {
  const laboratory = founded(await findLaboratory(tx));
  const { timeZone, settings } = laboratory;
  return { today: todayIn(services, laboratory), timeZone, settings };
}

function founded(laboratory: LaboratoryState | null): LaboratoryState {
  if (!laboratory) throw new AppError('not-found', 'The laboratory has not been founded yet.');
  return laboratory;
}
