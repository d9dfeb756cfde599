import * as v from 'valibot';
import type { Component, Correlation, Distribution, Expression, Input } from '#core/measurement';
import {
  combineComponents,
  componentUncertainty,
  input as inputNode,
  kragten,
  parseTypedEquation,
  plainUnit,
  propagate,
  runSimulation,
} from '#core/measurement';
import { requireDistinct, Unanswerable } from '#core/problem';
import { studentTQuantile } from '#core/statistics';
import type { Json } from './task';
import { number, optionalNumber, task } from './task';

/** Endings of a key by the unit of its number; those of one dimension convert into one another. */
const ENDINGS: Readonly<Record<string, { dimension: string; factor: number }>> = {
  '': { dimension: '1', factor: 1 },
  _g: { dimension: 'mass', factor: 1 },
  _mg: { dimension: 'mass', factor: 1e-3 },
  _mL: { dimension: 'volume', factor: 1 },
  _mol: { dimension: 'amount', factor: 1 },
  _mol_per_L: { dimension: 'molarity', factor: 1 },
  _g_per_mol: { dimension: 'molar mass', factor: 1 },
  _kg_per_m3: { dimension: 'density', factor: 1 },
  _degC: { dimension: 'temperature', factor: 1 },
  _per_K: { dimension: 'expansion', factor: 1 },
  _per_K2: { dimension: 'expansion squared', factor: 1 },
};

type Quantity = 'value' | 'standard_uncertainty' | 'half_width' | 'expanded_uncertainty';

/** A key for each unit in which a quantity may be given. */
function keysOf(quantity: Quantity): Record<string, typeof optionalNumber> {
  return Object.fromEntries(
    Object.keys(ENDINGS).map((ending) => [quantity + ending, optionalNumber]),
  );
}

const component = v.object({
  name: v.optional(v.string(), 'uncertainty'),
  distribution: v.optional(
    v.picklist(['normal', 'rectangular', 'triangular', 'arcsine', 'student']),
    'normal',
  ),
  confidence_percent: optionalNumber,
  coverage_factor: optionalNumber,
  degrees_of_freedom: optionalNumber,
  ...keysOf('standard_uncertainty'),
  ...keysOf('half_width'),
  ...keysOf('expanded_uncertainty'),
});

const inputSchema = v.object({
  symbol: v.string(),
  unit: v.optional(v.string(), '1'),
  components: v.optional(v.array(component), []),
  degrees_of_freedom: optionalNumber,
  ...keysOf('value'),
});

/** A number found under one of the keys of a quantity, and the ending of that key. */
interface Found {
  readonly number: number;
  readonly ending: string;
}

function find(given: Record<string, unknown>, quantity: Quantity): Found | null {
  const found = Object.keys(ENDINGS).flatMap((ending) => {
    const value = given[quantity + ending];
    return typeof value === 'number' ? [{ number: value, ending }] : [];
  });
  if (found.length > 1) {
    throw new Unanswerable('syntax', quantity, 'It is given more than once, in different units.');
  }
  return found[0] ?? null;
}

/** A number in the unit of another one. */
function inUnitOf(found: Found, value: Found): number {
  const from = ENDINGS[found.ending];
  const to = ENDINGS[value.ending];
  if (!from || from.dimension !== to?.dimension) {
    throw new Unanswerable(
      'incompatible-units',
      'components',
      `An uncertainty with the key ending "${found.ending}" does not fit a value with "${value.ending}".`,
    );
  }
  return (found.number * from.factor) / to.factor;
}

function componentOf(given: v.InferOutput<typeof component>, value: Found): Component {
  const named = {
    name: given.name,
    ...(given.degrees_of_freedom !== undefined && { degreesOfFreedom: given.degrees_of_freedom }),
  };
  const standard = find(given, 'standard_uncertainty');
  if (standard) {
    return {
      ...named,
      distribution: given.distribution,
      standardUncertainty: notNegative(inUnitOf(standard, value)),
    };
  }
  const expanded = find(given, 'expanded_uncertainty');
  if (expanded) {
    const coverageFactor = given.coverage_factor ?? 2;
    if (!(coverageFactor > 0)) {
      throw new Unanswerable('non-positive', 'coverage_factor', 'It must be above zero.');
    }
    return {
      ...named,
      expandedUncertainty: notNegative(inUnitOf(expanded, value)),
      coverageFactor,
    };
  }
  const half = find(given, 'half_width');
  if (!half || given.distribution === 'student') {
    throw new Unanswerable(
      'empty',
      'components',
      `The component ${given.name} states no uncertainty.`,
    );
  }
  const distribution: Distribution = given.distribution;
  return {
    ...named,
    distribution,
    halfWidth: notNegative(inUnitOf(half, value)),
    confidence: (given.confidence_percent ?? 95) / 100,
  };
}

