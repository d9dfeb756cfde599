// npm test: everything that must hold, on a fresh machine too. `npm test -- unit lint` runs only the steps named.
import { existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { startCluster } from './lib/cluster.mjs';
import { installDemands } from './lib/demands.mjs';
import { ROOT } from './lib/place.mjs';
import { run } from './lib/run.mjs';
import { runCommand, say } from './lib/say.mjs';
import { twoAtATime, TYPESCRIPT_ROOMS } from './lib/steps.mjs';

const REPORTS = join(ROOT, 'test-results');
const only = process.argv.slice(2);
let passed = 0;
let failed = 0;

/** @typedef {{ name: string, command: readonly string[], count?: () => { passed: number, failed: number } }} Step */

/** @param {string} name @returns {Step} */
const vitest = (name) => ({
  name,
  command: [
    ...['vitest', 'run', '--project', name, '--reporter=dot', '--reporter=json'],
    `--outputFile.json=${join(REPORTS, `${name}.json`)}`,
  ],
  count: () => countVitest(name),
});

/** Each keeps one core busy; the longest go first. @type {readonly Step[]} */
const SIDE_BY_SIDE = [
  vitest('server'),
  { name: 'lint', command: ['eslint', '.'] },
  vitest('unit'),
  ...TYPESCRIPT_ROOMS.map((room) => ({ name: 'types', command: ['tsc', '-p', room] })),
  { name: 'format', command: ['prettier', '--check', '.'] },
  {
    name: 'boundaries',
    command: [
      ...['depcruise', '--config', '.dependency-cruiser.cjs'],
      ...TYPESCRIPT_ROOMS.filter((room) => room !== '.'),
    ],
  },
  { name: 'unused', command: ['knip'] },
];

/** Two browsers at once keep the whole machine busy. @type {Step} */
const BROWSER = { name: 'browser', command: ['playwright', 'test'], count: countPlaywright };

/** A suite that leaves no report has failed. @param {string} name @returns {any} */
function report(name) {
  const file = join(REPORTS, `${name}.json`);
  return existsSync(file) ? JSON.parse(readFileSync(file, 'utf8')) : null;
}

/** @param {string} name */
function countVitest(name) {
  const found = report(name);
  return found
    ? { passed: found.numPassedTests, failed: found.numTotalTests - found.numPassedTests }
    : { passed: 0, failed: 1 };
}

function countPlaywright() {
  const stats = report('browser')?.stats;
  return stats
    ? { passed: stats.expected, failed: stats.unexpected + stats.flaky + stats.skipped }
    : { passed: 0, failed: 1 };
}

/** @param {Step} step @param {NodeJS.ProcessEnv} env */
async function runStep(step, env) {
  const started = Date.now();
  const [program = '', ...args] = step.command;
  const outcome = await run(join(ROOT, 'node_modules', '.bin', program), args, {
    cwd: ROOT,
    env: { ...process.env, ...env },
    echo: false,
  });
  const seconds = ((Date.now() - started) / 1000).toFixed(0);
  const counted = step.count?.() ?? {
    passed: outcome.code === 0 ? 1 : 0,
    failed: outcome.code === 0 ? 0 : 1,
  };
  // A runner that fails although its tests passed has something to say, such as an unhandled error.
  const failures = outcome.code !== 0 && counted.failed === 0 ? 1 : counted.failed;
  passed += counted.passed;
  failed += failures;
  console.log(
    `${failures === 0 ? '✓' : '✗'} ${step.name} (${step.command.at(-1)}): ${counted.passed} passed, ${failures} failed, ${seconds} s`,
  );
  if (failures > 0) console.log(outcome.output);
}

/** @param {readonly Step[]} steps */
const chosen = (steps) => steps.filter((step) => only.length === 0 || only.includes(step.name));

await runCommand(async () => {
  await installDemands();
  rmSync(REPORTS, { recursive: true, force: true });
  mkdirSync(REPORTS, { recursive: true });
  const folder = mkdtempSync(join(tmpdir(), 'vine-test-'));
  const cluster = await startCluster(folder, { durable: false });
  const env = { TEST_DATABASE_URL: cluster.ownerUrl('postgres') };
  try {
    say('Running the checks and tests, two at a time …');
    await twoAtATime(chosen(SIDE_BY_SIDE), (step) => runStep(step, env));
    say('Running the browser tests …');
    for (const step of chosen([BROWSER])) await runStep(step, env);
  } finally {
    await cluster.stop();
    rmSync(folder, { recursive: true, force: true });
  }
});
if (process.exitCode) failed += 1;
if (failed > 0) process.exitCode = 1;
console.log(`${passed} passed, ${failed} failed`);
