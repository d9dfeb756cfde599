import type {
  Content,
  CustomTableLayout,
  TableCell,
  TDocumentDefinitions,
} from 'pdfmake/interfaces';
import QRCode from 'qrcode';
import type { Block, Document, Shown } from '#core/document';
import { FONT, inFonts, pdfmake } from './fonts';
import { reactionText } from './formula';

/** A picture, PNG or JPEG. */
export interface Picture {
  readonly type: string;
  readonly content: Uint8Array;
}

/** A document with what is printed on it and goes with it. */
export interface PrintedDocument {
  readonly document: Document;
  /** The file of its figures, attached to the paper as that which it was made from. */
  readonly source: { readonly name: string; readonly content: Uint8Array; readonly sha256: string };
  /** Where its page is. */
  readonly link: string;
  readonly logo: Picture | null;
  readonly issuedAt: string;
}

const SIZE = 8.5;
const SMALL = 7;
const INK = '#1d1b26';
const SOFT = '#55516a';
const RULE = '#b9b5c6';

/** Distance of what is printed from the edges, points. */
const MARGINS: Margins = [50, 44, 50, 54];

type Margins = [number, number, number, number];

/** Width of the names of rows, points. */
const ROW_NAME = 128;

/** The columns of a table that hold words: they take what the others leave. */
const WORDY = /^(Verdict|Name|Calibration|Effect|Readings)/;

/**
 * A document for keeping, as PDF/A-3b: fonts, colours and the file of its figures are in it. It is not tagged: its page is the form
 * for those who do not see it.
 */
export async function documentPdf(printed: PrintedDocument): Promise<Buffer> {
  const { document, source, logo, issuedAt } = printed;
  const name = `${document.title} ${document.number}`;
  const at = new Date(issuedAt);
  const definition: Omit<TDocumentDefinitions, 'files'> & AttachedFiles = {
    pageSize: 'A4',
    pageMargins: MARGINS,
    version: '1.7',
    subset: 'PDF/A-3b',
    language: 'en-GB',
    displayTitle: true,
    info: {
      title: name,
      author: document.issuer[0] ?? '',
      creator: 'Vine Measure',
      creationDate: at,
      modDate: at,
    },
    defaultStyle: { font: FONT, fontSize: SIZE, lineHeight: 1.15, color: INK },
    ...(logo ? { images: { logo: dataUrl(logo.type, logo.content) } } : {}),
    files: {
      source: {
        src: dataUrl('application/json', source.content),
        name: source.name,
        type: 'application/json',
        relationship: 'Source',
        description: 'Its figures in SI units, with every entry that they were computed from',
        creationDate: at,
        modifiedDate: at,
      },
    },
    footer: (page, pages) => ({
      margin: [MARGINS[0], 16, MARGINS[2], 0],
      columns: [
        { text: inFonts(name), fontSize: SMALL, color: SOFT },
        {
          text: `page ${String(page)} of ${String(pages)}`,
          alignment: 'right',
          fontSize: SMALL,
          color: SOFT,
        },
      ],
    }),
    content: [
      headOf(document, logo !== null),
      ...document.sections.flatMap(({ heading, blocks }) =>
        blocks.map((block, i) => blockContent(block, i === 0 ? heading : null)),
      ),
      await proof(printed),
      { text: inFonts(document.end), bold: true, alignment: 'center', margin: [0, 12, 0, 0] },
    ],
  };
  return pdfmake.createPdf(definition as TDocumentDefinitions).getBuffer();
}

/** A picture by itself. @throws Error for one that cannot be printed */
export function picturePdf({ type, content }: Picture): Promise<Buffer> {
  return pdfmake.createPdf({ content: [{ image: dataUrl(type, content) }] }).getBuffer();
}

/** Files within a document, which the types of the library do not know in full. */
interface AttachedFiles {
  readonly files: Readonly<Record<string, object>>;
}

function dataUrl(type: string, content: Uint8Array): string {
  return `data:${type};base64,${Buffer.from(content).toString('base64')}`;
}

