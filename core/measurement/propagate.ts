import { studentTQuantile } from '../statistics';
import { combineComponents, unknownComponents } from './component';
import { evaluateNodes, localDerivatives } from './evaluate';
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
export const COVERAGE_PROBABILITY = 0.95;

/** A correlation coefficient between two inputs, by their ids. */
export interface Correlation {
  readonly between: readonly [string, string];
  /** -1 to 1. */
  readonly coefficient: number;
}

/** What changes how a model is evaluated. */
export interface EvaluationOptions {
  /** Inputs that keep their value and lose their uncertainty. */
  readonly isMuted?: (input: Input) => boolean;
  /** By what the standard uncertainty of an input is multiplied, to see what would change; 1 unless given. */
  readonly scale?: (input: Input) => number;
  /** Beside what correlates by being the same input. */
  readonly correlations?: readonly Correlation[];
  /** In place of the one from the effective degrees of freedom. */
  readonly coverageFactor?: number;
}

/**
 * Evaluates a measurement equation by the law of propagation of uncertainty,
 * u_c² = Σ (c_i u_i)² + 2 Σ r_ij c_i u_i c_j u_j, with sensitivities c_i by reverse automatic differentiation; effective
 * degrees of freedom by Welch-Satterthwaite; k from Student's t at 95 %, degrees of freedom truncated. Shares leave
 * correlation terms out.
 * Source: JCGM 100:2008, 5.1.2, 5.2.2, G.4.1, G.6.4.
 *
 * @throws RangeError when a correlation names an input that the equation does not hold.
 */
export function propagate(
  root: Expression,
  unit: Unit,
  {
    isMuted = () => false,
    scale = () => 1,
    correlations = [],
    coverageFactor: fixedFactor,
  }: EvaluationOptions = {},
): Evaluation {
  const values = evaluateNodes(root);
  const lines = [...inputSensitivities(root, values)].map(([input, coherent]) => {
    const factor = isMuted(input) ? 0 : scale(input);
    const standardUncertainty = factor * combineComponents(input.components);
    const sensitivity = (coherent * input.unit.toCoherent) / unit.toCoherent;
    return {
      input,
      standardUncertainty,
      sensitivity,
      contribution: sensitivity * standardUncertainty,
      factor,
    };
  });
  const squares = lines.reduce((total, line) => total + line.contribution ** 2, 0);
  const combined = combineContributions(
    new Map(lines.map((line) => [line.input.id, line.contribution])),
    correlations,
  );
  const freedom = freedomOf(lines, correlations);
  const coverageFactor = fixedFactor ?? coverageFactorFor(freedom);
  return {
    value: (values.get(root) ?? Number.NaN) / unit.toCoherent,
    unit,
    combinedStandardUncertainty: combined,
    effectiveDegreesOfFreedom: freedom,
    coverageFactor,
    expandedUncertainty: coverageFactor * combined,
    budget: lines.map(({ factor: _factor, ...line }) => ({
      ...line,
      share: squares > 0 ? line.contribution ** 2 / squares : 0,
    })),
  };
}

/** Root of the sum of squares of contributions by input id, with the cross terms of those that correlate. */
export function combineContributions(
  contributions: ReadonlyMap<string, number>,
  correlations: readonly Correlation[],
): number {
  const of = (id: string): number => {
    const contribution = contributions.get(id);
    if (contribution === undefined) throw new RangeError(`no input ${id} to correlate`);
    return contribution;
  };
  const squares = [...contributions.values()].reduce((total, one) => total + one ** 2, 0);
  const crossTerms = correlations.reduce(
    (total, { between: [a, b], coefficient }) => total + 2 * coefficient * of(a) * of(b),
    0,
  );
  // Full negative correlation may leave binary noise below zero.
  return Math.sqrt(Math.max(0, squares + crossTerms));
}

type Line = Omit<BudgetLine, 'share'> & { readonly factor: number };

/**
 * Effective degrees of freedom of what is not known. A difference that is known and was not corrected would count as endlessly sure
 * and make k smaller, so that U fell where the room gets warmer; it is left out.
 */
function freedomOf(lines: readonly Line[], correlations: readonly Correlation[]): number {
  const unknown = lines.map(({ input, factor, sensitivity }) => {
    const part = factor * sensitivity * combineComponents(unknownComponents(input.components));
    return { input, part };
  });
  const combined = combineContributions(
    new Map(unknown.map(({ input, part }) => [input.id, part])),
    correlations,
  );
  return effectiveDegreesOfFreedom(
    combined,
    unknown.map(({ input, part }) => [part, inputDegreesOfFreedom(input)]),
  );
}

/** Degrees of freedom of an input: its own where they are finite, else those of its components together. */
function inputDegreesOfFreedom(input: Input): number {
  if (Number.isFinite(input.degreesOfFreedom)) return input.degreesOfFreedom;
  return effectiveDegreesOfFreedom(
    combineComponents(input.components),
    input.components.map((component) => [
      combineComponents([component]),
      component.degreesOfFreedom ?? Number.POSITIVE_INFINITY,
    ]),
  );
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
    if (known && !isSameInput(known.input, node.input)) {
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

/** Whether two inputs say the same of one quantity: its value, and all that its uncertainty comes from. */
function isSameInput(a: Input, b: Input): boolean {
  if (a === b) return true;
  const said = ({ value, unit, components, degreesOfFreedom, variation }: Input): string =>
    JSON.stringify([value, unit.symbol, components, String(degreesOfFreedom), variation]);
  return said(a) === said(b);
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

/** Degrees of freedom as a record keeps them: null where they are endless, which JSON cannot say. */
export function keptFreedom({ effectiveDegreesOfFreedom: freedom }: Evaluation): number | null {
  return Number.isFinite(freedom) ? freedom : null;
}

/** k for 95 % coverage from Student's t, degrees of freedom truncated to a whole number, at least 1. */
export function coverageFactorFor(degreesOfFreedom: number): number {
  return studentTQuantile(
    1 - (1 - COVERAGE_PROBABILITY) / 2,
    Number.isFinite(degreesOfFreedom)
      ? Math.max(1, Math.floor(degreesOfFreedom))
      : degreesOfFreedom,
  );
}
