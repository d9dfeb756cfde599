// npm run restore -- FILE: what a backup holds, in place of what is there, which is kept under another name.
// --accept-break SEQUENCE:HASH --reason "…" [--by NAME] restores a log with a break that has been looked into.
import { existsSync, renameSync } from 'node:fs';
import { resolve } from 'node:path';
import { parseArgs } from 'node:util';
import { runOn, runTool, withData } from './lib/data.mjs';
import { runCommand, say, StepError } from './lib/say.mjs';

await runCommand(async () => {
  const { positionals, values } = parseArgs({
    allowPositionals: true,
    options: {
      demo: { type: 'boolean' },
      'accept-break': { type: 'string', multiple: true, default: [] },
      reason: { type: 'string', default: '' },
      by: { type: 'string' },
    },
  });
  const [given] = positionals;
  if (!given) throw new StepError('Restoring', 'no file is named.', 'npm run restore -- FILE');
  const file = resolve(given);
  if (!existsSync(file)) {
    throw new StepError('Restoring', `there is no ${file}.`, 'name the file of a backup.');
  }
  await withData(
    async (data) => {
      const fresh = `${data.name}_restored`;
      const before = `${data.name}_before_${new Date().toISOString().replace(/\D/g, '').slice(0, 14)}`;
      const restored = {
        ...data,
        ownerUrl: renamed(data.ownerUrl, fresh),
        webUrl: renamed(data.webUrl, fresh),
        // What was noted belongs to what is there now.
        headsFile: '',
      };
      const sql = (/** @type {string} */ input) =>
        runTool(
          data,
          'Restoring',
          'psql',
          (address) => ['-XAtq', '-v', 'ON_ERROR_STOP=1', address],
          {
            url: renamed(data.ownerUrl, 'postgres'),
            input,
          },
        );
      await sql(`DROP DATABASE IF EXISTS "${fresh}"`);
      await sql(`CREATE DATABASE "${fresh}"`);
      // Beside what is there, and only what is whole takes its place.
      await runTool(
        data,
        'Restoring',
        'pg_restore',
        (address) => [
          ...['--no-owner', '--exit-on-error', '--single-transaction'],
          ...[`--dbname=${address}`, file],
        ],
        { url: restored.ownerUrl },
      );
      say('Bringing it up to this version and verifying it …');
      await runOn(restored, 'Preparing the database', ['prepare']);
      for (const broken of values['accept-break']) {
        const words = ['--reason', values.reason, ...(values.by ? ['--by', values.by] : [])];
        await runOn(restored, 'Accepting the break', ['acceptBreak', broken, ...words]);
      }
      console.log(await runOn(restored, 'Verifying the audit log', ['audit', '--log-only']));
      console.log(await runOn(restored, 'Rebuilding', ['rebuild']));
      await runOn(restored, 'Restoring', ['record', 'restored']);
      await sql(`ALTER DATABASE "${data.name}" RENAME TO "${before}"`);
      await sql(`ALTER DATABASE "${fresh}" RENAME TO "${data.name}"`);
      if (existsSync(data.headsFile)) renameSync(data.headsFile, `${data.headsFile}.${before}`);
      console.log(`${data.name}: restored. What was there is kept as the database ${before}.`);
    },
    { alone: true },
  );
});

/** The same connection to another database. @param {string} url @param {string} database */
function renamed(url, database) {
  const other = new URL(url);
  other.pathname = `/${database}`;
  return other.href;
}
