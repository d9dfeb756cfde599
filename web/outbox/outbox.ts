import type { DBSchema, IDBPDatabase } from 'idb';
import { openDB } from 'idb';
import { isObservation, isReadable, restsOn, upcast } from '#core/ledger';
import type { Fact } from '#core/record';
import type { RunFact } from '#core/titration/record';
import type { ProblemCode, ProposedFact } from '#contract';
import { factSchema } from '#contract';
import { ask, ProblemError } from '../app/api';

/** A fact that the server has not taken yet, as it lies in the database of this device. */
interface Kept {
  readonly fact: ProposedFact;
  /** What the server said against it; null while it is on its way. */
  readonly refusal: string | null;
  /** The code of that; what an earlier version of the program kept has none. */
  readonly code?: ProblemCode;
}

/** A fact at which the server failed, by no fault of the fact that it could name. */
interface Failure {
  readonly times: number;
  /** By which the server's log tells of the last time. */
  readonly requestId: string;
}

/** A fact on its way to the server. */
export interface Waiting extends Kept {
  /** It rests on one that was refused or that the server fails at, and is not sent before that one. */
  readonly isHeld: boolean;
  /** Null while the server has not failed at it. */
  readonly failure: Failure | null;
}

interface OutboxSchema extends DBSchema {
  waiting: { key: number; value: Kept };
}

/** Answers that say nothing against the fact: it waits for its author's session, or for a quieter minute. */
const NOT_ABOUT_THE_FACT: ReadonlySet<ProblemCode> = new Set<ProblemCode>([
  'not-signed-in',
  'wrong-origin',
  'wrong-author',
  'too-many-requests',
  'other-version',
]);

const NAME = 'vine-measure.outbox';
const FIRST_RETRY_MS = 1_000;
const LONGEST_RETRY_MS = 15_000;

/**
 * Facts that this device has written down and the server has not acknowledged. They lie in IndexedDB, so that they
 * outlive the page, and are sent in the order of entry, each under the session of its author only.
 */
export class Outbox {
  readonly #database: Promise<IDBPDatabase<OutboxSchema>>;
  readonly #otherTabs = new BroadcastChannel(NAME);
  readonly #kept: (fact: Fact) => void;
  readonly #sessionEnded: () => void;
  #entries: ReadonlyMap<number, Kept> = new Map();
  #snapshot: readonly Waiting[] = [];
  /** By the key of the entry; forgotten with the page, which tries them all again. */
  #failures: ReadonlyMap<number, Failure> = new Map();
  #listeners = new Set<() => void>();
  #author: string | null = null;
  #isSending = false;
  /** Somebody asked to send while something was being sent. */
  #isMore = false;
  #retryMs = FIRST_RETRY_MS;
  #timer: ReturnType<typeof setTimeout> | undefined;