function headOf({ title, number, headline, issuer }: Document, hasLogo: boolean): Content {
  const [name = '', ...lines] = issuer;
  return [
    {
      columns: [
        {
          width: '*',
          stack: [
            { text: inFonts(name), bold: true, fontSize: SIZE * 1.2 },
            ...lines.map((line) => ({ text: inFonts(line), color: SOFT })),
          ],
        },
        ...(hasLogo
          ? [
              {
                image: 'logo',
                fit: [130, 52] as [number, number],
                width: 130,
                alignment: 'right' as const,
              },
            ]
          : []),
      ],
    },
    rule(8),
    { text: `${title} ${number}`, bold: true, fontSize: SIZE * 1.9, margin: [0, 8, 0, 2] },
    { text: inFonts(headline), bold: true, fontSize: SIZE * 1.6, margin: [0, 2, 0, 0] },
    {
      text: 'As it was issued. Whether it still holds is told by its page, to which the code at the end leads.',
      color: SOFT,
    },
  ];
}

function rule(above: number): Content {
  const [left, , right] = MARGINS;
  const width = 595.28 - left - right;
  return {
    canvas: [{ type: 'line', x1: 0, y1: 0, x2: width, y2: 0, lineWidth: 0.7, lineColor: RULE }],
    margin: [0, above, 0, 0],
  };
}

/** A block, under the heading of its section where it is the first: the heading stays with it, and stands again on the next page. */
function blockContent(block: Block, heading: string | null): Content {
  switch (block.kind) {
    case 'rows':
      return grid(
        [ROW_NAME, '*'],
        heading,
        null,
        block.rows.map(({ name, value }) => [
          { text: inFonts(name), color: SOFT },
          { text: shownText(value) },
        ]),
      );
    case 'table': {
      const isWordy = block.heads.map((head) => WORDY.test(head));
      return grid(
        isWordy.map((is) => (is ? '*' : 'auto')),
        heading,
        block.heads.map((head) => ({
          ...{ text: inFonts(head), fontSize: SMALL, color: SOFT, noWrap: true },
        })),
        block.rows.map((cells) =>
          cells.map((cell, i) => ({ text: inFonts(cell), noWrap: isWordy[i] !== true })),
        ),
      );
    }
    case 'sentences':
      return {
        unbreakable: true,
        stack: [
          ...(heading === null ? [] : [headingText(heading)]),
          ...block.sentences.map((text) => ({
            text: inFonts(text),
            margin: [0, 1, 0, 1] as Margins,
          })),
        ],
      };
  }
}

function headingText(heading: string) {
  return {
    text: inFonts(heading),
    bold: true,
    fontSize: SIZE * 1.2,
    margin: [0, 8, 0, 1] as Margins,
  };
}

/** Cells in columns, with what stands over them. */
function grid(
  widths: (number | '*' | 'auto')[],
  heading: string | null,
  heads: TableCell[] | null,
  rows: TableCell[][],
): Content {
  const over = [
    ...(heading === null
      ? []
      : [[{ ...headingText(heading), colSpan: widths.length }, ...widths.slice(1).map(() => '')]]),
    ...(heads ? [heads] : []),
  ];
  return {
    layout: {
      ...LAYOUT,
      hLineWidth: (line) => (heads !== null && line === over.length ? 0.7 : 0),
    },
    table: {
      ...{ widths, body: [...over, ...rows], dontBreakRows: true },
      ...(over.length > 0 ? { headerRows: over.length, keepWithHeaderRows: 1 } : {}),
    },
  };
}

function shownText(value: Shown): Content[] {
  return value.kind === 'text'
    ? inFonts(value.text)
    : value.equations.flatMap((equation, i) => [
        ...(i > 0 ? ['\n'] : []),
        ...reactionText(equation, SIZE),
      ]);
}

const LAYOUT: CustomTableLayout = {
  vLineWidth: () => 0,
  hLineColor: () => RULE,
  paddingLeft: () => 0,
  paddingRight: () => 8,
  paddingTop: () => 0.8,
  paddingBottom: () => 0.8,
};

/** By what anybody tells whether the paper is the one that was issued. */
async function proof({ link, source }: PrintedDocument): Promise<Content> {
  const code = `${link}#${source.sha256}`;
  const qr = await QRCode.toString(code, { type: 'svg', margin: 0, errorCorrectionLevel: 'M' });
  return {
    unbreakable: true,
    margin: [0, 12, 0, 0],
    columns: [
      { svg: qr, width: 78 },
      {
        margin: [12, 0, 0, 0],
        fontSize: SMALL,
        color: SOFT,
        stack: [
          { text: inFonts(`Its page: ${link}`) },
          {
            text: inFonts(`The file of its figures is attached to this document: ${source.name}.`),
          },
          { text: `SHA-256 of that file: ${source.sha256}` },
          {
            text: 'The code holds both. On the page it is compared with the file as it was issued; anybody who has the file computes it again.',
          },
        ],
      },
    ],
  };
}
