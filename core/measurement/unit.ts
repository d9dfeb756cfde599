/** Exponents of the base dimensions of volumetric analysis. */
export interface Dimension {
  readonly mass: number;
  readonly amount: number;
  readonly volume: number;
  readonly temperature: number;
}

/** A unit: its symbol by SI rules, and the factor to the coherent unit of g, mol, L and K. */
export interface Unit {
  readonly symbol: string;
  readonly toCoherent: number;
  readonly dimension: Dimension;
}

const NONE: Dimension = { mass: 0, amount: 0, volume: 0, temperature: 0 };

function unit(symbol: string, toCoherent: number, dimension: Partial<Dimension>): Unit {
  return { symbol, toCoherent, dimension: { ...NONE, ...dimension } };
}

/** The units in which inputs are given and results are stated. */
export const UNITS = {
  one: unit('', 1, {}),
  percent: unit('%', 1e-2, {}),
  gram: unit('g', 1, { mass: 1 }),
  milligram: unit('mg', 1e-3, { mass: 1 }),
  litre: unit('L', 1, { volume: 1 }),
  millilitre: unit('mL', 1e-3, { volume: 1 }),
  cubicCentimetre: unit('cm³', 1e-3, { volume: 1 }),
  mole: unit('mol', 1, { amount: 1 }),
  kelvin: unit('K', 1, { temperature: 1 }),
  perKelvin: unit('1/K', 1, { temperature: -1 }),
  gramPerMole: unit('g/mol', 1, { mass: 1, amount: -1 }),
  molePerLitre: unit('mol/L', 1, { amount: 1, volume: -1 }),
  gramPerLitre: unit('g/L', 1, { mass: 1, volume: -1 }),
  milligramPerLitre: unit('mg/L', 1e-3, { mass: 1, volume: -1 }),
  gramPerHundredMillilitres: unit('g/100 mL', 10, { mass: 1, volume: -1 }),
} as const;

/** A unit of the dimension of another one. */
export function scaled(symbol: string, { dimension }: Unit, toCoherent: number): Unit {
  return { symbol, toCoherent, dimension };
}

/** A unit by name only, for an equation whose units are not checked: numbers stay as they are. */
export function plainUnit(symbol: string): Unit {
  return unit(symbol, 1, {});
}

const AXES = ['mass', 'amount', 'volume', 'temperature'] as const;

/** Adds (`sign` 1, for a product) or subtracts (`sign` -1, for a quotient) exponents. */
export function combineDimensions(a: Dimension, b: Dimension, sign: 1 | -1): Dimension {
  const combined = { ...NONE };
  for (const axis of AXES) combined[axis] = a[axis] + sign * b[axis];
  return combined;
}

/** The SI base units of the dimensions, and how many of them a coherent unit of ours is: a gram, a litre. */
const SI = {
  mass: { symbol: 'kg', factor: 1e-3, power: 1 },
  amount: { symbol: 'mol', factor: 1, power: 1 },
  volume: { symbol: 'm', factor: 1e-3, power: 3 },
  temperature: { symbol: 'K', factor: 1, power: 1 },
} as const;

/** The SI unit of what is given in a unit, and the factor to it: mL is 1e-6 m3, g/mol 1e-3 kg/mol, a pure number `1`. */
export function inSi({ toCoherent, dimension }: Unit): { symbol: string; factor: number } {
  const factor = AXES.reduce((sum, axis) => sum * SI[axis].factor ** dimension[axis], toCoherent);
  const part = (sign: 1 | -1): string =>
    AXES.filter((axis) => sign * dimension[axis] > 0)
      .map((axis) => {
        const power = SI[axis].power * Math.abs(dimension[axis]);
        return `${SI[axis].symbol}${power === 1 ? '' : String(power)}`;
      })
      .join(' ');
  const under = part(-1);
  return { symbol: `${part(1) || '1'}${under === '' ? '' : `/${under}`}`, factor };
}

/** Whether two quantities may be added or compared. */
export function isSameDimension(a: Dimension, b: Dimension): boolean {
  return AXES.every((axis) => a[axis] === b[axis]);
}

/** The dimension in words for an error message, such as `mass^1 amount^-1`. */
export function describeDimension(dimension: Dimension): string {
  const parts = AXES.filter((axis) => dimension[axis] !== 0);
  return parts.map((axis) => `${axis}^${String(dimension[axis])}`).join(' ') || 'pure number';
}
