/** An atomic weight in g/mol and the half-width that covers it in normal materials. */
export interface AtomicWeight {
  readonly value: number;
  readonly halfWidth: number;
}

/**
 * Which table of atomic weights a molar mass rests on: `standard` as published (of interval elements the
 * conventional value), or `abridged` to five significant figures.
 */
export type AtomicWeightTable = 'standard' | 'abridged';

/**
 * The elements in order of atomic number. Standard atomic weights as published by CIAAW/IUPAC, 2021: `39.0983(1)` is a
 * value with the uncertainty of its last digits, `1.008 [1.00784, 1.00811]` a conventional value with the interval
 * met in normal materials; an element that stands alone has no isotopes of characteristic composition in nature.
 */
const PUBLISHED = `
H 1.008 [1.00784, 1.00811]
He 4.002602(2)
Li 6.94 [6.938, 6.997]
Be 9.0121831(5)
B 10.81 [10.806, 10.821]
C 12.011 [12.0096, 12.0116]
N 14.007 [14.00643, 14.00728]
O 15.999 [15.99903, 15.99977]
F 18.998403162(5)
Ne 20.1797(6)
Na 22.98976928(2)
Mg 24.305 [24.304, 24.307]
Al 26.9815384(3)
Si 28.085 [28.084, 28.086]
P 30.973761998(5)
S 32.06 [32.059, 32.076]
Cl 35.45 [35.446, 35.457]
Ar 39.95 [39.792, 39.963]
K 39.0983(1)
Ca 40.078(4)
Sc 44.955907(4)
Ti 47.867(1)
V 50.9415(1)
Cr 51.9961(6)
Mn 54.938043(2)
Fe 55.845(2)
Co 58.933194(3)
Ni 58.6934(4)
Cu 63.546(3)
Zn 65.38(2)
Ga 69.723(1)
Ge 72.630(8)
As 74.921595(6)
Se 78.971(8)
Br 79.904 [79.901, 79.907]
Kr 83.798(2)
Rb 85.4678(3)
Sr 87.62(1)
Y 88.905838(2)
Zr 91.224(2)
Nb 92.90637(1)
Mo 95.95(1)
Tc
Ru 101.07(2)
Rh 102.90549(2)
Pd 106.42(1)
Ag 107.8682(2)
Cd 112.414(4)
In 114.818(1)
Sn 118.710(7)
Sb 121.760(1)
Te 127.60(3)
I 126.90447(3)
Xe 131.293(6)
Cs 132.90545196(6)
Ba 137.327(7)
La 138.90547(7)
Ce 140.116(1)
Pr 140.90766(1)
Nd 144.242(3)
Pm
Sm 150.36(2)
Eu 151.964(1)
Gd 157.25(3)
Tb 158.925354(7)
Dy 162.500(1)
Ho 164.930329(5)
Er 167.259(3)
Tm 168.934219(5)
Yb 173.045(10)
Lu 174.9668(1)
Hf 178.486(6)
Ta 180.94788(2)
W 183.84(1)
Re 186.207(1)
Os 190.23(3)
Ir 192.217(2)
Pt 195.084(9)
Au 196.966570(4)
Hg 200.592(3)
Tl 204.38 [204.382, 204.385]
Pb 207.2 [206.14, 207.94]
Bi 208.98040(1)
Po
At
Rn
Fr
Ra
Ac
Th 232.0377(4)
Pa 231.03588(1)
U 238.02891(3)
Np
Pu
Am
Cm
Bk
Cf
Es
Fm
Md
No
Lr
Rf
Db
Sg
Bh
Hs
Mt
Ds
Rg
Cn
Nh
Fl
Mc
Lv
Ts
Og`;

const LINE = /^(\w+)(?: ([\d.]+)(?:\((\d+)\)| \[([\d.]+), ([\d.]+)\]))?$/;

/** Reads a line of the table; the weight is null for an element that stands alone. */
function readLine(line: string): [symbol: string, weight: AtomicWeight | null] {
  const [, symbol = '', value, digits, low, high] = LINE.exec(line) ?? [];
  if (value === undefined) return [symbol, null];
  const decimals = value.split('.')[1]?.length ?? 0;
  // A conventional value seldom lies in the middle of its interval: the farther end is covered too.
  const halfWidth =
    digits === undefined
      ? Math.max(Number(high) - Number(value), Number(value) - Number(low))
      : Number(digits) * 10 ** -decimals;
  return [symbol, { value: Number(value), halfWidth }];
}

const STANDARD: ReadonlyMap<string, AtomicWeight | null> = new Map(
  PUBLISHED.trim().split('\n').map(readLine),
);

const ABRIDGED_FIGURES = 5;

/** Value rounded to five significant figures, the half-width widened by half of the last one where that rounds. */
function abridge({ value, halfWidth }: AtomicWeight): AtomicWeight {
  // A trace above one half makes the decimal tie of 173.045 round up, as the published table does.
  const rounded = Number((value * (1 + 1e-12)).toPrecision(ABRIDGED_FIGURES));
  return { value: rounded, halfWidth: Math.max(halfWidth, Math.abs(value - rounded)) };
}

/** Whether there is an element of that symbol. */
export function isElement(symbol: string): boolean {
  return STANDARD.has(symbol);
}

/** Atomic weight of an element; null when it has no standard atomic weight or does not exist. */
export function atomicWeight(symbol: string, table: AtomicWeightTable): AtomicWeight | null {
  const weight = STANDARD.get(symbol) ?? null;
  return weight && table === 'abridged' ? abridge(weight) : weight;
}
