// npm run trial [-- --with-tests]: both commands of the README in a plain Debian folder made with debootstrap, with
// neither PostgreSQL nor Chromium, first as root, then as an ordinary user. As root, with the network.
import { spawn } from 'node:child_process';
import {
  chmodSync,
  cpSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  rmSync,
} from 'node:fs';
import { homedir, tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { freePort } from './lib/cluster.mjs';
import { aptInstall, installDebianPackages } from './lib/packages.mjs';
import { ROOT } from './lib/place.mjs';
import { run, tail } from './lib/run.mjs';
import { runCommand, say, StepError } from './lib/say.mjs';
import { seeFirstPage } from './lib/serving.mjs';

/** Where the checkout lies in the plain Debian. */
const PLACE = '/srv/vine';

/** @param {string} step @param {string} program @param {readonly string[]} args */
async function must(step, program, args) {
  const outcome = await run(program, args, { cwd: '/' });
  if (outcome.code !== 0) throw new StepError(step, tail(outcome.output, 30), 'see above.');
  return outcome.output.trim();
}

/** A plain Debian of this machine's release, with this machine's Node.js and its way to the packages. */
async function makeDebian(/** @type {string} */ root) {
  const release = /VERSION_CODENAME=(\w+)/.exec(readFileSync('/etc/os-release', 'utf8'))?.[1] ?? '';
  await must('Making a plain Debian', 'debootstrap', ['--variant=minbase', release, root]);
  for (const path of ['/etc/apt', '/etc/resolv.conf', '/etc/hosts', '/etc/ssl/certs']) {
    if (existsSync(path)) {
      cpSync(path, join(root, path), { recursive: true, force: true, dereference: true });
    }
  }
  const prefix = dirname(dirname(process.execPath));
  for (const path of ['bin/node', 'bin/npm', 'bin/npx', 'lib/node_modules/npm']) {
    cpSync(join(prefix, path), join(root, '/usr/local', path), {
      recursive: true,
      verbatimSymlinks: true,
    });
  }
  // How this machine reaches the packages: npm's settings and the certificates it trusts.
  const settings = join(homedir(), '.npmrc');
  for (const home of ['/root', '/home/analyst']) {
    mkdirSync(join(root, home), { recursive: true });
    if (existsSync(settings)) cpSync(settings, join(root, home, '.npmrc'));
  }
  const global = join(prefix, 'etc', 'npmrc');
  if (existsSync(global)) cpSync(global, join(root, '/usr/local/etc/npmrc'), { recursive: true });
  await must('Looking at the checkout', 'git', ['clone', '--quiet', ROOT, join(root, PLACE)]);
  for (const device of ['proc', 'dev', 'dev/shm']) {
    mkdirSync(join(root, device), { recursive: true });
    await must('Lending it devices', 'mount', ['--bind', `/${device}`, join(root, device)]);
  }
}

/** @param {string} root @param {readonly string[]} as command words that choose the account */
function inside(root, as) {
  return (/** @type {string} */ command, /** @type {NodeJS.ProcessEnv} */ env = {}) =>
    spawn('chroot', [root, ...as, 'sh', '-c', `cd ${PLACE} && ${command}`], {
      cwd: '/',
      env: {
        ...trustedCertificates(),
        PATH: '/usr/local/sbin:/usr/local/bin:/usr/sbin:/usr/bin:/sbin:/bin',
        HOME: '/root',
        ...env,
      },
      stdio: ['ignore', 'pipe', 'pipe'],
    });
}

/** Variables that name the certificates which this machine trusts. */
function trustedCertificates() {
  return Object.fromEntries(Object.entries(process.env).filter(([name]) => /CERT|_CA_/.test(name)));
}

/**
 * Starts, looks at the first page, ends. Gives the seconds until it served.
 * @param {ReturnType<typeof inside>} shell
 */
async function tryStart(shell) {
  const port = String(await freePort());
  const began = Date.now();
  const child = shell('exec npm start', { PORT: port });
  let servedAt = began;
  child.stdout.on('data', (chunk) => {
    if (String(chunk).includes('serves on')) servedAt = Date.now();
  });
  await seeFirstPage(child, port);
  return (servedAt - began) / 1000;
}

/** @param {ReturnType<typeof inside>} shell */
async function tryTests(shell) {
  const child = shell('npm test');
  let output = '';
  for (const stream of [child.stdout, child.stderr]) {
    stream.on('data', (chunk) => {
      output += chunk;
    });
  }
  const code = await new Promise((resolve) => child.once('close', resolve));
  if (code !== 0) throw new StepError('npm test', tail(output, 60), 'see above.');
  return tail(output, 1);
}

await runCommand(async () => {
  if (process.getuid?.() !== 0) {
    throw new StepError('Trying', 'making a plain Debian takes root.', 'sudo npm run trial');
  }
  if (!existsSync('/usr/sbin/debootstrap')) {
    await installDebianPackages('debootstrap', aptInstall(['debootstrap']));
  }
  const root = mkdtempSync(join(tmpdir(), 'vine-trial-'));
  // The root of a system is open to its accounts.
  chmodSync(root, 0o755);
  try {
    say('Making a plain Debian (a minute or two) …');
    await makeDebian(root);
    const asRoot = inside(root, []);
    say('npm start, as root, nothing there …');
    console.log(`root, first start: ${(await tryStart(asRoot)).toFixed(0)} s`);
    console.log(`root, second start: ${(await tryStart(asRoot)).toFixed(0)} s`);
    if (process.argv.includes('--with-tests')) {
      say('npm test, as root …');
      console.log(`root, tests: ${await tryTests(asRoot)}`);
    }
    await must('Adding a user', 'chroot', [root, 'useradd', 'analyst']);
    await must('Giving it the checkout', 'chroot', [
      root,
      'chown',
      '-R',
      'analyst',
      PLACE,
      '/home/analyst',
    ]);
    for (const built of ['node_modules', 'dist']) {
      rmSync(join(root, PLACE, built), { recursive: true, force: true });
    }
    const asUser = inside(root, [
      'setpriv',
      '--reuid=analyst',
      '--regid=analyst',
      '--init-groups',
      'env',
      'HOME=/home/analyst',
    ]);
    say('npm start, as an ordinary user …');
    console.log(`user, first start: ${(await tryStart(asUser)).toFixed(0)} s`);
    console.log(`user, second start: ${(await tryStart(asUser)).toFixed(0)} s`);
  } finally {
    for (const device of ['dev/shm', 'dev', 'proc']) {
      await run('umount', [join(root, device)]);
    }
    // While something of this machine is still lent to it, the folder must not be deleted.
    if (readFileSync('/proc/mounts', 'utf8').includes(root)) {
      say(`${root} is left: something is still mounted in it.`);
    } else {
      rmSync(root, { recursive: true, force: true });
    }
  }
});
