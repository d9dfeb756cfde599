import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { propagate, UNITS } from '#core/measurement';
import type { UnroundedMolarity } from '#core/reagent';
import {
  aliquots,
  bottleOf,
  burette,
  PLAIN_RULES,
  references,
  RunScript,
} from '../../test-support/runs';
import { forecastTitre, measurementModel } from './index';
import { nextStep } from '../guidance';
import { judgeRun } from '../judging';

const NOTHING = {
  relativeStandardUncertainty: 0,
  degreesOfFreedom: Number.POSITIVE_INFINITY,
  source: 'none',
};
const rules = { ...PLAIN_RULES, firstIsRough: false };
const massesMg = fc.array(fc.integer({ min: 4_100, max: 5_200 }), { minLength: 1, maxLength: 5 });

/** Titrations of these masses (in tenths of a milligram) with a titrant of a given molarity. */
function series(masses: readonly number[], molarity: number): RunScript {
  const script = new RunScript(references(), { rules });
  masses.forEach((mass, i) => {
    const massG = (mass / 10_000).toFixed(4);
    const titre = (1000 * Number(massG) * 0.9998) / (204.2223 * molarity);
    script.titrate(i + 1, massG, '0.00', titre.toFixed(2));
  });
  return script;
}

describe('the measurement model of a standardization', () => {
  test('gives back the molarity that the titres were made from', () => {
    fc.assert(
      fc.property(
        massesMg,
        fc.double({ min: 0.09, max: 0.12, noNaN: true }),
        (masses, molarity) => {
          const { state } = series(masses, molarity);
          const { value } = propagate(
            measurementModel(state, state.flasks, NOTHING),
            UNITS.molePerLitre,
          );
          // Titres are rounded to 0.01 mL of some 20 mL.
          expect(Math.abs(value / molarity - 1)).toBeLessThan(4e-4);
        },
      ),
    );
  });

  test('a calibrated burette delivers what its certificate says between the readings, blank and refill included', () => {
    const point = (nominal: number, deviation: number, expandedUncertainty: number) => ({
      ...{ nominal, deviation, expandedUncertainty },
      repeatability: null,
    });
    const calibration = [point(25, -0.03, 0.01), point(50, -0.05, 0.02)];
    const script = new RunScript(references({ burette: { ...burette, calibration } }), { rules });
    script.titrate(1, '0.4800', '0.50', '24.00');
    script.add('run.blank-made', { flask: 2 });
    script.read(2, 'initial', '30.00').read(2, 'final', '30.10');
    const judgement = judgeRun(script.state);
    // At 0.50: -0.0006, at 24.00: -0.0288; of the blank 0.10 mL a thousandth of that.
    const volumeMl = 23.5 - 0.0288 + 0.0006 - (0.1 - 0.1 * (0.02 / 25));
    const molarity = (1000 * 0.48 * 0.9998) / (204.2223 * volumeMl);
    expect(Number(judgement.replicates[0]?.molarity)).toBeCloseTo(molarity, 6);
    const evaluation = judgement.result?.evaluation;
    expect(evaluation?.value).toBeCloseTo(Number(judgement.replicates[0]?.molarity), 12);
    const lines = evaluation?.budget.filter(({ input }) => /tolerance|cal/.test(input.symbol));
    expect(lines?.map(({ input }) => input.effect)).toEqual(['Burette calibration']);
    // U at 24.00 and at 0.50, linear from 0 at zero to 0.01 at 25.
    expect(lines?.[0]?.standardUncertainty).toBeCloseTo(Math.hypot(0.0096, 0.0002) / 2, 9);
  });

  test('more titrations lower what varies, not what they share', () => {
    const u = (n: number, effect: string): number => {
      const { state } = series(Array<number>(n).fill(4_800), 0.1);
      const { budget } = propagate(
        measurementModel(state, state.flasks, NOTHING),
        UNITS.molePerLitre,
      );
      return Math.hypot(
        ...budget.filter((line) => line.input.effect === effect).map((line) => line.contribution),
      );
    };
    expect(u(4, 'End point')).toBeCloseTo(u(1, 'End point') / 2, 9);
    expect(u(4, 'Readings')).toBeCloseTo(u(1, 'Readings') / 2, 9);
    for (const shared of [
      'Purity',
      'Molar mass',
      'Burette tolerance',
      'Temperature',
      'End point, common',
    ]) {
      expect(u(4, shared)).toBeCloseTo(u(1, shared), 9);
    }
  });

  test('a carried-over reading is one input: its error nearly cancels between the two flasks', () => {
    const uReadings = (script: RunScript): number => {
      const { state } = script;
      const { budget } = propagate(
        measurementModel(state, state.flasks, NOTHING),
        UNITS.molePerLitre,
      );
      return Math.hypot(
        ...budget
          .filter((line) => line.input.effect === 'Readings')
          .map((line) => line.contribution),
      );
    };
    const begin = () =>
      new RunScript(references(), { rules })
        .weigh(1, '0.4800')
        .weigh(2, '0.4800')
        .read(1, 'initial', '0.00')
        .read(1, 'final', '23.50');
    const carried = begin().carryOver(2).read(2, 'final', '47.00');
    const readAgain = begin().read(2, 'initial', '23.50').read(2, 'final', '47.00');
    // Four independent readings against two, the shared one cancelling.
    expect(uReadings(carried) / uReadings(readAgain)).toBeCloseTo(Math.SQRT1_2, 3);
  });

  test('first-order uncertainty agrees with shifting each input by itself (Kragten)', () => {
    const { state } = series([4_800, 4_700, 4_900], 0.1);
    const result = judgeRun(state).result;
    const purity = result?.evaluation.budget.find((line) => line.input.symbol === 'P');
    const shifted = new RunScript(references({ lot: { purity: '1.000088675' } }), { rules });
    shifted.facts.splice(0, shifted.facts.length, ...series([4_800, 4_700, 4_900], 0.1).facts);
    const change =
      (judgeRun(shifted.state).result?.evaluation.value ?? 0) - (result?.evaluation.value ?? 0);
    expect(change).toBeCloseTo(purity?.contribution ?? 0, 8);
  });

  test('a flask that has not been titrated cannot enter', () => {
    const { state } = new RunScript().weigh(1, '0.4800');
    expect(() => measurementModel(state, state.flasks, NOTHING)).toThrow(
      /flask 1 has not been titrated/,
    );
  });
});

