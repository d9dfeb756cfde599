// npm start: everything from a fresh checkout to a running application. Node's own modules only.
import { existsSync, renameSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { prepareDatabase, runBuilt, startAppServer } from './lib/app.mjs';
import { buildWhenChanged } from './lib/build.mjs';
import { endsWithin, freePort, startCluster } from './lib/cluster.mjs';
import { keepRunning } from './lib/keep.mjs';
import { installNodePackages } from './lib/packages.mjs';
import { claimFolder, dataFolder, headsFile, ROOT } from './lib/place.mjs';
import { killPrograms } from './lib/run.mjs';
import { runCommand, say, StepError } from './lib/say.mjs';

const host = process.env['HOST'] || '127.0.0.1';
const port = process.env['PORT'] || '4680';
const scheme = process.env['TLS_CERT'] ? 'https' : 'http';

/** All app processes together hold so many connections; PostgreSQL as it comes takes a hundred. */
const CONNECTIONS = Number(process.env['DATABASE_CONNECTIONS'] || '90');

/** More would have too few connections each. */
const PROCESSES_AT_MOST = 16;

/** A log longer than this is put aside at the next start, in place of the one before. */
const LOG_BYTES = 20 * 1024 * 1024;

/** What has been started, in order; it is ended in reverse. @type {(() => Promise<void>)[]} */
const running = [];
let isStopping = false;

/** A step under way has this long to end by itself when the command is told to stop, ms. */
const STEP_MS = 2_000;

/** Ends what runs, within twenty seconds whatever happened before. */
async function stop() {
  if (isStopping) return;
  isStopping = true;
  say('Stopping …');
  if (!(await endsWithin(starting, STEP_MS))) killPrograms();
  await endsWithin(starting, STEP_MS);
  for (const end of running.reverse()) await end();
  // Whatever else is left waits for nobody.
  process.exit();
}

/** Leaves the start between two steps when somebody wants to stop. */
class Stopped extends Error {}

/** @template T @param {Promise<T>} step @returns {Promise<T>} */
async function unlessStopping(step) {
  try {
    const result = await step;
    if (!isStopping) return result;
  } catch (error) {
    // Ctrl-C ends the step's own processes too; that is no failure to report.
    if (!isStopping) throw error;
  }
  throw new Stopped();
}

/**
 * Starts a server and keeps it running; without it the other one is of no use.
 * @template {import('./lib/keep.mjs').Started} S
 * @param {string} name
 * @param {() => Promise<S>} start
 */
async function keep(name, start) {
  const kept = await keepRunning(start, {
    onAgain: () => say(`The ${name} has ended by itself; starting it again …`),
    onGivenUp: (why) => {
      const last = why instanceof Error ? ` The last time: ${why.message}` : '';
      console.error(
        `\n✗ The ${name} has ended five times within a minute.${last}\n  What to do: see its log, mend what it names, npm start again; everything acknowledged is kept.\n`,
      );
      process.exitCode = 1;
      void stop();
    },
  });
  running.push(kept.stop);
  return kept.first;
}

/** What is asked for: `--empty` or `--demo`, and `--processes 4` that share the port. @throws StepError */
function readOptions() {
  const options = /** @type {const} */ ({
    empty: { type: 'boolean', default: false },
    demo: { type: 'boolean', default: false },
    processes: { type: 'string', default: '1' },
  });
  try {
    const { empty, demo, processes: count } = parseArgs({ options }).values;
    const processes = Number(count);
    if (empty && demo) throw new Error('--empty and --demo exclude each other.');
    if (!(Number.isInteger(processes) && processes >= 1 && processes <= PROCESSES_AT_MOST)) {
      throw new Error(`--processes takes a number from 1 to ${PROCESSES_AT_MOST}.`);
    }
    return { wantsEmpty: empty, wantsDemo: demo, processes };
  } catch (error) {
    const why = error instanceof Error ? error.message : String(error);
    throw new StepError('Starting', why, 'npm start -- [--empty | --demo] [--processes 2]');
  }
}

/**
 * The database to serve. The private cluster holds the demo laboratory and, once somebody has begun one, a real
 * laboratory beside it, which then goes first.
 * @param {{ wantsEmpty: boolean, wantsDemo: boolean }} options
 * @returns {Promise<{ env: NodeJS.ProcessEnv, mayLoadDemo: boolean, logFile?: string }>}
 */
async function openDatabase({ wantsEmpty, wantsDemo }) {
  const external = process.env['DATABASE_URL'];
  if (external) {
    return {
      env: { DATABASE_URL: external, DATABASE_OWNER_URL: external },
      mayLoadDemo: wantsDemo,
    };
  }
  const folder = dataFolder();
  claimFolder(folder);
  // On the same port when it is started again: the app server keeps looking for it there.
  const databasePort = await freePort();
  const cluster = await keep('database server', () => startCluster(folder, { port: databasePort }));
  /** @param {string} name */
  const envOf = (name) => ({
    DATABASE_URL: cluster.webUrl(name),
    DATABASE_OWNER_URL: cluster.ownerUrl(name),
    AUDIT_HEADS: headsFile(folder, name),
  });
  const isBegun =
    !wantsDemo &&
    (await cluster.hasDatabase('laboratory')) &&
    (await prepareDatabase(ROOT, envOf('laboratory'))).hasPeople;
  const name = wantsEmpty || isBegun ? 'laboratory' : 'demo';
  await cluster.createDatabase(name);
  return { env: envOf(name), mayLoadDemo: name === 'demo', logFile: join(folder, 'app.log') };
}

/** @param {string} file */
function makeRoomInLog(file) {
  if (existsSync(file) && statSync(file).size > LOG_BYTES) renameSync(file, `${file}.1`);
}

async function start() {
  const options = readOptions();
  const { processes } = options;
  const started = Date.now();
  await unlessStopping(installNodePackages(ROOT));
  await unlessStopping(buildWhenChanged(ROOT));
  const { env, mayLoadDemo, logFile } = await unlessStopping(openDatabase(options));
  // The demo brings its own people; anywhere else the first person needs the code.
  const { hasPeople, code } = await unlessStopping(
    prepareDatabase(ROOT, env, { issueCode: !mayLoadDemo }),
  );
  if (!hasPeople && mayLoadDemo) {
    say('Loading the demo laboratory …');
    await unlessStopping(runBuilt(ROOT, 'Loading the demo laboratory', ['demo'], env));
  }
  if (logFile) makeRoomInLog(logFile);
  const share = Math.floor(CONNECTIONS / processes);
  const served = { ...env, HOST: host, PORT: port, PROCESS_CONNECTIONS: String(share) };
  for (let number = 1; number <= processes; number += 1) {
    const name = processes === 1 ? 'app server' : `app server ${number}`;
    await keep(name, () => startAppServer(ROOT, served, logFile));
  }
  const seconds = ((Date.now() - started) / 1000).toFixed(1);
  console.log(
    `\nVine Measure serves on ${scheme}://${host}:${port}  (ready after ${seconds} s; Ctrl-C ends it)`,
  );
  if (logFile) console.log(`Its log is ${logFile}`);
  if (code) console.log(`Nobody has an account yet. One-time code for the first one: ${code}`);
}

for (const signal of /** @type {const} */ (['SIGINT', 'SIGTERM']))
  process.on(signal, () => void stop());
/** Settles when everything runs, or when the start has failed or been left. */
const starting = runCommand(async () => {
  try {
    await start();
  } catch (error) {
    if (!(error instanceof Stopped)) throw error;
  }
});
await starting;
// A start that failed half way ends what it had begun.
if (process.exitCode) await stop();
