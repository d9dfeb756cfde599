import { describe, expect, test } from 'vitest';
import { stepText } from '#core/wording';
import { plainDate } from '#core/grammar';
import { decimalText } from '#core/measurement';
import type { BottleState } from '#core/reagent';
import {
  aliquots,
  bottleOf,
  khpLot,
  made,
  methodOf,
  PLAIN_RULES,
  references,
  RunScript,
} from '../test-support/runs';
import { idOf, stored } from '../test-support/stored';
import type { RunFactBodies } from './record';
import { forecastFlask } from './figures';
import { cooledToC, lossPerMinute, minutesUntil, nextStep } from './guidance';
import { judgeRun } from './judging';
import { checkRunFact, checkRunStart } from './record';
import { standardizationOf, takenBy, titreMl } from './run';

function pipetted(script: RunScript, flask: number, from: string, to: string): RunScript {
  return script
    .add('run.flask-pipetted', { flask, volumeMl: '25.00', reason: null })
    .read(flask, 'initial', from)
    .read(flask, 'final', to);
}

const hydroxide = { substanceId: 'sodium-hydroxide', nominalMolarity: '0.1' };

describe('arrangements, by hand calculation', () => {
  test('aliquots of oxalic acid: c = nu c_s V_a / V', () => {
    const oxalic = bottleOf('oxalic-acid-dihydrate', made('0.05012'));
    const script = aliquots('naoh-by-oxalic-acid', oxalic, hydroxide);
    pipetted(script, 1, '0.10', '24.85');
    // 2 x 0.05012 x 25.00 / 24.75
    expect(judgeRun(script.state).result?.evaluation.value).toBeCloseTo(0.1012525, 7);
    const u = judgeRun(script.state).result?.evaluation;
    // Relative: standard solution 0.0005, pipette 0.03/sqrt(6)/25 and filling 0.01/25, burette 0.05/sqrt(6)/24.75,
    // two readings 0.02/sqrt(6)/24.75, end point and its shade 0.025/sqrt(3)/24.75 each; the temperature cancels.
    const byHand = Math.hypot(
      0.0005,
      0.03 / Math.sqrt(6) / 25,
      0.01 / 25,
      0.05 / Math.sqrt(6) / 24.75,
      (Math.SQRT2 * 0.02) / Math.sqrt(6) / 24.75,
      0.025 / Math.sqrt(3) / 24.75,
      0.025 / Math.sqrt(3) / 24.75,
    );
    expect((u?.combinedStandardUncertainty ?? 0) / (u?.value ?? 1)).toBeCloseTo(byHand, 7);
    expect(takenBy(script.state)).toEqual([
      { id: 'bottle-1', amount: expect.closeTo(12 + 49.9, 9) as number },
      { id: 'bottle-oxalic-acid-dihydrate', amount: 25 },
    ]);
  });

  test('sodium carbonate in the burette: c = nu c_s V / V_a', () => {
    const carbonate = bottleOf('sodium-carbonate', made('0.05000'));
    const script = aliquots('carbonate-into-hydrochloric-acid', carbonate, {
      substanceId: 'hydrochloric-acid',
      nominalMolarity: '0.1',
    });
    const planned = nextStep(script.state, judgeRun(script.state));
    expect(planned).toMatchObject({ action: 'pipette', flask: 1 });
    // The aliquot comes from the bottle that is standardized.
    expect(planned.says).toMatchObject({
      code: 'pipette',
      values: { volumeMl: 25, isFixed: true, bottleCode: '0417', excess: null },
    });
    script.add('run.flask-pipetted', { flask: 1, volumeMl: '25.00', reason: null });
    const [flask] = script.state.flasks;
    expect(flask && forecastFlask(script.state, flask, 0).titreMl).toBeCloseTo(25, 9);
    script.read(1, 'initial', '0.00').read(1, 'final', '25.50');
    // 2 x 0.05000 x 25.50 / 25.00
    expect(judgeRun(script.state).result?.evaluation.value).toBeCloseTo(0.102, 9);
    expect(takenBy(script.state).map(({ id }) => id)).toEqual([
      'bottle-sodium-carbonate',
      'bottle-1',
    ]);
  });

  test('a calibrated pipette counts with its own volume, in the flask’s figure as in the result', () => {
    const oxalic = bottleOf('oxalic-acid-dihydrate', made('0.05000'));
    const { state, facts } = aliquots('naoh-by-oxalic-acid', oxalic, hydroxide);
    const { references: refs } = standardizationOf(state);
    if (refs.standard.kind !== 'bottle' || facts[0]?.kind !== 'run.started') throw new Error();
    const points = [{ nominal: '25', deviation: '-0.02', expandedUncertainty: '0.005' }];
    const found = { kind: 'points', points } as const;
    const calibration = { calibratedOn: '2026-01-10', due: null, certificate: 'own', found };
    const calibrations = [{ ...refs.bottle.prepared, ...calibration }];
    const vessel = { ...refs.standard.vessel, calibrations };
    const standard = { ...refs.standard, vessel };
    const script = new RunScript({ ...refs, standard: stored(standard) }, facts[0].body);
    pipetted(script, 1, '0.00', '25.00');
    const judgement = judgeRun(script.state);
    // 2 x 0.05000 x 24.98 / 25.00
    expect(judgement.replicates[0]?.molarity).toBeCloseTo(0.09992, 9);
    expect(judgement.result?.evaluation.value).toBeCloseTo(0.09992, 9);
  });

  test('one burette for the aliquot and the titre: its tolerance is one input', () => {
    const oxalic = bottleOf('oxalic-acid-dihydrate', made('0.05000'));
    const { state, facts } = aliquots('naoh-by-oxalic-acid', oxalic, hydroxide);
    const { references: refs } = standardizationOf(state);
    if (refs.standard.kind !== 'bottle' || facts[0]?.kind !== 'run.started') throw new Error();
    const setUp = facts[0].body;
    const vessel = { ...refs.standard.vessel, ...setUp.burette, equipment: refs.burette };
    const script = new RunScript({ ...refs, standard: { ...refs.standard, vessel } }, setUp);
    script.add('run.flask-pipetted', { flask: 1, volumeMl: '24.60', reason: null });
    script.read(1, 'initial', '0.00').read(1, 'final', '24.60');
    const budget = judgeRun(script.state).result?.evaluation.budget ?? [];
    const ids = budget.map(({ input }) => input.id);
    expect(new Set(ids).size).toBe(ids.length);
    // As much too much in the one as in the other: it cancels.
    const tolerance = budget.find(({ input }) => input.id.includes('/tolerance@'));
    expect(tolerance?.contribution).toBeCloseTo(0, 9);
  });

  test('dichromate by iron(II): a sixth', () => {
    const iron = bottleOf('ammonium-iron-ii-sulfate-hexahydrate', made('0.1003'));
    const script = aliquots('dichromate-by-iron-ii', iron, {
      substanceId: 'potassium-dichromate',
      nominalMolarity: '0.0167',
    });
    pipetted(script, 1, '0.00', '25.00');
    expect(judgeRun(script.state).result?.evaluation.value).toBeCloseTo(0.1003 / 6, 9);
  });

  test('a nominal solution, its own bottle, or a wrong portion is no standard; an old one asks why', () => {
    const codes = (changes: Partial<BottleState>): string[] => {
      const oxalic = bottleOf('oxalic-acid-dihydrate', { ...made('0.05'), ...changes });
      const script = aliquots('naoh-by-oxalic-acid', oxalic, hydroxide);
      return checkRunStart(script.references, plainDate('2026-03-02')).map(({ code }) => code);
    };
    expect(codes({})).toEqual([]);
    expect(codes({ made: null, useBy: null })).toEqual(['not-standardized']);
    expect(codes({ useBy: plainDate('2026-03-01') })).toEqual(['standard-overdue']);
    expect(codes({ id: idOf('bottle-1') })).toEqual(['same-bottle']);
    const weighed = references({ method: methodOf('permanganate-by-oxalic-acid') });
    expect(checkRunStart(weighed, plainDate('2026-03-02')).map(({ code }) => code)).toContain(
      'wrong-portion',
    );
    const dissolved = { meaning: 'by-mass', densityGPerMl: '1.5' } as const;
    const { standard, ...rest } = references();
    const solution = {
      ...rest,
      standard: { ...standard, lot: khpLot({ dissolved }) } as typeof standard,
    };
    expect(checkRunStart(solution, plainDate('2026-03-02')).map(({ code }) => code)).toEqual([
      'not-solid',
    ]);
  });

  test('the pipette delivers what it delivers, and nothing is weighed', () => {
    const oxalic = bottleOf('oxalic-acid-dihydrate', made('0.05'));
    const script = aliquots('naoh-by-oxalic-acid', oxalic, hydroxide);
    const codes = (volumeMl: string): string[] =>
      checkRunFact(
        script.state,
        script.propose('run.flask-pipetted', { flask: 1, volumeMl, reason: null }),
      ).map(({ code }) => code);
    expect([codes('25.00'), codes('20'), codes('0')]).toEqual([
      [],
      ['other-volume'],
      ['no-volume'],
    ]);
    const weighing = { mode: 'tared', massG: '0.3' } as const;
    const weighed = script.propose('run.flask-weighed', { flask: 1, weighing, reason: null });
    expect(checkRunFact(script.state, weighed).map(({ code }) => code)).toEqual(['not-weighed']);
  });
});

