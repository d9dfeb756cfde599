import type { Expression } from '../measurement';
import { product, quotient } from '../measurement';

/** Molarity of a solution made up from a weighed mass: c = m P / (M V). */
export function molarityOfSolution(
  mass: Expression,
  purity: Expression,
  molarMass: Expression,
  volume: Expression,
): Expression {
  return quotient(product([mass, purity]), product([molarMass, volume]));
}

/** Molarity after dilution steps, each an aliquot made up to a flask: c times the product of V_a / V_f. */
export function dilutedMolarity(
  molarity: Expression,
  steps: readonly { readonly aliquot: Expression; readonly flask: Expression }[],
): Expression {
  return steps.reduce(
    (diluted, step) => quotient(product([diluted, step.aliquot]), step.flask),
    molarity,
  );
}
