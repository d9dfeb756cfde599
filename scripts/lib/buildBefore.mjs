import { existsSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';

/** The list of a build's files, which the build itself writes. */
const LIST = 'files.json';

/** The files of the build in a folder, as its list has them; none where there is none. @param {string} folder @returns {readonly string[]} */
export function listedFiles(folder) {
  const list = join(folder, LIST);
  return existsSync(list) ? JSON.parse(readFileSync(list, 'utf8')) : [];
}

/**
 * Deletes the assets of builds before the one before: a page that was opened before an upgrade still asks for its parts. A build that
 * has changed nothing leaves everything.
 * @param {string} folder with the new build written over the one before
 * @param {readonly string[]} before files of the build before
 */
export function dropOlderAssets(folder, before) {
  const now = listedFiles(folder);
  const known = new Set([...before, ...now]);
  if (known.size === now.length && before.length === now.length) return;
  const assets = join(folder, 'assets');
  for (const name of readdirSync(assets)) {
    const path = `/assets/${name.replace(/\.(br|gz)$/, '')}`;
    if (!known.has(path)) rmSync(join(assets, name));
  }
}
