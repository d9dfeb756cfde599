import { EventEmitter } from 'node:events';
import { setTimeout as sleep } from 'node:timers/promises';
import type { Knex } from 'knex';
import pg from 'pg';
import type { Logger } from 'pino';
import type { ChainedEntry } from '../audit/queries';
import { getAuditHead, listAuditAfter } from '../audit/queries';

/** Entries of the audit log that are read at once. */
const PAGE = 500;

const RECONNECT_MS = 500;

/** A connection that listens, and when it ends. */
interface Listening {
  readonly ended: Promise<void>;
}

/**
 * Follows the audit log, which holds every change in the order of its commit, and hands each new entry to whoever
 * listens. PostgreSQL tells when there is more; what was missed while the connection was down is read when it is
 * back, because entries are numbered without gaps.
 */
export class Feed {
  readonly #db: Knex;
  readonly #url: string;
  readonly #logger: Logger;
  readonly #listeners = new EventEmitter<{ entries: [readonly ChainedEntry[]]; stop: [] }>();
  readonly #stopping = new AbortController();
  #client: pg.Client | null = null;
  #last = 0;
  #isReading = false;
  #isMore = false;
  #ended: Promise<void> = Promise.resolve();

  constructor(db: Knex, url: string, logger: Logger) {
    this.#db = db;
    this.#url = url;
    this.#logger = logger;
    this.#listeners.setMaxListeners(0);
  }

  /** Begins to follow the log from where it stands; goes on by itself when the database is away later. */
  async start(): Promise<void> {
    this.#last = (await getAuditHead(this.#db)).sequence;
    this.#ended = this.#keepListening(await this.#listen());
  }

  /** Calls back with new entries, and once when the feed stops; gives the function that ends it. */
  subscribe(onEntries: (entries: readonly ChainedEntry[]) => void, onStop: () => void): () => void {
    this.#listeners.on('entries', onEntries);
    this.#listeners.on('stop', onStop);
    return () => {
      this.#listeners.off('entries', onEntries);
      this.#listeners.off('stop', onStop);
    };
  }

  /** How many listen. */
  get listeners(): number {
    return this.#listeners.listenerCount('entries');
  }

  /** Ends the feed and tells who listens. */
  async stop(): Promise<void> {
    this.#stopping.abort();
    this.#listeners.emit('stop');
    this.#listeners.removeAllListeners();
    await this.#client?.end().catch(() => undefined);
    await this.#ended;
  }

  async #keepListening(first: Listening): Promise<void> {
    let listening: Listening | null = first;
    while (!this.#isStopping()) {
      await listening?.ended;
      // Until the stop, which interrupts it.
      await sleep(RECONNECT_MS, undefined, this.#stopping).catch(() => undefined);
      if (this.#isStopping()) return;
      listening = await this.#listen().catch((error: unknown) => {
        this.#logger.warn({ err: error }, 'the live feed lost the database and tries again');
        return null;
      });
    }
  }

  #isStopping(): boolean {
    return this.#stopping.signal.aborted;
  }

  /** Connects and listens; what was missed is read. @throws when the database is not there. */
  async #listen(): Promise<Listening> {
    const client = new pg.Client({
      connectionString: this.#url,
      application_name: 'vine-measure live',
      connectionTimeoutMillis: 5_000,
      keepAlive: true,
    });
    client.on('notification', () => void this.#read());
    // A lost connection ends it; the error has been told by the end.
    client.on('error', () => undefined);
    const ended = new Promise<void>((resolve) => client.once('end', resolve));
    await client.connect();
    // Told to stop while it connected.
    if (this.#isStopping()) await client.end();
    this.#client = client;
    await client.query('LISTEN vine_audit');
    await this.#read();
    return { ended };
  }

  /** Reads what is new; a notification that comes meanwhile makes it read once more. */
  async #read(): Promise<void> {
    this.#isMore = true;
    if (this.#isReading || this.#isStopping()) return;
    this.#isReading = true;
    try {
      while (this.#takeMore()) {
        const entries = await listAuditAfter(this.#db, this.#last, PAGE);
        this.#last = entries.at(-1)?.sequence ?? this.#last;
        if (entries.length > 0) this.#listeners.emit('entries', entries);
        if (entries.length === PAGE) this.#isMore = true;
      }
    } catch (error) {
      // Nothing tells again of what could not be read.
      setTimeout(() => void this.#read(), RECONNECT_MS).unref();
      this.#logger.warn({ err: error }, 'the live feed could not read');
    } finally {
      this.#isReading = false;
    }
  }

  #takeMore(): boolean {
    const isMore = this.#isMore;
    this.#isMore = false;
    return isMore;
  }
}