describe('the forecast', () => {
  test('contains the true end, whatever the titrant within its label’s tolerance', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 4_100, max: 5_200 }),
        fc.double({ min: 0.0955, max: 0.1045, noNaN: true }),
        (mass, molarity) => {
          const massG = mass / 10_000;
          const { state } = new RunScript().weigh(1, massG.toFixed(4));
          const titre = (1000 * massG * 0.9998) / (204.2223 * molarity);
          const { onBurette } = forecastTitre(state, massG, 0.1);
          expect(onBurette?.from).toBeLessThan(0.1 + titre + 0.05);
          expect(onBurette?.to).toBeGreaterThan(0.1 + titre - 0.05);
          expect(onBurette?.runFreelyTo).toBeLessThan(0.1 + titre - 1.5);
        },
      ),
    );
  });

  test('a small burette that cannot hold the titre is said in the next step', () => {
    const small = references({ burette: { ...burette, capacityMl: '10' } });
    const script = new RunScript(small).weigh(1, '0.4800').read(1, 'initial', '0.00');
    const next = nextStep(script.state, judgeRun(script.state));
    expect(next.says).toMatchObject({ code: 'stop-before-last-mark', values: { capacityMl: 10 } });
    expect(forecastTitre(script.state, 0.48, 0).dropPercent).toBeCloseTo(5 / 23.5, 2);
  });
});

