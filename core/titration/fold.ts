import type { DecimalText } from '../measurement';
import type { Fact, Provenance } from '../record';
import { isTimeDoubtful, provenance } from '../record';
import type { Certificate } from './certificate';
import type { Observation, RefillMoment, RunFact, RunSetUp } from './facts';
import { isObservation } from './facts';
import type { Portion } from './portion';
import { portionAmount } from './portion';
import { refillPlace } from './run';
import type {
  Entry,
  Flask,
  Place,
  Reading,
  ReadingPlace,
  Refill,
  RunReferences,
  RunState,
} from './state';

/** Working state of the fold: entries by fact, flasks by number. */
interface Draft {
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
  version: number;
  status: RunState['status'];
  certificate: Certificate | null;
  closed: RunState['closed'];
  late: Observation[];
  doubtfulTimes: RunState['doubtfulTimes'];
}

interface FlaskDraft {
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
 * Folds a run's facts into its state; null before `run.started`. Facts come in the order of the record. A fact
 * that appears twice counts once; one that refers to nothing known changes nothing.
 */
export function foldRun(facts: readonly RunFact[], references: RunReferences): RunState | null {
  const unique = [...new Map(facts.map((fact) => [fact.id, fact])).values()];
  const start = unique.find((fact) => fact.kind === 'run.started');
  if (!start) return null;
  const draft: Draft = {
    portions: new Map(),
    readings: new Map(),
    flasks: new Map(),
    titrationOrder: [],
    lastRead: null,
    fillings: [],
    buretteChecked: [],
    confirmed: new Map(),
    pauses: [],
    version: unique.length,
    storedVersion: unique.filter((fact) => fact.sequence !== null).length,
    status: 'open',
    certificate: null,
    closed: null,
    late: [],
    doubtfulTimes: unique.filter(isTimeDoubtful).map((fact) => ({
      factId: fact.id,
      by: fact.authorId,
      deviceTime: fact.deviceTime,
      recordedAt: fact.recordedAt ?? fact.deviceTime,
    })),
  };
  for (const fact of unique) apply(draft, fact);
  return finish(draft, start.recordId, provenance(start), start.body, references);
}

function apply(draft: Draft, fact: RunFact): void {
  if (draft.status !== 'open' && isObservation(fact)) {
    draft.late.push(fact);
    return;
  }
  switch (fact.kind) {
    case 'run.started':
      return;
    case 'run.flask-weighed': {
      const { flask, weighing, reason } = fact.body;
      applyPortion(draft, fact, flask, { kind: 'mass', weighing }, reason);
      return;
    }
    case 'run.flask-pipetted': {
      const { flask, volumeMl, reason } = fact.body;
      applyPortion(draft, fact, flask, { kind: 'volume', volumeMl }, reason);
      return;
    }
    case 'run.blank-made':
      applyPortion(draft, fact, fact.body.flask, { kind: 'blank' }, null);
      return;
    case 'run.burette-read':
      applyReading(draft, fact, fact.body.moment, fact.body.carriedFrom);
      return;
    case 'run.burette-refilled': {
      const { flask, refill, moment } = fact.body;
      const known = draft.flasks.get(flask)?.readings;
      if (known?.has(placeBefore(moment, refill))) {
        applyReading(draft, fact, refillPlace(moment, refill), null);
      }
      return;
    }
    case 'run.provisional-read': {
      const flask = draft.flasks.get(fact.body.flask);
      if (!flask) return;
      draft.readings.set(fact.id, newEntry(fact, fact.body.readingMl, null));
      flask.provisional.push(fact.id);
      return;
    }
    case 'run.electrode-read': {
      const { flask: number, ...read } = fact.body;
      const flask = draft.flasks.get(number);
      if (flask) {
        flask.electrode = [...flask.electrode, { ...provenance(fact), ...read, struck: null }];
      }
      return;
    }
    case 'run.electrode-reading-struck':
      strike(draft, fact);
      return;
    case 'run.temperature-taken': {
      const flask = draft.flasks.get(fact.body.flask);
      const { temperatureC } = fact.body;
      if (flask)
        flask.temperatures = [...flask.temperatures, { ...provenance(fact), temperatureC }];
      return;
    }
    case 'run.flask-photographed': {
      const { flask: number, ...file } = fact.body;
      const flask = draft.flasks.get(number);
      if (flask) flask.photographs = [...flask.photographs, file];
      return;
    }
    case 'run.reading-confirmed': {
      const { confirms } = fact.body;
      const earlier = draft.confirmed.get(confirms) ?? [];
      if (draft.readings.has(confirms))
        draft.confirmed.set(confirms, [...earlier, provenance(fact)]);
      return;
    }
    case 'run.paused':
      draft.pauses = [...draft.pauses, { ...provenance(fact), ...fact.body, resumed: null }];
      return;
    case 'run.resumed':
      resume(draft, fact);
      return;
    case 'run.end-point-graded': {
      const flask = draft.flasks.get(fact.body.flask);
      if (flask) flask.grade = { ...provenance(fact), grade: fact.body.grade };
      return;
    }
    case 'run.end-point-taken-back':
      takeBack(draft, fact);
      return;
    case 'run.burette-checked':
      draft.buretteChecked = [...draft.buretteChecked, { ...provenance(fact), ...fact.body }];
      return;
    case 'run.incident-noted': {
      const flask = draft.flasks.get(fact.body.flask);
      if (flask) flask.incidents = [...flask.incidents, { ...provenance(fact), ...fact.body }];
      return;
    }
    case 'run.weighing-corrected': {
      const { corrects, weighing } = fact.body;
      correctPortion(draft, corrects, { kind: 'mass', weighing }, fact);
      return;
    }
    case 'run.volume-corrected': {
      const { corrects, volumeMl } = fact.body;
      correctPortion(draft, corrects, { kind: 'volume', volumeMl }, fact);
      return;
    }
    case 'run.reading-corrected':
      correct(draft.readings, fact.body.corrects, fact.body.readingMl, fact);
      return;
    case 'run.conflict-settled':
      settle(draft, fact);
      return;
    case 'run.flask-voided': {
      const flask = draft.flasks.get(fact.body.flask);
      if (flask) flask.voided ??= { ...provenance(fact), reason: fact.body.reason };
      return;
    }
    case 'run.abandoned':
      draft.status = 'abandoned';
      draft.closed = { ...provenance(fact), reason: fact.body.reason };
      return;
    case 'run.certified':
      draft.status = 'certified';
      draft.certificate = fact.body.certificate;
      draft.closed = { ...provenance(fact), reason: null };
      return;
  }
}

function applyPortion(
  draft: Draft,
  fact: RunFact,
  number: number,
  portion: Portion,
  reason: string | null,
): void {
  draft.portions.set(fact.id, newEntry(fact, portion, reason));
  const known = draft.flasks.get(number);
  if (known) {
    const standing = entryOf(draft.portions, known.portion).value;
    if (standing.kind !== portion.kind || portionAmount(standing) !== portionAmount(portion)) {
      rivalsAt(known, 'portion').push(fact.id);
    }
    return;
  }
  draft.flasks.set(number, {
    portion: fact.id,
    readings: new Map(),
    provisional: [],
    electrode: [],
    photographs: [],
    temperatures: [],
    grade: null,
    rivals: new Map(),
    incidents: [],
    voided: null,
  });
}

function rivalsAt({ rivals }: FlaskDraft, place: Place): string[] {
  const known = rivals.get(place);
  if (known) return known;
  const fresh: string[] = [];
  rivals.set(place, fresh);
  return fresh;
}

function applyReading(
  draft: Draft,
  fact: Extract<RunFact, { kind: 'run.burette-read' | 'run.burette-refilled' }>,
  place: ReadingPlace,
  carriedFrom: string | null,
): void {
  const { flask: number, readingMl, reason } = fact.body;
  const flask = draft.flasks.get(number);
  if (!flask) return;
  const standing = flask.readings.get(place);
  if (standing) {
    draft.readings.set(fact.id, newEntry(fact, readingMl, reason));
    const known = entryOf(draft.readings, standing.factId).value;
    if (Number(known) !== Number(readingMl)) rivalsAt(flask, place).push(fact.id);
    return;
  }
  const source = carriedFrom !== null && draft.readings.has(carriedFrom) ? carriedFrom : null;
  if (source === null) draft.readings.set(fact.id, newEntry(fact, readingMl, reason));
  const factId = source ?? fact.id;
  if (place === 'initial') draft.titrationOrder.push(number);
  // What was not carried over was read after a filling.
  if (source === null && beginsFilling(place)) draft.fillings.push(factId);
  const carriedFromFlask = source === null ? null : flaskEndingWith(draft, source);
  flask.readings.set(place, { factId, carriedFromFlask });
  draft.lastRead = { factId, flask: number };
}

function flaskEndingWith({ flasks }: Draft, factId: string): number | null {
  for (const [number, { readings }] of flasks) {
    if (readings.get('final')?.factId === factId) return number;
  }
  return null;
}

/** The reading that must be there before one of a refill makes sense. */
function placeBefore(moment: RefillMoment, refill: number): ReadingPlace {
  if (moment === 'restart') return refillPlace('stop', refill);
  return refill === 1 ? 'initial' : refillPlace('restart', refill - 1);
}

function beginsFilling(place: ReadingPlace): boolean {
  return place === 'initial' || place.startsWith('restart');
}

/** An end point that was none becomes a provisional reading, and what rivalled it does too. */
function takeBack(
  draft: Draft,
  fact: Extract<RunFact, { kind: 'run.end-point-taken-back' }>,
): void {
  const flask = draft.flasks.get(fact.body.flask);
  const final = flask?.readings.get('final');
  if (!flask || !final) return;
  for (const factId of [final.factId, ...(flask.rivals.get('final') ?? [])]) {
    const entry = entryOf(draft.readings, factId);
    draft.readings.set(factId, { ...entry, reason: fact.body.reason });
    flask.provisional.push(factId);
  }
  flask.readings.delete('final');
  flask.rivals.delete('final');
  flask.grade = null;
}

/** A point of a curve that does not count stays to be read, with why. */
function strike(
  draft: Draft,
  fact: Extract<RunFact, { kind: 'run.electrode-reading-struck' }>,
): void {
  const { strikes, reason } = fact.body;
  for (const flask of draft.flasks.values()) {
    flask.electrode = flask.electrode.map((read) =>
      read.factId === strikes && !read.struck
        ? { ...read, struck: { ...provenance(fact), reason } }
        : read,
    );
  }
}

/** Going on after a pause: a burette that no flask stands under has been emptied, so its level is read anew. */
function resume(draft: Draft, fact: RunFact): void {
  const last = draft.pauses.at(-1);
  if (!last || last.resumed) return;
  draft.pauses = [...draft.pauses.slice(0, -1), { ...last, resumed: provenance(fact) }];
  const isBusy = [...draft.flasks.values()].some(
    ({ readings, voided }) => readings.has('initial') && !readings.has('final') && !voided,
  );
  if (!isBusy) draft.lastRead = null;
}

function newEntry<T>(fact: Fact, value: T, reason: string | null): Entry<T> {
  return { ...provenance(fact), value, reason, superseded: [] };
}

/** A mass is corrected by a mass, a volume by a volume. */
function correctPortion(
  draft: Draft,
  target: string,
  portion: Portion,
  fact: Fact<string, { readonly reason: string }>,
): void {
  if (draft.portions.get(target)?.value.kind !== portion.kind) return;
  correct(draft.portions, target, portion, fact);
}

function correct<T>(
  entries: Map<string, Entry<T>>,
  target: string,
  value: T,
  fact: Fact<string, { readonly reason: string }>,
): void {
  const entry = entries.get(target);
  if (!entry) return;
  const { by, at } = provenance(fact);
  const superseded = [
    ...entry.superseded,
    { value: entry.value, reason: fact.body.reason, by, at },
  ];
  entries.set(target, { ...entry, value, superseded });
}

/** Lets one of two different entries for a place stand; what is given up is told with the entry that stands. */
function settle(draft: Draft, fact: Extract<RunFact, { kind: 'run.conflict-settled' }>): void {
  for (const flask of draft.flasks.values()) {
    settlePlace(draft.portions, flask, 'portion', flask.portion, fact, (kept) => {
      flask.portion = kept;
    });
    for (const [place, { factId }] of flask.readings) {
      settlePlace(draft.readings, flask, place, factId, fact, (kept) => {
        replaceReading(draft, flask, place, factId, kept);
      });
    }
  }
}

/** Ends the conflict over one place, if it is about that place. */
function settlePlace<T>(
  entries: Map<string, Entry<T>>,
  flask: FlaskDraft,
  place: Place,
  standing: string,
  fact: Extract<RunFact, { kind: 'run.conflict-settled' }>,
  replace: (kept: string) => void,
): void {
  const { keeps, reason } = fact.body;
  const rivals = flask.rivals.get(place) ?? [];
  if (rivals.length === 0 || (keeps !== standing && !rivals.includes(keeps))) return;
  const { by, at } = provenance(fact);
  const kept = entryOf(entries, keeps);
  const givenUp = [standing, ...rivals].filter((factId) => factId !== keeps);
  // What a value had taken the place of before goes with it, so that every value stays to be read.
  const superseded = givenUp.flatMap((factId) => {
    const { value, superseded: earlier } = entryOf(entries, factId);
    return [...earlier, { value, reason, by, at }];
  });
  entries.set(keeps, { ...kept, superseded: [...kept.superseded, ...superseded] });
  flask.rivals.delete(place);
  if (keeps !== standing) replace(keeps);
}

/** A reading gives way; a final one for the flask that carried it over too: it is one level of the burette. */
function replaceReading(
  draft: Draft,
  flask: FlaskDraft,
  place: ReadingPlace,
  given: string,
  kept: string,
): void {
  flask.readings.set(place, { factId: kept, carriedFromFlask: null });
  if (draft.lastRead?.factId === given) draft.lastRead = { ...draft.lastRead, factId: kept };
  if (beginsFilling(place)) {
    draft.fillings = [...draft.fillings.filter((factId) => factId !== given), kept];
  }
  if (place !== 'final') return;
  for (const { readings } of draft.flasks.values()) {
    const initial = readings.get('initial');
    if (initial?.factId === given) readings.set('initial', { ...initial, factId: kept });
  }
}

function finish(
  draft: Draft,
  id: string,
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
    setUp,
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

function entryOf<K, V>(entries: ReadonlyMap<K, V>, key: K): V {
  const entry = entries.get(key);
  if (entry === undefined) throw new RangeError(`the run has no entry ${String(key)}`);
  return entry;
}
