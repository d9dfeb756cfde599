import type { Component } from './component';
import type { Dimension, Unit } from './unit';
import { combineDimensions, describeDimension, isSameDimension, UNITS } from './unit';

/** Something that an earlier result rests on, and the part of its uncertainty that comes from there, with its sign. */
export interface Origin {
  /** The input in which it first appeared. */
  readonly id: string;
  /** Contribution over the combined standard uncertainty: -1 to 1. The squares of all add up to at most 1. */
  readonly part: number;
}

/**
 * An input quantity. Its `id` names the object, the property and the version that it comes from, so
 * that the same quantity used twice is one input and correlates with itself.
 */
export interface Input {
  readonly id: string;
  /** Symbol for display; what follows the first underscore is a subscript: `m_1`. */
  readonly symbol: string;
  /** What it is, in words: `purity of the standard`. */
  readonly name: string;
  /** The kind of effect that it stands for in the budget: `Purity`. */
  readonly effect: string;
  readonly value: number;
  readonly unit: Unit;
  readonly components: readonly Component[];
  /** Degrees of freedom; Infinity for what is known from a specification. */
  readonly degreesOfFreedom: number;
  /** Where the value comes from: `lot K-22, certificate`. */
  readonly source: string;
  /** Whether one value serves all replicates, or each replicate draws its own. */
  readonly variation: 'common' | 'by-replicate';
  /** For an earlier result: what it rests on, by which it correlates with what rests on the same. */
  readonly restsOn?: readonly Origin[];
}

interface Node {
  readonly dimension: Dimension;
}

/** A measurement equation as a graph: nodes may be shared. */
export type Expression =
  | (Node & { readonly kind: 'input'; readonly input: Input })
  | (Node & { readonly kind: 'exact'; readonly value: number; readonly unit: Unit })
  | (Node & { readonly kind: 'sum'; readonly terms: readonly Term[] })
  | (Node & { readonly kind: 'product'; readonly factors: readonly Expression[] })
  | (Node & {
      readonly kind: 'quotient';
      readonly numerator: Expression;
      readonly denominator: Expression;
    })
  | (Node & { readonly kind: 'mean'; readonly items: readonly Expression[] })
  | (Node & { readonly kind: 'power'; readonly base: Expression; readonly exponent: Expression })
  | (Node & { readonly kind: 'function'; readonly name: FunctionName; readonly of: Expression })
  | (Node & {
      readonly kind: 'definition';
      readonly symbol: string;
      readonly name: string;
      readonly unit: Unit;
      readonly of: Expression;
    });

/** Functions of a pure number that a measurement equation may hold. */
export type FunctionName = 'sqrt' | 'exp' | 'ln' | 'log10';

/** A signed term of a sum. */
export interface Term {
  readonly sign: 1 | -1;
  readonly of: Expression;
}

/** An input as a node of the graph. */
export function input(given: Input): Expression {
  return { kind: 'input', input: given, dimension: given.unit.dimension };
}

/** An input known from a specification, with endless degrees of freedom, and shared by all replicates. */
export function commonInput(given: Omit<Input, 'degreesOfFreedom' | 'variation'>): Expression {
  return input({ ...given, degreesOfFreedom: Number.POSITIVE_INFINITY, variation: 'common' });
}

/** A number known exactly, such as a mole ratio. */
export function exact(value: number, unit: Unit = UNITS.one): Expression {
  return { kind: 'exact', value, unit, dimension: unit.dimension };
}

/** A sum of signed terms. @throws RangeError when their dimensions differ. */
export function sum(terms: readonly Term[]): Expression {
  return { kind: 'sum', terms, dimension: commonDimension(terms.map((term) => term.of)) };
}

/** A term that is added. */
export function plus(of: Expression): Term {
  return { sign: 1, of };
}

/** A term that is taken away. */
export function minus(of: Expression): Term {
  return { sign: -1, of };
}

/** A product. */
export function product(factors: readonly Expression[]): Expression {
  const dimension = factors.reduce(
    (dim, factor) => combineDimensions(dim, factor.dimension, 1),
    UNITS.one.dimension,
  );
  return { kind: 'product', factors, dimension };
}

/** A quotient. */
export function quotient(numerator: Expression, denominator: Expression): Expression {
  const dimension = combineDimensions(numerator.dimension, denominator.dimension, -1);
  return { kind: 'quotient', numerator, denominator, dimension };
}

/** The arithmetic mean. @throws RangeError when empty or when dimensions differ. */
export function mean(items: readonly Expression[]): Expression {
  return { kind: 'mean', items, dimension: commonDimension(items) };
}

/**
 * A power of pure numbers.
 *
 * @throws RangeError when base or exponent has a dimension: a square of a quantity is a product.
 */
export function power(base: Expression, exponent: Expression): Expression {
  requirePureNumber('a power', base);
  requirePureNumber('an exponent', exponent);
  return { kind: 'power', base, exponent, dimension: UNITS.one.dimension };
}

/** A function of a pure number. @throws RangeError when its argument has a dimension. */
export function apply(name: FunctionName, of: Expression): Expression {
  requirePureNumber(name, of);
  return { kind: 'function', name, of, dimension: UNITS.one.dimension };
}

function requirePureNumber(what: string, of: Expression): void {
  if (isSameDimension(of.dimension, UNITS.one.dimension)) return;
  throw new RangeError(`${what} takes a pure number, not ${describeDimension(of.dimension)}`);
}

/**
 * Gives an intermediate or final result its symbol and unit; the working shows one line for each.
 *
 * @throws RangeError when the unit does not fit the expression.
 */
export function define(symbol: string, name: string, unit: Unit, of: Expression): Expression {
  if (!isSameDimension(unit.dimension, of.dimension)) {
    throw new RangeError(
      `${symbol} cannot be stated in ${unit.symbol || 'a pure number'}: its dimension is ${describeDimension(of.dimension)}`,
    );
  }
  return { kind: 'definition', symbol, name, unit, of, dimension: of.dimension };
}

function commonDimension(items: readonly Expression[]): Dimension {
  const first = items[0];
  if (!first) throw new RangeError('a sum or mean needs at least one term');
  for (const item of items) {
    if (!isSameDimension(item.dimension, first.dimension)) {
      throw new RangeError(
        `cannot add ${describeDimension(item.dimension)} to ${describeDimension(first.dimension)}`,
      );
    }
  }
  return first.dimension;
}

/** The nodes that a node is made of, in order. */
export function operands(node: Expression): readonly Expression[] {
  switch (node.kind) {
    case 'input':
    case 'exact':
      return [];
    case 'sum':
      return node.terms.map((term) => term.of);
    case 'product':
      return node.factors;
    case 'quotient':
      return [node.numerator, node.denominator];
    case 'mean':
      return node.items;
    case 'power':
      return [node.base, node.exponent];
    case 'function':
    case 'definition':
      return [node.of];
  }
}

/** Every node once, each after its operands. */
export function topologicalOrder(root: Expression): readonly Expression[] {
  const order = new Set<Expression>();
  const visit = (node: Expression): void => {
    if (order.has(node)) return;
    operands(node).forEach(visit);
    order.add(node);
  };
  visit(root);
  return [...order];
}
