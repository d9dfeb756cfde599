// npm run calc, verify, vectors: the computing core on the command line. What it prints is the result alone.
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { buildWhenChanged } from './lib/build.mjs';
import { installNodePackages } from './lib/packages.mjs';
import { ROOT } from './lib/place.mjs';
import { runCommand, sayOnStandardError } from './lib/say.mjs';

const [command = '', ...args] = process.argv.slice(2);

await runCommand(async () => {
  sayOnStandardError();
  await installNodePackages(ROOT);
  await buildWhenChanged(ROOT);
  const file = join(ROOT, 'dist', 'server', `${command}.js`);
  const { status } = spawnSync(process.execPath, [file, ...args], { stdio: 'inherit' });
  process.exitCode = status ?? 1;
});
