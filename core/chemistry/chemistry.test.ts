import { expect, test } from 'vitest';
import { molarMass } from './index';

test.each([
  ['C8H5KO4', 204.2223],
  ['NaOH', 39.9968],
  ['H2O', 18.015],
  ['(COOH)2', 90.034],
])('molar mass of %s', (formula, expected) => {
  expect(molarMass(formula).valueGPerMol).toBeCloseTo(expected, 3);
});

test('atoms of one element add linearly, elements in quadrature', () => {
  const { standardUncertaintyGPerMol } = molarMass('C8H5KO4');
  const parts = [8 * 0.002, 5 * 0.0002, 0.0001, 4 * 0.001].map((half) => half / Math.sqrt(3));
  expect(standardUncertaintyGPerMol).toBeCloseTo(Math.hypot(...parts), 12);
});

test.each(['', 'C8H5)', '(H2', 'h2o', 'H2O!', 'Xx2'])('%j is refused', (formula) => {
  expect(() => molarMass(formula)).toThrow(RangeError);
});
