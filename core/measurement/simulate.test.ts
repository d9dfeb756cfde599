import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { Component } from './component';
import { combineComponents } from './component';
import { Chance } from './draw';
import type { Expression } from './expression';
import {
  evaluate,
  exact,
  input,
  kragten,
  mean,
  minus,
  plus,
  product,
  propagate,
  quotient,
  runSimulation,
  simulate,
  sum,
  UNITS,
  validate,
} from './index';
import { withTailsInOrder } from './tails';
import type { Unit } from './unit';

function quantity(
  id: string,
  value: number,
  components: readonly Component[],
  unit: Unit = UNITS.one,
): Expression {
  return input({
    ...{ id, symbol: id, name: id, effect: id, value, unit, components },
    ...{ degreesOfFreedom: Number.POSITIVE_INFINITY, source: 'test', variation: 'common' },
  });
}

const TRIALS = 200_000;

describe('draws', () => {
  const halfWidth = 2;
  test.each<[string, Component, number, number]>([
    ['normal', { name: 'x', standardUncertainty: 1 }, 1.959964, 1],
    ['rectangular', { name: 'x', distribution: 'rectangular', halfWidth }, 0.95 * 2, 2],
    [
      'triangular',
      { name: 'x', distribution: 'triangular', halfWidth },
      2 * (1 - Math.sqrt(0.05)),
      2,
    ],
    [
      'arcsine',
      { name: 'x', distribution: 'arcsine', halfWidth },
      2 * Math.sin(0.475 * Math.PI),
      2,
    ],
  ])('%s: its standard uncertainty and its 95 %% interval', (name, component, half, most) => {
    const found = runSimulation(quantity('x', 10, [component]), UNITS.one, {
      trials: TRIALS,
      seed: 7,
    });
    const u = combineComponents([component]);
    expect(found.mean).toBeCloseTo(10, 1);
    expect(Math.abs((found.standardDeviation ?? 0) / u - 1)).toBeLessThan(0.01);
    expect(Math.abs(found.symmetricInterval[1] - 10 - half)).toBeLessThan(0.02 * most);
    if (name !== 'normal') expect(found.histogram.counts.reduce((a, b) => a + b, 0)).toBe(TRIALS);
  });

  test('the normal one has the tails that it should have', () => {
    const chance = new Chance(3);
    const beyond = [0, 0, 0];
    let fourth = 0;
    const draws = 400_000;
    for (let i = 0; i < draws; i += 1) {
      const x = chance.normal();
      fourth += x ** 4;
      [1, 2, 3.4426].forEach((limit, j) => {
        if (Math.abs(x) > limit) beyond[j] = (beyond[j] ?? 0) + 1;
      });
    }
    // Two-sided tails of the standard normal; a fourth moment of 3.
    [0.3173105, 0.0455003, 0.000576].forEach((tail, j) => {
      const allowed = 4 * Math.sqrt(tail / draws);
      expect(Math.abs((beyond[j] ?? 0) / draws - tail)).toBeLessThan(allowed);
    });
    expect(fourth / draws).toBeCloseTo(3, 1);
  });

  test('the scatter of two readings has no variance, but an interval', () => {
    const twice: Component = {
      ...{ name: 'scatter', standardUncertainty: 1, distribution: 'student', degreesOfFreedom: 1 },
    };
    const found = runSimulation(quantity('x', 0, [twice]), UNITS.one, { trials: TRIALS, seed: 1 });
    expect(found.standardDeviation).toBeNull();
    expect(found.symmetricInterval[1] / 12.706).toBeCloseTo(1, 1);
  });
});

