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

/** What fails is thrown; the query builder need not tell the terminal as well. */
const QUIET = {
  warn: () => undefined,
  error: () => undefined,
  deprecate: () => undefined,
  debug: () => undefined,
};

/** Knex under the application's role. */
export function connectAsApplication(url: string): Knex {
  return knex({
    client: 'pg',
    log: QUIET,
    connection: asApplication(url),
    pool: { min: 0, max: 10 },
    acquireConnectionTimeout: 5_000,
  });
}

/** A plain pool under the application's role, for the session store. */
export function sessionPool(url: string): pg.Pool {
  const pool = new pg.Pool({ ...asApplication(url), max: 5 });
  // An idle connection that the database drops must not end the process; the next query reports it.
  pool.on('error', () => undefined);
  return pool;
}

/** Knex under the role named in the URL, for migrations. */
export function connectAsOwner(url: string): Knex {
  return knex({ client: 'pg', log: QUIET, connection: url, pool: { min: 0, max: 2 } });
}
