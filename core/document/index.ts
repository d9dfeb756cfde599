/** A value beside its name: words, or reactions that whoever shows them typesets. */
export type Shown =
  | { readonly kind: 'text'; readonly text: string }
  | { readonly kind: 'reactions'; readonly equations: readonly string[] };

/** A part of a section. */
export type Block =
  | { readonly kind: 'rows'; readonly rows: readonly { name: string; value: Shown }[] }
  | {
      readonly kind: 'table';
      readonly heads: readonly string[];
      /** A cell for each head. */
      readonly rows: readonly (readonly string[])[];
    }
  | { readonly kind: 'sentences'; readonly sentences: readonly string[] };

interface Section {
  readonly heading: string;
  readonly blocks: readonly Block[];
}

/**
 * What somebody signs for, in words: a page shows it and a printer lays it out. Its figures are texts already, rounded and with the
 * decimal sign of the laboratory; numbers for whoever computes on stand in the file that goes with it.
 */
export interface Document {
  /** What it is: `Standardization certificate`. */
  readonly title: string;
  readonly number: string;
  /** What most readers look for. */
  readonly headline: string;
  /** Who issued it, a line each; the first is the name of the laboratory. */
  readonly issuer: readonly string[];
  readonly sections: readonly Section[];
  /** After it comes nothing. */
  readonly end: string;
}

/** What a list of rows is made from: a row without a value was neither computed nor recorded, and is left out. */
export type Row = readonly [name: string, value: string | null | undefined | false];

/** Rows of words, those that say something. */
export function rowsOf(rows: readonly Row[]): Block {
  return {
    kind: 'rows',
    rows: rows.flatMap(([name, text]) =>
      typeof text === 'string' && text !== '' ? [{ name, value: { kind: 'text', text } }] : [],
    ),
  };
}

/** A section without its empty blocks; null when none says anything. */
export function sectionOf(heading: string, blocks: readonly Block[]): Section | null {
  const said = blocks.filter((block) =>
    block.kind === 'sentences' ? block.sentences.length > 0 : block.rows.length > 0,
  );
  return said.length > 0 ? { heading, blocks: said } : null;
}
