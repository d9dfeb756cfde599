import { describe, expect, test } from 'vitest';
import type { Plain } from '#core/grammar';
import type { HouseRules } from '#core/laboratory';
import type { RunSetUp } from '#core/titration/setUp';
import { PLAIN_RULES, references, RunScript } from '../../test-support/runs';
import type { Judgement } from './index';
import { judgeRun } from './index';

/** Titres of 0.4800 g each, with house rules and what else is set up. */
function judged(
  titres: readonly string[],
  rules: Partial<Plain<HouseRules>> = {},
  setUp: Partial<Plain<RunSetUp>> = {},
): Judgement {
  const script = new RunScript(references(), {
    ...setUp,
    rules: { ...PLAIN_RULES, firstIsRough: false, ...rules },
  });
  titres.forEach((titre, i) => script.titrate(i + 1, '0.4800', '0.00', titre));
  return judgeRun(script.state);
}

function resultOf(judgement: Judgement) {
  if (!judgement.result) throw new Error('the series has no result');
  return judgement.result;
}

const ALIKE = ['23.50', '23.50', '23.50'];
const APART = ['23.40', '23.50', '23.60'];

describe('which account of repeatability enters the budget', () => {
  test('the inputs, where the titres agree better than those allow and no method is known', () => {
    const { repeatabilityFrom, repeatability, mutedInputIds, evaluation } = resultOf(judged(ALIKE));
    expect({ repeatabilityFrom, mutedInputIds }).toEqual({
      repeatabilityFrom: 'inputs',
      mutedInputIds: [],
    });
    expect(repeatability).toMatchObject({ scatter: 0, method: null });
    const ofRepeatability = evaluation.budget.find(({ input }) => input.symbol === 'f_rep');
    expect(ofRepeatability).toMatchObject({
      standardUncertainty: 0,
      input: { source: 'counted in the inputs' },
    });
  });

  test('one titration has no scatter', () => {
    expect(resultOf(judged(['23.50'])).repeatability).toMatchObject({
      scatter: null,
      method: null,
    });
  });

  test('the scatter, where it is the largest: s / sqrt n, with n - 1 degrees of freedom, and what it shows is muted', () => {
    const judgement = judged(APART);
    const result = resultOf(judgement);
    expect(result.repeatabilityFrom).toBe('scatter');
    const relative = Number(judgement.accurate?.relativeSdPercent) / 100 / Math.sqrt(3);
    const line = result.evaluation.budget.find(({ input }) => input.symbol === 'f_rep');
    expect(line?.standardUncertainty).toBeCloseTo(relative, 12);
    expect(line?.input.degreesOfFreedom).toBe(2);
    expect(line?.input.source).toBe('scatter of 3 titrations');
    // A mass, two readings and an end point of each; none of what they share.
    expect(result.mutedInputIds).toHaveLength(12);
    const muted = new Set(result.mutedInputIds);
    for (const { input, standardUncertainty } of result.evaluation.budget) {
      expect(muted.has(input.id), input.id).toBe(input.variation === 'by-replicate');
      if (muted.has(input.id)) expect(standardUncertainty, input.id).toBe(0);
    }
  });

  test('what is known of the method, where that is the larger; as large as the scatter, the scatter', () => {
    const known = (percent: string) =>
      resultOf(judged(APART, {}, { methodRepeatabilityPercent: percent }));
    const scatter = resultOf(judged(APART)).repeatability.scatter ?? 0;
    const percent = 100 * scatter * Math.sqrt(3);
    const above = known((percent + 0.0001).toFixed(6));
    expect(above.repeatabilityFrom).toBe('method');
    expect(above.repeatability.method).toBeCloseTo((percent + 0.0001) / 100 / Math.sqrt(3), 7);
    const line = above.evaluation.budget.find(({ input }) => input.symbol === 'f_rep');
    expect(line?.input).toMatchObject({
      degreesOfFreedom: Number.POSITIVE_INFINITY,
      source: 'known repeatability of the method',
    });
    expect(known((percent - 0.0001).toFixed(6)).repeatabilityFrom).toBe('scatter');
    // Smaller than the inputs, it changes nothing.
    const small = judged(ALIKE, {}, { methodRepeatabilityPercent: '0.01' });
    expect(resultOf(small).repeatabilityFrom).toBe('inputs');
    const large = judged(ALIKE, {}, { methodRepeatabilityPercent: '1' });
    expect(resultOf(large).repeatabilityFrom).toBe('method');
  });
});