describe('a blank', () => {
  const rules = { ...PLAIN_RULES, firstIsRough: false };
  const benzoic = (): RunScript =>
    new RunScript(
      references({
        method: methodOf('naoh-by-benzoic-acid'),
        lot: { substanceId: 'benzoic-acid', purity: '1', purityHalfWidth: '0.0005' },
      }),
      { method: { kind: 'catalogue', id: 'naoh-by-benzoic-acid' }, rules },
    );

  test('is asked for by a method whose medium takes titrant, and subtracted from every titre', () => {
    const script = benzoic().weigh(1, '0.3000').weigh(2, '0.3000').weigh(3, '0.3000');
    const next = () => nextStep(script.state, judgeRun(script.state));
    expect(next()).toMatchObject({ action: 'blank', flask: 4 });
    script.add('run.blank-made', { flask: 4 }).read(4, 'initial', '0.10');
    expect(next().says.code).toBe('blank-drop-by-drop');
    script.read(4, 'final', '0.25').carryOver(1).read(1, 'final', '24.97');
    const judgement = judgeRun(script.state);
    // 300.0 mg / 122.123 mg/mmol / (24.72 - 0.15) mL
    expect(judgement.replicates[0]?.molarity).toBeCloseTo(300 / 122.123 / 24.57, 6);
    expect(judgement.replicates[3]).toMatchObject({ verdict: 'blank', titreMl: '0.15' });
    expect(judgement.result?.evaluation.value).toBeCloseTo(300 / 122.123 / 24.57, 6);
    // The reading that the blank ended with and the flask began with is one input: it counts twice.
    const shared = judgement.result?.evaluation.budget.find(({ input }) => input.value === 0.25);
    expect(Math.abs(shared?.sensitivity ?? 0)).toBeCloseTo(
      (2 * (judgement.result?.evaluation.value ?? 0)) / 24.57,
      6,
    );
  });

  test('may take nothing, and is asked about when it takes much', () => {
    const script = benzoic().add('run.blank-made', { flask: 1 }).read(1, 'initial', '0.10');
    const codes = (readingMl: string): string[] =>
      checkRunFact(
        script.state,
        script.propose('run.burette-read', {
          flask: 1,
          moment: 'final',
          readingMl,
          carriedFrom: null,
          reason: null,
        }),
      ).map(({ code }) => code);
    expect([codes('0.10'), codes('0.05'), codes('5.00')]).toEqual([
      [],
      ['reads-upwards'],
      ['blank-too-large'],
    ]);
    expect(script.read(1, 'final', '0.10').state.flasks[0]?.isRough).toBe(false);
    const [flask] = script.state.flasks;
    expect(flask && titreMl(flask)).toBe('0.00');
  });
});

