import type { Id } from '../../grammar';
import type { DecimalText } from '../../measurement';
import type { Around, Fact, FactDefinition, Provenance, Whose } from '../../record';
import { isTimeDoubtful, provenance } from '../../record';
import type { Certificate } from '../run';
import type { Portion } from '../run';
import { refillPlace } from '../run';
import type { Adopted, RunSetUp } from '../setUp';
import { withAdopted } from '../setUp';
import type { Entry, Flask, Place, Reading, ReadingPlace, Refill, RunState } from '../run';
import type { RunReferences } from '../setUp';

/** Working state of the fold: entries by fact, flasks by number. */
export interface Draft {
  storedVersion: number;
  portions: Map<string, Entry<Portion>>;
  readings: Map<string, Entry<DecimalText>>;
  flasks: Map<number, FlaskDraft>;
  titrationOrder: number[];
  lastRead: { factId: string; flask: number } | null;
  fillings: string[];
  buretteChecked: RunState['buretteChecked'];
  confirmed: Map<string, Provenance[]>;
  pauses: RunState['pauses'];
  adopted: Adopted[];
  version: number;
  status: RunState['status'];
  certificate: Certificate | null;
  closed: RunState['closed'];
  late: Fact[];
  doubtfulTimes: RunState['doubtfulTimes'];
}

export interface FlaskDraft {
  portion: string;
  readings: Map<ReadingPlace, { factId: string; carriedFromFlask: number | null }>;
  provisional: string[];
  electrode: Flask['electrode'];
  photographs: Flask['photographs'];
  temperatures: Flask['temperatures'];
  grade: Flask['grade'];
  rivals: Map<Place, string[]>;
  incidents: Flask['incidents'];
  voided: Flask['voided'];
}

/**
 * A kind of fact of a run that has begun: it is checked against the run's state (by its author's rights where
 * they are known), and changes the draft of the fold.
 */
export type RunFactDefinition<K extends string, Body> = FactDefinition<
  K,
  Body,
  RunState,
  Pick<Around, 'author'> | null,
  void,
  Draft
>;

/** The definitions of a group of such facts. */
export type RunFactTable<Bodies, ServersOwn = never> = {
  readonly [K in keyof Bodies & string]: RunFactDefinition<K, Bodies[K]> & Whose<K, ServersOwn>;
};

/** What the facts of a run are folded into, before the first. */
export function newDraft(facts: readonly Fact[]): Draft {
  return {
    portions: new Map(),
    readings: new Map(),
    flasks: new Map(),
    titrationOrder: [],
    lastRead: null,
    fillings: [],
    buretteChecked: [],
    confirmed: new Map(),
    pauses: [],
    adopted: [],
    version: facts.length,
    storedVersion: facts.filter((fact) => fact.sequence !== null).length,
    status: 'open',
    certificate: null,
    closed: null,
    late: [],
    doubtfulTimes: facts.filter(isTimeDoubtful).map((fact) => ({
      factId: fact.id,
      by: fact.authorId,
      deviceTime: fact.deviceTime,
      recordedAt: fact.recordedAt ?? fact.deviceTime,
    })),
  };
}

export function newEntry<T>(fact: Fact, value: T, reason: string | null): Entry<T> {
  return { ...provenance(fact), value, reason, superseded: [] };
}

export function rivalsAt({ rivals }: FlaskDraft, place: Place): string[] {
  const known = rivals.get(place);
  if (known) return known;
  const fresh: string[] = [];
  rivals.set(place, fresh);
  return fresh;
}

/** Whether the level at a place was read after the burette had been filled. */
export function beginsFilling(place: ReadingPlace): boolean {
  return place === 'initial' || place.startsWith('restart');
}

/** The state that a draft has come to. */
export function finish(
  draft: Draft,
  id: Id,
  started: Provenance,
  setUp: RunSetUp,
  references: RunReferences,
): RunState {
  const numbers = [...draft.flasks.keys()].toSorted((a, b) => a - b);
  const roughFlask = setUp.rules.firstIsRough ? firstTitrated(draft, numbers) : null;
  const valueOf = (factId: string): DecimalText => entryOf(draft.readings, factId).value;
  return {
    id,
    version: draft.version,
    storedVersion: draft.storedVersion,
    status: draft.status,
    started,
    setUp: withAdopted(setUp, draft.adopted),
    references,
    flasks: numbers.map((number) => finishFlask(draft, number, number === roughFlask)),
    level: draft.lastRead && {
      readingMl: valueOf(draft.lastRead.factId),
      flask: draft.lastRead.flask,
    },
    fillings: draft.fillings.map(valueOf),
    buretteChecked: draft.buretteChecked,
    pauses: draft.pauses,
    certificate: draft.certificate,
    closed: draft.closed,
    late: draft.late,
    doubtfulTimes: draft.doubtfulTimes,
  };
}

function finishFlask(draft: Draft, number: number, isRough: boolean): Flask {
  const flask = entryOf(draft.flasks, number);
  const reading = (place: ReadingPlace): Reading | null => {
    const known = flask.readings.get(place);
    if (!known) return null;
    const { factId, carriedFromFlask } = known;
    const confirmed = draft.confirmed.get(factId) ?? [];
    return { ...entryOf(draft.readings, factId), carriedFromFlask, confirmed };
  };
  const refills: Refill[] = [];
  for (;;) {
    const refill = refills.length + 1;
    const stop = reading(refillPlace('stop', refill));
    if (!stop) break;
    refills.push({ stop, restart: reading(refillPlace('restart', refill)) });
  }
  const rivalReadings = [...flask.rivals].flatMap(([place, factIds]) =>
    place === 'portion'
      ? []
      : [[place, factIds.map((factId) => entryOf(draft.readings, factId))] as const],
  );
  return {
    number,
    isRough,
    portion: entryOf(draft.portions, flask.portion),
    initial: reading('initial'),
    refills,
    provisional: flask.provisional.map((factId) => entryOf(draft.readings, factId)),
    final: reading('final'),
    electrode: flask.electrode,
    photographs: flask.photographs,
    temperatures: flask.temperatures,
    grade: flask.grade,
    rivals: {
      ...Object.fromEntries(rivalReadings),
      portion: (flask.rivals.get('portion') ?? []).map((factId) => entryOf(draft.portions, factId)),
    },
    incidents: flask.incidents,
    voided: flask.voided,
  };
}

/** The flask titrated first; before any is, the lowest number that is not void. A blank is never the rough one. */
function firstTitrated(draft: Draft, numbers: readonly number[]): number | null {
  const isBlank = (number: number): boolean =>
    entryOf(draft.portions, entryOf(draft.flasks, number).portion).value.kind === 'blank';
  return (
    draft.titrationOrder.find((number) => !isBlank(number)) ??
    numbers.find((number) => entryOf(draft.flasks, number).voided === null && !isBlank(number)) ??
    null
  );
}

export function entryOf<K, V>(entries: ReadonlyMap<K, V>, key: K): V {
  const entry = entries.get(key);
  if (entry === undefined) throw new RangeError(`the run has no entry ${String(key)}`);
  return entry;
}

/** Whether a later fact is about the same flask. */
export function sharesFlask({ flask }: { readonly flask: number }, later: object): boolean {
  return 'flask' in later && later.flask === flask;
}
