import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { plainDate } from '#core/grammar';
import { AcidBaseCurve } from '../../equilibrium';
import { explainRun } from '../../explanation';
import { methodOf, PLAIN_RULES, references, RunScript } from '../../test-support/runs';
import { idOf } from '../../test-support/stored';
import { endsOfCurve } from './curve';
import { halfEquivalence } from './halfEquivalence';
import { curveEndsOf } from './index';
import { issueCertificate, judgeRun } from '../judging';
import { checkRunFact } from '../record';

const MASS_G = 0.48;
const WATER_ML = 75;
const START_ML = 0.3;
const AMOUNT_MMOL = (1000 * MASS_G * 0.9998) / 204.2223;

/** pH of the phthalate in its flask once so much hydroxide has run in. */
function phthalate(molarity: number): (volumeMl: number) => number {
  const curve = new AcidBaseCurve({
    flask: {
      volumeMl: WATER_ML,
      systems: [
        {
          ...{ name: 'phthalic acid', totalMolPerL: AMOUNT_MMOL / WATER_ML, pKa: [2.95, 5.41] },
          ...{ chargeFullyProtonated: 0, protonsAtStart: 1 },
        },
      ],
    },
    titrant: { kind: 'strong-base', molarityMolPerL: molarity },
    kw: 1e-14,
    activity: { kind: 'ideal' },
  });
  return (volumeMl) => curve.at(volumeMl).pH;
}

/** Readings of the burette as they are taken: far apart, then close, a little beyond the end. */
function readingsTo(endMl: number): readonly number[] {
  const coarse = Array.from({ length: 10 }, (_, i) => START_ML + ((endMl - 1.5) * i) / 10);
  const close = Array.from({ length: 30 }, (_, i) => START_ML + endMl - 1.43 + i * 0.1);
  const beyond = [2, 2.5, 3].map((past) => START_ML + endMl + past);
  return [...coarse, ...close, ...beyond].map((reading) => Number(reading.toFixed(2)));
}

/** A titration of phthalate followed by an electrode, to some millilitres beyond its end. */
function followed(molarity: number, rule = PLAIN_RULES.endPointOfCurve): RunScript {
  const rules = { ...PLAIN_RULES, firstIsRough: false, endPointOfCurve: rule };
  const script = new RunScript(references(), { rules });
  const pH = phthalate(molarity);
  script.weigh(1, String(MASS_G)).read(1, 'initial', START_ML.toFixed(2));
  const readings = readingsTo(AMOUNT_MMOL / molarity);
  for (const reading of readings) {
    script.add('run.electrode-read', {
      ...{ flask: 1, refill: 0, quantity: 'pH', flaskVolumeMl: String(WATER_ML) },
      ...{ readingMl: reading.toFixed(2), value: pH(reading - START_ML).toFixed(2) },
    });
  }
  return script.read(1, 'final', readings.at(-1)?.toFixed(2) ?? '');
}

