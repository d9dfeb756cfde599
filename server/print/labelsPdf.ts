import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces';
import QRCode from 'qrcode';
import type { Label, LabelSheet } from '#core/label';
import { pictogramSvg, placeOnSheet } from '#core/label';
import { FONT, inFonts, pdfmake } from './fonts';
import { formulaText } from './formula';

/** Points in a millimetre. */
const PT = 72 / 25.4;

/** Below this height a label has no room for the words of its hazard statements, only for their codes, mm. */
const ROOMY_MM = 45;

/** Between the edge of a label and what is printed on it, mm. */
const PADDING_MM = 2.5;

/** A label and the address that its code leads to. */
export interface PrintedLabel {
  readonly label: Label;
  readonly link: string;
  readonly laboratory: string;
  readonly lastDayText: string | null;
}

/** Labels on a sheet, the first of them at a place, as a PDF. */
export async function labelsPdf(
  labels: readonly PrintedLabel[],
  sheet: LabelSheet,
  startAt: number,
): Promise<Buffer> {
  const content: Content[] = [];
  let page = 0;
  for (const [i, one] of labels.entries()) {
    const place = placeOnSheet(sheet, startAt + i);
    // A sheet that is full before its first label is none of ours.
    const first = placeOnSheet(sheet, startAt).page;
    const isNewPage = place.page - first > page;
    page = place.page - first;
    const qr = await QRCode.toString(one.link, {
      type: 'svg',
      margin: 0,
      errorCorrectionLevel: 'M',
    });
    content.push(...labelContent(one, qr, sheet, place, isNewPage));
  }
  const [width, height] = sheet.pageMm;
  const definition: TDocumentDefinitions = {
    pageSize: { width: width * PT, height: height * PT },
    pageMargins: 0,
    info: { title: 'Labels', creator: 'Vine Measure' },
    defaultStyle: { font: FONT, fontSize: 7, lineHeight: 1.05 },
    content,
  };
  return pdfmake.createPdf(definition).getBuffer();
}

function labelContent(
  { label, laboratory, lastDayText }: PrintedLabel,
  qr: string,
  { labelMm: [widthMm, heightMm] }: LabelSheet,
  { xMm, yMm }: { readonly xMm: number; readonly yMm: number },
  isNewPage: boolean,
): Content[] {
  const isRoomy = heightMm >= ROOMY_MM;
  const { pictograms, signal, statements, precautions } = label.hazards;
  const qrMm = Math.min(heightMm * 0.33, 18);
  const markMm = isRoomy ? 9 : 6.5;
  const sideMm = Math.max(qrMm, markMm * Math.min(2, pictograms.length)) + 1;
  const inner = { x: (xMm + PADDING_MM) * PT, y: (yMm + PADDING_MM) * PT };
  const textMm = widthMm - 2 * PADDING_MM - sideMm - 1;
  const base = isRoomy ? 7 : 5.5;
  // What to do about them: their words are on the page that the code leads to.
  const codes = precautions.map(({ code }) => code).join(', ');
  const hazards = isRoomy
    ? `${statements.map(({ code, text }) => `${code} ${text}.`).join(' ')} ${codes}`.trim()
    : [...statements.map(({ code }) => code), ...precautions.map(({ code }) => code)].join(', ');
  const text: Content[] = [
    {
      text: [
        ...(label.formula === null ? [] : [...formulaText(label.formula, base * 1.7, true), '  ']),
        { text: inFonts(label.name), bold: true, fontSize: base * 1.15 },
      ],
    },
    ...(label.molarity === null
      ? []
      : [
          {
            text: label.molarity,
            bold: true,
            fontSize: base * 1.35,
            margin: below(1),
          },
        ]),
    ...(label.warning === null
      ? []
      : [{ text: label.warning.toUpperCase(), bold: true, fontSize: base * 1.2 }]),
    ...label.lines.map((line) => ({ text: inFonts(line), fontSize: base })),
    ...(lastDayText === null ? [] : [{ text: lastDayText, bold: true, fontSize: base }]),
    ...(hazards === ''
      ? []
      : [
          {
            text: [{ text: signal === null ? '' : `${signal}. `, bold: true }, hazards],
            fontSize: base * 0.85,
            margin: below(1.5),
          },
        ]),
    { text: inFonts(laboratory), fontSize: base * 0.8, margin: below(1) },
  ];
  const sideX = (xMm + widthMm - PADDING_MM - sideMm) * PT;
  return [
    {
      ...(isNewPage ? { pageBreak: 'before' as const } : {}),
      absolutePosition: inner,
      columns: [{ width: textMm * PT, stack: text }],
    },
    {
      absolutePosition: { x: sideX, y: inner.y },
      columns: [
        {
          width: sideMm * PT,
          stack: [
            { text: label.code, bold: true, fontSize: base * 1.9, alignment: 'right' },
            { svg: qr, width: qrMm * PT, alignment: 'right' },
          ],
        },
      ],
    },
    ...pictograms.slice(0, 4).map((pictogram, i) => ({
      svg: pictogramSvg(pictogram),
      width: markMm * PT,
      absolutePosition: {
        x:
          sideX +
          ((i % 2) * (markMm + 0.3) + sideMm - Math.min(2, pictograms.length) * markMm - 0.6) * PT,
        y: inner.y + base * 2.3 + (qrMm + 1.5 + Math.floor(i / 2) * (markMm + 0.3)) * PT,
      },
    })),
  ];
}

/** Room above a line, in points. */
function below(points: number): [number, number, number, number] {
  return [0, points, 0, 0];
}