describe('several fillings in one titration', () => {
  const small = (): RunScript =>
    new RunScript(references({ burette: { ...references().burette, capacityMl: '20' } }), {
      rules: { ...PLAIN_RULES, firstIsRough: false },
    });
  const refill = (
    moment: 'stop' | 'restart',
    readingMl: string,
  ): RunFactBodies['run.burette-refilled'] => ({
    flask: 1,
    refill: 1,
    moment,
    readingMl: decimalText(readingMl),
    reason: null,
  });

  test('the stretches add up, every reading enters, and what comes next is said', () => {
    const script = small().weigh(1, '0.4802').read(1, 'initial', '0.10');
    const next = () => nextStep(script.state, judgeRun(script.state));
    expect(next()).toMatchObject({ action: 'read-stop', flask: 1 });
    script.add('run.burette-refilled', refill('stop', '19.60'));
    expect(next()).toMatchObject({ action: 'read-restart', flask: 1 });
    expect(judgeRun(script.state).replicates[0]?.molarity).toBeNull();
    script.add('run.burette-refilled', refill('restart', '0.20'));
    // 23.51 - 19.50 still wanted, from 0.20 on.
    expect(next().says.values.expectedMl).toBeCloseTo(4.2, 1);
    script.read(1, 'final', '4.20');
    const [flask] = script.state.flasks;
    expect(flask && titreMl(flask)).toBe('23.50');
    const budget = judgeRun(script.state).result?.evaluation.budget ?? [];
    expect(budget.filter(({ input }) => input.effect === 'Readings')).toHaveLength(4);
    // Two fillings of 20 mL, from 0.10 and from 0.20, after three rinses of 4.
    expect(takenBy(script.state)[0]?.amount).toBeCloseTo(12 + 19.9 + 19.8, 9);
  });

  test('a refill is written down in order, and what was not written is suspected', () => {
    const script = small().weigh(1, '0.4802').read(1, 'initial', '0.10');
    const codes = (moment: 'stop' | 'restart', readingMl: string, which = 1): string[] =>
      checkRunFact(
        script.state,
        script.propose('run.burette-refilled', { ...refill(moment, readingMl), refill: which }),
      ).map(({ code }) => code);
    expect(codes('restart', '0.20')).toEqual(['no-stop']);
    expect(codes('stop', '0.05')).toEqual(['reads-upwards']);
    expect(codes('stop', '18.00', 2)).toEqual(['not-titrating']);
    expect(codes('stop', '18.00')).toEqual([]);
    script.add('run.burette-refilled', refill('stop', '18.00'));
    const final = script.propose('run.burette-read', {
      flask: 1,
      moment: 'final',
      readingMl: '5.00',
      carriedFrom: null,
      reason: null,
    });
    expect(checkRunFact(script.state, final).map(({ code }) => code)).toEqual(['refill-open']);
  });
});