describe('a titration followed by an electrode', () => {
  test('gives its molarity back by every way, within what it states; readings beyond the end change nothing', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.095, max: 0.115, noNaN: true }),
        fc.constantFrom('second-derivative', 'first-derivative', 'gran'),
        (molarity, rule) => {
          const { state } = followed(molarity, rule);
          const [flask] = state.flasks;
          const { counts, ends, remark } = flask
            ? curveEndsOf(state, flask)
            : { counts: null, ends: [], remark: null };
          expect(ends.map(({ way }) => way)).toHaveLength(3);
          expect([counts?.way, remark]).toEqual([rule, null]);
          const found = judgeRun(state).replicates[0]?.molarity ?? 0;
          expect(Math.abs(found / molarity - 1)).toBeLessThan(rule === 'gran' ? 0.004 : 0.0025);
        },
      ),
      { numRuns: 40 },
    );
  });

  test('the model takes the end from the curve, whatever the grade', () => {
    const script = followed(0.1012).add('run.end-point-graded', { flask: 1, grade: 'far-over' });
    const judgement = judgeRun(script.state);
    expect(judgement.result?.evaluation.value).toBeCloseTo(
      judgement.replicates[0]?.molarity ?? 0,
      12,
    );
    const line = judgement.result?.evaluation.budget.find(
      ({ input }) => input.effect === 'End point',
    );
    expect(line?.input.source).toBe('curve of the electrode');
    expect(explainRun(script.state, judgement)?.isOutOfLine).toBe(false);
    const decision = {
      number: '0417-1',
      certifiedById: idOf('ines'),
      signatures: [],
      isIndependent: true,
      reason: null,
    };
    const dates = { certifiedOn: plainDate('2026-03-02'), validUntil: plainDate('2026-04-02') };
    const certificate = issueCertificate(script.state, judgement, { ...decision, ...dates });
    expect(certificate.indicator).toBe('electrode, zero of the second derivative');
    // Half of a step of 0.10 mL, rectangular.
    expect(line?.standardUncertainty).toBeCloseTo(0.05 / Math.sqrt(3), 4);
  });

  test('a wrong point is struck out, with a reason, and read again', () => {
    const script = followed(0.1012);
    const wrong = script.facts.findLast((fact) => fact.kind === 'run.electrode-read');
    if (wrong?.kind !== 'run.electrode-read') throw new Error();
    const before = judgeRun(script.state).replicates[0]?.molarity;
    script.add('run.electrode-reading-struck', { strikes: wrong.id, reason: 'not steady' });
    const [flask] = script.state.flasks;
    expect(flask?.electrode.at(-1)?.struck).toMatchObject({ reason: 'not steady', by: 'ines' });
    expect(judgeRun(script.state).replicates[0]?.molarity).toBeCloseTo(before ?? 0, 6);
    const again = { strikes: wrong.id, reason: 'twice' };
    const fact = script.propose('run.electrode-reading-struck', again);
    expect(checkRunFact(script.state, fact).map(({ code }) => code)).toEqual(['unknown-entry']);
  });

  test('what was struck out says nothing of the flask either: neither its value nor its volume', () => {
    const endOf = (script: RunScript) => {
      const [flask] = script.state.flasks;
      return flask && curveEndsOf(script.state, flask).counts;
    };
    const script = followed(0.1012, 'gran');
    const before = endOf(script);
    script.add('run.electrode-read', {
      ...{ flask: 1, refill: 0, quantity: 'pH', readingMl: '30.00', value: '3.00' },
      flaskVolumeMl: '500',
    });
    expect(endOf(script)).not.toEqual(before);
    const strikes = script.facts.at(-1)?.id ?? idOf('');
    script.add('run.electrode-reading-struck', { strikes, reason: 'another flask' });
    expect(endOf(script)).toEqual(before);
  });

  test('points belong to the filling that they were read in', () => {
    const pH = phthalate(0.1);
    const rules = { ...PLAIN_RULES, firstIsRough: false };
    const script = new RunScript(references(), { rules });
    script.weigh(1, String(MASS_G)).read(1, 'initial', '30.00');
    const read = (refill: number, readingMl: number, volumeMl: number): void => {
      script.add('run.electrode-read', {
        ...{ flask: 1, refill, quantity: 'pH', flaskVolumeMl: null },
        ...{ readingMl: readingMl.toFixed(2), value: pH(volumeMl).toFixed(2) },
      });
    };
    for (const ml of [0, 5, 10, 15]) read(0, 30 + ml, ml);
    const refilled = { flask: 1, refill: 1, reason: null } as const;
    script.add('run.burette-refilled', { ...refilled, moment: 'stop', readingMl: '49.00' });
    script.add('run.burette-refilled', { ...refilled, moment: 'restart', readingMl: '1.00' });
    const close = Array.from({ length: 30 }, (_, i) => 22 + i * 0.1);
    for (const ml of close) read(1, 1 + ml - 19, ml);
    script.read(1, 'final', '7.00');
    expect(judgeRun(script.state).replicates[0]?.molarity).toBeCloseTo(0.1, 3);
  });

  test('what the electrode cannot show, or not now, is refused', () => {
    const script = new RunScript(references()).weigh(1, '0.4800');
    const codes = (changes: object): readonly string[] => {
      const point = { flask: 1, refill: 0, readingMl: '0.30', quantity: 'pH', value: '4.1' };
      const body = { ...point, flaskVolumeMl: null, ...changes } as const;
      const fact = script.propose('run.electrode-read', body as never);
      return checkRunFact(script.state, fact).map(({ code }) => code);
    };
    expect(codes({})).toEqual(['not-titrating']);
    script.read(1, 'initial', '0.30');
    expect(codes({})).toEqual([]);
    expect(codes({ readingMl: '0.20' })).toEqual(['reads-upwards']);
    expect(codes({ readingMl: '50.1' })).toEqual(['off-scale']);
    expect(codes({ value: '71' })).toEqual(['no-such-value']);
    expect(codes({ quantity: 'mV' })).toEqual(['other-quantity']);
    expect(codes({ refill: 1 })).toEqual(['not-titrating']);
    expect(codes({ flask: 2 })).toEqual(['unknown-flask']);
    script.add('run.electrode-read', {
      ...{ flask: 1, refill: 0, readingMl: '0.30', quantity: 'pH', value: '4.1' },
      flaskVolumeMl: null,
    });
    expect(codes({ readingMl: '0.3', value: '4.2' })).toEqual(['point-already-read']);
  });

  test('too few points, or no step among them, give no end, and say why; the last drop counts then', () => {
    const script = followed(0.1012);
    const few = script.facts.filter(
      (fact) => fact.kind !== 'run.electrode-read' || Number(fact.body.readingMl) < 10,
    );
    script.facts.splice(0, script.facts.length, ...few);
    const [flask] = script.state.flasks;
    expect(flask && curveEndsOf(script.state, flask)).toMatchObject({
      counts: null,
      remark: expect.stringMatching(/at least 5 points/) as string,
    });
    const line = judgeRun(script.state).result?.evaluation.budget.find(
      ({ input }) => input.effect === 'End point',
    );
    expect(line?.input.source).toMatch(/^drop of/);
  });

  test('permanganate shows a potential, and has no line of Gran: the second derivative takes its place', () => {
    const rules = { ...PLAIN_RULES, endPointOfCurve: 'gran' } as const;
    const method = methodOf('permanganate-by-sodium-oxalate');
    const script = new RunScript(references({ method }), { rules });
    script.weigh(1, '0.2500').read(1, 'initial', '0.00');
    for (const [readingMl, value] of [
      [36, 700],
      [36.5, 712],
      [37, 730],
      [37.2, 760],
      [37.4, 1240],
      [37.6, 1270],
      [38, 1290],
    ]) {
      script.add('run.electrode-read', {
        ...{ flask: 1, refill: 0, quantity: 'mV', flaskVolumeMl: '100' },
        ...{ readingMl: String(readingMl), value: String(value) },
      });
    }
    const [flask] = script.state.flasks;
    const ends = flask ? curveEndsOf(script.state, flask) : null;
    expect(ends?.counts?.way).toBe('second-derivative');
    expect(ends?.counts?.volumeMl).toBeCloseTo(37.3, 1);
    expect(ends?.remark).toMatch(/strong acid or base in the burette/);
  });
});

