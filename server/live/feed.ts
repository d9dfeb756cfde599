import { EventEmitter, once } from 'node:events';
import { setTimeout as sleep } from 'node:timers/promises';
import type { Knex } from 'knex';
import pg from 'pg';
import type { Logger } from 'pino';
import type { ChainedEntry } from '../audit/queries';
import { getAuditHead, listAuditAfter } from '../audit/queries';

/** Entries of the audit log that are read at once. */
const PAGE = 500;

const RECONNECT_MS = 500;

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

  /** Begins to follow the log from where it stands; goes on by itself when the database was away. */
  async start(): Promise<void> {
    this.#last = (await getAuditHead(this.#db)).sequence;
    this.#ended = this.#keepListening();
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
    await this.#client?.end().catch(() => undefined);
    await this.#ended;
  }

  async #keepListening(): Promise<void> {
    while (!this.#stopping.signal.aborted) {
      try {
        await this.#listenOnce();
      } catch (error) {
        this.#logger.warn({ err: error }, 'the live feed lost the database and tries again');
      }
      await sleep(RECONNECT_MS, undefined, { signal: this.#stopping.signal }).catch(
        () => undefined,
      );
    }
  }

  /** Listens until the connection ends. */
  async #listenOnce(): Promise<void> {
    const client = new pg.Client({
      connectionString: this.#url,
      application_name: 'vine-measure live',
      connectionTimeoutMillis: 5_000,
      keepAlive: true,
    });
    this.#client = client;
    client.on('notification', () => void this.#read());
    const ended = once(client, 'end', { signal: this.#stopping.signal }).catch(() => undefined);
    // A lost connection ends it; the error has been told by the end.
    client.on('error', () => void client.end().catch(() => undefined));
    await client.connect();
    await client.query('LISTEN vine_audit');
    await this.#read();
    await ended;
  }

  /** Reads what is new; a notification that comes meanwhile makes it read once more. */
  async #read(): Promise<void> {
    this.#isMore = true;
    if (this.#isReading) return;
    this.#isReading = true;
    try {
      while (this.#takeMore()) {
        const entries = await listAuditAfter(this.#db, this.#last, PAGE);
        this.#last = entries.at(-1)?.sequence ?? this.#last;
        if (entries.length > 0) this.#listeners.emit('entries', entries);
        if (entries.length === PAGE) this.#isMore = true;
      }
    } catch (error) {
      // The database is away: the reconnection reads again.
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
