import { randomBytes } from 'node:crypto';
import type { Knex } from 'knex';
import { connectAsApplication, connectAsOwner, sessionPool } from '../database/connection';
import { migrate } from '../database/migrate';
import { requireEnvironment } from '../environment';

/** A database of its own for one test file, in the throw-away cluster that the test command runs. */
export interface TestDatabase {
  readonly url: string;
  readonly db: Knex;
  readonly owner: Knex;
  readonly pool: ReturnType<typeof sessionPool>;
  readonly drop: () => Promise<void>;
  /** Closes the connections and leaves the database to the throw-away cluster. */
  readonly leave: () => Promise<void>;
}

/** Makes a database, migrated to the newest shape or to one of before. */
export async function createTestDatabase(lastMigration?: string): Promise<TestDatabase> {
  const clusterUrl = requireEnvironment('TEST_DATABASE_URL');
  const name = `test_${randomBytes(6).toString('hex')}`;
  const admin = connectAsOwner(clusterUrl);
  await admin.raw(`CREATE DATABASE ${name}`);
  const url = clusterUrl.replace(/\/[^/]*$/, `/${name}`);
  const owner = connectAsOwner(url);
  await migrate(owner, { last: lastMigration });
  const db = connectAsApplication(url);
  const pool = sessionPool(url);
  const leave = async (): Promise<void> => {
    await Promise.all([db.destroy(), owner.destroy(), pool.end(), admin.destroy()]);
  };
  return {
    url,
    db,
    owner,
    pool,
    leave,
    drop: async () => {
      await Promise.all([db.destroy(), owner.destroy(), pool.end()]);
      await admin.raw(`DROP DATABASE ${name} WITH (FORCE)`);
      await admin.destroy();
    },
  };
}
