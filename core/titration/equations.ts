import type { Expression } from '../measurement';
import { exact, minus, plus, product, quotient, sum, UNITS } from '../measurement';

/** A standard in the flask, weighed there: nu, m, P, M. */
export interface WeighedPortion {
  /** Moles of titrant per mole of standard. */
  readonly ratio: Expression;
  readonly mass: Expression;
  readonly purity: Expression;
  readonly molarMass: Expression;
}

/** Molarity of a titrant by a weighed standard: c = nu m P / (M V). Unit checks come with the inputs. */
export function molarityByWeighedStandard(
  { ratio, mass, purity, molarMass }: WeighedPortion,
  volume: Expression,
): Expression {
  return quotient(product([ratio, mass, purity]), product([molarMass, volume]));
}

/** Molarity of a titrant by an aliquot of a standard solution: c = nu c_s V_a / V. */
export function molarityByAliquot(
  ratio: Expression,
  standardMolarity: Expression,
  aliquot: Expression,
  volume: Expression,
): Expression {
  return quotient(product([ratio, standardMolarity, aliquot]), volume);
}

/** Molarity of a solution in the flask by a standard solution in the burette: c = nu c_s V / V_a. */
export function molarityByStandardInBurette(
  ratio: Expression,
  standardMolarity: Expression,
  aliquot: Expression,
  volume: Expression,
): Expression {
  return quotient(product([ratio, standardMolarity, volume]), aliquot);
}

/**
 * Molarity of a solution in the flask by back-titration, from what was added and what of it was left, both as amounts of what is in
 * the flask: c = (nu_e c_e V_e - nu c_s V) / V_a.
 */
export function molarityByBackTitration(
  added: Expression,
  left: Expression,
  aliquot: Expression,
): Expression {
  return quotient(sum([plus(added), minus(left)]), aliquot);
}

/** Amount that a volume of titrant consumes: n = c V / nu, with nu moles of titrant per mole of it. */
export function amountTitrated(
  titrantMolarity: Expression,
  volume: Expression,
  ratio: Expression,
): Expression {
  return quotient(product([titrantMolarity, volume]), ratio);
}

/**
 * Amount of analyte by back-titration: what was added of the reagent minus what was left, times the moles of analyte per
 * mole of reagent.
 */
export function amountByDifference(
  added: Expression,
  left: Expression,
  analytePerReagent: Expression,
): Expression {
  return product([sum([plus(added), minus(left)]), analytePerReagent]);
}

/** What an unknown may be stated as. */
export type ResultQuantity =
  | 'molarity'
  | 'mass-concentration'
  | 'mass-fraction'
  | 'mass-per-unit'
  | 'molar-mass'
  | 'equivalent-mass';

/** What a result needs beside the amount of analyte that was titrated. */
export interface SampleExpressions {
  /** Mass weighed, or volume of the aliquot. */
  readonly portion: Expression;
  /** How many times the portion was diluted before an aliquot of it was titrated. */
  readonly dilutionFactor: Expression;
  readonly molarMass?: Expression;
  /** Mass of one unit, such as a tablet. */
  readonly unitMass?: Expression;
  /** Equivalents in a mole of analyte. */
  readonly equivalents?: Expression;
}

/**
 * States an amount of analyte as the quantity wanted: n f / V, times M for a mass concentration; n f M / m, times the
 * mass of a unit; m / (n f) for a molar mass, over z for an equivalent mass.
 *
 * @throws RangeError when something that the quantity needs is missing, or the portion is of the wrong kind.
 */
export function stateResult(
  quantity: ResultQuantity,
  amount: Expression,
  sample: SampleExpressions,
): Expression {
  const { portion, dilutionFactor } = sample;
  const whole = product([amount, dilutionFactor]);
  const need = (given: Expression | undefined, what: string): Expression => {
    if (!given) throw new RangeError(`${quantity} needs the ${what}`);
    return given;
  };
  switch (quantity) {
    case 'molarity':
      return quotient(whole, portion);
    case 'mass-concentration':
    case 'mass-fraction':
      return quotient(product([whole, need(sample.molarMass, 'molar mass')]), portion);
    case 'mass-per-unit':
      return quotient(
        product([
          whole,
          need(sample.molarMass, 'molar mass'),
          need(sample.unitMass, 'mass of a unit'),
        ]),
        portion,
      );
    case 'molar-mass':
      return quotient(portion, whole);
    case 'equivalent-mass':
      return quotient(portion, product([whole, need(sample.equivalents, 'equivalents')]));
  }
}

/** A number of moles per mole. */
export function ratioOf(numerator: number, denominator: number): Expression {
  return exact(numerator / denominator, UNITS.one);
}
