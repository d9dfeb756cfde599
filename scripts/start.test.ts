import { spawn, spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readdirSync, readFileSync, readlinkSync, rmSync } from 'node:fs';
import { get } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, expect, test, vi } from 'vitest';
import { freePort } from './lib/cluster.mjs';
import { ROOT } from './lib/place.mjs';

const folder = mkdtempSync(join(tmpdir(), 'vine-start-'));
afterAll(() => {
  rmSync(folder, { recursive: true, force: true });
});

interface Meanwhile {
  /** Asks for the session; the status, or 0 while nobody answers. */
  readonly ask: () => Promise<number>;
  /** Process ids of the servers that work on the data. */
  readonly processes: (program: 'postgres' | 'main.js') => number[];
}

/** Runs `npm start` until it serves, asks it something, then sends npm a signal; gives what it printed. */
async function startAndStop(
  args: readonly string[],
  signal: NodeJS.Signals,
  meanwhile: (given: Meanwhile) => Promise<void> = () => Promise.resolve(),
) {
  const port = String(await freePort());
  const child = spawn('npm', ['start', '--', ...args], {
    cwd: ROOT,
    env: { ...process.env, PORT: port, DATA_DIR: folder, LOG_LEVEL: 'silent', DATABASE_URL: '' },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  let output = '';
  const ended = new Promise<number | null>((resolve) => child.once('exit', resolve));
  const serves = new Promise<void>((resolve) => {
    for (const stream of [child.stdout, child.stderr]) {
      stream.on('data', (chunk: Buffer) => {
        output += chunk.toString();
        if (output.includes('serves on')) resolve();
      });
    }
  });
  await Promise.race([
    serves,
    ended.then(() => {
      throw new Error(`it ended instead of serving: ${output}`);
    }),
  ]);
  const answer = await fetch(`http://127.0.0.1:${port}/api/session`);
  const session = (await answer.json()) as object;
  const page = await (await fetch(`http://127.0.0.1:${port}/runs/deep/link`)).text();
  const postmaster = Number(
    readFileSync(join(folder, 'pgdata', 'postmaster.pid'), 'utf8').split('\n')[0],
  );
  // A connection of its own each time: one that is kept ends with the process that it led to.
  const ask = (): Promise<number> =>
    new Promise((resolve) => {
      get(`http://127.0.0.1:${port}/api/session`, { agent: false }, (answered) => {
        answered.resume();
        resolve(answered.statusCode ?? 0);
      }).on('error', () => {
        resolve(0);
      });
    });
  await meanwhile({ ask, processes: (program) => processesOf(program, port) });
  child.kill(signal);
  const code = await ended;
  return { output, session, page, code, postmaster };
}

/** The app server on a port, or all of PostgreSQL on the data of this test. */
function processesOf(program: 'postgres' | 'main.js', port: string): number[] {
  const data = join(folder, 'pgdata');
  return readdirSync('/proc')
    .filter((name) => /^\d+$/.test(name))
    .filter((pid) => {
      try {
        if (program === 'postgres') return readlinkSync(`/proc/${pid}/cwd`) === data;
        const isServer = readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('/main.js');
        return isServer && readFileSync(`/proc/${pid}/environ`, 'utf8').includes(`PORT=${port}\0`);
      } catch {
        // It has just ended.
        return false;
      }
    })
    .map(Number);
}

test('npm start --empty makes a laboratory that the next start finds; a signal to npm ends all of it', async () => {
  const first = await startAndStop(['--empty'], 'SIGTERM');
  expect(first.output).toMatch(/One-time code for the first one: [A-Z2-9]{4}-[A-Z2-9]{4}/);
  expect(first.session).toMatchObject({ kind: 'signed-out', needsFirstAccount: true });
  expect(first.page).toContain('<title>Vine Measure</title>');
  expect(first.code).toBe(0);
  expect(existsSync(`/proc/${String(first.postmaster)}`)).toBe(false);

  const second = await startAndStop([], 'SIGINT');
  expect(second.session).toMatchObject({
    laboratoryName: 'Ambergrund Winegrowers, control laboratory',
  });
  expect(second.code).toBe(0);
  expect(existsSync(join(folder, 'pgdata', 'postmaster.pid'))).toBe(false);
});

test('what is killed is started again by itself, and serves', async () => {
  const { code, output } = await startAndStop([], 'SIGTERM', async ({ ask, processes }) => {
    for (const program of ['main.js', 'postgres'] as const) {
      const [victim] = processes(program).toSorted((a, b) => a - b);
      process.kill(victim ?? 0, 'SIGKILL');
      // First it is noticed, then mended.
      await vi.waitFor(
        async () => {
          expect(await ask()).not.toBe(200);
        },
        { timeout: 30_000 },
      );
      await vi.waitFor(
        async () => {
          expect(await ask()).toBe(200);
        },
        {
          timeout: 60_000,
          interval: 200,
        },
      );
    }
  });
  expect(output).toContain('The app server has ended by itself; starting it again');
  expect(output).toContain('The database server has ended by itself; starting it again');
  expect(code).toBe(0);
});

test('Stopping ends all of it though the database is frozen, and the next start is not refused', async () => {
  const frozen = await startAndStop([], 'SIGTERM', ({ processes }) => {
    for (const pid of processes('postgres')) process.kill(pid, 'SIGSTOP');
    return Promise.resolve();
  });
  expect(frozen.output).toContain('Stopping');
  expect(existsSync(`/proc/${String(frozen.postmaster)}`)).toBe(false);
  const next = await startAndStop([], 'SIGTERM');
  expect(next.code).toBe(0);
});

test('of two app processes one goes on while the other is killed and comes again', async () => {
  const { code, output } = await startAndStop(
    ['--processes', '2'],
    'SIGTERM',
    async ({ ask, processes }) => {
      const before = processes('main.js');
      expect(before).toHaveLength(2);
      process.kill(before[0] ?? 0, 'SIGKILL');
      await vi.waitFor(() => {
        expect(processes('main.js')).not.toContain(before[0]);
      });
      const statuses: number[] = [];
      await vi.waitFor(
        async () => {
          statuses.push(await ask());
          expect(processes('main.js')).toHaveLength(2);
        },
        { timeout: 30_000 },
      );
      expect(new Set(statuses)).toEqual(new Set([200]));
      expect(processes('main.js')).toContain(before[1]);
    },
  );
  expect(output).toMatch(/The app server \d has ended by itself; starting it again/);
  expect(code).toBe(0);
});

test.each([
  [['--empty', '--demo'], 'exclude each other'],
  [['--help'], "Unknown option '--help'"],
  [['--processes', '0'], 'a number from 1 to 16'],
  [['--processes', '17'], 'a number from 1 to 16'],
  [['--processes', 'many'], 'a number from 1 to 16'],
])('%j is refused before anything starts', (args, why) => {
  const { status, stderr } = spawnSync('npm', ['start', '--', ...args], {
    cwd: ROOT,
    encoding: 'utf8',
    env: { ...process.env, DATA_DIR: join(folder, 'nothing') },
  });
  expect(status).toBe(1);
  expect(stderr).toContain(why);
  expect(existsSync(join(folder, 'nothing'))).toBe(false);
});
