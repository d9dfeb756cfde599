import type { Report } from '../run';

const HEADS = [
  'report',
  'issued_on',
  'sample',
  'analysis',
  'value',
  'U',
  'k',
  'unit',
  'as',
  'u_titration',
  'u_method',
  'detection',
  'titrations',
  'conformity',
];

/**
 * The results of a report as comma-separated values with a head: a line for each sample, decimal points whatever the laboratory
 * writes. Source: RFC 4180.
 */
export function resultsCsv({ number, issuedOn, analysis, results }: Report): string {
  const lines = results.map((one) => {
    const { titrationUncertainty, methodUncertainty } = one.unrounded;
    return [
      ...[number, issuedOn, one.code, analysis, one.value, one.expandedUncertainty],
      ...[one.coverageFactor, one.unit, one.as ?? '', titrationUncertainty],
      ...[methodUncertainty ?? '', one.detection, one.titrationsAveraged, one.held?.text ?? ''],
    ];
  });
  return [HEADS, ...lines].map((cells) => `${cells.map(cellOf).join(',')}\r\n`).join('');
}

/** In quotes where it holds what would end it; a text that a spreadsheet would compute is kept a text. */
function cellOf(value: string | number): string {
  const text = typeof value === 'string' && /^[=+@\t]/.test(value) ? `'${value}` : String(value);
  return /[",\r\n]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text;
}
