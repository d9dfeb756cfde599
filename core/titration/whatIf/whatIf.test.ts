import { expect, test } from 'vitest';
import { concordantSeries, PLAIN_RULES, RunScript } from '../../test-support/runs';
import type { HouseRules } from '../../laboratory';
import type { Result } from '../judging';
import { judgeRun } from '../judging';
import { inOrder, leavingOut, otherSchools, smallerU } from './index';

function judged(script: RunScript) {
  const run = script.state;
  const judgement = judgeRun(run);
  const { result } = judgement;
  if (!result) throw new Error('it has no result');
  return { run, judgement, result };
}

/** The concordant series as it would have been titrated under other rules. */
function under(changes: Partial<HouseRules>): RunScript {
  const script = new RunScript(undefined, { rules: { ...PLAIN_RULES, ...changes } });
  script.facts.push(...concordantSeries().facts.slice(1));
  return script;
}

const roundedOf = ({ rounded }: Result) => [rounded.value, rounded.uncertainty];

test('what another school would say is what a run under its rule comes to; what would say the same is not told', () => {
  const { run, result } = judged(concordantSeries());
  const answers = otherSchools(run, result);
  const says = (text: RegExp) => answers.find((one) => text.test(one.says));
  const all = judged(under({ firstIsRough: false }));
  const counting = says(/counts if it agrees/);
  expect([counting?.value, counting?.uncertainty]).toEqual(roundedOf(all.result));
  expect(counting?.averaged).toBe(all.judgement.averaged?.n);
  // Every answer to the rule of coverage is either told or the same.
  for (const coverage of ['two', 'effective-degrees'] as const) {
    const now = roundedOf(judged(under({ coverage })).result);
    const told = answers.map(({ value, uncertainty }) => [value, uncertainty]);
    if (String(now) === String(roundedOf(result))) expect(told).not.toContainEqual(now);
    else expect(told).toContainEqual(now);
  }
  for (const { value, uncertainty } of answers) {
    expect([value, uncertainty]).not.toEqual(roundedOf(result));
  }
  // Asking switches nothing.
  expect(roundedOf(judged(concordantSeries()).result)).toEqual(roundedOf(result));
});

test('the effect of leaving a titration out is that of voiding it', () => {
  const script = concordantSeries();
  const { run, judgement, result } = judged(script);
  const without = leavingOut(run, judgement, result);
  expect(without.map(({ flask }) => flask)).toEqual([2, 3, 4]);
  for (const { flask, value, uncertainty, movedByU } of without) {
    const voided = concordantSeries().add('run.flask-voided', { flask, reason: 'spilled' });
    const now = judged(voided).result;
    expect([value, uncertainty]).toEqual(roundedOf(now));
    const moved = now.evaluation.value - result.evaluation.value;
    expect(movedByU).toBeCloseTo(moved / result.evaluation.expandedUncertainty, 12);
  }
});

test('what would make U smaller: each does, all together most; nothing is proposed that is done already', () => {
  const { run, judgement, result } = judged(concordantSeries());
  const changes = smallerU(run, judgement, result);
  const all = changes.at(-1);
  expect(changes.length).toBeGreaterThan(3);
  for (const { ofPresent, expandedUncertainty } of changes) {
    expect(ofPresent).toBeLessThanOrEqual(1);
    expect(ofPresent).toBeGreaterThanOrEqual(all?.ofPresent ?? 1);
    expect(expandedUncertainty / result.evaluation.expandedUncertainty).toBeCloseTo(ofPresent, 12);
  }
  expect(all?.what).toBe('All of this together');
  const points = [0, 25, 50].map((nominal) => ({
    ...{ nominal, deviation: 0, expandedUncertainty: 0.01, repeatability: null },
  }));
  const calibrated = { ...run.references.burette, calibration: points };
  const better = { ...run, references: { ...run.references, burette: calibrated } };
  const again = judgeRun(better);
  if (!again.result) throw new Error('it has no result');
  const left = smallerU(better, again, again.result).map(({ what }) => what);
  expect(left.some((what) => what.includes('calibrated'))).toBe(false);
});

test('a series that drifts is told from one that does not; fewer than four say nothing', () => {
  const series = (finals: readonly string[]): RunScript => {
    const script = new RunScript(undefined, { rules: { ...PLAIN_RULES, firstIsRough: false } });
    finals.forEach((final, i) => script.titrate(i + 1, '0.4800', '0.00', final));
    return script;
  };
  const trendOf = (finals: readonly string[]) => inOrder(judged(series(finals)).judgement).trend;
  expect(trendOf(['23.40', '23.45', '23.50'])).toBeNull();
  const drifting = trendOf(['23.40', '23.45', '23.49', '23.55', '23.60']);
  expect(drifting).toMatchObject({ isSignificant: true });
  expect(drifting?.percentPerTitration).toBeCloseTo(-0.21, 2);
  expect(trendOf(['23.40', '23.45', '23.41', '23.46', '23.40'])).toMatchObject({
    isSignificant: false,
  });
  const { points } = inOrder(judged(concordantSeries()).judgement);
  expect(points.map(({ flask, counts }) => [flask, counts])).toEqual([
    [2, true],
    [3, true],
    [4, true],
  ]);
});
