import { describe, expect, test } from 'vitest';
import type { Plain } from '#core/grammar';
import type { HouseRules } from '#core/laboratory';
import type { CalibratedThermometer } from '#core/metrology';
import { waterDensityKgPerM3 } from '#core/metrology';
import type { RunSetUp, RunStandard } from '#core/titration/setUp';
import { PLAIN_RULES, methodOf, references, RunScript, thermometer } from '../../test-support/runs';
import { stored } from '../../test-support/stored';
import type { Result } from '../judging';
import { judgeRun } from '../judging';

interface Changes {
  readonly rules?: Partial<Plain<HouseRules>>;
  readonly setUp?: Partial<Plain<RunSetUp>>;
  readonly with?: Parameters<typeof references>[0];
  /** Titres of 0.4800 g each, mL. */
  readonly titres?: readonly string[];
}

const ALIKE = ['23.50', '23.51', '23.52'];
const APART = ['23.44', '23.50', '23.56'];

function resultOf({ rules = {}, setUp = {}, with: records = {}, titres = ALIKE }: Changes): Result {
  const script = new RunScript(references({ thermometer, ...records }), {
    rules: { ...PLAIN_RULES, firstIsRough: false, ...rules },
    thermometer: { id: 'T1', version: 1 },
    ...setUp,
  });
  titres.forEach((titre, i) => script.titrate(i + 1, '0.4800', '0.00', titre));
  const { result } = judgeRun(script.state);
  if (!result) throw new Error('the series has no result');
  return result;
}

function valueOf(changes: Changes): number {
  return resultOf(changes).evaluation.value;
}

/** 1/L for 0.4800 g of phthalate of 0.9998 in the mean over the titres, mol/L. */
const BY_HAND =
  ALIKE.map((ml) => (1000 * 0.48 * 0.9998) / 204.2223 / Number(ml)).reduce((a, b) => a + b, 0) / 3;

const CORRECTED = { volumeCorrection: 'corrected' } as const;
const GLASS = 9.9e-6;

describe('volumes at the reference temperature', () => {
  test.each([
    ['15.0', '20', 0.999103, 998.207],
    ['25.0', '20', 0.997047, 998.207],
    ['30.0', '20', 0.995649, 998.207],
    ['30.0', '27', 0.995649, 996.515],
  ] as const)(
    'read at %s °C and stated at %s °C: V rho(t) / rho(t_ref), the glass being larger by its own expansion',
    (temperatureC, referenceTemperatureC, densityAt, densityAtReference) => {
      // Densities of water as tables print them, kg/L and kg/m3.
      const factor =
        ((1000 * densityAt) / densityAtReference) * (1 + GLASS * (Number(temperatureC) - 20));
      const value = valueOf({
        rules: { ...CORRECTED, referenceTemperatureC },
        setUp: { temperatureC },
      });
      expect(value / (BY_HAND / factor)).toBeCloseTo(1, 6);
    },
  );

  test('are corrected by what a thermometer read of this run only: a preset corrects nothing', () => {
    const preset = {
      setUp: { temperatureC: '25', thermometer: null },
      with: { thermometer: null },
    };
    expect(valueOf({ rules: CORRECTED, ...preset })).toBeCloseTo(BY_HAND, 12);
    expect(valueOf({ setUp: { temperatureC: '25' } })).toBeCloseTo(BY_HAND, 12);
    const { corrections } = resultOf({ rules: CORRECTED, ...preset });
    expect(corrections.temperature).toMatchObject({ how: 'carried' });
    expect(corrections.temperature?.percent).toBeCloseTo(0.111, 3);
  });

  test('of another solvent always are, where it was measured', () => {
    // 1.1e-3 per kelvin of glacial acetic acid, less 1e-5 of the glass, over 5 K.
    const acetic = {
      method: { ...methodOf('naoh-by-khp'), solventId: 'glacial-acetic-acid' },
    };
    const value = valueOf({ with: acetic, setUp: { temperatureC: '25.0' } });
    expect(BY_HAND / value).toBeCloseTo((1 - 5 * 1.1e-3) * (1 + 5 * GLASS), 9);
  });

  test('the thermometer counts: its certificate corrects it, else its tolerance is in u', () => {
    const certified: CalibratedThermometer = {
      ...thermometer,
      calibration: [20, 30].map((nominal) => ({
        nominal,
        deviation: -1,
        expandedUncertainty: 0.1,
        repeatability: null,
      })),
    };
    const at25 = { rules: CORRECTED, setUp: { temperatureC: '25.0', temperatureVariationK: '0' } };
    const shown = resultOf({ ...at25, with: { thermometer: certified } });
    // It shows one kelvin too much.
    const truly = resultOf({ ...at25, setUp: { ...at25.setUp, temperatureC: '24.0' } });
    expect(shown.evaluation.value).toBeCloseTo(truly.evaluation.value, 12);
    const perK = Math.log(waterDensityKgPerM3(23.5) / waterDensityKgPerM3(24.5)) - GLASS;
    const relativeOf = ({ evaluation }: Result): number => {
      const line = evaluation.budget.find(({ input }) => input.effect === 'Temperature');
      return Math.abs(line?.contribution ?? Number.NaN) / evaluation.value;
    };
    const step = 0.05 / Math.sqrt(3);
    expect(relativeOf(shown)).toBeCloseTo(perK * Math.hypot(step, 0.1 / 2), 8);
    expect(relativeOf(truly)).toBeCloseTo(perK * Math.hypot(step, 0.3 / Math.sqrt(3)), 8);
  });

  test.each([ALIKE, APART])(
    'U does not fall where the room gets warmer: titres %s, %s, %s',
    (...titres) => {
      const uAt = (temperatureC: string): number =>
        resultOf({ titres, setUp: { temperatureC, thermometer: null } }).evaluation
          .expandedUncertainty;
      const warmer = ['20', '21', '22', '24', '26', '30'].map(uAt);
      expect(warmer).toEqual(warmer.toSorted((a, b) => a - b));
      expect(warmer.at(-1)).toBeGreaterThan(warmer[0] ?? Number.NaN);
    },
  );
});

