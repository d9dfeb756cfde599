import cluster from 'node:cluster';
import { closeSync } from 'node:fs';
import { join } from 'node:path';
import { endsWithin, openLog } from './cluster.mjs';
import { run, tail } from './run.mjs';
import { say, StepError } from './say.mjs';

/**
 * Runs one of the built commands and gives its output.
 * @param {string} root
 * @param {string} step what it is for, as it is told to the user
 * @param {readonly string[]} command name of the command and its arguments
 * @param {NodeJS.ProcessEnv} env
 */
export async function runBuilt(root, step, [name = '', ...args], env) {
  const file = join(root, 'dist', 'server', `${name}.js`);
  const outcome = await run(process.execPath, [file, ...args], {
    cwd: root,
    env: { ...process.env, ...env },
    onProgress: say,
  });
  if (outcome.code === 0) return outcome.output.trim();
  throw new StepError(step, tail(outcome.output), remedyFor(outcome.output));
}

/** What helps against a failure that a command has told. @param {string} output */
function remedyFor(output) {
  if (/newer version/.test(output)) {
    return 'start that version, or restore a backup of before; nothing has been changed.';
  }
  if (/ECONNREFUSED|ENOTFOUND|EAI_AGAIN|ETIMEDOUT/.test(output)) {
    return 'see whether the database of DATABASE_URL runs and can be reached from here.';
  }
  return 'mend what it names, then start again; everything acknowledged is kept.';
}

/**
 * Migrates a database.
 * @param {string} root
 * @param {NodeJS.ProcessEnv} env `DATABASE_OWNER_URL` and `DATABASE_URL`
 * @param {{ issueCode?: boolean }} [options]
 * @returns {Promise<{ hasPeople: boolean, code: string | null }>}
 */
export async function prepareDatabase(root, env, { issueCode = false } = {}) {
  const command = ['prepare', ...(issueCode ? ['--issue-code'] : [])];
  const output = await runBuilt(root, 'Preparing the database', command, env);
  // Node may have something to say of its own after it.
  return JSON.parse(output.split('\n').findLast((line) => line.startsWith('{')) ?? '');
}

// Several app servers of one port take what comes in from one queue of the kernel's: what is handed out by Node instead is lost
// with the one that it went to.
cluster.schedulingPolicy = cluster.SCHED_NONE;

/** What is under way when the app server is told to stop has three seconds; then it should be gone, ms. */
const FAREWELL_MS = 5_000;

/**
 * @typedef {object} AppServer
 * @property {number} pid
 * @property {Promise<number>} ended its exit code
 * @property {() => Promise<void>} stop
 */

/**
 * Starts the app server and waits until it answers.
 * @param {string} root
 * @param {NodeJS.ProcessEnv} env `DATABASE_URL`, `HOST`, `PORT`
 * @param {string} [logFile] where its log goes, one line of JSON a request; without it to this process's output
 * @returns {Promise<AppServer>}
 */
export async function startAppServer(root, env, logFile) {
  const log = logFile === undefined ? 'inherit' : openLog(logFile);
  cluster.setupPrimary({
    exec: join(root, 'dist', 'server', 'main.js'),
    cwd: root,
    stdio: ['ignore', log, log, 'ipc'],
  });
  const child = cluster.fork({ NODE_ENV: 'production', ...env }).process;
  if (typeof log === 'number') closeSync(log);
  /** @type {Promise<number>} */
  const ended = new Promise((resolve) => {
    child.once('exit', (code) => resolve(code ?? 1));
  });
  /** @type {Promise<{ kind: 'ready' } | { kind: 'failed', why: string }>} */
  const told = new Promise((resolve) => {
    child.once('message', (message) => resolve(/** @type {any} */ (message)));
  });
  /** @type {Promise<{ kind: 'failed', why: string }>} */
  const gone = ended.then((code) => ({
    kind: 'failed',
    why: `it ended with code ${code}`,
  }));
  const outcome = await Promise.race([told, gone]);
  if (outcome.kind === 'failed') {
    throw new StepError(
      `Serving on http://${env['HOST'] ?? '127.0.0.1'}:${env['PORT'] ?? ''}`,
      `${outcome.why.replace(/\.$/, '')}.`,
      /EADDRINUSE/.test(outcome.why)
        ? 'the port is in use: end what uses it, or choose another: PORT=4700 npm start'
        : 'mend what it names, then start again.',
    );
  }
  return {
    pid: child.pid ?? 0,
    ended,
    stop: async () => {
      child.kill('SIGTERM');
      if (!(await endsWithin(ended, FAREWELL_MS))) child.kill('SIGKILL');
      await ended;
    },
  };
}
