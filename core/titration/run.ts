import type { Method } from '../chemistry';
import type { DecimalText } from '../measurement';
import { subtractDecimals } from '../measurement';
import type { Balance, Burette, Weighing } from '../metrology';
import { netMassG } from '../metrology';
import type { BottleState, LotState } from '../reagent';
import type { Provenance } from '../record';
import { provenance } from '../record';
import type { Certificate } from './certificate';
import type { Moment, Observation, RunFact, RunFactBodies, RunSetUp } from './facts';
import { isObservation } from './facts';

/** The records that a run rests on, each at the version that its set-up names. */
export interface RunReferences {
  readonly method: Method;
  readonly bottle: BottleState;
  readonly lot: LotState;
  readonly balance: Balance;
  readonly burette: Burette;
}

/** An entry as it stands, with what it was before each correction. */
export interface Entry<T> extends Provenance {
  readonly value: T;
  /** The reason given for an unlikely value. */
  readonly reason: string | null;
  /** Oldest first. `reason` is why the value was given up, `by` and `at` tell who corrected it and when. */
  readonly superseded: readonly {
    readonly value: T;
    readonly reason: string;
    readonly by: string;
    readonly at: string;
  }[];
}

/** A reading of the burette. A carried-over reading is the same entry as the final one before it. */
export interface Reading extends Entry<DecimalText> {
  /** The flask whose final reading this was, for a carried-over initial reading. */
  readonly carriedFromFlask: number | null;
}

/** A place of a flask that takes one entry. */
export type Place = 'weighing' | Moment;

/** One flask of a run, in the order of numbering. */
export interface Flask {
  readonly number: number;
  readonly isRough: boolean;
  readonly weighing: Entry<Weighing>;
  readonly initial: Reading | null;
  readonly final: Reading | null;
  /** Other values for a place that has one, entered without knowing of it; they wait to be settled. */
  readonly rivals: {
    readonly weighing: readonly Entry<Weighing>[];
    readonly initial: readonly Entry<DecimalText>[];
    readonly final: readonly Entry<DecimalText>[];
  };
  /** What happened to it, in the order of noting. */
  readonly incidents: readonly (Provenance & RunFactBodies['run.incident-noted'])[];
  readonly voided: (Provenance & { readonly reason: string }) | null;
}

/** A run as its facts tell it. */
export interface RunState {
  readonly id: string;
  /** How many facts the record has, those that wait to be acknowledged included. */
  readonly version: number;
  /** How many of them the server has. */
  readonly storedVersion: number;
  readonly status: 'open' | 'certified' | 'abandoned';
  readonly started: Provenance;
  readonly setUp: RunSetUp;
  readonly references: RunReferences;
  readonly flasks: readonly Flask[];
  /** The last reading taken of the burette, and the flask it belongs to. */
  readonly level: { readonly readingMl: DecimalText; readonly flask: number } | null;
  /** First readings after a filling of the burette, in mL; each filling took the rest from the bottle. */
  readonly fillings: readonly DecimalText[];
  /** Every look at the burette, oldest first. */
  readonly buretteChecked: readonly (Provenance & RunFactBodies['run.burette-checked'])[];
  readonly certificate: Certificate | null;
  readonly closed: (Provenance & { readonly reason: string | null }) | null;
  /** Observations that arrived after the run was closed: on record, in no figure. */
  readonly late: readonly Observation[];
}

/** Working state of the fold: entries by fact, flasks by number. */
interface Draft {
  storedVersion: number;
  weighings: Map<string, Entry<Weighing>>;
  readings: Map<string, Entry<DecimalText>>;
  flasks: Map<number, FlaskDraft>;
  titrationOrder: number[];
  lastRead: { factId: string; flask: number } | null;
  fillings: string[];
  buretteChecked: RunState['buretteChecked'];
  version: number;
  status: RunState['status'];
  certificate: Certificate | null;
  closed: RunState['closed'];
  late: Observation[];
}

interface FlaskDraft {
  weighing: string;
  initial: { factId: string; carriedFromFlask: number | null } | null;
  final: string | null;
  rivals: Record<Place, string[]>;
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
    weighings: new Map(),
    readings: new Map(),
    flasks: new Map(),
    titrationOrder: [],
    lastRead: null,
    fillings: [],
    buretteChecked: [],
    version: unique.length,
    storedVersion: unique.filter((fact) => fact.sequence !== null).length,
    status: 'open',
    certificate: null,
    closed: null,
    late: [],
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
      const { flask: number, weighing, reason } = fact.body;
      draft.weighings.set(fact.id, newEntry(fact, weighing, reason));
      const known = draft.flasks.get(number);
      if (known) {
        const standing = entryOf(draft.weighings, known.weighing).value;
        if (netMassG(standing) !== netMassG(weighing)) known.rivals.weighing.push(fact.id);
        return;
      }
      draft.flasks.set(number, {
        weighing: fact.id,
        initial: null,
        final: null,
        rivals: { weighing: [], initial: [], final: [] },
        incidents: [],
        voided: null,
      });
      return;
    }
    case 'run.burette-read':
      applyReading(draft, fact);
      return;
    case 'run.burette-checked':
      draft.buretteChecked = [...draft.buretteChecked, { ...provenance(fact), ...fact.body }];
      return;
    case 'run.incident-noted': {
      const flask = draft.flasks.get(fact.body.flask);
      if (flask) flask.incidents = [...flask.incidents, { ...provenance(fact), ...fact.body }];
      return;
    }
    case 'run.weighing-corrected':
      correct(draft.weighings, fact.body.corrects, fact.body.weighing, fact);
      return;
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

