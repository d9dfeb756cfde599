import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { aptInstall, installDebianPackages } from './packages.mjs';
import { StepError } from './say.mjs';

const DEBIAN_FOLDER = '/usr/lib/postgresql';

/**
 * The folder of PostgreSQL's server programs, installed if need be.
 * @param {string} cluster an existing cluster needs the major version that made it
 */
export async function findServerPrograms(cluster) {
  if (installedMajors().length === 0) await installPostgres();
  const majors = installedMajors();
  const versionFile = join(cluster, 'PG_VERSION');
  const wanted = existsSync(versionFile) ? readFileSync(versionFile, 'utf8').trim() : majors[0];
  if (wanted === undefined || !majors.includes(wanted)) {
    throw new StepError(
      'Finding PostgreSQL',
      `the data were made by version ${wanted ?? '?'}, but installed is ${majors.join(', ') || 'none'}.`,
      `install the package postgresql-${wanted ?? ''}, or start with another DATA_DIR.`,
    );
  }
  return join(DEBIAN_FOLDER, wanted, 'bin');
}

/** Installed major versions, newest first. */
function installedMajors() {
  if (!existsSync(DEBIAN_FOLDER)) return [];
  return readdirSync(DEBIAN_FOLDER)
    .filter((major) => existsSync(join(DEBIAN_FOLDER, major, 'bin', 'initdb')))
    .sort((a, b) => Number(b) - Number(a));
}

/**
 * Installs the server programs alone: while they are installed, Debian's tools are told not to make and start a main
 * cluster that nobody asked for.
 */
async function installPostgres() {
  const settings = '/etc/postgresql-common/createcluster.conf';
  await installDebianPackages(
    'the PostgreSQL server',
    [
      aptInstall(['postgresql-common']),
      `cp ${settings} ${settings}.kept`,
      `echo "create_main_cluster = false" >> ${settings}`,
      `{ ${aptInstall(['postgresql'])}; status=$?; mv ${settings}.kept ${settings}; exit $status; }`,
    ].join(' && '),
  );
}

/**
 * The account that PostgreSQL runs under: it refuses root, so root lends it the one that Debian's package made.
 * @returns {{ uid: number, gid: number } | null} null for the present account
 */
export function serverAccount() {
  if (process.getuid?.() !== 0) return null;
  const line = readFileSync('/etc/passwd', 'utf8')
    .split('\n')
    .find((entry) => entry.startsWith('postgres:'));
  const [, , uid, gid] = line?.split(':') ?? [];
  if (uid === undefined || gid === undefined) {
    throw new StepError(
      'Choosing an account for PostgreSQL',
      'it refuses to run as root, and the account postgres is missing.',
      'install the package postgresql again, or start as an ordinary user.',
    );
  }
  return { uid: Number(uid), gid: Number(gid) };
}
