import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { create } from 'fontkit';
import { expect, test } from 'vitest';
import { sfntOfWoff } from './sfnt';

const folder = dirname(
  createRequire(import.meta.url).resolve('@fontsource/atkinson-hyperlegible-next/package.json'),
);

test('an unpacked font has the glyphs of the packed one; anything else is refused', () => {
  const name = 'atkinson-hyperlegible-next-latin-400-normal.woff';
  const packed = readFileSync(join(folder, 'files', name));
  const [before, after] = [create(packed), create(sfntOfWoff(packed))];
  if ('fonts' in before || 'fonts' in after) throw new Error('a collection');
  expect(after.type).toBe('TTF');
  expect(after.numGlyphs).toBe(before.numGlyphs);
  for (const text of ['0.10098 ± 0.00025 mol/L', 'Ambergrund, Köhler & Søn']) {
    const drawn = (font: typeof after) =>
      font.layout(text).glyphs.map(({ path, advanceWidth }) => [path.toSVG(), advanceWidth]);
    expect(drawn(after)).toEqual(drawn(before));
  }
  expect(() => sfntOfWoff(Buffer.from('OTTO, say'))).toThrow('no WOFF');
});
