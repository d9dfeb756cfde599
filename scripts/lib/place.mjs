import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { basename, dirname, join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { StepError } from './say.mjs';

/** The checkout. */
export const ROOT = dirname(dirname(dirname(fileURLToPath(import.meta.url))));

/**
 * Where this checkout keeps its data: `DATA_DIR`, else `.data` in the checkout. Root's database runs under another
 * account, which may not be able to reach the checkout; its data lie under /var/lib.
 */
export function dataFolder() {
  const chosen = process.env['DATA_DIR'];
  if (chosen) return resolve(chosen);
  if (process.getuid?.() !== 0) return join(ROOT, '.data');
  const digest = createHash('sha256').update(ROOT).digest('hex').slice(0, 8);
  return join('/var/lib/vine-measure', `${basename(ROOT)}-${digest}`);
}

/**
 * Claims the data folder for this process, until it ends.
 * @param {string} folder
 */
export function claimFolder(folder) {
  const file = join(folder, 'start.pid');
  mkdirSync(folder, { recursive: true });
  const holder = existsSync(file) ? Number(readFileSync(file, 'utf8')) : 0;
  if (holder && holder !== process.pid && isStartCommand(holder)) {
    throw new StepError(
      'Starting',
      `Vine Measure is running on these data already (process ${holder}).`,
      'use that one, or end it first; DATA_DIR=… npm start makes a second one with data of its own.',
    );
  }
  writeFileSync(file, String(process.pid));
  process.once('exit', () => rmSync(file, { force: true }));
}

/** Whether a process is alive and is this command: its number may have passed to a stranger. @param {number} pid */
function isStartCommand(pid) {
  try {
    return readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('start.mjs');
  } catch {
    return false;
  }
}