describe('how the end point was met', () => {
  const rules = { ...PLAIN_RULES, firstIsRough: false };
  const titrated = (): RunScript =>
    new RunScript(references(), { rules }).weigh(1, '0.4802').read(1, 'initial', '0.00');
  const molarity = (script: RunScript) => judgeRun(script.state).result?.evaluation.value ?? 0;
  const endPoint = (script: RunScript) =>
    judgeRun(script.state).result?.evaluation.budget.find(
      ({ input }) => input.effect === 'End point',
    )?.input;

  test('overshot after a provisional reading, the end lies between the two', () => {
    const script = titrated()
      .add('run.provisional-read', { flask: 1, readingMl: '23.46' })
      .read(1, 'final', '23.54');
    const asRead = molarity(script);
    script.add('run.end-point-graded', { flask: 1, grade: 'far-over' });
    expect(molarity(script) / asRead).toBeCloseTo(23.54 / 23.5, 6);
    expect(endPoint(script)).toMatchObject({ value: expect.closeTo(-0.04, 9) as number });
    expect(judgeRun(script.state).replicates[0]?.verdict).toBe('counts');
  });

  test('far over with nothing read is left out; a drop over counts within the drop before', () => {
    const script = titrated().read(1, 'final', '23.54');
    const asRead = molarity(script);
    script.add('run.end-point-graded', { flask: 1, grade: 'drop-over' });
    expect(molarity(script) / asRead).toBeCloseTo(23.54 / 23.515, 6);
    script.add('run.end-point-graded', { flask: 1, grade: 'far-over' });
    expect(judgeRun(script.state).replicates[0]?.verdict).toBe('overshot');
    expect(judgeRun(script.state).result).toBeNull();
  });

  test('an end point is taken back until the next titration begins', () => {
    const script = titrated().read(1, 'final', '23.40').weigh(2, '0.4795');
    const back = { flask: 1, reason: 'it faded' };
    const check = (): string[] =>
      checkRunFact(script.state, script.propose('run.end-point-taken-back', back)).map(
        ({ code }) => code,
      );
    expect(check()).toEqual([]);
    script.add('run.end-point-taken-back', back);
    expect(script.state.flasks[0]).toMatchObject({
      final: null,
      provisional: [{ value: '23.40', reason: 'it faded' }],
    });
    expect(nextStep(script.state, judgeRun(script.state))).toMatchObject({ action: 'read-final' });
    script.read(1, 'final', '23.50').carryOver(2);
    expect(check()).toEqual(['titrated-since']);
  });
});

