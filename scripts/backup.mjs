// npm run backup -- FILE: everything in one file, by PostgreSQL's own tool; the application may go on meanwhile.
import { chmodSync, existsSync, renameSync, rmSync, statSync } from 'node:fs';
import { resolve } from 'node:path';
import { runOn, runTool, withData } from './lib/data.mjs';
import { runCommand, StepError } from './lib/say.mjs';

await runCommand(async () => {
  const given = process.argv.slice(2).find((word) => !word.startsWith('--'));
  if (!given) throw new StepError('Backing up', 'no file is named.', 'npm run backup -- FILE');
  const file = resolve(given);
  if (existsSync(file)) {
    throw new StepError('Backing up', `${file} exists already.`, 'choose another name.');
  }
  await withData(async (data) => {
    await runOn(data, 'Backing up', ['record', 'backed-up']);
    // Under another name until it is whole: half a backup must not pass for one.
    const part = `${file}.part`;
    try {
      await runTool(data, 'Backing up', 'pg_dump', (address) => [
        ...['--format=custom', '--no-owner', `--file=${part}`],
        // Who was signed in is nobody's business later.
        ...['--exclude-table-data=sessions', '--exclude-table-data=attempts', address],
      ]);
      // It holds everything, the digests of passwords too.
      chmodSync(part, 0o600);
      renameSync(part, file);
    } finally {
      rmSync(part, { force: true });
    }
    console.log(`${data.name}: ${file}, ${(statSync(file).size / 1024).toFixed(0)} kB`);
    console.log(await runOn(data, 'Verifying the audit log', ['audit']));
  });
});
