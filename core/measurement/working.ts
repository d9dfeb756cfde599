import type { Expression, FunctionName } from './expression';
import { operands } from './expression';
import { evaluateNodes } from './evaluate';
import { roundSignificant } from './round';

/** An equation as data; the interface typesets it. */
export type Formula =
  | { readonly kind: 'symbol'; readonly symbol: string }
  | { readonly kind: 'number'; readonly text: string; readonly unit: string }
  | { readonly kind: 'sum'; readonly terms: readonly { sign: 1 | -1; of: Formula }[] }
  | { readonly kind: 'product'; readonly factors: readonly Formula[] }
  | { readonly kind: 'quotient'; readonly numerator: Formula; readonly denominator: Formula }
  | { readonly kind: 'mean'; readonly items: readonly Formula[] }
  | { readonly kind: 'power'; readonly base: Formula; readonly exponent: Formula }
  | { readonly kind: 'function'; readonly name: FunctionName; readonly of: Formula };

/** One line of the working: symbol = equation = numbers put in = result. */
export interface WorkingStep {
  readonly symbol: string;
  readonly name: string;
  readonly equation: Formula;
  readonly substituted: Formula;
  readonly result: { readonly value: number; readonly unit: string };
}

/**
 * The working of a result, in the order in which an analyst would write it: one step for each
 * definition in the graph, those it rests on first.
 */
export function working(root: Expression): readonly WorkingStep[] {
  const values = evaluateNodes(root);
  const seen = new Set<Expression>();
  const steps: WorkingStep[] = [];
  const visit = (node: Expression): void => {
    if (seen.has(node)) return;
    seen.add(node);
    operands(node).forEach(visit);
    if (node.kind !== 'definition') return;
    steps.push({
      symbol: node.symbol,
      name: node.name,
      equation: toFormula(node.of, symbolic),
      substituted: toFormula(node.of, (leaf) => numeric(leaf, values)),
      result: {
        value: (values.get(node) ?? Number.NaN) / node.unit.toCoherent,
        unit: node.unit.symbol,
      },
    });
  };
  visit(root);
  return steps;
}

type Leaf = Extract<Expression, { kind: 'input' | 'exact' | 'definition' }>;

function symbolic(leaf: Leaf): Formula {
  switch (leaf.kind) {
    case 'input':
      return { kind: 'symbol', symbol: leaf.input.symbol };
    case 'exact':
      return { kind: 'number', text: String(leaf.value), unit: leaf.unit.symbol };
    case 'definition':
      return { kind: 'symbol', symbol: leaf.symbol };
  }
}

function numeric(leaf: Leaf, values: ReadonlyMap<Expression, number>): Formula {
  const unit = leaf.kind === 'input' ? leaf.input.unit : leaf.unit;
  const value = (values.get(leaf) ?? Number.NaN) / unit.toCoherent;
  return { kind: 'number', text: plainNumber(value), unit: unit.symbol };
}

/** Seven significant figures, without the zeros that say nothing. */
function plainNumber(value: number): string {
  const text = roundSignificant(value, 7);
  return text.includes('.') ? text.replace(/\.?0+$/, '') : text;
}

function toFormula(node: Expression, leaf: (leaf: Leaf) => Formula): Formula {
  const part = (operand: Expression): Formula => toFormula(operand, leaf);
  switch (node.kind) {
    case 'input':
    case 'exact':
    case 'definition':
      return leaf(node);
    case 'sum':
      return {
        kind: 'sum',
        terms: node.terms.map((term) => ({ sign: term.sign, of: part(term.of) })),
      };
    case 'product':
      return { kind: 'product', factors: node.factors.map(part) };
    case 'quotient':
      return {
        kind: 'quotient',
        numerator: part(node.numerator),
        denominator: part(node.denominator),
      };
    case 'mean':
      return { kind: 'mean', items: node.items.map(part) };
    case 'power':
      return { kind: 'power', base: part(node.base), exponent: part(node.exponent) };
    case 'function':
      return { kind: 'function', name: node.name, of: part(node.of) };
  }
}