describe('house rules of judging', () => {
  const oxalic = bottleOf('oxalic-acid-dihydrate', made('0.05'));

  test('titres of equal aliquots agree in mL, highest minus lowest', () => {
    const seriesOf = (...finals: readonly string[]) => {
      const script = aliquots('naoh-by-oxalic-acid', oxalic, hydroxide);
      finals.forEach((final, i) => pipetted(script, i + 1, '0.00', final));
      return judgeRun(script.state);
    };
    const close = seriesOf('24.80', '24.88', '24.90');
    expect(close).toMatchObject({ isConcordant: true, limit: '0.10 mL' });
    expect(close.spread.averaged).toBe('0.10 mL');
    expect(seriesOf('24.80', '24.88', '24.91').isConcordant).toBe(false);
    const four = seriesOf('24.80', '24.88', '24.91', '24.95');
    expect(four.replicates.map(({ verdict }) => verdict)).toEqual([
      'set-aside',
      'counts',
      'counts',
      'counts',
    ]);
  });

  test('weighed portions agree by range, by RSD, or need not', () => {
    const seriesBy = (weighedConcordance: 'relative-range' | 'rsd' | 'none') => {
      const rules = { ...PLAIN_RULES, firstIsRough: false, weighedConcordance };
      const script = new RunScript(references(), { rules });
      ['23.48', '23.50', '23.53'].forEach((final, i) => {
        script.titrate(i + 1, '0.4802', '0.00', final);
      });
      const { isConcordant, limit } = judgeRun(script.state);
      return [isConcordant, limit];
    };
    // Range 0.21 %, s = 0.107 %.
    expect(seriesBy('relative-range')).toEqual([true, '0.3 %']);
    expect(seriesBy('rsd')).toEqual([false, 'an RSD of 0.1 %']);
    expect(seriesBy('none')).toEqual([true, 'whatever they spread']);
  });

  test('k is 2 where the house says so; the outlier test of the house gives its verdict', () => {
    const finals = ['23.48', '23.50', '23.51', '23.95'];
    const judged = (changes: Partial<typeof PLAIN_RULES>) => {
      const rules = { ...PLAIN_RULES, firstIsRough: false, ...changes };
      const script = new RunScript(references(), { rules });
      finals.forEach((final, i) => script.titrate(i + 1, '0.4802', '0.00', final));
      return judgeRun(script.state);
    };
    expect(judged({ coverage: 'two' }).result?.evaluation.coverageFactor).toBe(2);
    expect(judged({}).result?.evaluation.coverageFactor).not.toBe(2);
    expect(judged({}).outlier).toMatchObject({ flask: 4, test: 'grubbs', isOutlier: true });
    expect(judged({ outlierTest: 'dixon' }).outlier).toMatchObject({ flask: 4, test: 'dixon' });
    expect(judged({ outlierTest: 'none' }).outlier).toBeNull();
  });
});

