// npm start: everything from a fresh checkout to a running application. Node's own modules only.
import { existsSync, renameSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { prepareDatabase, runBuilt, startAppServer } from './lib/app.mjs';
import { buildWhenChanged } from './lib/build.mjs';
import { startCluster } from './lib/cluster.mjs';
import { installNodePackages } from './lib/packages.mjs';
import { claimFolder, dataFolder, ROOT } from './lib/place.mjs';
import { runCommand, say, StepError } from './lib/say.mjs';

const wantsEmpty = process.argv.includes('--empty');
const wantsDemo = process.argv.includes('--demo');
const host = process.env['HOST'] || '127.0.0.1';
const port = process.env['PORT'] || '4680';
const scheme = process.env['TLS_CERT'] ? 'https' : 'http';

/** A log longer than this is put aside at the next start, in place of the one before. */
const LOG_BYTES = 20 * 1024 * 1024;

/** What has been started, in order; it is ended in reverse. @type {(() => Promise<void>)[]} */
const running = [];
let isStopping = false;

/** Ends what runs, once the step under way is over. */
async function stop() {
  if (isStopping) return;
  isStopping = true;
  say('Stopping …');
  await starting;
  for (const end of running.reverse()) await end();
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

/** One of the servers is gone: without it the other is of no use. @param {string} what */
async function endedByItself(what) {
  if (isStopping) return;
  console.error(`\n✗ ${what}\n  What to do: npm start again; everything acknowledged is kept.\n`);
  process.exitCode = 1;
  await stop();
}

/**
 * The database to serve. The private cluster holds the demo laboratory and, once somebody has begun one, a real
 * laboratory beside it, which then goes first.
 * @returns {Promise<{ env: NodeJS.ProcessEnv, mayLoadDemo: boolean, logFile?: string }>}
 */
async function openDatabase() {
  const external = process.env['DATABASE_URL'];
  if (external) {
    return {
      env: { DATABASE_URL: external, DATABASE_OWNER_URL: external },
      mayLoadDemo: wantsDemo,
    };
  }
  const folder = dataFolder();
  claimFolder(folder);
  const cluster = await startCluster(folder);
  running.push(cluster.stop);
  void cluster.ended.then(() => endedByItself('The database server has ended.'));
  /** @param {string} name */
  const envOf = (name) => ({
    DATABASE_URL: cluster.webUrl(name),
    DATABASE_OWNER_URL: cluster.ownerUrl(name),
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
  if (wantsEmpty && wantsDemo) {
    throw new StepError('Starting', '--empty and --demo exclude each other.', 'choose one.');
  }
  const started = Date.now();
  await unlessStopping(installNodePackages(ROOT));
  await unlessStopping(buildWhenChanged(ROOT));
  const { env, mayLoadDemo, logFile } = await unlessStopping(openDatabase());
  // The demo brings its own people; anywhere else the first person needs the code.
  const { hasPeople, code } = await unlessStopping(
    prepareDatabase(ROOT, env, { issueCode: !mayLoadDemo }),
  );
  if (!hasPeople && mayLoadDemo) {
    say('Loading the demo laboratory …');
    await unlessStopping(runBuilt(ROOT, 'Loading the demo laboratory', ['demo'], env));
  }
  if (logFile) makeRoomInLog(logFile);
  const server = await startAppServer(ROOT, { ...env, HOST: host, PORT: port }, logFile);
  running.push(server.stop);
  void server.ended.then((exitCode) =>
    endedByItself(`The app server has ended (code ${exitCode}).`),
  );
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
