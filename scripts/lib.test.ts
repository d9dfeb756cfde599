import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createServer } from 'node:net';
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { createTestDatabase } from '../server/test-support/database';
import { startAppServer } from './lib/app.mjs';
import { dropOlderAssets, listedFiles } from './lib/buildBefore.mjs';
import { freePort } from './lib/cluster.mjs';
import { keepRunning } from './lib/keep.mjs';
import { installNodePackages, isNodeEnough } from './lib/packages.mjs';
import { birthOf, claimFolder, dataFolder, ROOT } from './lib/place.mjs';
import { findServerPrograms } from './lib/postgres.mjs';
import { run, tail } from './lib/run.mjs';
import { runCommand, StepError } from './lib/say.mjs';

let folder: string;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'vine-scripts-'));
});
afterEach(() => {
  rmSync(folder, { recursive: true, force: true });
  vi.unstubAllEnvs();
  vi.restoreAllMocks();
  process.exitCode = 0;
});

describe('the data folder', () => {
  test('is the one that was chosen, else one of this checkout alone', () => {
    vi.stubEnv('DATA_DIR', folder);
    expect(dataFolder()).toBe(folder);
    vi.stubEnv('DATA_DIR', '');
    expect(dataFolder()).toMatch(
      process.getuid?.() === 0 ? /^\/var\/lib\/vine-measure\// : /\.data$/,
    );
  });

  test('is claimed by one command at a time; a number that passed to a stranger does not count', () => {
    const file = join(folder, 'start.pid');
    // The first process of the machine lives, but was born at another time than the claim says.
    writeFileSync(file, '1 999999999999');
    claimFolder(folder);
    expect(readFileSync(file, 'utf8')).toBe(`${String(process.pid)} ${birthOf(process.pid) ?? ''}`);
  });

  test('that another start holds is left alone, with a word on what to do', async () => {
    const other = spawn(process.execPath, ['-e', 'setTimeout(() => {}, 60000)']);
    await once(other, 'spawn');
    const holder = String(other.pid);
    writeFileSync(join(folder, 'start.pid'), `${holder} ${birthOf(Number(holder)) ?? ''}`);
    let refusal: unknown;
    try {
      claimFolder(folder);
    } catch (error) {
      refusal = error;
    }
    other.kill();
    await once(other, 'exit');
    expect(refusal).toBeInstanceOf(StepError);
    expect((refusal as StepError).message).toContain(`process ${holder}`);
    expect((refusal as StepError).remedy).toContain('DATA_DIR');
  });

  test('made by a PostgreSQL that is not installed names the package to install', async () => {
    const cluster = join(folder, 'pgdata');
    mkdirSync(cluster);
    writeFileSync(join(cluster, 'PG_VERSION'), '9\n');
    await expect(findServerPrograms(cluster)).rejects.toMatchObject({
      message: expect.stringContaining('version 9') as string,
      remedy: expect.stringContaining('postgresql-9') as string,
    });
  });
});

describe('a step that fails', () => {
  test('says which, why and what to do, and sets the exit code', async () => {
    const said = vi.spyOn(console, 'error').mockImplementation(() => undefined);
    await runCommand(() =>
      Promise.reject(new StepError('Building', 'no space left', 'make room.')),
    );
    expect(said.mock.calls.join()).toMatch(/Building: no space left\s+What to do: make room\./);
    expect(process.exitCode).toBe(1);
  });

  test('a port in use is told without a stack trace', async () => {
    const port = await freePort();
    const holder = createServer().listen(port, '127.0.0.1');
    const database = await createTestDatabase();
    const attempt = startAppServer(ROOT, { DATABASE_URL: database.url, PORT: String(port) });
    await expect(attempt).rejects.toMatchObject({
      message: expect.stringMatching(/EADDRINUSE/) as string,
      remedy: expect.stringContaining('PORT=') as string,
    });
    holder.close();
    await database.drop();
  });
});