function applyReading(draft: Draft, fact: Extract<RunFact, { kind: 'run.burette-read' }>): void {
  const { flask: number, moment, readingMl, carriedFrom, reason } = fact.body;
  const flask = draft.flasks.get(number);
  if (!flask) return;
  const standing = moment === 'final' ? flask.final : (flask.initial?.factId ?? null);
  if (standing !== null) {
    draft.readings.set(fact.id, newEntry(fact, readingMl, reason));
    const known = entryOf(draft.readings, standing).value;
    if (Number(known) !== Number(readingMl)) flask.rivals[moment].push(fact.id);
    return;
  }
  if (moment === 'final') {
    draft.readings.set(fact.id, newEntry(fact, readingMl, reason));
    flask.final = fact.id;
    draft.lastRead = { factId: fact.id, flask: number };
    return;
  }
  draft.titrationOrder.push(number);
  const source = carriedFrom !== null && draft.readings.has(carriedFrom) ? carriedFrom : null;
  if (source === null) {
    draft.readings.set(fact.id, newEntry(fact, readingMl, reason));
    draft.fillings.push(fact.id);
  }
  const carriedFromFlask =
    [...draft.flasks].find(([, other]) => source !== null && other.final === source)?.[0] ?? null;
  flask.initial = { factId: source ?? fact.id, carriedFromFlask };
  draft.lastRead = { factId: source ?? fact.id, flask: number };
}

function newEntry<T>(fact: RunFact, value: T, reason: string | null): Entry<T> {
  return { ...provenance(fact), value, reason, superseded: [] };
}

function correct<T>(
  entries: Map<string, Entry<T>>,
  target: string,
  value: T,
  fact: Extract<RunFact, { kind: 'run.weighing-corrected' | 'run.reading-corrected' }>,
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
    settlePlace(draft.weighings, flask, 'weighing', flask.weighing, fact, (kept) => {
      flask.weighing = kept;
    });
    settlePlace(draft.readings, flask, 'final', flask.final, fact, (kept) => {
      replaceFinal(draft, flask, kept);
    });
    settlePlace(draft.readings, flask, 'initial', flask.initial?.factId ?? null, fact, (kept) => {
      const given = flask.initial?.factId;
      draft.fillings = [...draft.fillings.filter((factId) => factId !== given), kept];
      readAnew(draft, given, kept);
      flask.initial = { factId: kept, carriedFromFlask: null };
    });
  }
}

/** Ends the conflict over one place, if it is about that place. */
function settlePlace<T>(
  entries: Map<string, Entry<T>>,
  flask: FlaskDraft,
  place: Place,
  standing: string | null,
  fact: Extract<RunFact, { kind: 'run.conflict-settled' }>,
  replace: (kept: string) => void,
): void {
  const { keeps, reason } = fact.body;
  const rivals = flask.rivals[place];
  if (standing === null || (keeps !== standing && !rivals.includes(keeps))) return;
  if (rivals.length === 0) return;
  const { by, at } = provenance(fact);
  const kept = entryOf(entries, keeps);
  const givenUp = [standing, ...rivals].filter((factId) => factId !== keeps);
  // What a value had taken the place of before goes with it, so that every value stays to be read.
  const superseded = givenUp.flatMap((factId) => {
    const { value, superseded: earlier } = entryOf(entries, factId);
    return [...earlier, { value, reason, by, at }];
  });
  entries.set(keeps, { ...kept, superseded: [...kept.superseded, ...superseded] });
  flask.rivals[place] = [];
  if (keeps !== standing) replace(keeps);
}

/** A final reading gives way, for the flask that carried it over too: it is one level of the burette. */
function replaceFinal(draft: Draft, flask: FlaskDraft, kept: string): void {
  const given = flask.final;
  flask.final = kept;
  for (const other of draft.flasks.values()) {
    if (other.initial?.factId === given && other.initial.carriedFromFlask !== null) {
      other.initial = { ...other.initial, factId: kept };
    }
  }
  readAnew(draft, given, kept);
}

