import { spawn } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, expect, test } from 'vitest';
import { freePort } from './lib/cluster.mjs';
import { ROOT } from './lib/place.mjs';

const folder = mkdtempSync(join(tmpdir(), 'vine-start-'));
afterAll(() => {
  rmSync(folder, { recursive: true, force: true });
});

/** Runs `npm start` until it serves, asks it something, then sends npm a signal; gives what it printed. */
async function startAndStop(args: readonly string[], signal: NodeJS.Signals) {
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
  await Promise.race([serves, ended]);
  const answer = await fetch(`http://127.0.0.1:${port}/api/session`);
  const session = (await answer.json()) as object;
  const page = await (await fetch(`http://127.0.0.1:${port}/runs/deep/link`)).text();
  const postmaster = Number(
    readFileSync(join(folder, 'pgdata', 'postmaster.pid'), 'utf8').split('\n')[0],
  );
  child.kill(signal);
  const code = await ended;
  return { output, session, page, code, postmaster };
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
