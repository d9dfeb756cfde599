import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import type { Font } from 'fontkit';
import { create } from 'fontkit';
import pdfmake from 'pdfmake';
import type { Content } from 'pdfmake/interfaces';
import { sfntOfWoff } from './sfnt';

const require = createRequire(import.meta.url);
const folderOf = (file: string): string => dirname(require.resolve(file));

const ownFolder = join(folderOf('@fontsource/atkinson-hyperlegible-next/package.json'), 'files');
const ownFont = (weight: number): Buffer =>
  sfntOfWoff(
    readFileSync(join(ownFolder, `atkinson-hyperlegible-next-latin-${String(weight)}-normal.woff`)),
  );
const regular = ownFont(400);

/** It has what ours lacks: Greek, Cyrillic, most signs. */
const otherFolder = join(folderOf('pdfmake/package.json'), 'fonts', 'Roboto');
const otherFile = (weight: string): string => join(otherFolder, `Roboto-${weight}.ttf`);

export const FONT = 'Atkinson';
const OTHER_FONT = 'Roboto';

const bold = ownFont(700);
const OWN = { normal: 'own-regular.ttf', bold: 'own-bold.ttf' };
// Files in memory, of which the types of the library do not know.
const { virtualfs } = pdfmake as typeof pdfmake & {
  readonly virtualfs: { writeFileSync: (name: string, content: Buffer) => void };
};
virtualfs.writeFileSync(OWN.normal, regular);
virtualfs.writeFileSync(OWN.bold, bold);
pdfmake.setFonts({
  [FONT]: OWN,
  [OTHER_FONT]: { normal: otherFile('Regular'), bold: otherFile('Medium') },
});
// Nothing but our own fonts is read, and nothing is fetched.
pdfmake.setUrlAccessPolicy(() => false);
pdfmake.setLocalAccessPolicy((path: string) => path.startsWith(otherFolder));

export { pdfmake };

/** A collection of fonts has no glyphs of its own. */
function fontIn(content: Buffer): Font {
  const font = create(content);
  if ('fonts' in font) throw new RangeError('a collection is no font');
  return font;
}

const FONTS = [
  { name: FONT, font: fontIn(regular) },
  { name: OTHER_FONT, font: fontIn(readFileSync(otherFile('Regular'))) },
];

/** What stands for a sign that no font has: a glyph that is missing is not allowed on paper that is kept. */
const UNKNOWN = '?';

/** A text in the fonts that have its signs. */
export function inFonts(text: string): Content[] {
  const pieces: { font: string; text: string }[] = [];
  for (const sign of text) {
    const known = FONTS.find(({ font }) => font.hasGlyphForCodePoint(sign.codePointAt(0) ?? 0));
    const piece = { font: known?.name ?? FONT, text: known ? sign : UNKNOWN };
    const last = pieces.at(-1);
    if (last?.font === piece.font) last.text += piece.text;
    else pieces.push(piece);
  }
  return pieces;
}