describe('a molarity that is passed on', () => {
  const parent = (unrounded: UnroundedMolarity | null) =>
    bottleOf('hydrochloric-acid', {
      made: {
        ...{ molarity: '0.1000', expandedUncertainty: '0.0013', coverageFactor: '4.30' },
        unrounded,
      },
      useBy: '2026-12-31',
    });
  const child = (unrounded: UnroundedMolarity | null) => {
    const titrant = { substanceId: 'sodium-hydroxide', nominalMolarity: '0.1' };
    const script = aliquots('hydroxide-by-hydrochloric-acid', parent(unrounded), titrant);
    for (const [i, end] of ['25.00', '25.02', '24.98'].entries()) {
      script.add('run.flask-pipetted', { flask: i + 1, volumeMl: '25', reason: null });
      script.read(i + 1, 'initial', '0.00').read(i + 1, 'final', end);
    }
    const { result } = judgeRun(script.state);
    if (!result) throw new Error('the series has no result');
    return result.evaluation;
  };

  test('carries its degrees of freedom: a child is not surer than its parent', () => {
    // u of the parent is 1.3 mmol/L / 4.30; it has two degrees of freedom, and is nearly all there is to the child's.
    const evaluation = child({
      molarity: 0.1000412,
      standardUncertainty: 0.000302,
      effectiveDegreesOfFreedom: 2,
      restsOn: [],
    });
    // 25 mL by the pipette, titres of 25.00, 25.02 and 24.98 mL.
    expect(evaluation.value).toBeCloseTo(0.1000412, 6);
    const ofParent = evaluation.budget.find(({ input }) => input.symbol === 'c_s');
    expect(ofParent?.contribution).toBeCloseTo(0.000302, 8);
    // Welch-Satterthwaite: nu = u_c^4 / (u_parent^4 / 2 + u_scatter^4 / 2), truncated to 2.
    const u = evaluation.combinedStandardUncertainty;
    expect(u).toBeGreaterThan(0.000302);
    expect(evaluation.effectiveDegreesOfFreedom).toBeGreaterThanOrEqual(2);
    expect(evaluation.effectiveDegreesOfFreedom).toBeLessThan(3);
    expect(evaluation.coverageFactor).toBeCloseTo(4.3027, 4);
    expect(evaluation.expandedUncertainty).toBeGreaterThan(0.0013);
  });

  test('whose label alone is known has u = U / k for sure, and the budget says so', () => {
    const evaluation = child(null);
    expect(evaluation.value).toBeCloseTo(0.1, 6);
    const ofParent = evaluation.budget.find(({ input }) => input.symbol === 'c_s');
    expect(ofParent?.contribution).toBeCloseTo(0.0013 / 4.3, 8);
    expect(ofParent?.input.source).toBe(
      'certificate of its supplier; u is U / k, as its label states them',
    );
    expect(evaluation.coverageFactor).toBeLessThan(2);
  });
});

describe('the blank', () => {
  /** Titres near 5 mL, 0.4 % apart, so that their scatter rules; less blanks of 0.10 mL. */
  const titrated = (blanks: number) => {
    const script = new RunScript(references(), { rules });
    const net = ['4.88', '4.90', '4.92'];
    net.forEach((titre, i) => {
      script.titrate(i + 1, '0.1000', '0.00', titre);
    });
    for (let i = 0; i < blanks; i += 1) {
      const flask = net.length + 1 + i;
      script.add('run.blank-made', { flask });
      script.read(flask, 'initial', '10.00').read(flask, 'final', '10.10');
    }
    const { result } = judgeRun(script.state);
    if (!result) throw new Error('the series has no result');
    expect(result.repeatabilityFrom).toBe('scatter');
    return result;
  };
  /** Two readings, a fifth of a division triangular each, and half a drop, rectangular. */
  const uBlankMl = Math.hypot(0.02 / Math.sqrt(6), 0.02 / Math.sqrt(6), 0.025 / Math.sqrt(3));

  test.each([1, 2])('of %i flask(s) stays uncertain where the scatter rules', (blanks) => {
    const { evaluation, mutedInputIds } = titrated(blanks);
    // c = n / (V - V_b): dc/dV_b = c / (V - V_b), with titres of 4.78, 4.80 and 4.82 mL.
    const perMl = [4.78, 4.8, 4.82].map((ml) => 99.98 / 204.2223 / ml / ml);
    const sensitivity = perMl.reduce((total, one) => total + one, 0) / 3;
    const isOfBlank = (symbol: string): boolean => /[,_]([45])$/.test(symbol);
    const lines = evaluation.budget.filter(
      ({ input }) => isOfBlank(input.symbol) && input.variation === 'common',
    );
    expect(lines).toHaveLength(3 * blanks);
    const contribution = Math.hypot(...lines.map((line) => line.contribution));
    expect(contribution).toBeCloseTo((sensitivity * uBlankMl) / Math.sqrt(blanks), 6);
    expect(lines.some(({ input }) => mutedInputIds.includes(input.id))).toBe(false);
  });

  test('does not enter the choice between scatter and inputs', () => {
    const spread = titrated(2).repeatability;
    // The inputs that vary: mass, two readings and the end of each flask; no blank.
    const perFlask = Math.hypot(
      ...[0.02 / Math.sqrt(6), 0.02 / Math.sqrt(6), 0.025 / Math.sqrt(3)].map((u) => u / 4.8),
      // Tared and filled.
      (Math.SQRT2 * 0.0001) / 0.1,
    );
    expect(spread.inputs).toBeCloseTo(perFlask / Math.sqrt(3), 5);
  });
});
