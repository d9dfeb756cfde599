import type { Id } from '../../grammar';
import type { DecimalText } from '../../measurement';
import type { Around, Fact, FactDefinition, Provenance, StoredFile, Whose } from '../../record';
import { isTimeDoubtful, provenance } from '../../record';
import type {
  Entry,
  Flask,
  Issued,
  Portion,
  Reading,
  ReadingPlace,
  Refill,
  RunState,
} from '../run';
import { endsDelivery, FINAL, FIRST_END, INITIAL, isSamePlace } from '../run';
import type { Adopted, RunReferences, RunSetUp } from '../setUp';
import { isAnalysis, withAdopted } from '../setUp';

/** Working state of the fold: entries by fact, flasks by number. */
export interface Draft {
  storedVersion: number;
  portions: Map<string, Entry<Portion>>;
  readings: Map<string, Entry<DecimalText>>;
  flasks: Map<number, FlaskDraft>;
  titrationOrder: number[];
  lastRead: { factId: string; flask: number } | null;
  fillings: string[];
  /** The flasks by the facts of their final readings. */
  endings: Map<string, number>;
  buretteChecked: RunState['buretteChecked'];
  confirmed: Map<string, Provenance[]>;
  pauses: RunState['pauses'];
  adopted: Adopted[];
  version: number;
  status: RunState['status'];
  entries: number;
  signatures: RunState['signatures'];
  returns: RunState['returns'];
  /** Made for the certificate or report that comes next. */
  documents: readonly StoredFile[];
  certificates: RunState['certificates'];
  reports: RunState['reports'];
  closed: RunState['closed'];
  late: Fact[];
  doubtfulTimes: RunState['doubtfulTimes'];
}

/** The entry that stands at a place, and others for it that wait to be settled; by the facts that brought them. */
export interface Contested {
  factId: string;
  rivals: readonly string[];
}

/** A reading at its place. */
export interface ReadingDraft extends Contested {
  readonly place: ReadingPlace;
  carriedFromFlask: number | null;
}

export interface FlaskDraft {
  readonly portion: Contested;
  /** Null where a run has one sample or none, and of a blank. */
  readonly sampleId: Id | null;
  /** In the order of arrival. */
  readings: readonly ReadingDraft[];
  provisional: readonly string[];
  electrode: Flask['electrode'];
  photographs: Flask['photographs'];
  temperatures: Flask['temperatures'];
  grade: Flask['grade'];
  incidents: Flask['incidents'];
  voided: Flask['voided'];
}