  /**
   * @param kept is told of each fact that the server has acknowledged
   * @param sessionEnded is told when the server wants another session first
   */
  constructor(kept: (fact: Fact) => void, sessionEnded: () => void) {
    this.#kept = kept;
    this.#sessionEnded = sessionEnded;
    this.#database = openDB<OutboxSchema>('vine-measure', 1, {
      upgrade: (database) => {
        database.createObjectStore('waiting', { autoIncrement: true });
      },
    });
  }

  /** Reads what an earlier page left, and sends whenever the network returns. */
  async open(): Promise<void> {
    await this.#read();
    this.#otherTabs.onmessage = () => {
      // The other tab sends it; should it be gone by then, this one does.
      void this.#read();
      this.#soon(this.#retryMs);
    };
    window.addEventListener('online', this.tryNow);
    void this.#send();
  }

  /** The server may be back: tries at once instead of waiting for its turn. */
  readonly tryNow = (): void => {
    this.#retryMs = FIRST_RETRY_MS;
    this.#soon(0);
  };

  /** Takes over what the database of this device holds: other tabs write to it too. */
  async #read(): Promise<void> {
    const { store } = (await this.#database).transaction('waiting');
    const [keys, values] = await Promise.all([store.getAllKeys(), store.getAll()]);
    this.#replace(
      new Map(
        values.flatMap((value, i) =>
          keys[i] === undefined ? [] : [[keys[i], inTodaysShape(value)]],
        ),
      ),
    );
  }

  /** Sends from now on what this person has entered; what others entered waits for them. */
  signIn(personId: string | null): void {
    this.#author = personId;
    this.#soon(0);
  }

  /** Writes a fact down on this device; it is safe when the promise settles, and sent as soon as possible. */
  async keep(fact: ProposedFact): Promise<void> {
    const entry: Kept = { fact, refusal: null };
    const database = await this.#database;
    const transaction = database.transaction('waiting', 'readwrite', { durability: 'strict' });
    const key = await transaction.store.add(entry);
    await transaction.done;
    this.#replace(new Map([...this.#entries, [key, entry]]));
    this.#otherTabs.postMessage(null);
    this.#soon(0);
  }

  /** Gives up a refused fact: the analyst has read why. */
  async discard(factId: string): Promise<void> {
    for (const [key, { fact, refusal }] of this.#entries) {
      if (fact.id === factId && refusal !== null) await this.#remove(key);
    }
    this.#soon(0);
  }

  /** Sends another fact in the place of a refused one; what rests on that one's record then rests on this. */
  async replace(factId: string, fact: ProposedFact): Promise<void> {
    const found = [...this.#entries].find(([, entry]) => entry.fact.id === factId);
    if (typeof found?.[1].refusal !== 'string') return;
    const entry: Kept = { fact, refusal: null };
    await (await this.#database).put('waiting', entry, found[0]);
    this.#otherTabs.postMessage(null);
    this.#replace(new Map([...this.#entries, [found[0], entry]]));
    this.#soon(0);
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  };

  readonly snapshot = (): readonly Waiting[] => this.#snapshot;

  #replace(entries: ReadonlyMap<number, Kept>): void {
    this.#entries = entries;
    this.#snapshot = markHeld(
      [...entries].map(([key, entry]) => ({ ...entry, failure: this.#failures.get(key) ?? null })),
    );
    for (const listener of this.#listeners) listener();
  }

  async #remove(key: number): Promise<void> {
    await (await this.#database).delete('waiting', key);
    this.#otherTabs.postMessage(null);
    this.#replace(new Map([...this.#entries].filter(([other]) => other !== key)));
  }

  #soon(delayMs: number): void {
    clearTimeout(this.#timer);
    this.#timer = setTimeout(() => void this.#send(), delayMs);
  }

  async #send(): Promise<void> {
    if (this.#isSending) {
      this.#isMore = true;
      return;
    }
    this.#isSending = true;
    try {
      // One tab at a time sends, so that the order of entry is kept; what another has sent is gone by then.
      const failed = await navigator.locks.request(NAME, () => this.#sendAll());
      if (failed === 0) this.#retryMs = FIRST_RETRY_MS;
      else this.#later();
    } catch {
      // The server is away, or the session is: wait, then try the same fact again.
      this.#later();
    } finally {
      this.#isSending = false;
      if (this.#isMore) this.#soon(0);
      this.#isMore = false;
    }
  }

  /** Tries again after a while, each time a longer one. */
  #later(): void {
    this.#soon(this.#retryMs);
    this.#retryMs = Math.min(2 * this.#retryMs, LONGEST_RETRY_MS);
  }

  /** Sends what can be sent, each fact once; gives the number of those at which the server failed. */
  async #sendAll(): Promise<number> {
    await this.#read();
    const failed = new Set<string>();
    for (;;) {
      const next = this.#snapshot.find(
        ({ fact, refusal, isHeld }) =>
          refusal === null && !isHeld && fact.authorId === this.#author && !failed.has(fact.id),
      );
      const entry = [...this.#entries].find(([, { fact }]) => fact.id === next?.fact.id);
      if (!entry) return failed.size;
      if ((await this.#sendOne(...entry)) === 'failed') failed.add(entry[1].fact.id);
    }
  }

  async #sendOne(key: number, entry: Kept): Promise<'settled' | 'failed'> {
    try {
      this.#kept(await ask(factSchema, 'POST', '/facts', entry.fact));
      await this.#remove(key);
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      const { code, requestId } = error.problem;
      if (NOT_ABOUT_THE_FACT.has(code)) {
        this.#sessionEnded();
        throw error;
      }
      if (code === 'internal') {
        const times = (this.#failures.get(key)?.times ?? 0) + 1;
        this.#failures = new Map([...this.#failures, [key, { times, requestId }]]);
        this.#replace(this.#entries);
        return 'failed';
      }
      const refused: Kept = { ...entry, refusal: error.message, code };
      await (await this.#database).put('waiting', refused, key);
      this.#otherTabs.postMessage(null);
      this.#replace(new Map([...this.#entries, [key, refused]]));
    }
    return 'settled';
  }
}

/** An entry that an older version of the program wrote down, as this one would; as it is when it cannot be read. */
function inTodaysShape(entry: Kept): Kept {
  try {
    const { schemaVersion, body } = upcast(asFact(entry.fact));
    // The shape of today for this kind, by construction of the upcasts.
    return { ...entry, fact: { ...entry.fact, schemaVersion, body } as ProposedFact };
  } catch {
    return entry;
  }
}

/**
 * Marks what rests on a fact that is held up, directly or through another that is held. In the order of entry. A decision
 * names the version that it met, so it waits for any fact of its record that is still to get through.
 */
function markHeld(entries: readonly Omit<Waiting, 'isHeld'>[]): readonly Waiting[] {
  const back: ProposedFact[] = [];
  const delayed = new Set<string>();
  return entries.map((entry) => {
    const { fact, refusal, failure } = entry;
    const isHeld =
      refusal === null &&
      (back.some((earlier) => restsOn(fact, earlier)) ||
        (delayed.has(fact.recordId) && isReadable(fact) && !isObservation(fact.kind)));
    if (refusal !== null || failure !== null || isHeld) back.push(fact);
    if (failure !== null) delayed.add(fact.recordId);
    return { ...entry, isHeld };
  });
}

/** A fact that waits to be acknowledged, as core takes it. */
export function asFact(fact: ProposedFact): Fact {
  return { ...fact, sequence: null, recordedAt: null };
}

/** A waiting fact of a run, as core takes it. */
export function asRunFact(fact: ProposedFact): RunFact {
  return asFact(fact) as RunFact;
}
