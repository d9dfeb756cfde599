import type { DBSchema, IDBPDatabase } from 'idb';
import { openDB } from 'idb';
import type { Fact } from '#core/record';
import type { ProposedFact } from '#contract';
import { ask, ProblemError } from '../app/api';

/** A fact on its way to the server. */
export interface Waiting {
  readonly fact: ProposedFact;
  /** What the server said against it; null while it is on its way. */
  readonly refusal: string | null;
}

interface OutboxSchema extends DBSchema {
  waiting: { key: number; value: Waiting };
}

type Kept = (fact: Fact) => void;

const FIRST_RETRY_MS = 1_000;
const LONGEST_RETRY_MS = 15_000;

/**
 * Facts that this device has written down and the server has not acknowledged. They lie in IndexedDB, so that they
 * outlive the page, and are sent in the order of entry, each under the session of its author only.
 */
export class Outbox {
  readonly #database: Promise<IDBPDatabase<OutboxSchema>>;
  readonly #kept: Kept;
  readonly #sessionEnded: () => void;
  #entries: ReadonlyMap<number, Waiting> = new Map();
  #snapshot: readonly Waiting[] = [];
  #listeners = new Set<() => void>();
  #author: string | null = null;
  #isSending = false;
  #retryMs = FIRST_RETRY_MS;
  #timer: ReturnType<typeof setTimeout> | undefined;

  /**
   * @param kept is told of each fact that the server has acknowledged
   * @param sessionEnded is told when the server wants a sign-in first
   */
  constructor(kept: Kept, sessionEnded: () => void) {
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
    const database = await this.#database;
    const [keys, values] = await Promise.all([
      database.getAllKeys('waiting'),
      database.getAll('waiting'),
    ]);
    this.#replace(
      new Map(values.flatMap((value, i) => (keys[i] === undefined ? [] : [[keys[i], value]]))),
    );
    window.addEventListener('online', () => {
      this.#soon(0);
    });
    void this.#send();
  }

  /** Sends from now on what this person has entered; what others entered waits for them. */
  signIn(personId: string | null): void {
    this.#author = personId;
    this.#soon(0);
  }

  /** Writes a fact down on this device; it is safe when the promise settles, and sent as soon as possible. */
  async keep(fact: ProposedFact): Promise<void> {
    const entry: Waiting = { fact, refusal: null };
    const database = await this.#database;
    const transaction = database.transaction('waiting', 'readwrite', { durability: 'strict' });
    const key = await transaction.store.add(entry);
    await transaction.done;
    this.#replace(new Map([...this.#entries, [key, entry]]));
    this.#soon(0);
  }

  /** Gives up a refused fact: the analyst has read why. */
  async discard(factId: string): Promise<void> {
    for (const [key, { fact, refusal }] of this.#entries) {
      if (fact.id === factId && refusal !== null) await this.#remove(key);
    }
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  };

  readonly snapshot = (): readonly Waiting[] => this.#snapshot;

  #replace(entries: ReadonlyMap<number, Waiting>): void {
    this.#entries = entries;
    this.#snapshot = [...entries.values()];
    for (const listener of this.#listeners) listener();
  }

  async #remove(key: number): Promise<void> {
    await (await this.#database).delete('waiting', key);
    this.#replace(new Map([...this.#entries].filter(([other]) => other !== key)));
  }

  #soon(delayMs: number): void {
    clearTimeout(this.#timer);
    this.#timer = setTimeout(() => void this.#send(), delayMs);
  }

  async #send(): Promise<void> {
    if (this.#isSending) return;
    this.#isSending = true;
    try {
      for (;;) {
        const next = [...this.#entries].find(
          ([, { fact, refusal }]) => refusal === null && fact.authorId === this.#author,
        );
        if (!next) break;
        await this.#sendOne(...next);
      }
      this.#retryMs = FIRST_RETRY_MS;
    } catch {
      // The server is away, or the session is: wait, then try the same fact again.
      this.#soon(this.#retryMs);
      this.#retryMs = Math.min(2 * this.#retryMs, LONGEST_RETRY_MS);
    } finally {
      this.#isSending = false;
    }
  }

  async #sendOne(key: number, entry: Waiting): Promise<void> {
    try {
      this.#kept(await ask<Fact>('POST', '/facts', entry.fact));
      await this.#remove(key);
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      if (error.problem.status === 401) {
        this.#sessionEnded();
        throw error;
      }
      const refused: Waiting = { ...entry, refusal: error.message };
      await (await this.#database).put('waiting', refused, key);
      this.#replace(new Map([...this.#entries, [key, refused]]));
    }
  }
}
