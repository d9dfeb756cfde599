import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { decimalText, figureText, withFigures } from '#core/measurement';
import type { Component } from './component';
import type { Expression } from './expression';
import {
  define,
  exact,
  input,
  mean,
  minus,
  parseDecimal,
  plus,
  product,
  propagate,
  quotient,
  roundHalfEven,
  roundSignificant,
  roundToUncertainty,
  subtractDecimals,
  sum,
  UNITS,
  working,
} from './index';
import type { Unit } from './unit';

function quantity(
  id: string,
  value: number,
  unit: Unit,
  components: readonly Component[],
  degreesOfFreedom = Number.POSITIVE_INFINITY,
): Expression {
  return input({
    id,
    symbol: id,
    name: id,
    effect: id,
    value,
    unit,
    components,
    degreesOfFreedom,
    source: 'test',
    variation: 'common',
  });
}
const standard = (standardUncertainty: number): Component[] => [{ name: 'u', standardUncertainty }];

describe('decimals', () => {
  test.each([
    ['7.10', '7.10'],
    [' 7,10 ', '7.10'],
    ['+.5', '0.5'],
    ['-3', '-3'],
    ['007.10', '7.10'],
    ['-00.50', '-0.50'],
    ['-0.00', '0.00'],
    ['0', '0'],
    ['1e3', null],
    ['1,234.5', null],
    ['abc', null],
    ['', null],
    ['9'.repeat(40), null],
  ])('%j is read as %j', (typed, read) => {
    expect(parseDecimal(typed)).toBe(read);
  });

  test('differences are exact and keep the decimals that were written', () => {
    expect(subtractDecimals(decimalText('22.49'), decimalText('0.38'))).toBe('22.11');
    expect(subtractDecimals(decimalText('24.60'), decimalText('24.50'))).toBe('0.10');
  });

  test('rounding is half to even on the decimal digits', () => {
    expect([0.125, 0.135, 0.145].map((x) => roundHalfEven(x, 2))).toEqual(['0.12', '0.14', '0.14']);
    expect([0.5, 1.5, 2.5].map((x) => roundHalfEven(x, 0))).toEqual(['0', '2', '2']);
    expect(roundSignificant(1234567, 3)).toBe('1230000');
  });

  test('a result is rounded to two figures of its uncertainty', () => {
    expect(roundToUncertainty(0.1021362, 0.000203)).toEqual({
      value: '0.10214',
      uncertainty: '0.00020',
    });
    expect(roundToUncertainty(0.1021362, 0.000996)).toEqual({
      value: '0.1021',
      uncertainty: '0.0010',
    });
    expect(roundToUncertainty(123.456, 12.7)).toEqual({ value: '123', uncertainty: '13' });
  });
});

