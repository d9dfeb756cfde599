import type { Content } from 'pdfmake/interfaces';
import { balance, parseEquation, parseFormula } from '#core/chemistry';

/** A formula with its subscripts and charges, which the library makes smaller. */
export function formulaText(formula: string, fontSize: number, bold = false): Content[] {
  return parseFormula(formula).pieces.map(({ text, level }) => ({
    text,
    bold,
    fontSize,
    ...(level === 'subscript' ? { sub: true } : {}),
    ...(level === 'superscript' ? { sup: true } : {}),
  }));
}

/** A reaction, balanced, with the sign of equality that stands for its amounts. */
export function reactionText(equation: string, fontSize: number): Content[] {
  const { reactants, reactantCoefficients, products, productCoefficients } = balance(
    parseEquation(equation),
  );
  const side = (species: readonly string[], coefficients: readonly number[]): Content[] =>
    species.flatMap((formula, i) => [
      ...(i > 0 ? [' + '] : []),
      ...(coefficients[i] === 1 ? [] : [`${String(coefficients[i])} `]),
      ...formulaText(formula, fontSize),
    ]);
  return [...side(reactants, reactantCoefficients), ' = ', ...side(products, productCoefficients)];
}
