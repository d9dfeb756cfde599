/** Hazard classes' pictures, by what they show; the interface draws them. */
export type Pictogram =
  'flame' | 'flame-over-circle' | 'corrosion' | 'skull' | 'exclamation' | 'health' | 'environment';

export interface HazardStatement {
  readonly text: string;
  readonly pictogram: Pictogram | null;
  readonly signal: 'Danger' | 'Warning' | null;
}

function of(
  text: string,
  pictogram: Pictogram | null,
  signal: HazardStatement['signal'],
): HazardStatement {
  return { text, pictogram, signal };
}

/**
 * Hazard statements of the Globally Harmonized System with their usual pictogram and signal word.
 * Source: GHS, annex 3; supplemental statements (EUH) of Regulation (EC) No 1272/2008, annex II.
 */
export const HAZARD_STATEMENTS = {
  H225: of('Highly flammable liquid and vapour', 'flame', 'Danger'),
  H226: of('Flammable liquid and vapour', 'flame', 'Warning'),
  H271: of('May cause fire or explosion; strong oxidizer', 'flame-over-circle', 'Danger'),
  H272: of('May intensify fire; oxidizer', 'flame-over-circle', 'Danger'),
  H290: of('May be corrosive to metals', 'corrosion', 'Warning'),
  H300: of('Fatal if swallowed', 'skull', 'Danger'),
  H301: of('Toxic if swallowed', 'skull', 'Danger'),
  H302: of('Harmful if swallowed', 'exclamation', 'Warning'),
  H310: of('Fatal in contact with skin', 'skull', 'Danger'),
  H311: of('Toxic in contact with skin', 'skull', 'Danger'),
  H312: of('Harmful in contact with skin', 'exclamation', 'Warning'),
  H314: of('Causes severe skin burns and eye damage', 'corrosion', 'Danger'),
  H315: of('Causes skin irritation', 'exclamation', 'Warning'),
  H317: of('May cause an allergic skin reaction', 'exclamation', 'Warning'),
  H318: of('Causes serious eye damage', 'corrosion', 'Danger'),
  H319: of('Causes serious eye irritation', 'exclamation', 'Warning'),
  H330: of('Fatal if inhaled', 'skull', 'Danger'),
  H331: of('Toxic if inhaled', 'skull', 'Danger'),
  H332: of('Harmful if inhaled', 'exclamation', 'Warning'),
  H334: of('May cause allergy or asthma symptoms if inhaled', 'health', 'Danger'),
  H335: of('May cause respiratory irritation', 'exclamation', 'Warning'),
  H340: of('May cause genetic defects', 'health', 'Danger'),
  H341: of('Suspected of causing genetic defects', 'health', 'Warning'),
  H350: of('May cause cancer', 'health', 'Danger'),
  H350i: of('May cause cancer by inhalation', 'health', 'Danger'),
  H360FD: of('May damage fertility. May damage the unborn child', 'health', 'Danger'),
  H361d: of('Suspected of damaging the unborn child', 'health', 'Warning'),
  H361f: of('Suspected of damaging fertility', 'health', 'Warning'),
  H372: of('Causes damage to organs through long or repeated exposure', 'health', 'Danger'),
  H373: of('May cause damage to organs through long or repeated exposure', 'health', 'Warning'),
  H400: of('Very toxic to aquatic life', 'environment', 'Warning'),
  H410: of('Very toxic to aquatic life with long lasting effects', 'environment', 'Warning'),
  H411: of('Toxic to aquatic life with long lasting effects', 'environment', null),
  H412: of('Harmful to aquatic life with long lasting effects', null, null),
  EUH031: of('Contact with acids liberates toxic gas', null, null),
  EUH071: of('Corrosive to the respiratory tract', null, null),
  EUH032: of('Contact with acids liberates very toxic gas', null, null),
} as const satisfies Readonly<Record<string, HazardStatement>>;

export type HazardCode = keyof typeof HAZARD_STATEMENTS;

/** Statements that say more than others, which are then left off a label. Source: CLP, articles 27 and 28; guidance on labelling. */
const SAYS_MORE: readonly (readonly [HazardCode, readonly HazardCode[]])[] = [
  ['H225', ['H226']],
  ['H271', ['H272']],
  ['H300', ['H301', 'H302']],
  ['H301', ['H302']],
  ['H310', ['H311', 'H312']],
  ['H311', ['H312']],
  ['H314', ['H315', 'H318', 'H319']],
  ['H318', ['H319']],
  ['H330', ['H331', 'H332']],
  ['H331', ['H332']],
  ['H340', ['H341']],
  ['H350', ['H350i']],
  ['H372', ['H373']],
  ['H400', ['H411', 'H412']],
  ['H410', ['H400', 'H411', 'H412']],
  ['H411', ['H412']],
];

/** The statements of all that is in a mixture, each once, without those that another one says more strongly. */
export function unionOf(lists: readonly (readonly HazardCode[])[]): readonly HazardCode[] {
  const all = new Set(lists.flat());
  const said = SAYS_MORE.flatMap(([code, weaker]) => (all.has(code) ? weaker : []));
  const left = [...all].filter((code) => !said.includes(code));
  return left.toSorted((a, b) => a.localeCompare(b, 'en'));
}

/** What holds from a mass fraction upwards, until the next band takes over. */
export interface HazardBand {
  readonly fromPercent: number;
  readonly codes: readonly HazardCode[];
}

/** Statements for a substance at a mass fraction in %: 100 for the substance as received. */
export function hazardsAt(
  bands: readonly HazardBand[],
  massPercent: number,
): readonly HazardCode[] {
  const reached = bands.filter((band) => massPercent >= band.fromPercent);
  return reached.toSorted((a, b) => b.fromPercent - a.fromPercent)[0]?.codes ?? [];
}
