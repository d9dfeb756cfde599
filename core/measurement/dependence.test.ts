import { describe, expect, test } from 'vitest';
import type { Expression, Origin } from './index';
import {
  commonInput,
  correlationsIn,
  input,
  minus,
  originsOf,
  plus,
  product,
  propagate,
  quotient,
  runSimulation,
  sum,
  UNITS,
} from './index';

/** A molarity of an earlier result, with what it rests on. */
function earlier(id: string, value: number, u: number, restsOn: readonly Origin[]): Expression {
  return input({
    ...{ id, symbol: id, name: id, effect: 'Solution', value, unit: UNITS.molePerLitre },
    components: [{ name: 'u', standardUncertainty: u }],
    ...{ degreesOfFreedom: Infinity, source: '', variation: 'common', restsOn },
  });
}

function quantity(id: string, value: number, u: number): Expression {
  return commonInput({
    ...{ id, symbol: id, name: id, effect: id, value, unit: UNITS.one, source: '' },
    components: [{ name: 'u', standardUncertainty: u }],
  });
}

const uOf = (equation: Expression, unit = UNITS.one): number =>
  propagate(equation, unit, { correlations: correlationsIn(equation) }).combinedStandardUncertainty;

describe('results that rest on the same are correlated by construction', () => {
  test('two solutions of one lot: r is the product of their parts, and a quotient loses what is common', () => {
    // Each has u = 0.0005; of the first 0.8 comes from the purity, of the second 0.6.
    const one = earlier('A', 0.1, 0.0005, [{ id: 'lot:P', part: 0.8 }]);
    const other = earlier('B', 0.1, 0.0005, [{ id: 'lot:P', part: 0.6 }]);
    const equation = quotient(one, other);
    expect(correlationsIn(equation)).toEqual([
      { between: ['A', 'B'], coefficient: expect.closeTo(0.48, 12) as number },
    ]);
    // u^2 = 2 (0.005)^2 (1 - 0.48)
    expect(uOf(equation)).toBeCloseTo(0.005 * Math.sqrt(2 * (1 - 0.48)), 9);
  });

  test('a solution and the very lot it was made of; what rests on nothing in common is independent', () => {
    const made = earlier('A', 0.1, 0.0005, [{ id: 'lot:P', part: 0.8 }]);
    const purity = quantity('lot:P', 1, 0.004);
    // 0.5 % and 0.4 % relative, r = 0.8: u^2 = 0.25 + 0.16 + 2 x 0.8 x 0.5 x 0.4.
    const equation = product([made, purity]);
    expect(uOf(equation, UNITS.molePerLitre) / 0.1).toBeCloseTo(
      Math.sqrt(0.25 + 0.16 + 0.32) / 100,
      9,
    );
    expect(correlationsIn(product([made, quantity('lot:Q', 1, 0.004)]))).toEqual([]);
    expect(correlationsIn(product([purity, quantity('lot:Q', 1, 0.004)]))).toEqual([]);
  });

  test('a chain: what a parent rests on goes with it, and a vessel used twice counts in the same direction', () => {
    const pipette = (factor: number): Expression =>
      commonInput({
        ...{ id: 'equipment:V/tolerance@1', symbol: 'V', name: 'V', effect: 'V', source: '' },
        ...{ value: 25, unit: UNITS.millilitre },
        components: [{ name: 'tolerance', standardUncertainty: 0.02 * factor }],
      });
    const flask = (id: string): Expression =>
      commonInput({
        ...{
          id,
          symbol: id,
          name: id,
          effect: 'F',
          source: '',
          value: 250,
          unit: UNITS.millilitre,
        },
        components: [{ name: 'tolerance', standardUncertainty: 0 }],
      });
    const stock = earlier('S', 1, 0.001, []);
    const first = product([stock, quotient(pipette(1), flask('F1'))]);
    const evaluation = propagate(first, UNITS.molePerLitre);
    const restsOn = originsOf(evaluation);
    // 0.1 % of the stock and 0.08 % of the pipette.
    const u = Math.hypot(0.001, 0.0008);
    expect(restsOn).toEqual([
      { id: 'S', part: expect.closeTo(0.001 / u, 9) as number },
      { id: 'equipment:V/tolerance@1', part: expect.closeTo(0.0008 / u, 9) as number },
    ]);
    const passedOn = earlier('C', 0.1, 0.1 * u, restsOn);
    const second = product([passedOn, quotient(pipette(1), flask('F2'))]);
    // The pipette's 0.08 % twice in one direction: u^2 = 0.1^2 + 0.16^2.
    expect(uOf(second, UNITS.molePerLitre) / 0.01).toBeCloseTo(Math.hypot(0.001, 0.0016), 8);
    // And what the grandchild rests on says so: of the parent nothing but its origins is left.
    const grandchild = originsOf(
      propagate(second, UNITS.molePerLitre, { correlations: correlationsIn(second) }),
    );
    expect(grandchild.map(({ id }) => id)).toEqual(['S', 'equipment:V/tolerance@1']);
    expect(grandchild[1]?.part).toBeCloseTo(0.0016 / Math.hypot(0.001, 0.0016), 6);
  });

  test('what belongs to one run or flask is not passed on, nor what hardly counts', () => {
    const parts = [quantity('run:1/temperature', 1, 0.01), quantity('fact:2/reading', 1, 0.01)];
    const small = quantity('equipment:B/tolerance@1', 1, 0.0001);
    expect(originsOf(propagate(product([...parts, small]), UNITS.one))).toEqual([]);
  });

  test('Monte Carlo draws them together', () => {
    const one = earlier('A', 0.1, 0.0005, [{ id: 'lot:P', part: 0.9 }]);
    const other = earlier('B', 0.1, 0.0005, [{ id: 'lot:P', part: 0.9 }]);
    const difference = sum([plus(one), minus(other)]);
    const correlations = correlationsIn(difference);
    const options = { trials: 200_000, seed: 7, correlations };
    const drawn = runSimulation(difference, UNITS.molePerLitre, options).standardDeviation;
    expect(drawn).toBeCloseTo(uOf(difference, UNITS.molePerLitre), 5);
    expect((drawn ?? 0) / (0.0005 * Math.sqrt(2 * (1 - 0.81)))).toBeCloseTo(1, 2);
  });
});
