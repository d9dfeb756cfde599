import knex, { type Knex } from 'knex';
import pg from 'pg';

/** The role that the application works under: it may add facts, never change or delete them. */
export const APP_ROLE = 'vine_app';

/**
 * Makes every connection of a pool work under the application's role from its first statement on, and commit
 * without waiting for the disk: `durably` waits where it matters.
 */
function asApplication(url: string) {
  return {
    connectionString: url,
    options: `-c role=${APP_ROLE} -c synchronous_commit=off`,
    application_name: 'vine-measure',
    connectionTimeoutMillis: 5_000,
    statement_timeout: 15_000,
  };
}

/** Connections of a process, by what they are for. */
interface PoolSizes {
  readonly work: number;
  readonly sessions: number;
}

/** As many connections as a process has use for, in a laboratory of fifty. */
export const CONNECTIONS = 17;

/** The live feed and the pulse hold one each. */
const HELD = 2;

/** How a process divides the connections that it may hold: a third of them is for sessions. */
export function poolSizes(connections: number): PoolSizes {
  const sessions = Math.floor((connections - HELD) / 3);
  return { sessions, work: connections - HELD - sessions };
}

/** What fails is thrown; the query builder need not tell the terminal as well. */
const QUIET = {
  warn: () => undefined,
  error: () => undefined,
  deprecate: () => undefined,
  debug: () => undefined,
};

/** The connections of a process, so that all of them can be ended when the database does not answer. */
export class OpenConnections {
  readonly #clients = new Set<pg.Client>();

  add(client: pg.Client): void {
    this.#clients.add(client);
    client.once('end', () => this.#clients.delete(client));
  }

  /** Ends them without asking the other side; whoever waits for one is told that it is gone. */
  breakAll(): void {
    for (const client of this.#clients) breakConnection(client);
    this.#clients.clear();
  }
}

/** Ends a connection without asking the other side, which may not answer. */
export function breakConnection(client: pg.Client): void {
  const { connection } = client as unknown as { connection: { stream: { destroy: () => void } } };
  connection.stream.destroy();
}

/** Knex under the application's role. */
export function connectAsApplication(
  url: string,
  open = new OpenConnections(),
  { work } = poolSizes(CONNECTIONS),
): Knex {
  return knex({
    client: 'pg',
    log: QUIET,
    connection: asApplication(url),
    pool: {
      min: 0,
      max: work,
      afterCreate: (client: pg.Client, done: (error: null, client: pg.Client) => void) => {
        open.add(client);
        done(null, client);
      },
    },
    acquireConnectionTimeout: 5_000,
  });
}

/** A plain pool under the application's role, for the session store. */
export function sessionPool(
  url: string,
  open = new OpenConnections(),
  { sessions } = poolSizes(CONNECTIONS),
): pg.Pool {
  const pool = new pg.Pool({ ...asApplication(url), max: sessions });
  pool.on('connect', (client) => {
    // Its own kind of client, which is one all the same.
    open.add(client);
  });
  // An idle connection that the database drops must not end the process; the next query reports it.
  pool.on('error', () => undefined);
  return pool;
}

/** Knex under the role named in the URL, for migrations. */
export function connectAsOwner(url: string): Knex {
  return knex({ client: 'pg', log: QUIET, connection: url, pool: { min: 0, max: 2 } });
}
