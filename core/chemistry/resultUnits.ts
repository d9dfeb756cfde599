import type { Unit } from '../measurement';
import { scaled, UNITS } from '../measurement';
import { molarMass } from './molarMass';

/** What a result tells of a sample. */
export type Quantity =
  | 'molarity'
  /** Equivalents in a litre: the normality. */
  | 'equivalents'
  | 'mass-concentration'
  | 'mass-fraction'
  | 'volume-fraction'
  | 'mass-per-unit'
  | 'equivalent-mass';

interface ResultUnitEntry {
  readonly quantity: Quantity;
  readonly unit: Unit;
}

function of(quantity: Quantity, unit: Unit): ResultUnitEntry {
  return { quantity, unit };
}

/** A degree of hardness: so many mg/L of a substance, as an amount in a litre. */
function degree(symbol: string, mgPerL: number, formula: string): ResultUnitEntry {
  const molPerL = mgPerL / 1000 / molarMass(formula).valueGPerMol;
  return of('molarity', scaled(symbol, UNITS.molePerLitre, molPerL));
}

const { molePerLitre, gramPerLitre, milligramPerLitre, percent, one, milligram } = UNITS;

/**
 * The units in which results are stated. The keys stand in facts. Hardness: 1 German degree is 10 mg/L calcium oxide, a French one
 * 10 mg/L, an English one 14.254 mg/L calcium carbonate (a grain in an imperial gallon). Volumes of oxygen are what a volume of a
 * peroxide gives off at 0 °C and 101.325 kPa: 1 mol/L gives 22.414 / 2.
 */
const TABLE = {
  'mol/L': of('molarity', molePerLitre),
  'mmol/L': of('molarity', scaled('mmol/L', molePerLitre, 1e-3)),
  'German degrees': degree('°dH', 10, 'CaO'),
  'French degrees': degree('°fH', 10, 'CaCO3'),
  'English degrees': degree('°eH', 14.254, 'CaCO3'),
  'volumes of oxygen': of('molarity', scaled('vol', molePerLitre, 2 / 22.414)),
  'eq/L': of('equivalents', scaled('eq/L', molePerLitre, 1)),
  'meq/L': of('equivalents', scaled('meq/L', molePerLitre, 1e-3)),
  'g/L': of('mass-concentration', gramPerLitre),
  'mg/L': of('mass-concentration', milligramPerLitre),
  'g/100 mL': of('mass-concentration', UNITS.gramPerHundredMillilitres),
  '% m/m': of('mass-fraction', scaled('% (m/m)', percent, 1e-2)),
  'g/kg': of('mass-fraction', scaled('g/kg', one, 1e-3)),
  'mg/g': of('mass-fraction', scaled('mg/g', one, 1e-3)),
  'mg/100 g': of('mass-fraction', scaled('mg/100 g', one, 1e-5)),
  'mg/kg': of('mass-fraction', scaled('mg/kg', one, 1e-6)),
  '% V/V': of('volume-fraction', scaled('% (V/V)', percent, 1e-2)),
  'mg/unit': of('mass-per-unit', milligram),
  'g/mol': of('equivalent-mass', UNITS.gramPerMole),
} as const satisfies Readonly<Record<string, ResultUnitEntry>>;

export type ResultUnit = keyof typeof TABLE;

export const RESULT_UNITS: Readonly<Record<ResultUnit, ResultUnitEntry>> = TABLE;

export const RESULT_UNIT_KEYS = Object.keys(TABLE) as readonly ResultUnit[];
