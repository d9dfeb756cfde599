import { connectAsApplication, connectAsOwner } from '../database/connection';
import { migrate } from '../database/migrate';
import { requireEnvironment } from '../environment';
import { issueFirstAccountCode } from '../people/accounts';
import { hasPeople } from '../people/queries';

/**
 * Migrates the database and prints, as one line of JSON, whether anybody has an account and, with
 * `--issue-code`, the one-time code for the first account.
 */
const owner = connectAsOwner(requireEnvironment('DATABASE_OWNER_URL'));
try {
  await migrate(owner);
} finally {
  await owner.destroy();
}
const db = connectAsApplication(requireEnvironment('DATABASE_URL'));
try {
  const services = { db, now: () => new Date() };
  const code = process.argv.includes('--issue-code') ? await issueFirstAccountCode(services) : null;
  console.log(JSON.stringify({ hasPeople: await hasPeople(db), code }));
} finally {
  await db.destroy();
}
