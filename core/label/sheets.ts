import type { Settings } from '../laboratory';

/** A sheet of labels, or a single label, by its millimetres. */
export interface LabelSheet {
  readonly name: string;
  readonly pageMm: readonly [width: number, height: number];
  readonly labelMm: readonly [width: number, height: number];
  /** Columns and rows of labels on the page. */
  readonly columns: number;
  readonly rows: number;
  /** From the edges of the page to the first label. */
  readonly marginMm: readonly [left: number, top: number];
  /** From label to label. */
  readonly gapMm: readonly [across: number, down: number];
}

/** Sheets to begin with, as the settings call them; any other is given by its millimetres. */
const SHEETS: Readonly<Record<Settings['labelSheet'], LabelSheet>> = {
  single: {
    name: 'a single label, 90 × 54 mm',
    pageMm: [90, 54],
    labelMm: [90, 54],
    columns: 1,
    rows: 1,
    marginMm: [0, 0],
    gapMm: [0, 0],
  },
  'two-by-five': {
    name: 'A4, 2 × 5 labels of 90 × 54 mm',
    pageMm: [210, 297],
    labelMm: [90, 54],
    columns: 2,
    rows: 5,
    marginMm: [12, 13.5],
    gapMm: [6, 0],
  },
  'three-by-eight': {
    name: 'A4, 3 × 8 labels of 64 × 34 mm',
    pageMm: [210, 297],
    labelMm: [64, 34],
    columns: 3,
    rows: 8,
    marginMm: [7, 12.5],
    gapMm: [2, 0],
  },
};

export const LABEL_SHEETS: readonly LabelSheet[] = Object.values(SHEETS);

/** The sheet that a laboratory has set. */
export function sheetOf({ labelSheet }: Pick<Settings, 'labelSheet'>): LabelSheet {
  return SHEETS[labelSheet];
}

/** Whether all labels of a sheet lie on its page. */
export function fitsOnPage(sheet: LabelSheet): boolean {
  const { pageMm, labelMm, columns, rows, marginMm, gapMm } = sheet;
  const across = marginMm[0] + columns * labelMm[0] + (columns - 1) * gapMm[0];
  const down = marginMm[1] + rows * labelMm[1] + (rows - 1) * gapMm[1];
  return across <= pageMm[0] + 1e-9 && down <= pageMm[1] + 1e-9;
}

/** Where a label lies: its page from 0, and its upper left corner in mm. */
export function placeOnSheet(
  sheet: LabelSheet,
  index: number,
): { readonly page: number; readonly xMm: number; readonly yMm: number } {
  const { labelMm, columns, rows, marginMm, gapMm } = sheet;
  const onPage = index % (columns * rows);
  return {
    page: Math.floor(index / (columns * rows)),
    xMm: marginMm[0] + (onPage % columns) * (labelMm[0] + gapMm[0]),
    yMm: marginMm[1] + Math.floor(onPage / columns) * (labelMm[1] + gapMm[1]),
  };
}