test('a hot flask cools towards the room, slower the cooler it is', () => {
  const script = new RunScript().weigh(1, '0.4800');
  const usual = { measuredC: 80, roomC: 20, lossPerMinute: lossPerMinute(script.state) };
  expect(cooledToC(usual, 0)).toBe(80);
  expect(cooledToC(usual, 10)).toBeLessThan(70);
  expect(cooledToC(usual, 1e6)).toBeCloseTo(20, 9);
  const minutes = minutesUntil(60, usual);
  expect(cooledToC(usual, minutes)).toBeCloseTo(60, 9);
  expect([minutesUntil(60, { ...usual, measuredC: 55 }), minutesUntil(15, usual)]).toEqual([
    0,
    Infinity,
  ]);
  // Two readings of a flask say how fast these flasks cool; heated in between, they say nothing.
  const measure = (temperatureC: string, at: string): void => {
    script.add('run.temperature-taken', { flask: 1, temperatureC, reason: null });
    const last = script.facts.pop();
    const deviceTime = `2026-03-02T08:${at}:00.000Z`;
    if (last) script.facts.push({ ...last, deviceTime, recordedAt: deviceTime });
  };
  measure('80', '00');
  measure('70', '04');
  measure('78', '08');
  const found = lossPerMinute(script.state);
  expect(found).toBeCloseTo(Math.log(60 / 50) / 4, 9);
  expect(cooledToC({ ...usual, lossPerMinute: found }, 4)).toBeCloseTo(70, 9);
});

test('a flask is heated before it is read, by the school of the house; a reading is confirmed by somebody else', () => {
  const hot = (oxalateHeating: (typeof PLAIN_RULES)['oxalateHeating']) => {
    const rules = { ...PLAIN_RULES, firstIsRough: false, agreeAtLeast: 1, oxalateHeating };
    const script = new RunScript(
      references({
        // A blank would come first where one flask is planned.
        method: { ...methodOf('permanganate-by-sodium-oxalate'), needsBlank: false },
        bottle: bottleOf('potassium-permanganate', { nominalMolarity: '0.02' }),
        lot: { substanceId: 'sodium-oxalate' },
      }),
      { rules },
    ).weigh(1, '0.2101');
    return { script, next: stepText(nextStep(script.state, judgeRun(script.state)).says) };
  };
  expect(hot('to-75-80').next).toMatch(/^Heat flask 1 to 80 °C, never below 60\. Rinse and fill/);
  expect(hot('until-steaming').next).toMatch(/until it steams/);
  expect(hot('after-most').next).toMatch(/cold for most of the way, then heat it to 60 °C/);
  const { script } = hot('to-75-80');
  const codes = (temperatureC: string): string[] =>
    checkRunFact(
      script.state,
      script.propose('run.temperature-taken', { flask: 1, temperatureC, reason: null }),
    ).map(({ code }) => code);
  expect(['78', '55', '92', '150'].map(codes)).toEqual([
    [],
    ['too-cold'],
    ['too-hot'],
    ['no-such-temperature'],
  ]);
  script.read(1, 'initial', '0.10');
  const confirms = script.state.flasks[0]?.initial?.factId ?? '';
  const by = (authorId: string) =>
    checkRunFact(script.state, {
      ...script.propose('run.reading-confirmed', { confirms }),
      authorId: idOf(authorId),
    }).map(({ code }) => code);
  expect([by('ines'), by('tobin')]).toEqual([['same-person'], []]);
});

test('a run that is paused waits for whoever goes on, and its burette is read again', () => {
  const script = new RunScript().titrate(1, '0.4802', '0.10', '23.60').weigh(2, '0.4795');
  const next = () => nextStep(script.state, judgeRun(script.state));
  expect(next().canCarryOver).toBe(true);
  script.add('run.paused', { toId: null, remark: '' });
  expect(next().action).toBe('resume');
  script.add('run.resumed', { remark: '' });
  expect(next()).toMatchObject({ action: 'read-initial', canCarryOver: false });
  // In the middle of a titration the level stays what it was.
  script.read(2, 'initial', '0.20').add('run.paused', { toId: null, remark: '' });
  script.add('run.resumed', { remark: '' });
  expect(script.state.level?.readingMl).toBe('0.20');
});