/** Where the burette stood by a reading that gave way, it stands by the one that was kept. */
function readAnew(draft: Draft, given: string | null | undefined, kept: string): void {
  if (draft.lastRead && draft.lastRead.factId === given) {
    draft.lastRead = { flask: draft.lastRead.flask, factId: kept };
  }
}

function finish(
  draft: Draft,
  id: string,
  started: Provenance,
  setUp: RunSetUp,
  references: RunReferences,
): RunState {
  const reading = (factId: string, carriedFromFlask: number | null): Reading => ({
    ...entryOf(draft.readings, factId),
    carriedFromFlask,
  });
  const numbers = [...draft.flasks.keys()].toSorted((a, b) => a - b);
  const roughFlask = setUp.rules.firstIsRough ? firstTitrated(draft, numbers) : null;
  const flasks = numbers.map((number): Flask => {
    const flask = entryOf(draft.flasks, number);
    return {
      number,
      isRough: number === roughFlask,
      weighing: entryOf(draft.weighings, flask.weighing),
      initial: flask.initial && reading(flask.initial.factId, flask.initial.carriedFromFlask),
      final: flask.final === null ? null : reading(flask.final, null),
      rivals: {
        weighing: flask.rivals.weighing.map((factId) => entryOf(draft.weighings, factId)),
        initial: flask.rivals.initial.map((factId) => entryOf(draft.readings, factId)),
        final: flask.rivals.final.map((factId) => entryOf(draft.readings, factId)),
      },
      incidents: flask.incidents,
      voided: flask.voided,
    };
  });
  const valueOf = (factId: string): DecimalText => entryOf(draft.readings, factId).value;
  return {
    id,
    version: draft.version,
    storedVersion: draft.storedVersion,
    status: draft.status,
    started,
    setUp,
    references,
    flasks,
    level: draft.lastRead && {
      readingMl: valueOf(draft.lastRead.factId),
      flask: draft.lastRead.flask,
    },
    fillings: draft.fillings.map(valueOf),
    buretteChecked: draft.buretteChecked,
    certificate: draft.certificate,
    closed: draft.closed,
    late: draft.late,
  };
}

/** The flask titrated first; before any is, the lowest number that is not void. */
function firstTitrated(draft: Draft, numbers: readonly number[]): number | null {
  return (
    draft.titrationOrder[0] ??
    numbers.find((number) => entryOf(draft.flasks, number).voided === null) ??
    null
  );
}

function entryOf<K, V>(entries: ReadonlyMap<K, V>, key: K): V {
  const entry = entries.get(key);
  if (entry === undefined) throw new RangeError(`the run has no entry ${String(key)}`);
  return entry;
}

/**
 * Titre of a flask, final minus initial, exact in its decimals, in mL; null until both are read, and where they
 * contradict each other: two devices may have entered what neither would have alone.
 */
export function titreMl(flask: Pick<Flask, Moment>): DecimalText | null {
  if (!flask.initial || !flask.final) return null;
  if (Number(flask.final.value) <= Number(flask.initial.value)) return null;
  return subtractDecimals(flask.final.value, flask.initial.value);
}

/** The flask under the burette: its initial reading is taken, its final one is not. */
export function flaskUnderBurette(run: RunState): Flask | null {
  return run.flasks.find((flask) => flask.initial && !flask.final && !flask.voided) ?? null;
}

/** The final reading at which the burette still stands, so that it can serve as the next initial one. */
export function readingToCarryOver(run: RunState): Reading | null {
  return run.flasks.find((flask) => flask.number === run.level?.flask)?.final ?? null;
}

/**
 * Titrant taken from the bottle by the run, in mL: the rinses before the first filling, and for each filling the
 * burette from its first reading to its last mark. What stays in the burette is discarded, not poured back.
 */
export function titrantTakenMl(run: RunState): number {
  if (run.fillings.length === 0) return 0;
  const capacity = Number(run.references.burette.capacityMl);
  const rinses = run.setUp.rules.rinses * Number(run.setUp.rules.rinseMl);
  return run.fillings.reduce((total, first) => total + capacity - Number(first), rinses);
}

/** A place for which two devices entered different values. */
export interface Conflict {
  readonly flask: number;
  readonly place: Place;
}

/** The conflicts of a run that wait to be settled; a void flask has none. */
export function openConflicts(run: RunState): readonly Conflict[] {
  return run.flasks
    .filter((flask) => !flask.voided)
    .flatMap(({ number, rivals }) =>
      (['weighing', 'initial', 'final'] as const)
        .filter((place) => rivals[place].length > 0)
        .map((place) => ({ flask: number, place })),
    );
}

const PLACE_NAMES = {
  weighing: 'mass',
  initial: 'initial reading',
  final: 'final reading',
} as const;

/** What a place of a flask is called. */
export function placeName(place: Place): string {
  return PLACE_NAMES[place];
}
