/** An atomic weight and the half-width that covers it in normal materials. */
export interface AtomicWeight {
  readonly value: number;
  readonly halfWidth: number;
}

/**
 * Standard atomic weights, IUPAC/CIAAW 2021 (abridged for the interval elements H, C and O), in g/mol.
 * Elements are added with the substances that need them.
 */
export const ATOMIC_WEIGHTS: Readonly<Record<string, AtomicWeight>> = {
  H: { value: 1.008, halfWidth: 0.0002 },
  C: { value: 12.011, halfWidth: 0.002 },
  O: { value: 15.999, halfWidth: 0.001 },
  Na: { value: 22.98976928, halfWidth: 0.00000002 },
  K: { value: 39.0983, halfWidth: 0.0001 },
};
