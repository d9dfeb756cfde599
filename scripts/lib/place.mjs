import { createHash } from 'node:crypto';
import {
  closeSync,
  existsSync,
  mkdirSync,
  openSync,
  readFileSync,
  rmSync,
  writeSync,
} from 'node:fs';
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
 * Where the ends of a database's audit log are noted: `AUDIT_HEADS`, else a file in the data folder.
 * @param {string} folder
 * @param {string} database
 */
export function headsFile(folder, database) {
  return process.env['AUDIT_HEADS'] || join(folder, `audit-heads-${database}.log`);
}

/**
 * Claims the data folder for this process, until it ends. Of two that claim it at once, one makes the file.
 * @param {string} folder
 */
export function claimFolder(folder) {
  const file = join(folder, 'start.pid');
  mkdirSync(folder, { recursive: true });
  for (;;) {
    try {
      const made = openSync(file, 'wx');
      writeSync(made, `${process.pid} ${birthOf(process.pid) ?? ''}`);
      closeSync(made);
      break;
    } catch (error) {
      if (/** @type {NodeJS.ErrnoException} */ (error).code !== 'EEXIST') throw error;
    }
    const [holder = '', birth = ''] = existsSync(file)
      ? readFileSync(file, 'utf8').trim().split(' ')
      : [];
    // A number that has passed to a stranger was born later than the one that is written down.
    if (holder !== '' && Number(holder) !== process.pid && birthOf(Number(holder)) === birth) {
      throw new StepError(
        'Starting',
        `Vine Measure is at work on these data already (process ${holder}).`,
        'use that one, or end it first; DATA_DIR=… npm start makes a second one with data of its own.',
      );
    }
    rmSync(file, { force: true });
  }
  process.once('exit', () => rmSync(file, { force: true }));
}

/** When a process was born, in clock ticks since the machine started; null when there is none. @param {number} pid */
export function birthOf(pid) {
  try {
    // The name in brackets may hold spaces; the birth is the 20th field after it.
    const fields = readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ').at(-1)?.split(' ');
    return fields?.[19] ?? null;
  } catch {
    return null;
  }
}