describe('the measurement model', () => {
  test('a sum of unlike quantities is refused, and so is a result in a unit that does not fit', () => {
    const mass = quantity('m', 1, UNITS.gram, []);
    const volume = quantity('V', 1, UNITS.millilitre, []);
    expect(() => sum([plus(mass), minus(volume)])).toThrow(/cannot add volume\^1 to mass\^1/);
    expect(() => define('c', 'c', UNITS.molePerLitre, mass)).toThrow(/mol\/L/);
  });

  test('one input used twice correlates with itself; two inputs of one id must agree', () => {
    const reading = quantity('R', 10, UNITS.millilitre, standard(0.1));
    const nothing = propagate(sum([plus(reading), minus(reading)]), UNITS.millilitre);
    expect(nothing.combinedStandardUncertainty).toBe(0);
    const other = quantity('R', 11, UNITS.millilitre, standard(0.1));
    expect(() => propagate(sum([plus(reading), minus(other)]), UNITS.millilitre)).toThrow(
      /share the id R/,
    );
    // The same value known in another way is another input.
    const coarser = quantity('R', 10, UNITS.millilitre, standard(0.2));
    expect(() => propagate(sum([plus(reading), minus(coarser)]), UNITS.millilitre)).toThrow(
      /share the id R/,
    );
    const again = quantity('R', 10, UNITS.millilitre, standard(0.1));
    expect(propagate(sum([plus(reading), plus(again)]), UNITS.millilitre)).toMatchObject({
      combinedStandardUncertainty: 0.2,
    });
  });

  test('degrees of freedom combine by Welch-Satterthwaite and set k from t', () => {
    const scatter = quantity('s', 0, UNITS.gram, standard(3), 2);
    const purity = quantity('p', 0, UNITS.gram, standard(4));
    const found = propagate(sum([plus(scatter), plus(purity)]), UNITS.gram);
    expect(found.combinedStandardUncertainty).toBeCloseTo(5, 12);
    // 5^4 / (3^4 / 2) = 15.43; t(0.975; 15) = 2.131450
    expect(found.effectiveDegreesOfFreedom).toBeCloseTo(15.432, 3);
    expect(found.coverageFactor).toBeCloseTo(2.13145, 5);
    expect(propagate(purity, UNITS.gram).coverageFactor).toBeCloseTo(1.95996, 5);
  });

  test('sensitivities agree with numerical differentiation, shares sum to one', () => {
    const positive = fc.double({ min: 0.1, max: 50, noNaN: true });
    fc.assert(
      fc.property(fc.tuple(positive, positive, positive, positive), ([m, p, v, w]) => {
        const at = (values: readonly number[]): ReturnType<typeof propagate> => {
          const [mass, purity, first, second] = values.map((value, i) =>
            quantity(
              `x${String(i)}`,
              value,
              i === 0 ? UNITS.gram : i === 1 ? UNITS.one : UNITS.litre,
              standard(0.01),
            ),
          ) as [Expression, Expression, Expression, Expression];
          const root = quotient(
            product([mean([mass, mass]), purity, sum([plus(exact(1)), plus(purity)])]),
            sum([plus(first), plus(second)]),
          );
          return propagate(root, { ...UNITS.gram, dimension: root.dimension });
        };
        const values = [m, p, v, w];
        const found = at(values);
        found.budget.forEach((line, i) => {
          const h = (values[i] ?? 1) * 1e-5;
          const shifted = (sign: number): number =>
            at(values.map((value, j) => (i === j ? value + sign * h : value))).value;
          const numerical = (shifted(1) - shifted(-1)) / (2 * h);
          expect(Math.abs(line.sensitivity - numerical)).toBeLessThan(1e-6 * Math.abs(numerical));
        });
        expect(found.budget.reduce((total, line) => total + line.share, 0)).toBeCloseTo(1, 9);
      }),
    );
  });

  test('the working writes each definition once, symbols then numbers then result', () => {
    const amount = define(
      'n',
      'amount',
      { ...UNITS.one, symbol: 'g', dimension: UNITS.gram.dimension },
      product([quantity('m', 2, UNITS.gram, []), quantity('P', 0.5, UNITS.one, [])]),
    );
    const steps = working(define('q', 'half', UNITS.gram, mean([amount, amount])));
    expect(steps.map((step) => step.symbol)).toEqual(['n', 'q']);
    expect(steps[0]).toMatchObject({
      equation: { kind: 'product', factors: [{ symbol: 'm' }, { symbol: 'P' }] },
      substituted: {
        factors: [
          { text: '2', unit: 'g' },
          { text: '0.5', unit: '' },
        ],
      },
      result: { value: 1, unit: 'g' },
    });
  });
});

test('a figure is written with the mark of the laboratory, for as long as it is asked for', () => {
  const written = (): string => figureText('0.1002');
  expect([written(), withFigures(',', written), written()]).toEqual(['0.1002', '0,1002', '0.1002']);
  expect(() =>
    withFigures(',', () => {
      throw new RangeError(written());
    }),
  ).toThrow('0,1002');
  expect(written()).toBe('0.1002');
  expect(withFigures(',', () => [figureText(-0.5), figureText(12), figureText('–')])).toEqual([
    '-0,5',
    '12',
    '–',
  ]);
});
