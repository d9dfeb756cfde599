import type { Expression, FunctionName } from './expression';
import { topologicalOrder } from './expression';
import type { Unit } from './unit';
import { describeDimension, isSameDimension } from './unit';

/** The functions of an expression and their derivatives. */
export const FUNCTIONS: Readonly<
  Record<
    FunctionName,
    { readonly value: (x: number) => number; readonly derivative: (x: number) => number }
  >
> = {
  sqrt: { value: Math.sqrt, derivative: (x) => 0.5 / Math.sqrt(x) },
  exp: { value: Math.exp, derivative: Math.exp },
  ln: { value: Math.log, derivative: (x) => 1 / x },
  log10: { value: Math.log10, derivative: (x) => 1 / (x * Math.LN10) },
};

/** Values of all nodes in coherent units, operands first; `instead` gives inputs other values, by id, in their unit. */
export function evaluateNodes(
  root: Expression,
  instead: ReadonlyMap<string, number> = new Map(),
): ReadonlyMap<Expression, number> {
  const values = new Map<Expression, number>();
  const valueOf = (node: Expression): number => values.get(node) ?? Number.NaN;
  for (const node of topologicalOrder(root)) {
    const given = node.kind === 'input' ? instead.get(node.input.id) : undefined;
    const value =
      node.kind === 'input' && given !== undefined
        ? given * node.input.unit.toCoherent
        : evaluateNode(node, valueOf);
    values.set(node, value);
  }
  return values;
}

function evaluateNode(node: Expression, valueOf: (node: Expression) => number): number {
  switch (node.kind) {
    case 'input':
      return node.input.value * node.input.unit.toCoherent;
    case 'exact':
      return node.value * node.unit.toCoherent;
    case 'sum':
      return node.terms.reduce((total, term) => total + term.sign * valueOf(term.of), 0);
    case 'product':
      return node.factors.reduce((total, factor) => total * valueOf(factor), 1);
    case 'quotient':
      return valueOf(node.numerator) / valueOf(node.denominator);
    case 'mean':
      return node.items.reduce((total, item) => total + valueOf(item), 0) / node.items.length;
    case 'power':
      return valueOf(node.base) ** valueOf(node.exponent);
    case 'function':
      return FUNCTIONS[node.name].value(valueOf(node.of));
    case 'definition':
      return valueOf(node.of);
  }
}

/** Derivatives of a node with respect to each of its operands, in their order. */
export function localDerivatives(
  node: Expression,
  values: ReadonlyMap<Expression, number>,
): readonly number[] {
  const valueOf = (of: Expression): number => values.get(of) ?? Number.NaN;
  switch (node.kind) {
    case 'input':
    case 'exact':
      return [];
    case 'sum':
      return node.terms.map((term) => term.sign);
    case 'product':
      return node.factors.map((_, skipped) =>
        node.factors.reduce((total, of, i) => (i === skipped ? total : total * valueOf(of)), 1),
      );
    case 'quotient': {
      const denominator = valueOf(node.denominator);
      return [1 / denominator, -valueOf(node.numerator) / denominator ** 2];
    }
    case 'mean':
      return node.items.map(() => 1 / node.items.length);
    case 'power': {
      const base = valueOf(node.base);
      const exponent = valueOf(node.exponent);
      // A constant exponent leaves a negative base its derivative.
      const byExponent = node.exponent.kind === 'exact' ? 0 : base ** exponent * Math.log(base);
      return [exponent * base ** (exponent - 1), byExponent];
    }
    case 'function':
      return [FUNCTIONS[node.name].derivative(valueOf(node.of))];
    case 'definition':
      return [1];
  }
}

/** Value of an expression in the coherent unit of its dimension: g, mol, L or K. */
export function coherentValue(root: Expression): number {
  return evaluateNodes(root).get(root) ?? Number.NaN;
}

/** Value of an expression in a unit. @throws RangeError when the unit does not fit. */
export function evaluate(root: Expression, unit: Unit): number {
  if (!isSameDimension(root.dimension, unit.dimension)) {
    throw new RangeError(
      `the result has the dimension ${describeDimension(root.dimension)}, not that of ${unit.symbol || 'a pure number'}`,
    );
  }
  // A number that is asked for in its own unit keeps its last bit.
  if (root.kind === 'exact' && root.unit === unit) return root.value;
  return coherentValue(root) / unit.toCoherent;
}
