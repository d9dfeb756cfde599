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

test('a log with a break is restored by whoever answers for it, and by nobody else', async () => {
  const owner = connectAsOwner(laboratory.database.url);
  await owner.raw(`
    ALTER TABLE facts DISABLE TRIGGER USER;
    UPDATE facts SET body = jsonb_set(body, '{readingMl}', '"23.61"')
    WHERE kind = 'run.burette-read' AND body->>'readingMl' = '23.60';
    ALTER TABLE facts ENABLE TRIGGER USER`);
  await owner.destroy();
  const file = join(folder, 'broken.backup');
  expect((await command('backup', file)).output).toContain('The audit log is broken at entry');
  const refused = await command('restore', file);
  expect(refused.code).toBe(1);
  const found = /--accept-break (\S+)/.exec(refused.output)?.[1] ?? '';
  const accept = ['restore', file, '--accept-break'] as const;
  expect((await command(...accept, found)).output).toContain('say why the break is accepted');
  const reason = ['--reason', 'the notebook says 23.61', '--by', 'Oda Lind'];
  const other = found.replace(/.$/, (last) => (last === '0' ? '1' : '0'));
  expect((await command(...accept, other, ...reason)).output).toContain('is another one');
  const restored = await command(...accept, found, ...reason);
  expect(restored.output).toContain('The audit log is whole but for 1 accepted break');
  expect(restored.code).toBe(0);
  const audit = await command('audit');
  expect([audit.code, audit.output]).toEqual([0, expect.stringContaining('1 accepted break')]);
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
