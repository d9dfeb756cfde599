import { existsSync, mkdtempSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { connectAsOwner } from '../server/database/connection';
import type { TestLaboratory } from '../server/test-support/laboratory';
import {
  foundTestLaboratory,
  startRun,
  stockLaboratory,
  titrateSeries,
} from '../server/test-support/laboratory';
import { ROOT } from './lib/place.mjs';
import { run } from './lib/run.mjs';

const folder = mkdtempSync(join(tmpdir(), 'vine-backup-'));
let laboratory: TestLaboratory;
beforeAll(async () => {
  laboratory = await foundTestLaboratory();
});
afterAll(() => {
  rmSync(folder, { recursive: true, force: true });
});

function command(name: string, ...args: string[]) {
  return run(process.execPath, [join(ROOT, 'scripts', `${name}.mjs`), ...args], {
    cwd: ROOT,
    env: { ...process.env, DATABASE_URL: laboratory.database.url, DATA_DIR: folder },
  });
}

test('a backup brings back what was there, beside what came after it', async () => {
  const { url } = laboratory.database;
  const client = await laboratory.signIn(laboratory.analyst);
  const ids = await stockLaboratory(client, laboratory.today);
  await titrateSeries(client, await startRun(client, ids));
  const file = join(folder, 'kept.backup');
  const made = await command('backup', file);
  expect(made.output).toContain('The audit log is whole');
  expect(made.code).toBe(0);
  expect(statSync(file).mode & 0o077).toBe(0);
  expect((await command('backup', file)).output).toContain('exists already');

  await startRun(client, ids);
  await laboratory.close({ keepDatabase: true });
  const restored = await command('restore', file);
  expect(restored.output).toMatch(/restored\. What was there is kept as the database (\w+)/);
  expect(restored.code).toBe(0);

  const before = /as the database (\w+)/.exec(restored.output)?.[1] ?? '';
  const countRuns = async (database: string): Promise<string | number | undefined> => {
    const db = connectAsOwner(database);
    const [row] = await db('facts').where({ kind: 'run.started' }).count();
    await db.destroy();
    return row?.count;
  };
  expect(await countRuns(url)).toBe('1');
  expect(await countRuns(url.replace(/[^/]*$/, before))).toBe('2');
  // The application's rights came back too: it can append, and no more.
  const audit = await command('audit');
  expect([audit.code, audit.output]).toEqual([0, expect.stringContaining('is whole')]);
});

test('what is no backup changes nothing', async () => {
  const file = join(folder, 'no.backup');
  writeFileSync(file, 'a letter');
  const refused = await command('restore', file);
  expect([refused.code, refused.output]).toEqual([1, expect.stringContaining('pg_restore')]);
  expect(refused.output).not.toContain('    at ');
  expect((await command('restore', join(folder, 'nowhere'))).output).toContain('there is no');
  expect((await command('restore')).output).toContain('npm run restore -- FILE');
  expect(existsSync(`${file}.part`)).toBe(false);
});
