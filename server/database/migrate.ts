import type { Knex } from 'knex';
import * as footing from './migrations/001_footing';
import * as audit from './migrations/002_audit';
import * as files from './migrations/003_files';
import * as rules from './migrations/007_rules';
import * as passwords from './migrations/008_passwords';
import * as shape from './migrations/009_shape';
import * as edges from './migrations/010_edges';
import * as people from './migrations/011_people';
import * as lists from './migrations/012_lists';
import * as history from './migrations/013_history';
import * as samples from './migrations/014_samples';
import type { Progress } from '../ledger/project';
import { PROJECTIONS_SHAPE, rebuildProjections } from '../ledger/project';

/** Once folded the projections again; that is done after all migrations now, where their shape has changed. */
const EMPTY: Pick<Knex.Migration, 'up' | 'down'> = {
  up: () => Promise.resolve(),
  down: () => Promise.resolve(),
};

const MIGRATIONS: readonly (Knex.Migration & { name: string })[] = [
  { name: '001_footing', up: footing.up, down: footing.down },
  { name: '002_audit', up: audit.up, down: audit.down },
  { name: '003_files', up: files.up, down: files.down },
  { name: '004_standards', ...EMPTY },
  { name: '005_excess', ...EMPTY },
  { name: '006_curves', ...EMPTY },
  { name: '007_rules', up: rules.up, down: rules.down },
  { name: '008_passwords', up: passwords.up, down: passwords.down },
  { name: '009_shape', up: shape.up, down: shape.down },
  { name: '010_edges', up: edges.up, down: edges.down },
  { name: '011_people', up: people.up, down: people.down },
  { name: '012_lists', up: lists.up, down: lists.down },
  { name: '013_history', up: history.up, down: history.down },
  { name: '014_samples', up: samples.up, down: samples.down },
];

/** The migrations, oldest first. */
export const MIGRATION_NAMES: readonly string[] = MIGRATIONS.map(({ name }) => name);

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
 * a row that a killed process leaves behind, so it is freed first by whoever holds ours. Then, under the same lock, what
 * lists read is folded again where this program folds it in another shape.
 *
 * @param onProgress is told how far folding has come
 * @param last the migration to stop at, for a database of before; else the newest
 * @throws NewerDatabaseError when a newer program has been at work here; nothing is changed.
 */
export async function migrate(
  owner: Knex,
  { last, onProgress }: { readonly last?: string | undefined; readonly onProgress?: Progress } = {},
): Promise<void> {
  const migrationSource = sourceUpTo(last);
  await owner.transaction(async (turn) => {
    await turn.raw('SELECT pg_advisory_xact_lock(?)', [MIGRATION_LOCK]);
    await refuseNewer(owner);
    if (await owner.schema.hasTable('knex_migrations_lock')) {
      await owner.migrate.forceFreeMigrationsLock({ migrationSource });
    }
    await owner.migrate.latest({ migrationSource });
    if (last === undefined) await refold(owner, onProgress);
  });
}

async function refold(owner: Knex, onProgress?: Progress): Promise<void> {
  if ((await shapeOf(owner)) === PROJECTIONS_SHAPE) return;
  await owner.transaction(async (tx) => {
    await rebuildProjections(tx, onProgress);
    await tx('projections_shape').update({ version: PROJECTIONS_SHAPE });
  });
}

async function shapeOf(db: Knex): Promise<number | null> {
  return (await db<{ version: number }>('projections_shape').first('version'))?.version ?? null;
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
  const isAll =
    done.length === MIGRATIONS.length && MIGRATIONS.every(({ name }) => done.includes(name));
  return isAll && (await shapeOf(db)) === PROJECTIONS_SHAPE;
}

async function listDone(db: Knex): Promise<string[]> {
  const rows = await db<{ name: string }>('knex_migrations').select('name');
  return rows.map(({ name }) => name);
}