describe('a simulation', () => {
  const model = product([
    quantity('a', 3, [{ name: 'a', standardUncertainty: 0.1 }]),
    quantity('b', 2, [{ name: 'b', distribution: 'rectangular', halfWidth: 0.2 }]),
  ]);

  test('gives the same figures for the same seed, others for another', () => {
    const of = (seed: number): number =>
      runSimulation(model, UNITS.one, { trials: 5000, seed }).mean;
    expect(of(1)).toBe(of(1));
    expect(of(1)).not.toBe(of(2));
  });

  test('tells how far it is, and stops when nobody asks on', () => {
    const steps = simulate(model, UNITS.one, { trials: TRIALS, seed: 1 });
    const parts = [steps.next().value, steps.next().value, steps.next().value];
    expect(parts).toEqual(parts.toSorted());
    steps.return({} as never);
    expect(steps.next().done).toBe(true);
  });

  test('what is muted keeps its value; correlated inputs move together', () => {
    const still = runSimulation(model, UNITS.one, { trials: 1000, seed: 1, isMuted: () => true });
    expect(still.symmetricInterval).toEqual([6, 6]);
    const difference = sum([
      plus(quantity('p', 5, [{ name: 'p', standardUncertainty: 1 }])),
      minus(quantity('q', 5, [{ name: 'q', standardUncertainty: 1 }])),
    ]);
    const correlations = [{ between: ['p', 'q'] as const, coefficient: 0.96 }];
    const found = runSimulation(difference, UNITS.one, { trials: TRIALS, seed: 1, correlations });
    const first = propagate(difference, UNITS.one, { correlations });
    expect(first.combinedStandardUncertainty).toBeCloseTo(Math.sqrt(0.08), 9);
    expect((found.standardDeviation ?? 0) / first.combinedStandardUncertainty).toBeCloseTo(1, 1);
    const impossible = [
      { between: ['p', 'q'] as const, coefficient: -0.9 },
      { between: ['p', 'r'] as const, coefficient: 0.9 },
      { between: ['q', 'r'] as const, coefficient: 0.9 },
    ];
    const three = sum([
      plus(difference),
      plus(quantity('r', 1, [{ name: 'r', standardUncertainty: 1 }])),
    ]);
    expect(() =>
      runSimulation(three, UNITS.one, { trials: 1000, seed: 1, correlations: impossible }),
    ).toThrow(/contradict/);
  });

  test('first order, Kragten and Monte Carlo agree on near-linear models; units change nothing', () => {
    const positive = fc.double({ min: 0.5, max: 50, noNaN: true });
    fc.assert(
      fc.property(fc.array(positive, { minLength: 4, maxLength: 4 }), fc.nat(), (values, seed) => {
        const build = (massUnit: Unit, perGram: number): Expression => {
          const [m, p, v, w] = values.map((value, i) => {
            const scale = i === 0 ? perGram : 1;
            const halfWidth = 0.003 * value * scale;
            const unit = i === 0 ? massUnit : i === 1 ? UNITS.one : UNITS.millilitre;
            const distribution = i % 2 === 0 ? 'rectangular' : 'triangular';
            return quantity(
              `x${String(i)}`,
              value * scale,
              [{ name: 'u', distribution, halfWidth }],
              unit,
            );
          }) as [Expression, Expression, Expression, Expression];
          return quotient(
            product([mean([m, m]), sum([plus(exact(1)), plus(p)])]),
            sum([plus(v), plus(w)]),
          );
        };
        const inGrams = build(UNITS.gram, 1);
        const inMilligrams = build(UNITS.milligram, 1000);
        const first = propagate(inGrams, UNITS.gramPerLitre);
        const other = propagate(inMilligrams, UNITS.gramPerLitre);
        const u = first.combinedStandardUncertainty;
        expect(other.value / first.value).toBeCloseTo(1, 12);
        expect(other.combinedStandardUncertainty / u).toBeCloseTo(1, 12);
        expect(evaluate(inMilligrams, UNITS.milligramPerLitre) / first.value).toBeCloseTo(1000, 8);
        expect(kragten(inGrams, UNITS.gramPerLitre).combinedStandardUncertainty / u).toBeCloseTo(
          1,
          2,
        );
        const drawn = runSimulation(inGrams, UNITS.gramPerLitre, { trials: 40_000, seed });
        expect(Math.abs((drawn.standardDeviation ?? 0) / u - 1)).toBeLessThan(0.03);
        expect(Math.abs(drawn.mean - first.value)).toBeLessThan(0.05 * u);
      }),
      { numRuns: 20 },
    );
  });

  test('the law of propagation is trusted where the intervals agree, and not where the model bends', () => {
    const normal = quantity('x', 5, [{ name: 'x', standardUncertainty: 0.1 }]);
    const drawn = runSimulation(normal, UNITS.one, { trials: 1_000_000, seed: 1 });
    expect(validate(propagate(normal, UNITS.one), drawn).isValidated).toBe(true);
    const bent = product([normal, normal, normal, normal]);
    const wide = product([quantity('y', 1, [{ name: 'y', standardUncertainty: 0.5 }]), bent]);
    const far = runSimulation(product([wide, wide]), UNITS.one, { trials: TRIALS, seed: 1 });
    expect(validate(propagate(product([wide, wide]), UNITS.one), far).isValidated).toBe(false);
  });
});

test('tails in order are those of sorting', () => {
  fc.assert(
    fc.property(
      fc.array(fc.double({ noNaN: true }), { maxLength: 200 }),
      fc.nat(120),
      (values, tail) => {
        const given = Float64Array.from(values);
        const sorted = given.toSorted();
        const found = withTailsInOrder(given, tail);
        expect(found.subarray(0, tail)).toEqual(sorted.subarray(0, tail));
        const end = Math.max(0, values.length - tail);
        expect(found.subarray(end)).toEqual(sorted.subarray(end));
        expect(found.toSorted()).toEqual(sorted);
      },
    ),
  );
});
