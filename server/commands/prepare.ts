import { connectAsOwner } from '../database/connection';
import { migrate } from '../database/migrate';
import { requireEnvironment } from '../environment';
import { issueFirstAccountCode } from '../people/accounts';
import { hasPeople } from '../people/queries';
import { runCommand, withServices } from './command';

/** Folding many records again takes a while: such lines are shown as they come. */
function say(done: number, total: number): void {
  console.error(`· Folding the records again: ${String(done)} of ${String(total)} …`);
}

/**
 * Migrates the database and prints, as one line of JSON, whether anybody has an account and, with
 * `--issue-code`, the one-time code for the first account.
 */
await runCommand(async () => {
  const owner = connectAsOwner(requireEnvironment('DATABASE_OWNER_URL'));
  try {
    await migrate(owner, { onProgress: say });
  } finally {
    await owner.destroy();
  }
  await withServices(async (services) => {
    const wantsCode = process.argv.includes('--issue-code');
    const code = wantsCode ? await issueFirstAccountCode(services) : null;
    console.log(JSON.stringify({ hasPeople: await hasPeople(services.db), code }));
  });
});