function notNegative(uncertainty: number): number {
  if (uncertainty >= 0) return uncertainty;
  throw new Unanswerable('non-positive', 'components', 'An uncertainty cannot be negative.');
}

function inputOf(given: v.InferOutput<typeof inputSchema>): Input {
  const value = find(given, 'value');
  if (!value) throw new Unanswerable('empty', 'value', `The input ${given.symbol} has no value.`);
  return {
    id: given.symbol,
    symbol: given.symbol,
    name: given.symbol,
    effect: given.symbol,
    value: value.number,
    unit: plainUnit(given.unit),
    components: given.components.map((one) => componentOf(one, value)),
    degreesOfFreedom: given.degrees_of_freedom ?? Number.POSITIVE_INFINITY,
    source: 'given',
    variation: 'common',
  };
}

export const UNCERTAINTY_TASKS = [
  task(
    'propagate',
    {
      model: v.string(),
      result_unit: v.optional(v.string(), '1'),
      coverage_factor: v.optional(v.pipe(number, v.gtValue(0)), 2),
      inputs: v.pipe(v.array(inputSchema), v.minLength(1)),
      correlations: v.optional(
        v.array(
          v.object({
            a: v.string(),
            b: v.string(),
            coefficient: v.pipe(number, v.minValue(-1), v.maxValue(1)),
          }),
        ),
        [],
      ),
      trials: v.optional(v.pipe(number, v.integer(), v.minValue(1000), v.maxValue(5e6)), 400_000),
      seed: v.optional(v.pipe(number, v.integer()), 1),
    },
    (given) => {
      // The second of two would silently take the place of the first.
      const symbols = given.inputs.map(({ symbol }) => symbol);
      requireDistinct(symbols, 'inputs', 'inputs');
      const inputs = given.inputs.map(inputOf);
      const names = new Map<string, Expression>(inputs.map((one) => [one.symbol, inputNode(one)]));
      const unit = plainUnit(given.result_unit);
      const model = parseTypedEquation(given.model, names);
      const correlations = given.correlations.map(({ a, b, coefficient }): Correlation => {
        if (!names.has(a) || !names.has(b) || a === b) {
          throw new Unanswerable(
            'syntax',
            'correlations',
            `There are no two inputs ${a} and ${b}.`,
          );
        }
        return { between: [a, b], coefficient };
      });
      const evaluation = propagate(model, unit, { correlations });
      const byFiniteSteps = kragten(model, unit, { correlations });
      const simulation = runSimulation(model, unit, {
        correlations,
        trials: given.trials,
        seed: given.seed,
      });
      const { value, combinedStandardUncertainty: combined } = evaluation;
      const lines = new Map(evaluation.budget.map((line) => [line.input.id, line]));
      const steps = new Map(
        byFiniteSteps.contributions.map(({ input, contribution }) => [input.id, contribution]),
      );
      const hasVariance = evaluation.budget.some((line) => line.contribution !== 0);
      return {
        value,
        combined_standard_uncertainty: combined,
        relative_combined_percent: value === 0 ? null : (100 * combined) / Math.abs(value),
        expanded_uncertainty: given.coverage_factor * combined,
        inputs: inputs.map((one) => {
          const line = lines.get(one.id);
          return {
            symbol: one.symbol,
            standard_uncertainty: combineComponents(one.components),
            sensitivity: line?.sensitivity ?? 0,
            contribution: line?.contribution ?? 0,
            variance_percent: hasVariance ? 100 * (line?.share ?? 0) : null,
            component_standard_uncertainties: one.components.map(componentUncertainty),
          };
        }),
        kragten: {
          combined_standard_uncertainty: byFiniteSteps.combinedStandardUncertainty,
          contributions: inputs.map((one) => steps.get(one.id) ?? 0),
        },
        monte_carlo: {
          mean: simulation.mean,
          standard_deviation: simulation.standardDeviation,
          symmetric_95: simulation.symmetricInterval,
          shortest_95: simulation.shortestInterval,
          shortest_95_width: simulation.shortestInterval[1] - simulation.shortestInterval[0],
        },
        ...freedomKeys(evaluation.effectiveDegreesOfFreedom),
      };
    },
  ),
];

/** Coverage factors for finite degrees of freedom: truncated to a whole number as JCGM 100 recommends, and not. */
function freedomKeys(freedom: number): Record<string, Json> {
  if (!Number.isFinite(freedom)) return {};
  return {
    effective_degrees_of_freedom: freedom,
    coverage_factor_95_truncated: studentTQuantile(0.975, Math.max(1, Math.floor(freedom))),
    coverage_factor_95_interpolated: studentTQuantile(0.975, freedom),
  };
}