describe('the lift of the air', () => {
  test('makes phthalate 0.058 % lighter than it is, at 1.2 kg/m³ or as it was measured', () => {
    const corrected = { buoyancyCorrection: 'corrected' } as const;
    // (1 - 1.2/8000) / (1 - 1.2/1636) and the same with 1.10.
    expect(valueOf({ rules: corrected }) / BY_HAND).toBeCloseTo(1.000584, 6);
    const high = valueOf({ rules: corrected, setUp: { airDensityKgPerM3: '1.10' } });
    expect(high / BY_HAND).toBeCloseTo(1.000535, 6);
    // 0.12 kg/m³ either way at most, rectangular: 0.12 (1/1636 - 1/8000) / sqrt 3.
    const { evaluation } = resultOf({ rules: corrected });
    const line = evaluation.budget.find(({ input }) => input.effect === 'Buoyancy');
    expect((line?.contribution ?? 0) / evaluation.value).toBeCloseTo(3.37e-5, 7);
  });

  test('not corrected, it is in u with its size; left out, it is nowhere', () => {
    const carried = resultOf({ rules: { buoyancyCorrection: 'carried' } });
    expect(carried.evaluation.value).toBeCloseTo(BY_HAND, 12);
    const line = carried.evaluation.budget.find(({ input }) => input.effect === 'Buoyancy');
    expect((line?.contribution ?? 0) / carried.evaluation.value).toBeCloseTo(0.000584, 6);
    const before = resultOf({});
    expect(before.evaluation.budget.some(({ input }) => input.effect === 'Buoyancy')).toBe(false);
    expect(carried.evaluation.coverageFactor).toBeCloseTo(before.evaluation.coverageFactor, 9);
  });
});

test('a corrected result without its corrections is what a calculator gives', () => {
  const { corrections, evaluation } = resultOf({
    rules: { ...CORRECTED, buoyancyCorrection: 'corrected' },
    setUp: { temperatureC: '25.0' },
  });
  expect(corrections.asMeasured).toBeCloseTo(BY_HAND, 9);
  expect(evaluation.value / BY_HAND).toBeCloseTo(1.00111 * 1.000584, 5);
  expect(corrections).toMatchObject({
    referenceC: 20,
    temperatureC: 25,
    temperature: { how: 'corrected' },
    buoyancy: { how: 'corrected' },
  });
});

test('the plain molarity of each flask is corrected as the result is, and the forecast takes it back', () => {
  const script = new RunScript(references({ thermometer }), {
    rules: { ...PLAIN_RULES, ...CORRECTED, buoyancyCorrection: 'corrected', firstIsRough: false },
    thermometer: { id: 'T1', version: 1 },
    temperatureC: '25.0',
  }).titrate(1, '0.4800', '0.00', '23.50');
  const judgement = judgeRun(script.state);
  expect(judgement.replicates[0]?.molarity).toBeCloseTo(
    judgement.result?.evaluation.value ?? Number.NaN,
    12,
  );
});

test('the certificate of the balance corrects a mass, and stands in place of its linearity', () => {
  const point = (nominal: number, deviation: number) => ({
    ...{ nominal, deviation, expandedUncertainty: 0.0004, repeatability: null },
  });
  const { standard } = references() as { readonly standard: RunStandard };
  if (standard.kind !== 'lot') throw new Error('the standard is weighed');
  // 0.0010 g too little at 1 g, so 0.00048 g at 0.48 g.
  const balance = { ...standard.balance, calibration: [point(0, 0), point(1, 0.001)] };
  const result = resultOf({ with: { balance: stored(balance) } });
  expect(result.evaluation.value / BY_HAND).toBeCloseTo(0.48048 / 0.48, 9);
  const line = result.evaluation.budget.find(({ input }) => input.symbol === 'δm_lin');
  expect(line).toMatchObject({ standardUncertainty: 0.0002 });
  expect(line?.input.name).toBe('calibration of the balance');
  const beyond = { ...standard.balance, calibration: [point(0, 0), point(0.4, 0.001)] };
  expect(resultOf({ with: { balance: stored(beyond) } }).evaluation.value).toBeCloseTo(BY_HAND, 12);
});
