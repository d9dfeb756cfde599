import { describe, expect, test } from 'vitest';
import type { Performance } from '../chemistry';
import type { Plain } from '../grammar';
import type { Requirement } from '../sample';
import type { GivenSample } from '../test-support/analyses';
import { analysisOf as shipped, analysisScript } from '../test-support/analyses';
import {
  contentText,
  coverageText,
  foundIn,
  heldOf,
  judgeRun,
  molarMassCandidates,
  partsFound,
} from './judging';
import { analysisOf } from './run';

const UNKNOWN: Performance = {
  ...{ methodUncertaintyPercent: null, repeatabilityPercent: null },
  ...{ detectionLimit: null, quantificationLimit: null },
};

/** Titratable acidity of 10 mL with 0.1 mol/L, of which the laboratory knows something of its own: so many titrations. */
function acidity(
  known: Partial<Performance>,
  finals: readonly string[],
  sample: Partial<GivenSample> = {},
) {
  const analysis = { ...shipped('titratable-acidity'), performance: { ...UNKNOWN, ...known } };
  const script = analysisScript(
    analysis,
    { substanceId: 'sodium-hydroxide', molarity: '0.1000' },
    { pipetteMl: '10' },
    { unit: 'g/L', as: 'C4H6O6', expected: '6.2', ...sample },
  );
  finals.forEach((finalMl, i) => {
    const flask = i + 1;
    script
      .add('run.flask-pipetted', { flask, volumeMl: '10', reason: null })
      .read(flask, 'initial', '0.00')
      .read(flask, 'final', finalMl);
  });
  const series = analysisOf(script.state);
  const judgement = judgeRun(series);
  if (!judgement.result) throw new Error('there is no result');
  return { series, judgement, found: foundIn(series, judgement.result) };
}

describe('u of the method', () => {
  test('is added to that of the titration, and both are kept apart', () => {
    const alone = acidity({}, ['8.26', '8.26']).found;
    const { found, series } = acidity({ methodUncertaintyPercent: 1.6 }, ['8.26', '8.26']);
    expect(alone.methodUncertainty).toBeNull();
    expect(found.methodUncertainty).toBeCloseTo(0.016 * found.value, 12);
    expect(found.titrationUncertainty).toBe(alone.titrationUncertainty);
    expect(found.standardUncertainty).toBeCloseTo(
      Math.hypot(alone.standardUncertainty, 0.016 * found.value),
      12,
    );
    // A wine of 6.2 g/L: the model alone gives some 0.05 g/L, the laboratory's own data about 0.2.
    expect(alone.expandedUncertainty).toBeCloseTo(0.045, 2);
    expect(found.expandedUncertainty).toBeCloseTo(0.2, 2);
    expect(coverageText(series)).toContain('the method');
    expect(coverageText(acidity({}, ['8.26', '8.26']).series)).toContain('test portion only');
  });

  test('decides with the titration, whatever the limit', () => {
    const requirement: Plain<Requirement> = {
      kind: 'limits',
      lower: '6.1',
      upper: null,
      rule: 'guarded-acceptance',
    };
    const verdict = (percent: number | null): string | undefined => {
      const one = acidity({ methodUncertaintyPercent: percent }, ['8.26', '8.26'], { requirement });
      const parts = partsFound(one.series, one.judgement);
      return heldOf(one.series, one.found, parts)?.text.split(':')[0];
    };
    expect([verdict(null), verdict(1.6)]).toEqual(['Passes', 'Fails']);
  });
});

describe('limits of detection and quantification', () => {
  const limits = { detectionLimit: 6, quantificationLimit: 6.1992 };
  test.each([
    ['7.99', 'below-detection', '< LOD (6.00 g/L as tartaric acid)'],
    ['8.00', 'below-quantification', 'detected, < LOQ (6.20 g/L as tartaric acid)'],
    ['8.26', 'below-quantification', 'detected, < LOQ (6.20 g/L as tartaric acid)'],
    ['8.27', 'quantified', '6.206 ± 0.045 g/L as tartaric acid (k = 1.97)'],
  ])('a titre of %s mL: %s', (finalMl, detection, text) => {
    // 0.1 x 8.00 x 150.087 / 2 / 10 = 6.0035 g/L.
    const { found, series } = acidity(limits, [finalMl, finalMl]);
    expect([found.detection, contentText(series, found)]).toEqual([detection, text]);
  });

  test('hold in whatever unit it is stated', () => {
    // 6 g/L as tartaric acid are 79.954 meq/L.
    const { found } = acidity(limits, ['8.26', '8.26'], { unit: 'meq/L', expected: '82' });
    expect(found.limits.detection).toBeCloseTo(79.954, 3);
    expect(found.detection).toBe('below-quantification');
  });
});

describe('with a repeatability limit', () => {
  const counting = (rPercent: number, finals: readonly string[]) => {
    const { judgement } = acidity({ repeatabilityPercent: rPercent }, finals);
    return {
      isConcordant: judgement.isConcordant,
      counts: judgement.replicates
        .filter(({ verdict }) => verdict === 'counts')
        .map(({ flask }) => flask.number),
    };
  };
  // 1.0 % of 8.00 mL is 0.08 mL.
  test.each<[string, readonly string[], boolean, readonly number[]]>([
    ['one does not tell', ['8.00'], false, [1]],
    ['two within r', ['7.97', '8.04'], true, [1, 2]],
    ['two farther apart ask for more', ['7.95', '8.05'], false, [1, 2]],
    ['three within 3.3 s', ['7.96', '8.05', '8.00'], true, [1, 2, 3]],
    ['three farther apart ask for a fourth', ['7.94', '8.06', '8.00'], false, [1, 2, 3]],
    ['four within 3.6 s', ['7.95', '8.05', '8.00', '8.01'], true, [1, 2, 3, 4]],
    [
      'of four that are wider the two in the middle',
      ['7.90', '8.05', '8.00', '8.02'],
      true,
      [3, 4],
    ],
    ['of five the one', ['7.80', '8.05', '8.00', '8.02', '8.30'], true, [4]],
  ])('%s', (_, finals, isConcordant, counts) => {
    expect(counting(1, finals)).toMatchObject({ isConcordant, counts });
  });
});

test('an unknown acid may have its equivalent mass times each number of protons for a molar mass', () => {
  const script = analysisScript(
    'unknown-solid-acid',
    { substanceId: 'sodium-hydroxide', molarity: '0.1000' },
    'weighed',
    { unit: 'g/mol', as: null },
  );
  const weighing = { mode: 'tared', massG: '0.2000' } as const;
  // The first is rough.
  for (const flask of [1, 2]) {
    script
      .add('run.flask-weighed', { flask, weighing, reason: null })
      .read(flask, 'initial', '0.00')
      .read(flask, 'final', '26.65');
  }
  const series = analysisOf(script.state);
  const { result } = judgeRun(series);
  if (!result) throw new Error('there is no result');
  // 0.2 g / (0.1 mol/L x 26.65 mL) = 75.05 g/mol: tartaric acid, with two protons, has 150.09.
  const candidates = molarMassCandidates(series, foundIn(series, result));
  expect(candidates.map(({ protons }) => protons)).toEqual([1, 2, 3, 4]);
  expect(Number(candidates[1]?.value)).toBeCloseTo(150.1, 0);
  const wine = acidity({}, ['8.26', '8.26']);
  expect(molarMassCandidates(wine.series, wine.found)).toEqual([]);
});
