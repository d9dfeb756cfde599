import type { Knex } from 'knex';

/** What every use case works with. Time comes in here and nowhere else. */
export interface Services {
  readonly db: Knex;
  /** The server's clock. */
  readonly now: () => Date;
}
