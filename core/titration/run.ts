import type { Method } from '../chemistry';
import type { DecimalText } from '../measurement';
import { subtractDecimals } from '../measurement';
import type { Balance, Burette } from '../metrology';
import type { BottleState, LotState } from '../reagent';
import type { Provenance } from '../record';
import { provenance } from '../record';
import type { Certificate } from './certificate';
import type { Moment, RunFact, RunSetUp, Weighing } from './facts';

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

/** One flask of a run, in the order of numbering. */
export interface Flask {
  readonly number: number;
  readonly isRough: boolean;
  readonly weighing: Entry<Weighing>;
  readonly initial: Reading | null;
  readonly final: Reading | null;
  readonly voided: (Provenance & { readonly reason: string }) | null;
}

/** A run as its facts tell it. */
export interface RunState {
  readonly id: string;
  readonly version: number;
  readonly status: 'open' | 'certified' | 'abandoned';
  readonly started: Provenance;
  readonly setUp: RunSetUp;
  readonly references: RunReferences;
  readonly flasks: readonly Flask[];
  /** The last reading taken of the burette, and the flask it belongs to. */
  readonly level: { readonly readingMl: DecimalText; readonly flask: number } | null;
  /** First readings after a filling of the burette, in mL; each filling took the rest from the bottle. */
  readonly fillings: readonly DecimalText[];
  readonly certificate: Certificate | null;
  readonly closed: (Provenance & { readonly reason: string | null }) | null;
}

/** Working state of the fold: entries by fact, flasks by number. */
interface Draft {
  weighings: Map<string, Entry<Weighing>>;
  readings: Map<string, Entry<DecimalText>>;
  flasks: Map<number, FlaskDraft>;
  titrationOrder: number[];
  lastRead: { factId: string; flask: number } | null;
  fillings: string[];
  version: number;
  status: RunState['status'];
  certificate: Certificate | null;
  closed: RunState['closed'];
}

interface FlaskDraft {
  weighing: string;
  initial: { factId: string; carriedFromFlask: number | null } | null;
  final: string | null;
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
    version: unique.length,
    status: 'open',
    certificate: null,
    closed: null,
  };
  for (const fact of unique) apply(draft, fact);
  return finish(draft, start.recordId, provenance(start), start.body, references);
}

function apply(draft: Draft, fact: RunFact): void {
  switch (fact.kind) {
    case 'run.started':
      return;
    case 'run.flask-weighed':
      if (draft.flasks.has(fact.body.flask)) return;
      draft.weighings.set(fact.id, newEntry(fact, fact.body.weighing, fact.body.reason));
      draft.flasks.set(fact.body.flask, {
        weighing: fact.id,
        initial: null,
        final: null,
        voided: null,
      });
      return;
    case 'run.burette-read':
      applyReading(draft, fact);
      return;
    case 'run.weighing-corrected':
      correct(draft.weighings, fact.body.corrects, fact.body.weighing, fact);
      return;
    case 'run.reading-corrected':
      correct(draft.readings, fact.body.corrects, fact.body.readingMl, fact);
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
  if (flask?.[moment] !== null) return;
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
      voided: flask.voided,
    };
  });
  const valueOf = (factId: string): DecimalText => entryOf(draft.readings, factId).value;
  return {
    id,
    version: draft.version,
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
    certificate: draft.certificate,
    closed: draft.closed,
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

/** Net mass of a weighing, exact in its decimals, in g. */
export function netMassG(weighing: Weighing): DecimalText {
  return weighing.mode === 'tared'
    ? weighing.massG
    : subtractDecimals(weighing.beforeG, weighing.afterG);
}

/** Titre of a flask, final minus initial, exact in its decimals, in mL; null until both are read. */
export function titreMl(flask: Pick<Flask, Moment>): DecimalText | null {
  if (!flask.initial || !flask.final) return null;
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
