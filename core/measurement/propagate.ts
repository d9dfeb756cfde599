import { studentTQuantile } from '../statistics';
import { combineComponents } from './component';
import type { Expression, Input } from './expression';
import { operands, topologicalOrder } from './expression';
import type { Unit } from './unit';

/** What one input contributes to the combined uncertainty. */
export interface BudgetLine {
  readonly input: Input;
  /** In the input's unit. */
  readonly standardUncertainty: number;
  /** Change of the result, in its unit, per unit of the input. */
  readonly sensitivity: number;
  /** Sensitivity times standard uncertainty, with sign, in the result's unit. */
  readonly contribution: number;
  /** Part of the combined variance, 0 to 1. */
  readonly share: number;
}

/** A result with its uncertainty. Value and uncertainties are in `unit`. */
export interface Evaluation {
  readonly value: number;
  readonly unit: Unit;
  readonly combinedStandardUncertainty: number;
  readonly effectiveDegreesOfFreedom: number;
  readonly coverageFactor: number;
  readonly expandedUncertainty: number;
  readonly budget: readonly BudgetLine[];
}

/** Coverage probability of every expanded uncertainty. */
const COVERAGE_PROBABILITY = 0.95;

/** Values of all nodes in coherent units, operands first. @throws RangeError on two different inputs of one id. */
export function evaluateNodes(root: Expression): ReadonlyMap<Expression, number> {
  const values = new Map<Expression, number>();
  const valueOf = (node: Expression): number => values.get(node) ?? Number.NaN;
  for (const node of topologicalOrder(root)) values.set(node, evaluateNode(node, valueOf));
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
    case 'definition':
      return valueOf(node.of);
  }
}

/** Derivatives of a node with respect to each of its operands, in their order. */
function localDerivatives(
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
    case 'definition':
      return [1];
  }
}

/**
 * Evaluates a measurement equation by the law of propagation of uncertainty for uncorrelated inputs,
 * u_c² = Σ (c_i u_i)², with sensitivities c_i by reverse automatic differentiation; effective degrees of freedom by
 * Welch-Satterthwaite; k from Student's t at 95 %, degrees of freedom truncated. Inputs for which
 * `isMuted` holds keep their value and lose their uncertainty.
 * Source: JCGM 100:2008, 5.1.2, G.4.1, G.6.4.
 */
export function propagate(
  root: Expression,
  unit: Unit,
  isMuted: (input: Input) => boolean = () => false,
): Evaluation {
  const values = evaluateNodes(root);
  const sensitivities = inputSensitivities(root, values);
  const lines = [...sensitivities].map(([input, coherent]) => {
    const standardUncertainty = isMuted(input) ? 0 : combineComponents(input.components);
    const sensitivity = (coherent * input.unit.toCoherent) / unit.toCoherent;
    return {
      input,
      standardUncertainty,
      sensitivity,
      contribution: sensitivity * standardUncertainty,
    };
  });
  const variance = lines.reduce((total, line) => total + line.contribution ** 2, 0);
  const combined = Math.sqrt(variance);
  const freedom = effectiveDegreesOfFreedom(
    combined,
    lines.map((line) => [line.contribution, line.input.degreesOfFreedom]),
  );
  const coverageFactor = coverageFactorFor(freedom);
  return {
    value: (values.get(root) ?? Number.NaN) / unit.toCoherent,
    unit,
    combinedStandardUncertainty: combined,
    effectiveDegreesOfFreedom: freedom,
    coverageFactor,
    expandedUncertainty: coverageFactor * combined,
    budget: lines.map((line) => ({
      ...line,
      share: variance > 0 ? line.contribution ** 2 / variance : 0,
    })),
  };
}

/** Derivative of the root with respect to each distinct input, in coherent units. */
function inputSensitivities(
  root: Expression,
  values: ReadonlyMap<Expression, number>,
): ReadonlyMap<Input, number> {
  const adjoints = new Map<Expression, number>([[root, 1]]);
  const byId = new Map<string, { input: Input; sensitivity: number }>();
  for (const node of topologicalOrder(root).toReversed()) {
    const adjoint = adjoints.get(node) ?? 0;
    const derivatives = localDerivatives(node, values);
    operands(node).forEach((operand, i) => {
      adjoints.set(operand, (adjoints.get(operand) ?? 0) + adjoint * (derivatives[i] ?? 0));
    });
    if (node.kind !== 'input') continue;
    const known = byId.get(node.input.id);
    if (known && known.input.value !== node.input.value) {
      throw new RangeError(`two different inputs share the id ${node.input.id}`);
    }
    byId.set(node.input.id, {
      input: node.input,
      sensitivity: (known?.sensitivity ?? 0) + adjoint,
    });
  }
  // The walk went from the result to the inputs; a budget is read in the order of the equation.
  return new Map([...byId.values()].toReversed().map((found) => [found.input, found.sensitivity]));
}

/**
 * Welch-Satterthwaite: nu_eff = u_c⁴ / Σ (u_i⁴ / nu_i); Infinity when no finite contribution exists.
 * Source: JCGM 100:2008, G.4.1.
 */
function effectiveDegreesOfFreedom(
  combined: number,
  contributions: readonly (readonly [contribution: number, degreesOfFreedom: number])[],
): number {
  const sum = contributions.reduce((total, [u, freedom]) => total + u ** 4 / freedom, 0);
  return sum > 0 ? combined ** 4 / sum : Number.POSITIVE_INFINITY;
}

/** k for 95 % coverage from Student's t, degrees of freedom truncated to a whole number, at least 1. */
function coverageFactorFor(degreesOfFreedom: number): number {
  return studentTQuantile(
    1 - (1 - COVERAGE_PROBABILITY) / 2,
    Number.isFinite(degreesOfFreedom)
      ? Math.max(1, Math.floor(degreesOfFreedom))
      : degreesOfFreedom,
  );
}