describe('a curve without a jump', () => {
  /** A very weak acid, pKa 9.5, 0.01 mol/L in 50 mL, by hydroxide of 0.1 mol/L: 5.00 mL; the display shows tenths. */
  const curve = new AcidBaseCurve({
    flask: {
      volumeMl: 50,
      systems: [
        {
          ...{ name: 'acid', totalMolPerL: 0.01, pKa: [9.5], chargeFullyProtonated: 0 },
          protonsAtStart: 1,
        },
      ],
    },
    titrant: { kind: 'strong-base', molarityMolPerL: 0.1 },
    kw: 1e-14,
    activity: { kind: 'ideal' },
  });
  const pointsTo = (endMl: number) =>
    Array.from({ length: Math.round(endMl / 0.5) + 1 }, (_, i) => ({
      volumeMl: i / 2,
      value: Number(curve.at(i / 2).pH.toFixed(2)),
    }));
  const endsOf = (endMl: number, flaskVolumeMl: number | null = 50) =>
    endsOfCurve(pointsTo(endMl), {
      ...{ method: methodOf('naoh-by-khp'), fromMl: 0, flaskVolumeMl },
      rule: 'second-derivative',
    });

  test('has Gran’s line, which needs none, where enough is known beyond the end', () => {
    const { counts, remark } = endsOf(15);
    expect(counts?.way).toBe('gran');
    expect(Math.abs((counts?.volumeMl ?? 0) - 5)).toBeLessThan(0.06);
    expect(remark).toContain('No step');
  });

  test('gives nothing where the line cannot be drawn', () => {
    expect(endsOf(15, null)).toMatchObject({ counts: null, ends: [] });
    expect(endsOf(6)).toMatchObject({ counts: null, ends: [] });
  });
});

describe('the acid of a curve, from its pH half way', () => {
  /** Of 2 mmol in 60 mL by 0.1 mol/L, to and beyond the end at 20 mL. */
  const curveWith = (pKa: number, isBase = false) => {
    const start = { name: 'it', totalMolPerL: 2 / 60, pKa: [pKa] };
    const curve = new AcidBaseCurve({
      flask: {
        volumeMl: 60,
        systems: [
          isBase
            ? { ...start, chargeFullyProtonated: 1, protonsAtStart: 0 }
            : { ...start, chargeFullyProtonated: 0, protonsAtStart: 1 },
        ],
      },
      titrant: { kind: isBase ? 'strong-acid' : 'strong-base', molarityMolPerL: 0.1 },
      kw: 1e-14,
      activity: { kind: 'ideal' },
    });
    return Array.from({ length: 24 }, (_, i) => ({ volumeMl: i, value: curve.at(i).pH }));
  };
  const given = { endMl: 20, titrantMolPerL: 0.1, flaskVolumeMl: 60 } as const;

  test.each([2.5, 4.76, 7, 9.5])('comes back for a weak acid of pKa %d', (pKa) => {
    const found = halfEquivalence(curveWith(pKa), { ...given, kind: 'base-after' });
    expect(found?.pKa).toBeCloseTo(pKa, 2);
  });

  test('and for the acid of ammonia; its ionic strength is that of the salt made so far', () => {
    const found = halfEquivalence(curveWith(9.25, true), { ...given, kind: 'acid-after' });
    expect(found?.pKa).toBeCloseTo(9.25, 2);
    // 1 mmol in 70 mL.
    expect(found?.ionicStrengthMolPerL).toBeCloseTo(1 / 70, 4);
  });

  test('is not told of a strong acid, nor by points that begin beyond half way', () => {
    const kind = 'base-after' as const;
    expect(halfEquivalence(curveWith(-3), { ...given, kind })).toBeNull();
    const late = curveWith(4.76).filter(({ volumeMl }) => volumeMl > 10);
    expect(halfEquivalence(late, { ...given, kind })).toBeNull();
  });
});
