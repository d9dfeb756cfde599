import { expect, test } from 'vitest';
import { massForSolutionG } from './index';

test('a litre of 0.1 mol/L sodium hydroxide from 98.5 % pellets takes 4.06 g', () => {
  const solution = { molarityMolPerL: 0.1, volumeMl: 1000, molarMassGPerMol: 39.997 };
  expect(massForSolutionG({ ...solution, purity: 0.985 })).toBeCloseTo(4.0606, 4);
  expect(() => massForSolutionG({ ...solution, purity: 1.02 })).toThrow(/purity/);
  expect(() => massForSolutionG({ ...solution, purity: 0 })).toThrow(/purity/);
});
