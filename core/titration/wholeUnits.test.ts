import { expect, test } from 'vitest';
import type { PlainDate } from '../grammar';
import { meanOf, summarize } from '../statistics';
import type { GivenSample } from '../test-support/analyses';
import { analysisScript } from '../test-support/analyses';
import type { RunScript } from '../test-support/runs';
import { nextStep, planRun } from './guidance';
import { foundIn, heldOf, judgeRun, partsFound, unitsText } from './judging';
import { checkRunStart } from './record';
import { analysisOf } from './run';

const MOLAR_MASS = 180.158;

/** Tablets of acetylsalicylic acid, claimed to hold 500 mg, one in each flask: mass and titre of each. */
function tablets(
  each: readonly (readonly [massG: string, titreMl: string])[],
  sample: Partial<GivenSample> = {},
): RunScript {
  const script = analysisScript(
    'acid-drug-in-tablets',
    { substanceId: 'sodium-hydroxide', molarity: '0.1000' },
    'whole',
    { unit: 'mg/unit', as: 'C9H8O4', ...sample },
  );
  each.forEach(([massG, titreMl], i) => {
    script.titrate(i + 1, massG, '0.00', titreMl);
  });
  return script;
}

// One is heavier by a tenth and holds no more.
const FIVE = [
  ['0.6021', '27.60'],
  ['0.5988', '27.95'],
  ['0.6610', '27.30'],
  ['0.6003', '28.10'],
  ['0.5979', '27.55'],
] as const;
const CONTENTS = FIVE.map(([, titreMl]) => 0.1 * Number(titreMl) * MOLAR_MASS);

test('each tells its own content, whatever it weighs; U covers how they scatter', () => {
  const requirement = {
    kind: 'label-claim',
    claim: '500',
    window: { fromPercent: '95', toPercent: '105' },
  } as const;
  const series = analysisOf(tablets(FIVE, { requirement }).state);
  const judgement = judgeRun(series);
  if (!judgement.result) throw new Error('there is no result');
  judgement.replicates.forEach(({ molarity, verdict }, i) => {
    expect(molarity).toBeCloseTo(CONTENTS[i] ?? 0, 1);
    expect(verdict).toBe('counts');
  });
  const found = foundIn(series, judgement.result);
  expect(found.value).toBeCloseTo(meanOf(CONTENTS), 1);
  // s = 5.80 mg of single ones; of the mean of five s / root 5, with the titrant's 0.05 %.
  const s = summarize(CONTENTS)?.sampleSd ?? 0;
  expect(found.standardUncertainty).toBeCloseTo(Math.hypot(s / Math.sqrt(5), 0.0005 * 499), 1);
  expect(found.coverageFactor).toBeCloseTo(2.78, 1);
  expect(unitsText(series, judgement)).toBe('5 units, 491.8 to 506.2 mg, s = 5.8 mg (1.2 %)');
  expect(heldOf(series, found, partsFound(series, judgement))?.text).toMatch(
    /^99\.8 % ± 1\.\d % of the claim: within/,
  );
});

test('that they differ is no fault: none is set aside, and after the least number one may stop', () => {
  const script = tablets(FIVE.slice(0, 2));
  const judgement = judgeRun(script.state);
  expect(judgement.isConcordant).toBe(true);
  expect(nextStep(script.state, judgement).says).toMatchObject({
    code: 'may-stop',
    values: { count: 2, isWhole: true },
  });
  // One more that is weighed already is titrated first.
  script.weigh(3, '0.6610');
  expect(nextStep(script.state, judgeRun(script.state))).toMatchObject({ flask: 3 });
  const begun = tablets([]);
  expect(nextStep(begun.state, judgeRun(begun.state)).says.values).toMatchObject({ isWhole: true });
  expect(unitsText(analysisOf(begun.state), judgeRun(begun.state))).toBeNull();
});

test('no mean mass is needed, and the plan leaves no choice of a portion', () => {
  const { references, setUp } = tablets([]).state;
  const plan = planRun(references, setUp.rules);
  expect(plan.portion.least).toBe(plan.portion.most);
  // The usual 500 mg: 500 / 180.158 / 0.1 mL.
  expect(plan.titreMl.suggested).toBeCloseTo(27.75, 1);
  const today = '2026-03-02' as PlainDate;
  const codes = (script: RunScript): readonly string[] =>
    checkRunStart(script.state.references, today).map(({ code }) => code);
  expect(codes(tablets([]))).not.toContain('unit-mass-missing');
  expect(codes(tablets([], { unit: '% m/m' }))).toContain('whole-units-by-unit');
});
