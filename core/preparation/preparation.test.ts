import { expect, test } from 'vitest';
import { massForSolutionG } from './index';

test('a litre of 0.1 mol/L sodium hydroxide from 98.5 % pellets takes 4.06 g', () => {
  const solid = { molarMassGPerMol: 39.997, purity: 0.985 };
  expect(massForSolutionG(0.1, 1000, solid)).toBeCloseTo(4.0606, 4);
  expect(() => massForSolutionG(0.1, 1000, { ...solid, purity: 1.02 })).toThrow(/purity/);
  expect(() => massForSolutionG(0.1, 1000, { ...solid, purity: 0 })).toThrow(/above zero/);
});
