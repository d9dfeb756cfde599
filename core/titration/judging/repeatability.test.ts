import { describe, expect, test } from 'vitest';
import fc from 'fast-check';
import type { Plain } from '#core/grammar';
import { poolScatter } from '#core/statistics';
import type { RunSetUp } from '#core/titration/setUp';
import { PLAIN_RULES, burette, methodOf, references, RunScript } from '../../test-support/runs';
import { certificationFindings } from './certificationChecks';
import { earlierSeriesOf } from './earlierSeries';
import type { Judgement } from './judge';
import { judgeRun } from './judge';

const DECISION = {
  ...{ number: '0417-1', certifiedById: 'ines', certifiedOn: '2026-03-02' },
  ...{ validUntil: '2026-03-20', reason: null },
} as unknown as Parameters<typeof certificationFindings>[2];

/** Titres of 0.4800 g each, judged by the house rule that pools. */
function judged(
  titres: readonly string[],
  setUp: Partial<Plain<RunSetUp>> = {},
): {
  readonly script: RunScript;
  readonly judgement: Judgement;
} {
  const script = new RunScript(references(), {
    rules: { ...PLAIN_RULES, firstIsRough: false, pooling: 'pooled', weighedConcordance: 'none' },
    ...setUp,
  });
  titres.forEach((titre, i) => script.titrate(i + 1, '0.4800', '0.00', titre));
  return { script, judgement: judgeRun(script.state) };
}

function resultOf(titres: readonly string[], setUp?: Partial<Plain<RunSetUp>>) {
  const { result } = judged(titres, setUp).judgement;
  if (!result?.pooling) throw new Error('the series is not pooled');
  return { ...result, pooling: result.pooling };
}

/** What one titration of 23.50 mL varies by: two weighings, two readings, the drop; relative. */
const BY_INPUTS = Math.hypot(
  (Math.SQRT2 * 0.0001) / 0.48,
  (Math.SQRT2 * 0.02) / Math.sqrt(6) / 23.5,
  0.025 / Math.sqrt(3) / 23.5,
);

describe('the scatter of few titrations is pooled with what is known', () => {
  test.each([
    [2, ['23.49', '23.51'], 9, 2.2622],
    [3, ['23.48', '23.50', '23.52'], 10, 2.2281],
    [5, ['23.48', '23.50', '23.52', '23.50', '23.50'], 12, 2.1788],
  ] as const)('of %i: s_p by hand, nu0 + n - 1 degrees of freedom', (n, titres, freedom, t) => {
    const { pooling, repeatabilityFrom, evaluation, mutedInputIds } = resultOf(titres);
    const found = titres.map((ml) => 1 / Number(ml));
    const mean = found.reduce((a, b) => a + b, 0) / n;
    const s = Math.sqrt(found.reduce((sum, one) => sum + (one / mean - 1) ** 2, 0) / (n - 1));
    const pooled = Math.sqrt((8 * BY_INPUTS ** 2 + (n - 1) * s ** 2) / (8 + n - 1));
    expect(repeatabilityFrom).toBe('pooled');
    expect(pooling.known.sd).toBeCloseTo(BY_INPUTS, 6);
    expect(pooling.pooled.sd / pooled).toBeCloseTo(1, 3);
    expect(pooling.pooled.degreesOfFreedom).toBe(freedom);
    const line = evaluation.budget.find(({ input }) => input.symbol === 'f_rep');
    expect(line?.standardUncertainty).toBeCloseTo(pooling.pooled.sd / Math.sqrt(n), 12);
    // Nothing that varies between flasks enters beside it.
    expect(mutedInputIds).toHaveLength(4 * n);
    expect(evaluation.coverageFactor).toBeLessThan(t);
    expect(evaluation.coverageFactor).toBeGreaterThan(1.9);
  });

  test('of one: what is known stands alone, and U is no wider than k = 2.3 makes it', () => {
    const { pooling, evaluation } = resultOf(['23.50']);
    expect(pooling).toMatchObject({
      ownSd: null,
      pooled: { degreesOfFreedom: 8, chiSquared: null },
    });
    expect(pooling.pooled.sd).toBe(pooling.known.sd);
    expect(evaluation.coverageFactor).toBeLessThan(2.31);
  });

  test('earlier series of the method stand in place of what the inputs allow', () => {
    const earlierSeries = { series: 6, relativeSdPercent: '0.080', degreesOfFreedom: 14 };
    const { pooling } = resultOf(['23.48', '23.50', '23.52'], { earlierSeries });
    expect(pooling).toMatchObject({ knownFrom: 'series', series: 6 });
    // s of the three is 0.0851 %.
    const byHand = Math.sqrt((14 * 0.08 ** 2 + 2 * 0.0851 ** 2) / 16) / 100;
    expect(pooling.pooled.sd).toBeCloseTo(byHand, 6);
    expect(pooling.pooled.degreesOfFreedom).toBe(16);
  });

  test('one that scatters more than chi-squared allows is not pooled, and the certificate asks why', () => {
    // Of three: chi-squared may be 5.99, so that s may be 1.731 times s0.
    const s0Percent = 100 * BY_INPUTS;
    const spread = (times: number): readonly string[] => {
      const d = (times * s0Percent * 23.5) / 100;
      return [23.5 - d, 23.5, 23.5 + d].map((ml) => ml.toFixed(4));
    };
    const within = judged(spread(1.72));
    expect(within.judgement.result?.repeatabilityFrom).toBe('pooled');
    const beyond = judged(spread(1.745));
    expect(beyond.judgement.result?.repeatabilityFrom).toBe('scatter');
    const codes = ({ script, judgement }: typeof within): readonly string[] =>
      certificationFindings(script.state, judgement, DECISION).map(({ code }) => code);
    expect(codes(within)).not.toContain('scatter-too-large');
    expect(codes(beyond)).toContain('scatter-too-large');
  });

  test('what is known of the method for sure goes before, where it is the larger', () => {
    const known = { methodRepeatabilityPercent: '0.2' };
    expect(judged(['23.50', '23.51'], known).judgement.result?.repeatabilityFrom).toBe('method');
    const small = { methodRepeatabilityPercent: '0.01' };
    expect(judged(['23.50', '23.51'], small).judgement.result?.repeatabilityFrom).toBe('pooled');
  });

  test('a pooled scatter lies between the two, and is surer than either', () => {
    const sd = fc.double({ min: 1e-5, max: 1e-2, noNaN: true });
    fc.assert(
      fc.property(
        sd,
        sd,
        fc.integer({ min: 2, max: 12 }),
        fc.integer({ min: 1, max: 40 }),
        (known, own, n, freedom) => {
          const pooled = poolScatter({ sd: known, degreesOfFreedom: freedom }, own, n);
          expect(pooled.sd).toBeGreaterThanOrEqual(Math.min(known, own) * (1 - 1e-12));
          expect(pooled.sd).toBeLessThanOrEqual(Math.max(known, own) * (1 + 1e-12));
          expect(pooled.degreesOfFreedom).toBe(freedom + n - 1);
        },
      ),
    );
  });
});

