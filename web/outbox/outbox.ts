import type { DBSchema, IDBPDatabase } from 'idb';
import { openDB } from 'idb';
import type { Fact } from '#core/record';
import type { RunFact } from '#core/titration';
import { restsOn } from '#core/titration';
import type { ProblemCode, ProposedFact } from '#contract';
import { ask, ProblemError } from '../app/api';

/** A fact that the server has not taken yet, as it lies in the database of this device. */
interface Kept {
  readonly fact: ProposedFact;
  /** What the server said against it; null while it is on its way. */
  readonly refusal: string | null;
}

/** A fact on its way to the server. */
export interface Waiting extends Kept {
  /** It rests on one that was refused, and is not sent before that one has been read. */
  readonly isHeld: boolean;
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
      new Map(values.flatMap((value, i) => (keys[i] === undefined ? [] : [[keys[i], value]]))),
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

  readonly subscribe = (listener: () => void): (() => void) => {
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  };

  readonly snapshot = (): readonly Waiting[] => this.#snapshot;

  #replace(entries: ReadonlyMap<number, Kept>): void {
    this.#entries = entries;
    this.#snapshot = markHeld([...entries.values()]);
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
      await navigator.locks.request(NAME, () => this.#sendAll());
      this.#retryMs = FIRST_RETRY_MS;
    } catch {
      // The server is away, or the session is: wait, then try the same fact again.
      this.#soon(this.#retryMs);
      this.#retryMs = Math.min(2 * this.#retryMs, LONGEST_RETRY_MS);
    } finally {
      this.#isSending = false;
      if (this.#isMore) this.#soon(0);
      this.#isMore = false;
    }
  }

  async #sendAll(): Promise<void> {
    await this.#read();
    for (;;) {
      const next = this.#snapshot.find(
        ({ fact, refusal, isHeld }) =>
          refusal === null && !isHeld && fact.authorId === this.#author,
      );
      const entry = [...this.#entries].find(([, { fact }]) => fact.id === next?.fact.id);
      if (!entry) return;
      await this.#sendOne(...entry);
    }
  }

  async #sendOne(key: number, entry: Kept): Promise<void> {
    try {
      this.#kept(await ask<Fact>('POST', '/facts', entry.fact));
      await this.#remove(key);
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      if (NOT_ABOUT_THE_FACT.has(error.problem.code)) {
        this.#sessionEnded();
        throw error;
      }
      const refused: Kept = { ...entry, refusal: error.message };
      await (await this.#database).put('waiting', refused, key);
      this.#otherTabs.postMessage(null);
      this.#replace(new Map([...this.#entries, [key, refused]]));
    }
  }
}

/** Marks what rests on a refused fact, directly or through another that is held. In the order of entry. */
function markHeld(entries: readonly Kept[]): readonly Waiting[] {
  const back: RunFact[] = [];
  return entries.map((entry) => {
    const isHeld =
      entry.refusal === null &&
      entry.fact.recordKind === 'run' &&
      back.some((earlier) => restsOn(asRunFact(entry.fact), earlier));
    const isBack = entry.refusal !== null || isHeld;
    if (isBack && entry.fact.recordKind === 'run') back.push(asRunFact(entry.fact));
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
