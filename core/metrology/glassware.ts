import type { Distribution } from '../measurement';

/** Kinds of volumetric ware for which standards set maximum permissible errors. */
export type GlasswareKind =
  | 'burette'
  | 'one-mark-pipette'
  | 'graduated-pipette'
  | 'volumetric-flask'
  | 'measuring-cylinder'
  | 'piston-burette'
  | 'piston-pipette';

/** Accuracy class: AS is A with a waiting time; instruments with a piston have none. */
export type GlasswareClass = 'A' | 'AS' | 'B';

/** What a standard says of one size. */
export interface GlasswareSize {
  readonly kind: GlasswareKind;
  readonly standard: string;
  readonly nominalMl: number;
  /** Smallest division; null for a single mark. */
  readonly divisionMl: number | null;
  /** Maximum permissible error of each class that is defined; for piston ware the systematic one, at full volume. */
  readonly toleranceMl: Readonly<Partial<Record<GlasswareClass | 'piston', number>>>;
}

/**
 * How the true volume is taken to lie within the tolerance, unless a certificate says otherwise: class A is made to the
 * middle of it, of other ware nothing more is known than the limits.
 * Source: EURACHEM/CITAC Guide CG 4, example A1.
 */
export const TOLERANCE_DISTRIBUTION: Readonly<Record<GlasswareClass | 'piston', Distribution>> = {
  A: 'triangular',
  AS: 'triangular',
  B: 'rectangular',
  piston: 'rectangular',
};

type Row = readonly [nominalMl: number, divisionMl: number | null, a: number, b: number];

/** Class AS has the errors of class A. */
function glass(kind: GlasswareKind, standard: string, rows: readonly Row[]): GlasswareSize[] {
  return rows.map(([nominalMl, divisionMl, a, b]) => ({
    kind,
    standard,
    nominalMl,
    divisionMl,
    toleranceMl:
      // Flasks and cylinders contain: there is nothing to wait for.
      kind === 'volumetric-flask' || kind === 'measuring-cylinder'
        ? { A: a, B: b }
        : { A: a, AS: a, B: b },
  }));
}

/** Class B of the American standards may be off twice as far as class A. */
function american(
  kind: GlasswareKind,
  standard: string,
  rows: readonly (readonly [nominalMl: number, divisionMl: number | null, a: number])[],
): GlasswareSize[] {
  return rows.map(([nominalMl, divisionMl, a]) => ({
    kind,
    standard,
    nominalMl,
    divisionMl,
    toleranceMl: { A: a, B: 2 * a },
  }));
}

function piston(
  kind: GlasswareKind,
  standard: string,
  rows: readonly (readonly [nominalMl: number, percent: number])[],
): GlasswareSize[] {
  return rows.map(([nominalMl, percent]) => ({
    kind,
    standard,
    nominalMl,
    divisionMl: null,
    toleranceMl: { piston: (nominalMl * percent) / 100 },
  }));
}

/**
 * Sizes and maximum permissible errors in mL, at 20 °C. Typed from the published tables of the standards; what a
 * laboratory's own certificate says takes precedence.
 */
const GLASSWARE: readonly GlasswareSize[] = [
  ...glass('burette', 'ISO 385', [
    [1, 0.01, 0.006, 0.01],
    [2, 0.01, 0.01, 0.02],
    [5, 0.02, 0.01, 0.02],
    [10, 0.02, 0.02, 0.05],
    [10, 0.05, 0.03, 0.05],
    [25, 0.05, 0.03, 0.05],
    [25, 0.1, 0.05, 0.1],
    [50, 0.1, 0.05, 0.1],
    [100, 0.2, 0.1, 0.2],
  ]),
  ...glass('one-mark-pipette', 'ISO 648', [
    [0.5, null, 0.005, 0.01],
    [1, null, 0.008, 0.015],
    [2, null, 0.01, 0.02],
    [3, null, 0.01, 0.02],
    [4, null, 0.015, 0.03],
    [5, null, 0.015, 0.03],
    [10, null, 0.02, 0.04],
    [15, null, 0.03, 0.06],
    [20, null, 0.03, 0.06],
    [25, null, 0.03, 0.06],
    [50, null, 0.05, 0.1],
    [100, null, 0.08, 0.15],
  ]),
  ...glass('graduated-pipette', 'ISO 835', [
    [1, 0.01, 0.007, 0.01],
    [2, 0.02, 0.01, 0.02],
    [5, 0.05, 0.03, 0.05],
    [10, 0.1, 0.05, 0.1],
    [25, 0.1, 0.1, 0.2],
  ]),
  ...glass('volumetric-flask', 'ISO 1042', [
    [1, null, 0.025, 0.05],
    [2, null, 0.025, 0.05],
    [5, null, 0.025, 0.05],
    [10, null, 0.025, 0.05],
    [20, null, 0.04, 0.08],
    [25, null, 0.04, 0.08],
    [50, null, 0.06, 0.12],
    [100, null, 0.1, 0.2],
    [200, null, 0.15, 0.3],
    [250, null, 0.15, 0.3],
    [500, null, 0.25, 0.5],
    [1000, null, 0.4, 0.8],
    [2000, null, 0.6, 1.2],
    [5000, null, 1.2, 2.4],
  ]),
  ...glass('measuring-cylinder', 'ISO 4788', [
    [5, 0.1, 0.05, 0.1],
    [10, 0.2, 0.1, 0.2],
    [25, 0.5, 0.25, 0.5],
    [50, 1, 0.5, 1],
    [100, 1, 0.5, 1],
    [250, 2, 1, 2],
    [500, 5, 2.5, 5],
    [1000, 10, 5, 10],
    [2000, 20, 10, 20],
  ]),
  ...american('burette', 'ASTM E287', [
    [10, 0.05, 0.02],
    [25, 0.1, 0.03],
    [50, 0.1, 0.05],
    [100, 0.2, 0.1],
  ]),
  ...american('one-mark-pipette', 'ASTM E969', [
    [1, null, 0.006],
    [2, null, 0.006],
    [3, null, 0.01],
    [4, null, 0.01],
    [5, null, 0.01],
    [10, null, 0.02],
    [15, null, 0.03],
    [20, null, 0.03],
    [25, null, 0.03],
    [50, null, 0.05],
    [100, null, 0.08],
  ]),
  ...american('volumetric-flask', 'ASTM E288', [
    [5, null, 0.02],
    [10, null, 0.02],
    [25, null, 0.03],
    [50, null, 0.05],
    [100, null, 0.08],
    [200, null, 0.1],
    [250, null, 0.12],
    [500, null, 0.2],
    [1000, null, 0.3],
    [2000, null, 0.5],
  ]),
  ...piston('piston-burette', 'ISO 8655-3', [
    [1, 0.6],
    [2, 0.5],
    [5, 0.3],
    [10, 0.3],
    [20, 0.2],
    [25, 0.2],
    [50, 0.2],
    [100, 0.2],
  ]),
  ...piston('piston-pipette', 'ISO 8655-2', [
    [0.01, 1.2],
    [0.02, 1],
    [0.05, 1],
    [0.1, 0.8],
    [0.2, 0.8],
    [0.5, 0.8],
    [1, 0.8],
    [2, 0.8],
    [5, 0.8],
    [10, 0.6],
  ]),
];

/** The sizes of a kind of ware, smallest first. */
export function glasswareOf(kind: GlasswareKind): readonly GlasswareSize[] {
  return GLASSWARE.filter((size) => size.kind === kind);
}
