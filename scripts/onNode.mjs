// npm run on-node -- 22 [--start-only]: start and tests with another Node.js, taken from the registry's packages that hold
// its binary. Once before a version is given out; needs the network.
import { existsSync, mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { spawn } from 'node:child_process';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { freePort } from './lib/cluster.mjs';
import { ROOT } from './lib/place.mjs';
import { run, tail } from './lib/run.mjs';
import { runCommand, say, StepError } from './lib/say.mjs';
import { seeFirstPage } from './lib/serving.mjs';

/** The folder of a Node.js binary of a major version. @param {string} major */
async function fetchNode(major) {
  const name = `node-linux-${process.arch}`;
  const folder = join(ROOT, '.cache', `node-${major}`);
  const bin = join(folder, 'node_modules', name, 'bin');
  if (existsSync(join(bin, 'node'))) return bin;
  say(`Fetching Node.js ${major} …`);
  mkdirSync(folder, { recursive: true });
  writeFileSync(join(folder, 'package.json'), '{ "private": true }');
  const words = ['install', '--no-save', '--no-audit', '--no-fund', `${name}@${major}`];
  const { code, output } = await run('npm', words, { cwd: folder });
  if (code === 0) return bin;
  throw new StepError(
    `Fetching Node.js ${major}`,
    tail(output),
    'see whether there is such a version.',
  );
}

/** Starts an empty laboratory, looks at the first page, ends it. @param {NodeJS.ProcessEnv} env */
async function tryStart(env) {
  const port = String(await freePort());
  const data = mkdtempSync(join(tmpdir(), 'vine-on-node-'));
  const child = spawn('npm', ['start', '--', '--empty'], {
    cwd: ROOT,
    env: { ...env, PORT: port, DATA_DIR: data, DATABASE_URL: '' },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  try {
    await seeFirstPage(child, port);
  } finally {
    rmSync(data, { recursive: true, force: true });
  }
}

await runCommand(async () => {
  const [major = ''] = process.argv.slice(2);
  if (!/^\d+$/.test(major)) {
    throw new StepError('Trying', 'no version is named.', 'npm run on-node -- 22');
  }
  const bin = await fetchNode(major);
  const env = { ...process.env, PATH: `${bin}:${process.env['PATH'] ?? ''}` };
  const version = (await run(join(bin, 'node'), ['--version'])).output.trim();
  say(`npm start with Node.js ${version} …`);
  await tryStart(env);
  console.log(`Node.js ${version}: npm start serves its first page.`);
  if (process.argv.includes('--start-only')) return;
  say(`npm test with Node.js ${version} …`);
  const { code, output } = await run('npm', ['test'], { cwd: ROOT, env, echo: true });
  console.log(`Node.js ${version}: ${tail(output, 1)}`);
  process.exitCode = code;
});
