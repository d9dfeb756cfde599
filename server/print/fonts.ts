import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import type { Font } from 'fontkit';
import { openSync } from 'fontkit';
import pdfmake from 'pdfmake';
import type { Content } from 'pdfmake/interfaces';

const require = createRequire(import.meta.url);
const folderOf = (file: string): string => dirname(require.resolve(file));

const ownFolder = join(folderOf('@fontsource/atkinson-hyperlegible-next/package.json'), 'files');
const ownFile = (weight: number): string =>
  join(ownFolder, `atkinson-hyperlegible-next-latin-${String(weight)}-normal.woff`);

/** It has what ours lacks: Greek, Cyrillic, most signs. */
const otherFolder = join(folderOf('pdfmake/package.json'), 'fonts', 'Roboto');
const otherFile = (weight: string): string => join(otherFolder, `Roboto-${weight}.ttf`);

export const FONT = 'Atkinson';
const OTHER_FONT = 'Roboto';

pdfmake.setFonts({
  [FONT]: { normal: ownFile(400), bold: ownFile(700) },
  [OTHER_FONT]: { normal: otherFile('Regular'), bold: otherFile('Medium') },
});
// Nothing but our own fonts is read, and nothing is fetched.
pdfmake.setUrlAccessPolicy(() => false);
pdfmake.setLocalAccessPolicy((path: string) =>
  [ownFolder, otherFolder].some((folder) => path.startsWith(folder)),
);

export { pdfmake };

/** A collection of fonts has no glyphs of its own. */
function fontIn(file: string): Font {
  const font = openSync(file);
  if ('fonts' in font) throw new RangeError(`${file} is no font`);
  return font;
}

const FONTS = [
  { name: FONT, font: fontIn(ownFile(400)) },
  { name: OTHER_FONT, font: fontIn(otherFile('Regular')) },
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
