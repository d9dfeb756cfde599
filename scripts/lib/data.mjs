import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { runBuilt } from './app.mjs';
import { buildWhenChanged } from './build.mjs';
import { clusterAt, startCluster, withoutPassword } from './cluster.mjs';
import { installNodePackages } from './packages.mjs';
import { birthOf, claimFolder, dataFolder, headsFile, ROOT } from './place.mjs';
import { findServerPrograms } from './postgres.mjs';
import { run, tail } from './run.mjs';
import { StepError } from './say.mjs';

/**
 * A database to work on beside the application or without it.
 * @typedef {object} Data
 * @property {string} name of the database
 * @property {string} ownerUrl
 * @property {string} webUrl with the application's rights only
 * @property {string} programs folder of PostgreSQL's own tools
 * @property {string} headsFile where the ends of its audit log are noted; empty for nowhere
 */

/**
 * Opens the data that `npm start` would serve: the private cluster's, started for this if it does not run, or those
 * of DATABASE_URL. `--demo` chooses the demo laboratory.
 * @param {(data: Data) => Promise<void>} work
 * @param {{ alone?: boolean }} [options] `alone`: nobody else may be at work on the data meanwhile
 */
export async function withData(work, { alone = false } = {}) {
  await installNodePackages(ROOT);
  await buildWhenChanged(ROOT);
  const external = process.env['DATABASE_URL'];
  const folder = dataFolder();
  const programs = await findServerPrograms(join(folder, 'pgdata'));
  if (external) {
    const name = new URL(external).pathname.slice(1);
    const heads = process.env['AUDIT_HEADS'] ?? '';
    await work({ name, ownerUrl: external, webUrl: external, programs, headsFile: heads });
    return;
  }
  if (!alone && isHeld(folder)) {
    await workOn(await clusterAt(folder), programs, work);
    return;
  }
  claimFolder(folder);
  const cluster = await startCluster(folder);
  try {
    await workOn(cluster, programs, work);
  } finally {
    await cluster.stop();
  }
}

/**
 * @param {import('./cluster.mjs').Databases} databases
 * @param {string} programs
 * @param {(data: Data) => Promise<void>} work
 */
async function workOn(databases, programs, work) {
  const wantsDemo = process.argv.includes('--demo');
  const name = !wantsDemo && (await databases.hasDatabase('laboratory')) ? 'laboratory' : 'demo';
  if (!(await databases.hasDatabase(name))) {
    throw new StepError('Opening the data', 'there are none yet.', 'npm start makes them.');
  }
  await work({
    name,
    ownerUrl: databases.ownerUrl(name),
    webUrl: databases.webUrl(name),
    programs,
    headsFile: headsFile(dataFolder(), name),
  });
}

/** Whether the application holds the data folder. @param {string} folder */
function isHeld(folder) {
  const file = join(folder, 'start.pid');
  if (!existsSync(file)) return false;
  const [pid, birth] = readFileSync(file, 'utf8').trim().split(' ');
  return birthOf(Number(pid)) === birth;
}

/**
 * Runs one of PostgreSQL's own tools.
 * @param {Data} data
 * @param {string} step as it is told to the user
 * @param {string} tool
 * @param {(address: string) => readonly string[]} argsFor given the address of the database, without its password
 * @param {{ url?: string, input?: string }} [options] another database than the data's; what the tool reads
 */
export async function runTool(data, step, tool, argsFor, { url = data.ownerUrl, input } = {}) {
  const { address, env } = withoutPassword(url);
  const outcome = await run(join(data.programs, tool), argsFor(address), {
    env: { ...process.env, ...env, LC_ALL: 'C.UTF-8' },
    ...(input === undefined ? {} : { input }),
  });
  if (outcome.code === 0) return outcome.output.trim();
  throw new StepError(step, tail(outcome.output), 'mend what it names; the data are as they were.');
}

/**
 * Runs a built command on the data and gives what it says.
 * @param {Data} data
 * @param {string} step
 * @param {readonly string[]} command
 */
export function runOn(data, step, command) {
  const env = {
    DATABASE_URL: data.webUrl,
    DATABASE_OWNER_URL: data.ownerUrl,
    AUDIT_HEADS: data.headsFile,
  };
  return runBuilt(ROOT, step, command, env);
}
