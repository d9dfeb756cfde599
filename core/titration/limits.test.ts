import { describe, expect, test } from 'vitest';
import { roundHalfEven } from '#core/measurement';
import { PLAIN_RULES, references, RunScript } from '../test-support/runs';
import { forecastFlask } from './figures';
import { judgeRun } from './judging';
import { checkRunFact } from './record';

const rules = { ...PLAIN_RULES, firstIsRough: false };

describe('an end point is asked about', () => {
  const script = new RunScript().weigh(1, '0.4802').read(1, 'initial', '0.10');
  const codesAt = (readingMl: number): readonly string[] => {
    const fact = script.propose('run.burette-read', {
      ...{ flask: 1, moment: 'final', readingMl: roundHalfEven(readingMl, 2) },
      ...{ carriedFrom: null, reason: null },
    });
    return checkRunFact(script.state, fact).map(({ code }) => code);
  };

  test.each([
    ['above', 1],
    ['below', -1],
  ])('from three expected half-bands %s the forecast on', (_, side) => {
    const [flask] = script.state.flasks;
    if (!flask) throw new Error('the run has no flask');
    const { onBurette, halfBandMl } = forecastFlask(script.state, flask, null);
    const limit = (onBurette?.expected ?? 0) + side * 3 * halfBandMl;
    expect(codesAt(limit - side * 0.01)).toEqual([]);
    expect(codesAt(limit + side * 0.01)).toEqual(['titre-off-forecast']);
    expect(codesAt(limit + side * halfBandMl)).toEqual(['titre-off-forecast']);
  });
});

describe('by the relative standard deviation', () => {
  const judged = (masses: readonly string[]) => {
    const byRsd = { ...rules, weighedConcordance: 'rsd', concordanceRsdPercent: '0.1' } as const;
    const script = new RunScript(references(), { rules: byRsd });
    masses.forEach((massG, i) => script.titrate(i + 1, massG, '0.00', '23.50'));
    return judgeRun(script.state);
  };

  test('three titrations agree up to the limit, not beyond, and the band is two of it wide', () => {
    // Of m, m + d and m - d it is d / m: 0.083 % and 0.104 %.
    expect(judged(['0.4800', '0.4804', '0.4796'])).toMatchObject({
      isConcordant: true,
      bandPercent: 0.2,
      limit: 'an RSD of 0.1 %',
    });
    expect(judged(['0.4800', '0.4805', '0.4795']).isConcordant).toBe(false);
  });
});