/** What stands at a place of a flask. */
export function draftAt({ readings }: FlaskDraft, place: ReadingPlace): ReadingDraft | undefined {
  return readings.find((one) => isSamePlace(one.place, place));
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

/** Most flasks have no refill, no rival and no incident: they share that, so that a long run takes little more than its facts. */
export const NONE: readonly never[] = [];

/** What the facts of a run are folded into, before the first. */
export function newDraft(facts: readonly Fact[]): Draft {
  return {
    portions: new Map(),
    readings: new Map(),
    flasks: new Map(),
    titrationOrder: [],
    lastRead: null,
    fillings: [],
    endings: new Map(),
    buretteChecked: [],
    confirmed: new Map(),
    pauses: [],
    adopted: [],
    version: facts.length,
    storedVersion: facts.reduce((count, { sequence }) => count + Number(sequence !== null), 0),
    status: 'open',
    entries: 0,
    signatures: [],
    returns: [],
    documents: [],
    certificates: [],
    reports: [],
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
  const { factId, by, at } = provenance(fact);
  return { factId, by, at, value, reason, superseded: NONE };
}

/** Whether the level at a place was read after the burette had been filled. */
export function beginsFilling(place: ReadingPlace): boolean {
  return !endsDelivery(place);
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
  const samples = isAnalysis(references) ? references.samples.map(({ state }) => state.id) : [null];
  const holds = (number: number): Id | null => sampleIn(draft, number, samples);
  const rough = setUp.rules.firstIsRough
    ? samples.map((sample) =>
        firstTitrated(
          draft,
          numbers.filter((number) => holds(number) === sample),
        ),
      )
    : [];
  const valueOf = (factId: string): DecimalText => entryOf(draft.readings, factId).value;
  const flasks = numbers.map((number) =>
    finishFlask(draft, number, holds(number), rough.includes(number)),
  );
  return {
    id,
    version: draft.version,
    storedVersion: draft.storedVersion,
    status: draft.status,
    started,
    setUp: withAdopted(setUp, draft.adopted),
    references,
    flasks,
    lastFlask: numbers.at(-1) ?? 0,
    level: draft.lastRead ? levelAfter(draft.lastRead, valueOf, flasks) : levelAtStart(setUp),
    fillings: draft.fillings.map(valueOf),
    buretteChecked: draft.buretteChecked,
    pauses: draft.pauses,
    entries: draft.entries,
    signatures: draft.signatures,
    returns: draft.returns,
    certificates: draft.certificates,
    certificate: inForce(draft.certificates)?.certificate ?? null,
    reports: draft.reports,
    report: inForce(draft.reports)?.report ?? null,
    closed: draft.closed,
    late: draft.late,
    doubtfulTimes: draft.doubtfulTimes,
  };
}

function levelAfter(
  { factId, flask }: NonNullable<Draft['lastRead']>,
  valueOf: (factId: string) => DecimalText,
  flasks: readonly Flask[],
): RunState['level'] {
  const final = flasks.find(({ number }) => number === flask)?.final ?? null;
  return { readingMl: valueOf(factId), flask, final };
}

/** The level that a run of samples goes on from. */
function levelAtStart(setUp: RunSetUp): RunState['level'] {
  const levelMl = isAnalysis(setUp) ? setUp.levelMl : undefined;
  return levelMl === undefined ? null : { readingMl: levelMl, flask: null, final: null };
}

/** The last that was issued, as long as nobody withdrew it. */
function inForce<One extends Issued>(issued: readonly One[]): One | null {
  const last = issued.at(-1);
  return last?.withdrawn === null ? last : null;
}

const NO_RIVALS: Flask['rivals'] = { portion: NONE, readings: NONE };

function isBlankIn(draft: Draft, number: number): boolean {
  const { portion } = entryOf(draft.flasks, number);
  return entryOf(draft.portions, portion.factId).value.kind === 'blank';
}

/** The sample that a flask holds: the one that was named, else the only one; null for a blank, and where there are none. */
function sampleIn(draft: Draft, number: number, samples: readonly (Id | null)[]): Id | null {
  if (isBlankIn(draft, number)) return null;
  return entryOf(draft.flasks, number).sampleId ?? samples[0] ?? null;
}

function finishFlask(draft: Draft, number: number, sampleId: Id | null, isRough: boolean): Flask {
  const flask = entryOf(draft.flasks, number);
  const { portion, electrode, photographs, temperatures, grade, incidents, voided } = flask;
  return {
    number,
    isRough,
    ...(sampleId !== null && { sampleId }),
    portion: entryOf(draft.portions, portion.factId),
    initial: finishReading(draft, flask, INITIAL),
    refills: finishRefills(draft, flask),
    firstEnd: finishFirstEnd(draft, flask),
    provisional: finishReadings(draft, flask.provisional),
    final: finishReading(draft, flask, FINAL),
    electrode,
    photographs,
    temperatures,
    grade,
    rivals: finishRivals(draft, flask),
    incidents,
    voided,
  };
}

function finishReading(draft: Draft, flask: FlaskDraft, place: ReadingPlace): Reading | null {
  const known = draftAt(flask, place);
  if (!known) return null;
  const { factId, carriedFromFlask } = known;
  const confirmed = draft.confirmed.get(factId) ?? NONE;
  return { ...entryOf(draft.readings, factId), carriedFromFlask, confirmed };
}

function finishFirstEnd(draft: Draft, flask: FlaskDraft): Flask['firstEnd'] {
  const reading = finishReading(draft, flask, FIRST_END);
  if (!reading) return null;
  const { readings } = flask;
  const before = readings.slice(
    0,
    readings.findIndex(({ place }) => place.at === 'first-end'),
  );
  return { reading, refills: before.filter(({ place }) => place.at === 'stop').length };
}

function finishReadings(
  { readings }: Draft,
  factIds: readonly string[],
): readonly Entry<DecimalText>[] {
  return factIds.length === 0 ? NONE : factIds.map((factId) => entryOf(readings, factId));
}

function finishRefills(draft: Draft, flask: FlaskDraft): readonly Refill[] {
  let refills: readonly Refill[] = NONE;
  for (let refill = 1; ; refill += 1) {
    const stop = finishReading(draft, flask, { at: 'stop', refill });
    if (!stop) return refills;
    refills = [
      ...refills,
      { stop, restart: finishReading(draft, flask, { at: 'restart', refill }) },
    ];
  }
}

function finishRivals(draft: Draft, { portion, readings }: FlaskDraft): Flask['rivals'] {
  const contested = readings.filter(({ rivals }) => rivals.length > 0);
  if (portion.rivals.length + contested.length === 0) return NO_RIVALS;
  return {
    portion: portion.rivals.map((factId) => entryOf(draft.portions, factId)),
    readings: contested.map(({ place, rivals }) => ({
      place,
      entries: finishReadings(draft, rivals),
    })),
  };
}

/** Of some flasks the one titrated first; before any is, the lowest number that is not void. A blank is never the rough one. */
function firstTitrated(draft: Draft, numbers: readonly number[]): number | null {
  return (
    draft.titrationOrder.find((number) => numbers.includes(number) && !isBlankIn(draft, number)) ??
    numbers.find(
      (number) => entryOf(draft.flasks, number).voided === null && !isBlankIn(draft, number),
    ) ??
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