describe('a server that is kept running', () => {
  /** A server that ends when it is told to, and one to be started for each time. */
  function servers() {
    const started: { end: () => void }[] = [];
    const start = vi.fn(() => {
      let end = (): void => undefined;
      const ended = new Promise<void>((resolve) => {
        end = resolve;
      });
      started.push({ end });
      return Promise.resolve({
        ended,
        stop: () => {
          end();
          return Promise.resolve();
        },
      });
    });
    const endLast = (): void => started.at(-1)?.end();
    return { start, endLast };
  }

  test('is started again five times within a minute, then given up; an older end is forgiven', async () => {
    const { start, endLast } = servers();
    let now = 0;
    const onGivenUp = vi.fn();
    await keepRunning(start, { onAgain: () => undefined, onGivenUp, now: () => now });
    for (let turn = 1; turn <= 5; turn += 1) {
      endLast();
      await vi.waitFor(
        () => {
          expect(start).toHaveBeenCalledTimes(1 + turn);
        },
        { timeout: 30_000 },
      );
    }
    now = 61_000;
    endLast();
    await vi.waitFor(
      () => {
        expect(start).toHaveBeenCalledTimes(7);
      },
      { timeout: 30_000 },
    );
    for (let turn = 2; turn <= 5; turn += 1) {
      endLast();
      await vi.waitFor(
        () => {
          expect(start).toHaveBeenCalledTimes(6 + turn);
        },
        { timeout: 30_000 },
      );
    }
    expect(onGivenUp).not.toHaveBeenCalled();
    endLast();
    await vi.waitFor(() => {
      expect(onGivenUp).toHaveBeenCalledWith(null);
    });
    expect(start).toHaveBeenCalledTimes(11);
  });

  test('is not started again once it has been stopped, and one that cannot start says why', async () => {
    const { start, endLast } = servers();
    const kept = await keepRunning(start, { onAgain: vi.fn(), onGivenUp: vi.fn() });
    await kept.stop();
    expect(start).toHaveBeenCalledTimes(1);
    const onGivenUp = vi.fn();
    await keepRunning(start, { onAgain: vi.fn(), onGivenUp });
    start.mockRejectedValue(new Error('no room'));
    endLast();
    await vi.waitFor(
      () => {
        expect(onGivenUp).toHaveBeenCalledWith(new Error('no room'));
      },
      {
        timeout: 30_000,
      },
    );
  });
});

test.each([
  ['18.20.0', false],
  ['20.18.3', false],
  ['20.19.0', true],
  ['21.7.0', false],
  ['22.12.9', false],
  ['22.13.0', true],
  ['23.11.0', false],
  ['24.0.0', true],
  ['26.1.0', true],
])('Node.js %s runs it: %s', (version, isEnough) => {
  expect(isNodeEnough(version)).toBe(isEnough);
});

test('a Node.js that is too old is told with what to install', async () => {
  const known = Object.getOwnPropertyDescriptor(process, 'versions') ?? {};
  Object.defineProperty(process, 'versions', { ...known, value: { node: '18.20.0' } });
  const installing = installNodePackages(folder);
  await expect(installing).rejects.toMatchObject({
    message: expect.stringContaining('Node.js 18.20.0') as string,
    remedy: expect.stringContaining('install Node.js 24') as string,
  });
  Object.defineProperty(process, 'versions', known);
});

describe('running programs', () => {
  test('keeps what they print and how they ended', async () => {
    const script = 'console.log("out"); console.error("err"); process.exitCode = 3';
    const outcome = await run(process.execPath, ['-e', script]);
    expect(outcome.code).toBe(3);
    expect(outcome.output).toContain('out');
    expect(outcome.output).toContain('err');
  });

  test('a program that is not there is a failure, not an exception', async () => {
    expect((await run('no-such-program', [])).code).toBe(1);
  });

  test('a long output is cut to its last lines', () => {
    const lines = Array.from({ length: 40 }, (_, i) => `line ${String(i)}`).join('\n');
    expect(tail(`${lines}\n`, 2)).toBe('line 38\nline 39');
  });
});

test('a build leaves the assets of the one before it, and of no older one', () => {
  mkdirSync(join(folder, 'assets'));
  const assets = () => readdirSync(join(folder, 'assets')).sort();
  const build = (...names: string[]) => {
    const before = listedFiles(folder);
    for (const name of names) {
      for (const ending of ['', '.br']) writeFileSync(join(folder, 'assets', name + ending), '');
    }
    const files = ['/', ...names.map((name) => `/assets/${name}`)];
    writeFileSync(join(folder, 'files.json'), JSON.stringify(files));
    dropOlderAssets(folder, before);
  };
  build('index-1.js', 'font.js');
  build('index-2.js', 'font.js');
  const both = ['font.js', 'font.js.br', 'index-1.js', 'index-1.js.br'];
  expect(assets()).toEqual([...both, 'index-2.js', 'index-2.js.br']);
  // The server alone has changed.
  build('index-2.js', 'font.js');
  expect(assets()).toEqual([...both, 'index-2.js', 'index-2.js.br']);
  build('index-3.js');
  expect(assets()).toEqual([
    ...['font.js', 'font.js.br', 'index-2.js', 'index-2.js.br'],
    ...['index-3.js', 'index-3.js.br'],
  ]);
});
