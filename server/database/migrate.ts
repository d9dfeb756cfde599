import type { Knex } from 'knex';
import * as footing from './migrations/001_footing';
import * as audit from './migrations/002_audit';
import * as files from './migrations/003_files';
import * as rules from './migrations/007_rules';
import * as passwords from './migrations/008_passwords';
import { rebuildProjections } from '../ledger/project';

/** Projections follow from the facts: where they have another shape than before, they are folded anew. */
const REFOLD: Pick<Knex.Migration, 'up' | 'down'> = {
  up: rebuildProjections,
  down: () => Promise.resolve(),
};

const MIGRATIONS: readonly (Knex.Migration & { name: string })[] = [
  { name: '001_footing', up: footing.up, down: footing.down },
  { name: '002_audit', up: audit.up, down: audit.down },
  { name: '003_files', up: files.up, down: files.down },
  { name: '004_standards', ...REFOLD },
  { name: '005_excess', ...REFOLD },
  { name: '006_curves', ...REFOLD },
  { name: '007_rules', up: rules.up, down: rules.down },
  { name: '008_passwords', up: passwords.up, down: passwords.down },
];

type Migration = (typeof MIGRATIONS)[number];

/** The migrations up to one of them. */
function sourceUpTo(last: string | undefined): Knex.MigrationSource<Migration> {
  const end =
    last === undefined ? MIGRATIONS.length : 1 + MIGRATIONS.findIndex(({ name }) => name === last);
  return {
    getMigrations: () => Promise.resolve(MIGRATIONS.slice(0, end)),
    getMigrationName: (migration) => migration.name,
    getMigration: (migration) => Promise.resolve(migration),
  };
}

/** The database holds what only a newer program understands. */
class NewerDatabaseError extends Error {}

/** Number of the advisory lock under which one process at a time migrates: an arbitrary constant of ours. */
const MIGRATION_LOCK = 4_680_417;

/**
 * Brings the database to the newest shape; each migration in a transaction of its own. Several processes may try at
 * once: they take turns under a lock that PostgreSQL frees when its holder dies. The migration library's own lock is
 * a row that a killed process leaves behind, so it is freed first by whoever holds ours.
 *
 * @param last the migration to stop at, for a database of before; else the newest
 * @throws NewerDatabaseError when a newer program has been at work here; nothing is changed.
 */
export async function migrate(owner: Knex, last?: string): Promise<void> {
  const migrationSource = sourceUpTo(last);
  await owner.transaction(async (turn) => {
    await turn.raw('SELECT pg_advisory_xact_lock(?)', [MIGRATION_LOCK]);
    await refuseNewer(owner);
    if (await owner.schema.hasTable('knex_migrations_lock')) {
      await owner.migrate.forceFreeMigrationsLock({ migrationSource });
    }
    await owner.migrate.latest({ migrationSource });
  });
}

async function refuseNewer(owner: Knex): Promise<void> {
  if (!(await owner.schema.hasTable('knex_migrations'))) return;
  const done = await listDone(owner);
  const unknown = done.filter((name) => !MIGRATIONS.some((migration) => migration.name === name));
  if (unknown.length === 0) return;
  throw new NewerDatabaseError(
    `the data were last used by a newer version of the program (it made the change ${unknown.join(', ')}).`,
  );
}

/** Whether the database has exactly the shape that this program works with. */
export async function isMigrated(db: Knex): Promise<boolean> {
  const done = await listDone(db);
  return done.length === MIGRATIONS.length && MIGRATIONS.every(({ name }) => done.includes(name));
}

async function listDone(db: Knex): Promise<string[]> {
  const rows = await db<{ name: string }>('knex_migrations').select('name');
  return rows.map(({ name }) => name);
}