describe('the test of what stands out', () => {
  // Molarities follow the titres inversely: the suspect is the lowest titre or the highest.
  const FOUR = ['23.40', '23.41', '23.42', '23.90'];

  test('Grubbs from four on, Dixon from three to as many as its table has; none where none is asked for', () => {
    expect(judged(FOUR, { outlierTest: 'none' }).outlier).toBeNull();
    expect(judged(FOUR.slice(1), { outlierTest: 'grubbs' }).outlier).toBeNull();
    expect(judged(FOUR, { outlierTest: 'grubbs' }).outlier).toMatchObject({
      flask: 4,
      test: 'grubbs',
      isOutlier: true,
    });
    expect(judged(FOUR.slice(2), { outlierTest: 'dixon' }).outlier).toBeNull();
    expect(judged(FOUR.slice(1), { outlierTest: 'dixon' }).outlier).toMatchObject({
      flask: 3,
      test: 'dixon',
    });
    expect(judged(ALIKE, { outlierTest: 'dixon' }).outlier).toBeNull();
  });

  test('Dixon asks the ratio of the gap to the range, against its table at 95 %', () => {
    const { outlier } = judged(FOUR, { outlierTest: 'dixon' });
    const c = FOUR.map((titre) => 1 / Number(titre));
    const [first = 0, , third = 0, last = 0] = c;
    expect(outlier?.statistic).toBeCloseTo((third - last) / (first - last), 9);
    expect(outlier?.isOutlier).toBe((outlier?.statistic ?? 0) > (outlier?.critical ?? 0));
    const tenth = Array.from({ length: 10 }, (_, i) => (23.4 + i / 100).toFixed(2));
    expect(judged(tenth, { outlierTest: 'dixon' }).outlier).not.toBeNull();
    const many = Array.from({ length: 31 }, (_, i) => (23.4 + i / 100).toFixed(2));
    expect(judged(many, { outlierTest: 'dixon' }).outlier).toBeNull();
  });
});

describe('what becomes of each flask, and why', () => {
  test('rough, blank, waiting, voided and set aside', () => {
    const script = new RunScript(references(), {
      rules: { ...PLAIN_RULES, firstIsRough: true },
    });
    script.titrate(1, '0.4800', '0.00', '24.10');
    for (const flask of [2, 3, 4]) script.titrate(flask, '0.4800', '0.00', '23.50');
    script.titrate(5, '0.4800', '0.00', '23.90');
    script.titrate(6, '0.4800', '0.00', '23.50');
    script.add('run.flask-voided', { flask: 6, reason: 'spilt', cause: 'incident' });
    script.add('run.blank-made', { flask: 7 });
    const atLast = judgeRun(script.weigh(8, '0.4800').state);
    const found = atLast.replicates.map(({ verdict, why }) => [verdict, why]);
    expect(found).toEqual([
      ['rough', { code: 'rough' }],
      ['counts', null],
      ['counts', null],
      ['counts', null],
      ['set-aside', { code: 'set-aside', limit: '0.3 %' }],
      ['void', { code: 'voided', reason: 'spilt', cause: 'incident' }],
      // A blank that waits is open like any other flask.
      ['open', { code: 'not-titrated' }],
      ['open', { code: 'not-titrated' }],
    ]);
    script.read(7, 'initial', '10.00').read(7, 'final', '10.04');
    expect(judgeRun(script.state).replicates[6]).toMatchObject({
      verdict: 'blank',
      why: { code: 'blank' },
    });
    // All that are accurate enter s, those that agree the mean.
    expect(atLast.accurate?.n).toBe(4);
    expect(atLast.averaged?.n).toBe(3);
    expect(atLast.spread).toMatchObject({ averaged: '0.00 %' });
  });

  test('a titre that the blanks use up gives no molarity, because its readings contradict each other', () => {
    const script = new RunScript(references(), {
      rules: { ...PLAIN_RULES, firstIsRough: false },
    });
    script.titrate(1, '0.4800', '0.00', '0.05');
    script.add('run.blank-made', { flask: 2 });
    script.read(2, 'initial', '10.00').read(2, 'final', '10.10');
    const { replicates, result } = judgeRun(script.state);
    expect(replicates[0]).toMatchObject({
      verdict: 'open',
      why: { code: 'contradictory' },
    });
    expect(result).toBeNull();
  });
});
