// npm run check: form, lint and types of what has changed since the last commit, for while one works. `npm test` has the last word.
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { installNodePackages } from './lib/packages.mjs';
import { ROOT } from './lib/place.mjs';
import { run } from './lib/run.mjs';
import { runCommand, StepError } from './lib/say.mjs';
import { twoAtATime, TYPESCRIPT_ROOMS } from './lib/steps.mjs';

/** Rooms whose types hang on those of a room that has changed. */
const HANGING = {
  core: TYPESCRIPT_ROOMS,
  contract: ['contract', 'server', 'web', 'calc', 'demo', '.'],
  server: ['server', 'demo', '.'],
  calc: ['calc', 'web', '.'],
};

/** @param {readonly string[]} args */
async function git(args) {
  const { code, output } = await run('git', args, { cwd: ROOT });
  if (code !== 0) throw new StepError('Checking', output, 'run it in a checkout.');
  return output.split('\n').filter(Boolean);
}

/** Files that differ from the last commit and are still there. */
async function changedFiles() {
  const changed = await git(['diff', '--name-only', 'HEAD']);
  const added = await git(['ls-files', '--others', '--exclude-standard']);
  return [...changed, ...added].filter((file) => existsSync(join(ROOT, file)));
}

/** @param {readonly string[]} files */
function roomsOf(files) {
  const touched = new Set(
    files
      .filter((file) => /\.(ts|tsx|mjs|json)$/.test(file))
      .flatMap((file) => {
        const room = file.includes('/') ? (file.split('/')[0] ?? '.') : '.';
        const hanging = HANGING[/** @type {keyof typeof HANGING} */ (room)];
        return hanging ?? [TYPESCRIPT_ROOMS.includes(room) ? room : '.', '.'];
      }),
  );
  return TYPESCRIPT_ROOMS.filter((room) => touched.has(room));
}

/** @typedef {readonly [name: string, program: string, ...args: string[]]} Step */

/** @param {readonly string[]} files @returns {readonly Step[]} */
function stepsFor(files) {
  const code = files.filter((file) => /\.(ts|tsx|mjs|js|cjs)$/.test(file));
  const cache = join('node_modules', '.cache', 'check');
  /** @type {Step[]} */
  const steps = roomsOf(files).map((room) => [
    `types of ${room}`,
    'tsc',
    ...['-p', room, '--noEmit', '--incremental', '--tsBuildInfoFile'],
    join(cache, `${room === '.' ? 'root' : room}.tsbuildinfo`),
  ]);
  if (code.length > 0) {
    const kept = ['--cache', '--cache-location', join(cache, 'eslint'), '--no-warn-ignored'];
    steps.unshift(['lint', 'eslint', ...kept, ...code]);
  }
  if (files.length > 0) {
    steps.push(['form', 'prettier', '--check', '--ignore-unknown', ...files]);
  }
  return steps;
}

/** @param {Step} step */
async function runStep([name, program, ...args]) {
  const started = Date.now();
  const path = join(ROOT, 'node_modules', '.bin', program);
  const { code, output } = await run(path, args, { cwd: ROOT });
  const seconds = ((Date.now() - started) / 1000).toFixed(0);
  console.log(`${code === 0 ? '✓' : '✗'} ${name}, ${seconds} s`);
  if (code === 0) return;
  console.log(output);
  process.exitCode = 1;
}

await runCommand(async () => {
  await installNodePackages(ROOT);
  const files = await changedFiles();
  if (files.length === 0) console.log('Nothing has changed since the last commit.');
  await twoAtATime(stepsFor(files), runStep);
});
