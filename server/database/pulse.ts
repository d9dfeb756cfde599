import { setImmediate as turn, setTimeout as sleep } from 'node:timers/promises';
import pg from 'pg';
import type { Logger } from 'pino';
import type { OpenConnections } from './connection';
import { breakConnection } from './connection';

/** How often the database is asked, and how long it may take to answer, ms: what is wrong is said within five seconds. */
const EVERY_MS = 1_000;
const LONGEST_MS = 3_000;

/**
 * Feels whether the database answers at all. A server that is frozen, or cut off without a word, leaves every query
 * waiting: then their connections are broken, so that whoever waits is told, and nobody else begins to wait. A query
 * that is merely long goes on.
 */
export class Pulse {
  readonly #url: string;
  readonly #connections: OpenConnections;
  readonly #logger: Logger;
  readonly #stopping = new AbortController();
  #client: pg.Client | null = null;
  #isBeating = true;
  #ended: Promise<void> = Promise.resolve();

  constructor(url: string, connections: OpenConnections, logger: Logger) {
    this.#url = url;
    this.#connections = connections;
    this.#logger = logger;
  }

  /** Whether the database answered when it was last asked. */
  get isBeating(): boolean {
    return this.#isBeating;
  }

  start(): void {
    this.#ended = this.#keepFeeling();
  }

  async stop(): Promise<void> {
    this.#stopping.abort();
    this.#drop();
    await this.#ended;
  }

  async #keepFeeling(): Promise<void> {
    while (!this.#isStopping()) {
      const first = await this.#ask();
      // A connection that has been ended says nothing of the server behind it: a fresh one does.
      const isThere = (first === 'ended' ? await this.#ask() : first) === 'answered';
      if (this.#isStopping()) return;
      if (!isThere) this.#connections.breakAll();
      if (isThere !== this.#isBeating) {
        this.#logger.warn(isThere ? 'the database answers again' : 'the database does not answer');
      }
      this.#isBeating = isThere;
      await sleep(EVERY_MS, undefined, this.#stopping).catch(() => undefined);
    }
  }

  #isStopping(): boolean {
    return this.#stopping.signal.aborted;
  }

  async #ask(): Promise<'answered' | 'ended' | 'silent'> {
    const over = new AbortController();
    const silence = sleep(LONGEST_MS, 'silent' as const, over)
      // After a long piece of work of this process the answer may be here and not read yet.
      .then((outcome) => turn(outcome))
      .then((outcome) => turn(outcome))
      // Nobody waits for it any more.
      .catch(() => 'silent' as const);
    const outcome = await Promise.race([
      this.#beat().then(
        () => 'answered' as const,
        () => 'ended' as const,
      ),
      silence,
    ]);
    over.abort();
    if (outcome !== 'answered') this.#drop();
    return outcome;
  }

  async #beat(): Promise<void> {
    if (!this.#client) {
      const client = new pg.Client({
        connectionString: this.#url,
        application_name: 'vine-measure pulse',
        connectionTimeoutMillis: LONGEST_MS,
      });
      client.on('error', () => undefined);
      this.#client = client;
      await client.connect();
    }
    await this.#client.query('SELECT 1');
  }

  #drop(): void {
    const client = this.#client;
    this.#client = null;
    if (client) breakConnection(client);
  }
}
