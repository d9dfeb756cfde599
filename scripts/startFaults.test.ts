import { spawn } from 'node:child_process';
import { once } from 'node:events';
import {
  chmodSync,
  cpSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { createTestDatabase } from '../server/test-support/database';
import { prepareDatabase, startAppServer } from './lib/app.mjs';
import { buildWhenChanged } from './lib/build.mjs';
import { startCluster } from './lib/cluster.mjs';
import { installNodePackages } from './lib/packages.mjs';
import { ROOT } from './lib/place.mjs';
import { serverAccount } from './lib/postgres.mjs';
import { runCommand } from './lib/say.mjs';

let folder: string;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'vine-faults-'));
  vi.spyOn(console, 'log').mockImplementation(() => undefined);
});
afterEach(() => {
  rmSync(folder, { recursive: true, force: true });
  vi.unstubAllEnvs();
  vi.restoreAllMocks();
  process.exitCode = 0;
});

/** What a refusal tells the user: one sentence on what happened, one on what to do. */
function telling(message: RegExp, remedy: RegExp) {
  return {
    message: expect.stringMatching(message) as string,
    remedy: expect.stringMatching(remedy) as string,
  };
}

const quick = { durable: false };

describe('the database cluster', () => {
  test('whose start command was killed is ended and started again', async () => {
    const first = await startCluster(folder, quick);
    await first.createDatabase('kept');
    const second = await startCluster(folder, quick);
    await first.ended;
    expect(await second.hasDatabase('kept')).toBe(true);
    await second.stop();
  });

  test('that a power cut left comes up, though its number has passed to a stranger, who is left alone', async () => {
    const first = await startCluster(folder, quick);
    await first.createDatabase('kept');
    process.kill(first.pid, 'SIGKILL');
    await first.ended;
    // Of the same account: PostgreSQL takes only such a process for its own.
    const stranger = spawn('sleep', ['600'], { ...serverAccount(), cwd: '/' });
    await once(stranger, 'spawn');
    const file = join(folder, 'pgdata', 'postmaster.pid');
    const [, ...rest] = readFileSync(file, 'utf8').split('\n');
    writeFileSync(file, [String(stranger.pid), ...rest].join('\n'));
    const second = await startCluster(folder, quick);
    expect(await second.hasDatabase('kept')).toBe(true);
    expect(stranger.exitCode).toBeNull();
    stranger.kill();
    await second.stop();
  });

  test('that was never finished is set aside, not used and not deleted', async () => {
    mkdirSync(join(folder, 'pgdata', 'base'), { recursive: true });
    mkdirSync(join(folder, 'pgdata.new'), { recursive: true });
    const cluster = await startCluster(folder, quick);
    await cluster.stop();
    const names = readdirSync(folder);
    expect(names.some((name) => name.startsWith('pgdata.half-made-'))).toBe(true);
    expect(names).not.toContain('pgdata.new');
    expect(existsSync(join(folder, 'pgdata', 'PG_VERSION'))).toBe(true);
  });
});

test('passwords stand on no command line, and logs are their owner’s alone', async () => {
  const cluster = await startCluster(folder, quick);
  const secrets = Object.values(
    JSON.parse(readFileSync(join(folder, 'credentials.json'), 'utf8')) as Record<string, string>,
  );
  const lines = new Set<string>();
  let isLooking = true;
  const look = async (): Promise<void> => {
    while (isLooking) {
      for (const name of readdirSync('/proc').filter((entry) => /^\d+$/.test(entry))) {
        try {
          lines.add(readFileSync(`/proc/${name}/cmdline`, 'utf8'));
        } catch {
          // It has just ended.
        }
      }
      await new Promise((resolve) => setImmediate(resolve));
    }
  };
  const looking = look();
  for (const name of ['a', 'b', 'c']) await cluster.createDatabase(name);
  isLooking = false;
  await looking;
  const seen = [...lines].join('\n');
  expect(seen).toContain('psql');
  for (const secret of secrets) expect(seen).not.toContain(secret);
  expect(statSync(join(folder, 'postgres.log')).mode & 0o077).toBe(0);
  await cluster.stop();
});

test('a database that a newer program has changed is left as it is, with a word on what to do', async () => {
  const { owner, url, drop } = await createTestDatabase();
  await owner('knex_migrations').insert({
    name: '999_later',
    batch: 9,
    migration_time: new Date(),
  });
  const env = { DATABASE_URL: url, DATABASE_OWNER_URL: url };
  await expect(prepareDatabase(ROOT, env)).rejects.toMatchObject(
    telling(/newer version.*999_later/, /start that version/),
  );
  await drop();
});