describe('earlier series', () => {
  const method = { kind: 'catalogue', id: 'naoh-by-khp' } as const;
  const one = (relativeSdPercent: number, changes: object = {}) => ({
    ...{ methodId: method.id, burette: 'glass 50 mL', relativeSdPercent, degreesOfFreedom: 2 },
    ...changes,
  });

  test('are those of the method with such a burette, ten at most, the newest first', () => {
    const others = [one(9, { methodId: 'other' }), one(9, { burette: 'piston 20 mL' }), null];
    const alike = Array.from({ length: 11 }, (_, i) => one(i === 10 ? 9 : 0.1));
    expect(earlierSeriesOf([...others, ...alike], method, burette)).toEqual({
      series: 10,
      relativeSdPercent: '0.100',
      degreesOfFreedom: 20,
    });
    expect(earlierSeriesOf(others, method, burette)).toBeNull();
    // (2 x 0.1^2 + 3 x 0.2^2) / 5
    const two = [one(0.1), one(0.2, { degreesOfFreedom: 3 })];
    expect(earlierSeriesOf(two, method, burette)?.relativeSdPercent).toBe('0.167');
  });
});

describe('where the eye sees the end', () => {
  /** Relative contribution of the shade to a series of n titrations of 23.50 mL. */
  const shadeOf = (script: RunScript): number => {
    const { result } = judgeRun(script.state);
    const line = result?.evaluation.budget.find(({ input }) => input.symbol === 'δV_shade');
    return Math.abs(line?.contribution ?? Number.NaN) / (result?.evaluation.value ?? Number.NaN);
  };
  const rules = { ...PLAIN_RULES, firstIsRough: false };
  const series = (n: number): RunScript => {
    const script = new RunScript(references(), { rules });
    for (let i = 1; i <= n; i += 1) script.titrate(i, '0.4800', '0.00', '23.50');
    return script;
  };

  test('half the last drop either way, however many titrations there are', () => {
    for (const n of [1, 3, 6])
      expect(shadeOf(series(n))).toBeCloseTo(0.025 / Math.sqrt(3) / 23.5, 8);
  });

  test('half of a half drop where that was read before the last', () => {
    const script = new RunScript(references(), { rules })
      .weigh(1, '0.4800')
      .read(1, 'initial', '0.00');
    script.add('run.provisional-read', { flask: 1, readingMl: '23.48' });
    script.read(1, 'final', '23.50');
    expect(shadeOf(script)).toBeCloseTo(0.01 / Math.sqrt(3) / 23.5, 8);
  });

  test('nothing where a blank was titrated to the same shade: it is taken off with it', () => {
    const method = { ...methodOf('naoh-by-khp'), needsBlank: true };
    const script = new RunScript(references({ method }), { rules }).titrate(
      1,
      '0.4800',
      '0.00',
      '23.50',
    );
    script.add('run.blank-made', { flask: 2 });
    script.read(2, 'initial', '30.00').read(2, 'final', '30.10');
    expect(shadeOf(script)).toBeCloseTo(0, 12);
  });
});
