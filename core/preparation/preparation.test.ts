import { expect, test } from 'vitest';
import { convertConcentration, massForSolutionG, showConcentration } from './index';

test('a litre of 0.1 mol/L sodium hydroxide from 98.5 % pellets takes 4.06 g', () => {
  const solid = { molarMassGPerMol: 39.997, purity: 0.985 };
  expect(massForSolutionG(0.1, 1000, solid)).toBeCloseTo(4.0606, 4);
  expect(() => massForSolutionG(0.1, 1000, { ...solid, purity: 1.02 })).toThrow(/purity/);
  expect(() => massForSolutionG(0.1, 1000, { ...solid, purity: 0 })).toThrow(/above zero/);
});

const FACTS = { molarMassGPerMol: 36.46, densityGPerMl: 1.18, equivalentsPerMole: 2 };

test.each([
  ['% m/m', 36.5, 11.813],
  ['% m/V', 12.5, 3.4284],
  ['g/L', 3.646, 0.1],
  ['mg/L', 3646, 0.1],
  ['mmol/L', 100, 0.1],
  ['N', 0.2, 0.1],
  ['mol/dm3', 0.1, 0.1],
] as const)('in %s, %d is %d mol/L, and back', (unit, value, molarity) => {
  expect(convertConcentration(value, unit, 'M', FACTS)).toBeCloseTo(molarity, 3);
  const back = convertConcentration(
    convertConcentration(value, unit, 'mol/L', FACTS),
    'mol/L',
    unit,
    FACTS,
  );
  expect(back).toBeCloseTo(value, 9);
  expect(() => convertConcentration(value, unit, 'g/L')).toThrow(/needs the/);
});

test('a concentration is converted first and rounded once', () => {
  expect(showConcentration(0.10034, 0.00021, 'mmol/L')).toEqual({
    value: '100.34',
    uncertainty: '0.21',
  });
  expect(showConcentration(0.10034, 0.00021, 'g/L', FACTS)).toEqual({
    value: '3.6584',
    uncertainty: '0.0077',
  });
});