test('a database that cannot be reached is told without a stack trace', async () => {
  const url = 'postgresql://nobody:x@127.0.0.1:9/none';
  const env = { DATABASE_URL: url, DATABASE_OWNER_URL: url, PORT: '0' };
  await expect(prepareDatabase(ROOT, env)).rejects.toMatchObject(
    telling(/^Preparing the database: .*ECONNREFUSED[^\n]*$/, /DATABASE_URL/),
  );
  await expect(startAppServer(ROOT, env)).rejects.toMatchObject(
    telling(/ECONNREFUSED/, /start again/),
  );
});

test('passwords are not sent over a network in the clear', async () => {
  const env = { DATABASE_URL: 'postgresql://x', HOST: '0.0.0.0', TLS_CERT: '', TLS_KEY: '' };
  await expect(startAppServer(ROOT, env)).rejects.toMatchObject(
    telling(/TLS_CERT and TLS_KEY/, /start again/),
  );
});

test.each([
  [new Error('ENOSPC: no space left on device, write'), /disk is full[^]*make room/],
  [new Error('initdb: error: could not write: No space left on device'), /disk is full/],
  [
    new Error('FATAL: could not extend file "base/1"\nHINT:  Check free disk space.'),
    /disk is full/,
  ],
  [
    Object.assign(new Error('x'), { code: 'EACCES', path: '/srv/vine' }),
    /may not write \/srv\/vine/,
  ],
])('%s is told with what to do', async (error, told) => {
  const said = vi.spyOn(console, 'error').mockImplementation(() => undefined);
  await runCommand(() => Promise.reject(error));
  expect(said.mock.calls.join()).toMatch(told);
  expect(said.mock.calls.join()).not.toContain('    at ');
  expect(process.exitCode).toBe(1);
});

/** Puts a program called npm before the real one, which says something and ends with a code. */
function fakeNpm(says: string, code: number): void {
  const bin = join(folder, 'bin');
  mkdirSync(bin, { recursive: true });
  writeFileSync(join(bin, 'npm'), `#!/bin/sh\necho "${says}" >&2\nexit ${String(code)}\n`);
  chmodSync(join(bin, 'npm'), 0o755);
  vi.stubEnv('PATH', `${bin}:${process.env.PATH ?? ''}`);
}

describe('an interrupted step', () => {
  test('of installing packages is done again, and without a network it says so', async () => {
    writeFileSync(join(folder, 'package-lock.json'), '{"packages":{}}');
    const stamp = join(folder, 'node_modules', '.vine-lock-digest');
    mkdirSync(join(folder, 'node_modules'));
    writeFileSync(stamp, 'of another list');
    fakeNpm('npm error code ENOTFOUND', 1);
    await expect(installNodePackages(folder)).rejects.toMatchObject(
      telling(/npm ci failed/, /needs the network/),
    );
    expect(existsSync(stamp)).toBe(false);
    fakeNpm('added 1 package', 0);
    await installNodePackages(folder);
    expect(existsSync(stamp)).toBe(true);
    fakeNpm('it must not be asked again', 1);
    await installNodePackages(folder);
  });

  test('of building does not pass for the build before it', async () => {
    for (const name of ['package-lock.json', 'vite.config.ts', 'vite.server.config.ts']) {
      cpSync(join(ROOT, name), join(folder, name));
    }
    for (const room of ['core', 'calc', 'contract', 'server', 'web', 'demo', 'dist']) {
      mkdirSync(join(folder, room));
    }
    fakeNpm('built', 0);
    await buildWhenChanged(folder);
    const stamp = join(folder, 'dist', '.sources');
    const before = readFileSync(stamp, 'utf8');
    writeFileSync(join(folder, 'core', 'new.ts'), 'export {}');
    fakeNpm('killed half way', 137);
    await expect(buildWhenChanged(folder)).rejects.toMatchObject(
      telling(/Building/, /start again/),
    );
    expect(existsSync(stamp)).toBe(false);
    rmSync(join(folder, 'core', 'new.ts'));
    fakeNpm('built', 0);
    await buildWhenChanged(folder);
    expect(readFileSync(stamp, 'utf8')).toBe(before);
  });
});
