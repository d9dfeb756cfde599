import type { HazardCode } from './hazards';

/**
 * Precautionary statements of the Globally Harmonized System, most urgent first: what helps at once, then what prevents, then the
 * waste. Source: GHS, annex 3; Regulation (EC) No 1272/2008, annex IV.
 */
export const PRECAUTIONS = {
  'P305+P351+P338':
    'If in eyes: rinse cautiously with water for several minutes; remove contact lenses, if present and easy to do; continue rinsing',
  'P303+P361+P353':
    'If on skin (or hair): take off immediately all contaminated clothing; rinse skin with water',
  'P301+P330+P331': 'If swallowed: rinse mouth; do not induce vomiting',
  'P301+P310': 'If swallowed: immediately call a poison centre or a doctor',
  'P304+P340': 'If inhaled: remove person to fresh air and keep comfortable for breathing',
  'P302+P352': 'If on skin: wash with plenty of water',
  'P308+P313': 'If exposed or concerned: get medical advice',
  P280: 'Wear protective gloves, protective clothing and eye protection',
  P201: 'Obtain special instructions before use',
  P210: 'Keep away from heat, hot surfaces, sparks, open flames and other ignition sources; no smoking',
  P220: 'Keep away from clothing and other combustible materials',
  P260: 'Do not breathe dust, mist or vapours',
  P273: 'Avoid release to the environment',
  P270: 'Do not eat, drink or smoke when using this product',
  P391: 'Collect spillage',
  P314: 'Get medical advice if you feel unwell',
  P390: 'Absorb spillage to prevent material damage',
  P501: 'Dispose of contents and container as the local rules say',
} as const;

export type PrecautionCode = keyof typeof PRECAUTIONS;

/** What goes with which hazards. */
const GOES_WITH: readonly (readonly [readonly HazardCode[], readonly PrecautionCode[]])[] = [
  [
    ['H225', 'H226'],
    ['P210', 'P280'],
  ],
  [
    ['H271', 'H272'],
    ['P210', 'P220', 'P280'],
  ],
  [['H290'], ['P390']],
  [
    ['H300', 'H301'],
    ['P301+P310', 'P270', 'P501'],
  ],
  [['H302'], ['P270']],
  [
    ['H310', 'H311'],
    ['P302+P352', 'P280'],
  ],
  [
    ['H312', 'H315', 'H317'],
    ['P302+P352', 'P280'],
  ],
  [['H314'], ['P305+P351+P338', 'P303+P361+P353', 'P301+P330+P331', 'P280', 'P260']],
  [
    ['H318', 'H319'],
    ['P305+P351+P338', 'P280'],
  ],
  [
    ['H330', 'H331', 'H332', 'H334', 'H335'],
    ['P304+P340', 'P260'],
  ],
  [
    ['H340', 'H341', 'H350', 'H350i', 'H360FD', 'H361d', 'H361f'],
    ['P201', 'P280', 'P308+P313', 'P501'],
  ],
  [
    ['H372', 'H373'],
    ['P260', 'P314'],
  ],
  [
    ['H400', 'H410', 'H411'],
    ['P273', 'P391', 'P501'],
  ],
  [['H412'], ['P273', 'P501']],
];

/** No more than six are on a label. Source: Regulation (EC) No 1272/2008, article 28(3). */
const AT_MOST = 6;

/** The precautionary statements for some hazards, the most urgent first. */
export function precautionsFor(codes: readonly HazardCode[]): readonly PrecautionCode[] {
  const wanted = new Set(
    GOES_WITH.flatMap(([hazards, precautions]) =>
      hazards.some((code) => codes.includes(code)) ? precautions : [],
    ),
  );
  // The keys of the table, which has no others.
  const all = Object.keys(PRECAUTIONS) as PrecautionCode[];
  return all.filter((code) => wanted.has(code)).slice(0, AT_MOST);
}
