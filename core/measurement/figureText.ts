import { roundHalfEven } from './decimal';

/** What may stand between the whole part of a number and the rest. */
export type DecimalMark = '.' | ',';

let mark: DecimalMark = '.';

/** What figures are written with now. */
export function decimalMark(): DecimalMark {
  return mark;
}

/** Has figures written as the laboratory writes them, from now on and everywhere: as a page has one language, it has one mark. */
export function writeFiguresWith(next: DecimalMark): void {
  mark = next;
}

/** Gives what `make` gives, with its figures written with this mark, whichever the rest is written with. */
export function withFigures<Made>(next: DecimalMark, make: () => Made): Made {
  const before = mark;
  mark = next;
  try {
    return make();
  } finally {
    mark = before;
  }
}

/**
 * A figure as it is shown, with the laboratory's decimal mark: `23.46` or `23,46`. For what people read only: what is stored, sent
 * or computed with has a point.
 */
export function figureText(figure: string | number): string {
  return String(figure).replace('.', mark);
}

/** By how much something moves, with its sign as it is typeset: `+0.05`, `−0.08`. */
export function signedText(value: number, places: number): string {
  return `${value < 0 ? '−' : '+'}${figureText(roundHalfEven(Math.abs(value), places))}`;
}
