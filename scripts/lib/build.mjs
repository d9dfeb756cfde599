import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { run, tail } from './run.mjs';
import { say, StepError } from './say.mjs';

const SOURCES = ['core', 'calc', 'contract', 'server', 'web', 'demo'];
const SINGLE_FILES = ['package-lock.json', 'vite.config.ts', 'vite.server.config.ts'];

/** Builds the web client and the server when a source has changed since the last build. @param {string} root */
export async function buildWhenChanged(root) {
  const digest = digestSources(root);
  const stamp = join(root, 'dist', '.sources');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === digest) return;
  say('Building (the sources have changed) …');
  // A build that is interrupted must not pass for the one before it.
  rmSync(stamp, { force: true });
  // Whatever asks for it, such as a test: what is built is what runs in production.
  const env = { ...process.env, NODE_ENV: 'production' };
  const outcome = await run('npm', ['run', '--silent', 'build'], { cwd: root, env });
  if (outcome.code !== 0) {
    throw new StepError(
      'Building',
      tail(outcome.output, 30),
      'mend what it names, then start again.',
    );
  }
  writeFileSync(stamp, digest);
}

/** @param {string} root */
function digestSources(root) {
  const hash = createHash('sha256');
  for (const file of [...SINGLE_FILES, ...SOURCES.flatMap((room) => filesOf(root, room))]) {
    hash
      .update(file)
      .update('\0')
      .update(readFileSync(join(root, file)));
  }
  return hash.digest('hex');
}

/** Files of a folder that go into the build, in a fixed order. @param {string} root @param {string} folder */
function filesOf(root, folder) {
  return readdirSync(join(root, folder), { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile() && !/\.test\.tsx?$/.test(entry.name))
    .map((entry) => join(entry.parentPath, entry.name).slice(root.length + 1))
    .sort();
}
