import { createHash } from 'node:crypto';
import { lookup } from 'node:dns/promises';
import { existsSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { run, tail } from './run.mjs';
import { say, StepError } from './say.mjs';

/** npm tries for minutes before it gives up: whoever waits is told why after this long. */
const UNEASY_AFTER_MS = 15_000;

/** Says that the network is the trouble when the registry's name is unknown. @param {string} root */
async function sayWhenWithoutNetwork(root) {
  const { output } = await run('npm', ['config', 'get', 'registry', '--silent'], { cwd: root });
  const address = output.split('\n').find((line) => line.startsWith('http')) ?? '';
  try {
    await lookup(new URL(address).hostname);
  } catch {
    say('The network does not answer; npm goes on trying for some minutes. Ctrl-C ends it.');
  }
}

/** What of Node.js does: the first minor version of each major one, and all later majors. */
const ENOUGH = [
  [20, 19],
  [22, 13],
  [24, 0],
];
const INSTALL_NODE =
  'install Node.js 24 (or 22.13 and later, or 20.19 and later), then start again.';

/** Whether a version of Node.js runs this. @param {string} version */
export function isNodeEnough(version) {
  const [major = 0, minor = 0] = version.split('.').map(Number);
  return major > 24 || ENOUGH.some(([of, least = 0]) => major === of && minor >= least);
}

/** Installs the node packages when the lock file has changed since they were installed. @param {string} root */
export async function installNodePackages(root) {
  if (!isNodeEnough(process.versions.node)) {
    const why = `this is Node.js ${process.versions.node}, which cannot run it.`;
    throw new StepError('Looking at Node.js', why, INSTALL_NODE);
  }
  const lock = readFileSync(join(root, 'package-lock.json'));
  const digest = createHash('sha256').update(lock).digest('hex');
  const stamp = join(root, 'node_modules', '.vine-lock-digest');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === digest) return;
  say('Installing node packages (a minute or two, only when they have changed) …');
  // An installation that is interrupted must not pass for the one before it.
  rmSync(stamp, { force: true });
  const uneasy = setTimeout(() => void sayWhenWithoutNetwork(root), UNEASY_AFTER_MS);
  const outcome = await run('npm', ['ci', '--no-progress', '--no-audit', '--no-fund'], {
    cwd: root,
  });
  clearTimeout(uneasy);
  if (outcome.code !== 0) {
    throw new StepError(
      'Installing node packages',
      `npm ci failed:\n${tail(outcome.output)}`,
      /EBADENGINE/.test(outcome.output)
        ? INSTALL_NODE
        : isWithoutNetwork(outcome.output)
          ? 'the first start needs the network, for the packages; connect the machine, then start again.'
          : 'check the network and the disk, then start again; nothing else has been changed.',
    );
  }
  writeFileSync(stamp, digest);
}

/** Whether a package manager says that it could not reach anybody. @param {string} output */
function isWithoutNetwork(output) {
  return /ENOTFOUND|EAI_AGAIN|ECONNREFUSED|ENETUNREACH|ETIMEDOUT|Temporary failure resolving|Could not (resolve|connect)/.test(
    output,
  );
}

/** Installs Debian packages by name. @param {readonly string[]} names */
export const aptInstall = (names) =>
  `apt-get install -y --no-install-recommends ${names.join(' ')}`;

/**
 * Installs Debian packages, as root or through sudo.
 * @param {string} purpose what they are for, as it is told to the user
 * @param {string} script shell commands that install them, after the package lists have been brought up to date
 */
export async function installDebianPackages(purpose, script) {
  const isRoot = process.getuid?.() === 0;
  const command = `apt-get update && ${script}`;
  if (!isRoot && (await run('sudo', ['-n', 'true'])).code !== 0) {
    throw new StepError(
      `Finding ${purpose}`,
      'it is not installed, and this account may not install it.',
      `run this once, then start again:\n  sudo sh -c '${command}'`,
    );
  }
  say(`Installing ${purpose} from Debian's packages …`);
  const shell = ['sh', '-c', `export DEBIAN_FRONTEND=noninteractive; ${command}`];
  const [program = 'sh', ...args] = isRoot ? shell : ['sudo', '-n', ...shell];
  const outcome = await run(program, args);
  if (outcome.code !== 0) {
    throw new StepError(
      `Installing ${purpose}`,
      `apt-get failed:\n${tail(outcome.output)}`,
      isWithoutNetwork(outcome.output)
        ? `the first start needs the network, for ${purpose}; connect the machine, then start again.`
        : `run as root, and mend what it says: ${command}`,
    );
  }
}
