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
  'part',
];

/**
 * The results of a report as comma-separated values with a head: a line for each sample, and for each
 * part that two ends tell of it; decimal points whatever the laboratory
 * writes. Source: RFC 4180.
 */
export function resultsCsv({ number, issuedOn, analysis, results }: Report): string {
  const lines = results.flatMap((one) => {
    const { titrationUncertainty, methodUncertainty } = one.unrounded;
    const ofParts = (one.parts ?? []).map((part) => [
      ...[number, issuedOn, one.code, analysis, part.value, part.expandedUncertainty],
      ...[part.coverageFactor, one.unit, part.as ?? '', part.unrounded.standardUncertainty],
      ...['', '', one.titrationsAveraged, '', part.part],
    ]);
    const whole = [
      ...[number, issuedOn, one.code, analysis, one.value, one.expandedUncertainty],
      ...[one.coverageFactor, one.unit, one.as ?? '', titrationUncertainty],
      ...[methodUncertainty ?? '', one.detection, one.titrationsAveraged, one.held?.text ?? '', ''],
    ];
    return [whole, ...ofParts];
  });
  return [HEADS, ...lines].map((cells) => `${cells.map(cellOf).join(',')}\r\n`).join('');
}

/** In quotes where it holds what would end it; a text that a spreadsheet would compute is kept a text. */
function cellOf(value: string | number): string {
  const text = typeof value === 'string' && /^[=+@\t]/.test(value) ? `'${value}` : String(value);
  return /[",\r\n]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text;
}
