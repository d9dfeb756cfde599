import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, test } from 'vitest';
import { checkCase, readVectorFile } from './vectorFile';

const FOLDER = join(import.meta.dirname, 'vectors');

describe.each(readdirSync(FOLDER))('%s', (file) => {
  const { cases } = readVectorFile(JSON.parse(readFileSync(join(FOLDER, file), 'utf8')));

  test.each(cases.map((one) => [one.id, one] as const))('%s', (_id, one) => {
    expect(checkCase(one).places.filter(({ isWithin }) => !isWithin)).toEqual([]);
  });
});
