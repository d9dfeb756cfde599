import type { Knex } from 'knex';
import * as footing from './migrations/001_footing';

const MIGRATIONS: readonly (Knex.Migration & { name: string })[] = [
  { name: '001_footing', up: footing.up, down: footing.down },
];

const source: Knex.MigrationSource<(typeof MIGRATIONS)[number]> = {
  getMigrations: () => Promise.resolve([...MIGRATIONS]),
  getMigrationName: (migration) => migration.name,
  getMigration: (migration) => Promise.resolve(migration),
};

/** Brings the database to the newest shape; each migration in a transaction of its own. */
export async function migrate(owner: Knex): Promise<void> {
  await owner.migrate.latest({ migrationSource: source });
}
