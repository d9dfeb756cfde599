import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { plainDate } from '#core/grammar';
import { PlainDetermination } from '#core/determination';
import { decimalText } from '#core/measurement';
import { byWeighedStandard } from '../test-support/determinations';
import { stepText } from '#core/wording';
import {
  aliquots,
  balance,
  bottleOf,
  burette,
  concordantSeries,
  made,
  methodOf,
  PLAIN_RULES,
  references,
  RunScript,
} from '../test-support/runs';
import { netMassG } from '../metrology';
import { idOf, stored } from '../test-support/stored';
import { forecastTitre } from './figures';
import { nextStep, planSeries } from './guidance';
import {
  assessFlaskIncident,
  certificationFindings,
  comesToTheSame,
  incidentsOf,
  issueCertificate,
  judgeRun,
  seriesFault,
} from './judging';
import { checkRunFact, checkRunStart, foldRun } from './record';
import type { MeasuredIncident } from './run';
import { titrantTakenMl, titreMl } from './run';
import { buretteChecks, buretteLiquid } from './setUp';

const decision = {
  number: '0417-1',
  certifiedById: idOf('mirela'),
  signatures: [],
  isIndependent: true,
  certifiedOn: plainDate('2026-03-02'),
  validUntil: plainDate('2026-04-02'),
  reason: null,
};

describe('the published worked example (EURACHEM/CITAC CG 4, A2)', () => {
  const script = new RunScript(
    references({
      lot: {
        purity: '1.0000',
        purityHalfWidth: '0.0005',
        statedMolarMass: { valueGPerMol: '204.2212', standardUncertaintyGPerMol: '0.0038' },
      },
      balance: { ...balance, repeatabilityG: decimalText('0'), linearityG: decimalText('0.00015') },
      burette: {
        ...burette,
        construction: 'piston',
        capacityMl: '20',
        divisionMl: '0.01',
        toleranceMl: '0.03',
        dropMl: '0.01',
      },
    }),
    {
      methodRepeatabilityPercent: '0.05',
      rules: { ...PLAIN_RULES, firstIsRough: false },
    },
  ).titrate(1, '0.3888', '0.00', '18.64');

  test('gives 0.10214 mol/L with u = 0.00010 mol/L', () => {
    const result = judgeRun(script.state).result;
    expect(result?.evaluation.value.toFixed(5)).toBe('0.10214');
    const u = result?.evaluation.combinedStandardUncertainty ?? 0;
    expect(Math.abs(u - 0.0001) / 0.0001).toBeLessThan(0.05);
    expect(result?.repeatabilityFrom).toBe('method');
    expect(result?.rounded).toEqual({ value: '0.10214', uncertainty: '0.00020' });
  });

  test('its components are those of the guide', () => {
    const budget = judgeRun(script.state).result?.evaluation.budget ?? [];
    const relative = (symbol: string): number =>
      Math.abs(budget.find((line) => line.input.symbol === symbol)?.contribution ?? 0) / 0.102136;
    // The guide: purity 0.00029, molar mass 0.000019, mass 0.00033 (0.13 mg), calibration 0.012 mL, temperature 0.006 mL.
    expect(relative('P')).toBeCloseTo(0.00029, 5);
    expect(relative('M')).toBeCloseTo(0.000019, 6);
    expect(relative('δm_lin')).toBeCloseTo(0.00033, 4);
    expect(relative('δV_cal')).toBeCloseTo(0.01225 / 18.64, 5);
    expect(relative('ΔT')).toBeCloseTo(2.1e-4 * (3 / 1.96), 5);
    expect(relative('f_rep')).toBeCloseTo(0.0005, 6);
  });
});

describe('folding a run', () => {
  test('titres are exact decimals and a carried-over reading follows its correction', () => {
    const script = new RunScript()
      .weigh(1, '0.4802')
      .weigh(2, '0.4795')
      .read(1, 'initial', '0.38')
      .read(1, 'final', '22.49')
      .carryOver(2);
    const final = script.state.flasks[0]?.final;
    script.add('run.reading-corrected', {
      corrects: final?.factId ?? '',
      readingMl: '22.51',
      reason: 'read again with the card',
    });
    const [first, second] = script.state.flasks;
    expect(first && titreMl(first)).toBe('22.13');
    expect(second?.initial).toMatchObject({ value: '22.51', carriedFromFlask: 1 });
    expect(first?.final?.superseded).toMatchObject([
      { value: '22.49', reason: 'read again with the card', by: 'ines' },
    ]);
    expect(titrantTakenMl(script.state)).toBeCloseTo(12 + 49.62, 9);
  });

  test('a fact that arrives twice counts once', () => {
    const { facts, references: refs } = concordantSeries();
    const once = foldRun(facts, refs);
    fc.assert(
      fc.property(fc.array(fc.nat(facts.length - 1), { maxLength: 20 }), (repeats) => {
        const again = [...facts, ...repeats.flatMap((index) => facts[index] ?? [])];
        expect(foldRun(again, refs)).toEqual(once);
      }),
    );
  });

  test('the first titration is the rough one, even when it is voided later', () => {
    const script = concordantSeries().add('run.flask-voided', { flask: 1, reason: 'spilt' });
    expect(script.state.flasks.map((flask) => flask.isRough)).toEqual([true, false, false, false]);
    const judged = judgeRun(script.state).replicates.map((replicate) => replicate.verdict);
    expect(judged).toEqual(['void', 'counts', 'counts', 'counts']);
  });
});

describe('judging', () => {
  test('the order in which flasks are titrated does not change the result', () => {
    const flasks = [
      ['0.4795', '0.05', '23.44'],
      ['0.4811', '23.44', '46.91'],
      ['0.4788', '0.00', '23.37'],
    ] as const;
    const refs = references();
    const rules = { ...PLAIN_RULES, firstIsRough: false };
    const valueOf = (order: readonly (typeof flasks)[number][]): number | undefined => {
      const script = new RunScript(refs, { rules });
      order.forEach(([massG, initialMl, finalMl], i) => {
        script.titrate(i + 1, massG, initialMl, finalMl);
      });
      return judgeRun(script.state).result?.evaluation.value;
    };
    expect(valueOf(flasks.toReversed())).toBeCloseTo(valueOf(flasks) ?? 0, 14);
  });

  test('varying effects enter once: from the scatter when it is larger, else from the inputs', () => {
    const close = judgeRun(concordantSeries().state).result;
    expect(close?.repeatabilityFrom).toBe('inputs');
    const share = (effect: string, of: typeof close): number =>
      of?.evaluation.budget
        .filter((line) => line.input.effect === effect)
        .reduce((total, line) => total + line.share, 0) ?? Number.NaN;
    expect(share('Repeatability', close)).toBe(0);
    expect(share('End point', close)).toBeGreaterThan(0.05);

    const scattered = new RunScript(references(), {
      rules: { ...PLAIN_RULES, firstIsRough: false, concordanceRelativeRangePercent: '2' },
    })
      .titrate(1, '0.4800', '0.00', '23.30')
      .titrate(2, '0.4800', '0.00', '23.50')
      .titrate(3, '0.4800', '0.00', '23.70');
    const wide = judgeRun(scattered.state).result;
    expect(wide?.repeatabilityFrom).toBe('scatter');
    expect(share('End point', wide) + share('Readings', wide)).toBe(0);
    expect(share('Repeatability', wide)).toBeGreaterThan(0.5);
    expect(wide?.evaluation.effectiveDegreesOfFreedom).toBeLessThan(6);
  });

  test('a titration outside the concordant set is not averaged but still shows in s', () => {
    const script = concordantSeries().titrate(5, '0.4800', '0.00', '23.70');
    const judgement = judgeRun(script.state);
    expect(judgement.replicates.at(-1)).toMatchObject({ verdict: 'set-aside' });
    expect(judgement.averaged?.n).toBe(3);
    expect(judgement.accurate?.n).toBe(4);
    expect(certificationFindings(script.state, judgement, decision).map((f) => f.code)).toEqual([
      'set-aside-without-fault',
    ]);
  });
});

describe('guarding entries', () => {
  const started = new RunScript().weigh(1, '0.4802').weigh(2, '0.4795').read(1, 'initial', '0.10');
  const reading = (flask: number, moment: 'initial' | 'final', readingMl: string) =>
    started.propose('run.burette-read', {
      flask,
      moment,
      readingMl,
      carriedFrom: null,
      reason: null,
    });
  const weighed = (massG: string) =>
    started.propose('run.flask-weighed', {
      flask: 3,
      weighing: { mode: 'tared', massG },
      reason: null,
    });
  const difference = (beforeG: string, afterG: string) =>
    started.propose('run.flask-weighed', {
      flask: 3,
      weighing: { mode: 'by-difference', beforeG, afterG },
      reason: null,
    });

  test.each([
    ['off the scale', reading(1, 'final', '51.00'), 'impossible', 'off-scale'],
    ['negative', reading(1, 'final', '-1.00'), 'impossible', 'off-scale'],
    ['upwards', reading(1, 'final', '0.05'), 'impossible', 'reads-upwards'],
    ['no titre', reading(1, 'final', '0.10'), 'impossible', 'reads-upwards'],
    ['read already', reading(1, 'initial', '0.20'), 'impossible', 'already-read'],
    ['another under the burette', reading(2, 'initial', '0.10'), 'impossible', 'burette-busy'],
    ['no initial reading', reading(2, 'final', '20.00'), 'impossible', 'no-initial-reading'],
    ['not weighed', reading(7, 'initial', '0.00'), 'impossible', 'unknown-flask'],
    ['one decimal', reading(1, 'final', '23.6'), 'unlikely', 'decimals'],
    ['far from the forecast', reading(1, 'final', '33.60'), 'unlikely', 'titre-off-forecast'],
    ['no mass', weighed('0.0000'), 'impossible', 'no-mass'],
    ['a negative mass', weighed('-0.4800'), 'impossible', 'negative-mass'],
    ['less than it shows', weighed('0.000000000001'), 'impossible', 'below-readability'],
    ['just less than it shows', weighed('0.00009'), 'impossible', 'below-readability'],
    ['over the balance', weighed('300.0000'), 'impossible', 'over-max-load'],
    ['forty grams', weighed('40.0000'), 'unlikely', 'portion-too-large'],
    ['a slipped point', weighed('0.0480'), 'unlikely', 'portion-too-small'],
    ['a digit not written', weighed('0.480'), 'unlikely', 'decimals'],
    ['the same mass twice', difference('20.1000', '20.1000'), 'impossible', 'same-mass'],
  ])('%s', (_, fact, severity, code) => {
    expect(checkRunFact(started.state, fact)).toMatchObject([{ severity, code }]);
  });

  test('a vessel weighed empty and then full holds as much as a bottle that lost it', () => {
    const full = difference('20.1000', '20.5800');
    expect(checkRunFact(started.state, full)).toEqual([]);
    const [emptied, filled] = [
      { mode: 'by-difference', beforeG: '20.5800', afterG: '20.1000' } as const,
      { mode: 'by-difference', beforeG: '20.1000', afterG: '20.5800' } as const,
    ].map((weighing) => netMassG(stored(weighing)));
    expect([emptied, filled]).toEqual(['0.4800', '0.4800']);
  });

  test('good entries pass', () => {
    expect(checkRunFact(started.state, reading(1, 'final', '23.60'))).toEqual([]);
    expect(checkRunFact(started.state, weighed('0.4811'))).toEqual([]);
    expect(checkRunFact(started.state, difference('20.5811', '20.1000'))).toEqual([]);
  });

  test('the reading that was probably meant is named', () => {
    // True end points near 23.60: read ten too far, and read upwards between 23 and 24.
    const strayed = checkRunFact(started.state, reading(1, 'final', '33.60'));
    expect(strayed[0]?.values).toMatchObject({ slip: { meant: '23.60' } });
    const known = concordantSeries().weigh(5, '0.4800').read(5, 'initial', '0.00');
    const upwards = known.propose('run.burette-read', {
      flask: 5,
      moment: 'final',
      readingMl: '24.57',
      carriedFrom: null,
      reason: null,
    });
    const [read] = checkRunFact(known.state, upwards);
    expect(read?.values).toMatchObject({
      slip: { kind: 'wrong-mark', meant: '23.43' },
    });
  });

  test('a burette that cannot hold the titration is said before it starts', () => {
    const script = new RunScript().weigh(1, '0.4802');
    const far = script.propose('run.burette-read', {
      flask: 1,
      moment: 'initial',
      readingMl: '30.00',
      carriedFrom: null,
      reason: null,
    });
    expect(checkRunFact(script.state, far)).toMatchObject([{ code: 'will-not-hold' }]);
  });

  test('overdue equipment and an expired lot ask for a reason at the start', () => {
    const refs = references({ lot: { useBy: '2026-02-01' } });
    expect(checkRunStart(refs, plainDate('2026-12-24')).map((finding) => finding.code)).toEqual([
      'lot-expired',
      'calibration-overdue',
    ]);
  });
});

describe('a series that does not agree', () => {
  const rules = { ...PLAIN_RULES, firstIsRough: false };
  const faultOf = (titres: readonly string[]) => {
    const script = new RunScript(references(), { rules });
    titres.forEach((titre, i) => script.titrate(i + 1, '0.4800', '0.00', titre));
    const judgement = judgeRun(script.state);
    return { fault: seriesFault(judgement), next: nextStep(script.state, judgement) };
  };

  test('one that stands out, a drift and mere scatter are told apart', () => {
    expect(faultOf(['23.40', '23.55']).fault).toBeNull();
    const spread = ['23.30', '23.42', '23.54', '23.66', '23.78', '23.90'];
    const drift = faultOf(spread);
    // c = n / V: a titre that grows by 0.12 mL of 23.60 each time.
    expect(drift.fault).toMatchObject({ kind: 'drift' });
    expect(stepText(drift.next.says)).toMatch(
      /^Stop: 6 titrations and no 3 of them agree.*They fall by 0\.51 % from one to the next/,
    );
    const shuffled = faultOf([3, 0, 5, 1, 4, 2].map((i) => spread[i] ?? ''));
    expect(shuffled.fault?.kind).toBe('scatter');
    const outlier = faultOf(['23.40', '23.48', '23.45', '23.52', '25.90']);
    expect(outlier.fault).toMatchObject({ kind: 'outlier', flask: 5, test: 'grubbs' });
  });
});

describe('planning and what comes next', () => {
  test('the mass aims at two titrations from one filling, within 40 to 90 % of the burette', () => {
    const phthalate = new PlainDetermination(byWeighedStandard(204.22));
    const plan = planSeries(phthalate, 0.1, burette, PLAIN_RULES, null);
    expect(plan.portion.suggested).toBeCloseTo(0.48, 2);
    expect(plan.portion.least).toBeCloseTo(0.408, 3);
    expect(plan.portion.most).toBeCloseTo(0.919, 3);
    // 3 rinses of 4, two tips of 2, five titrations of 23.5 (rough, three, one in reserve), a blank
    expect(plan.titrantTotalMl).toBeCloseTo(12 + 4 + 5 * 23.5 + 1, 9);
  });

  test('the forecast is wide on the label, narrow after a titration', () => {
    const script = new RunScript().weigh(1, '0.4802').weigh(2, '0.4795');
    const byLabel = forecastTitre(script.state, 0.4802, 0.1);
    expect(byLabel).toMatchObject({ basis: 'nominal', onBurette: { holds: true } });
    expect(byLabel.titreMl).toBeCloseTo(23.51, 2);
    script.read(1, 'initial', '0.10').read(1, 'final', '23.00');
    const learnt = forecastTitre(script.state, 0.4795, 23);
    expect(learnt.basis).toBe('rough');
    expect(learnt.titreMl).toBeCloseTo((22.9 * 0.4795) / 0.4802, 3);
    expect(learnt.halfBandMl).toBeLessThan(byLabel.halfBandMl / 3);
    expect(learnt.onBurette?.runFreelyTo).toBeLessThan(23 + learnt.titreMl - 2);
  });

  test('a series leads from weighing to stopping', () => {
    const script = new RunScript();
    const next = () => nextStep(script.state, judgeRun(script.state));
    expect(stepText(next().says)).toBe('Weigh about 0.48 g of KHP into flask 1.');
    script.weigh(1, '0.4802').weigh(2, '0.4795').weigh(3, '0.4811').weigh(4, '0.4788');
    expect(next()).toMatchObject({ action: 'read-initial', flask: 1, canCarryOver: false });
    script.read(1, 'initial', '0.10');
    expect(next()).toMatchObject({ action: 'read-final', flask: 1 });
    script.read(1, 'final', '23.60');
    expect(next()).toMatchObject({ action: 'read-initial', flask: 2, canCarryOver: true });
    script.carryOver(2).read(2, 'final', '46.99');
    expect(next().says).toMatchObject({ code: 'refill-for', values: { flask: 3 } });
    script
      .read(3, 'initial', '0.00')
      .read(3, 'final', '23.47')
      .carryOver(4)
      .read(4, 'final', '46.99');
    expect(next()).toMatchObject({ action: 'weigh', flask: 5 });
    expect(next().says.values.why).toMatchObject({ because: 'spread', limit: '0.3 %' });
    script.titrate(5, '0.4800', '0.00', '23.42');
    expect(next()).toMatchObject({ action: 'certify' });
  });

  test('six tries without agreement say stop', () => {
    const rules = { ...PLAIN_RULES, firstIsRough: false };
    const script = new RunScript(references(), { rules });
    for (let i = 1; i <= 6; i += 1) {
      script.titrate(i, '0.4800', '0.00', `23.${String(10 * i)}`);
    }
    expect(nextStep(script.state, judgeRun(script.state)).action).toBe('stop');
  });
});

describe('certifying', () => {
  test('freezes what counted, and nothing can be added after', () => {
    const script = concordantSeries();
    const certificate = issueCertificate(script.state, judgeRun(script.state), decision);
    expect(certificate).toMatchObject({
      number: '0417-1',
      replicatesMade: 4,
      replicatesAveraged: 3,
      standard: 'lot K-22',
      measuredWith: 'B1',
      runVersion: script.facts.length,
    });
    expect(certificate.molarity).toMatch(/^0\.100\d+$/);
    script.add('run.certified', { certificate });
    const late = script.propose('run.flask-voided', { flask: 2, reason: 'regret' });
    expect(checkRunFact(script.state, late)).toMatchObject([{ code: 'run-closed' }]);
    expect(certificationFindings(script.state, judgeRun(script.state), decision)[0]?.code).toBe(
      'run-closed',
    );
  });

  test('its figures are the same after a change in the last bits of value, u and k, not after a real one', () => {
    const { state } = concordantSeries();
    const judgement = judgeRun(state);
    const evaluation = judgement.result?.evaluation;
    if (!evaluation) throw new Error('the series has no result');
    const certificate = issueCertificate(state, judgement, decision);
    const isSame = (change: Partial<typeof evaluation>): boolean =>
      comesToTheSame(certificate, { ...evaluation, ...change });
    const { value, combinedStandardUncertainty: u } = evaluation;
    expect(isSame({})).toBe(true);
    expect(isSame({ value: value * (1 + 9e-13) })).toBe(true);
    expect(isSame({ value: value * (1 - 2e-12) })).toBe(false);
    expect(isSame({ combinedStandardUncertainty: u * (1 - 9e-13) })).toBe(true);
    expect(isSame({ combinedStandardUncertainty: u * (1 + 2e-12) })).toBe(false);
    // The certificate keeps k with two decimals.
    const k = Number(certificate.coverageFactor);
    expect(isSame({ coverageFactor: k - 0.005 })).toBe(true);
    expect(isSame({ coverageFactor: k + 0.0051 })).toBe(false);
  });

  test('too few, too far from the label or too long a validity needs a reason', () => {
    const rules = { ...PLAIN_RULES, firstIsRough: false };
    const script = new RunScript(references(), { rules }).titrate(1, '0.4800', '0.00', '18.00');
    const found = certificationFindings(script.state, judgeRun(script.state), {
      certifiedOn: plainDate('2026-03-02'),
      validUntil: plainDate('2026-06-02'),
    });
    expect(found.map((finding) => finding.code)).toEqual([
      'not-concordant',
      'far-from-nominal',
      'valid-too-long',
    ]);
    expect(found.every((finding) => finding.severity === 'unlikely')).toBe(true);
  });
});

describe('incidents', () => {
  const unsized = { measured: null, waterMl: null, volumetricFlaskMl: null, remark: '' } as const;
  const noted = (script: RunScript, flask: number, incidentId: string) =>
    script.add('run.incident-noted', { flask, incidentId, ...unsized });
  const sized = (
    script: RunScript,
    incidentId: string,
    what: MeasuredIncident['what'],
    value: string,
    flask = 2,
  ) =>
    script.add('run.incident-noted', {
      ...{ flask, incidentId, ...unsized },
      measured: { what, value },
    });

  test('are judged on the numbers of their flask, and by what was measured', () => {
    const { state } = concordantSeries();
    const [, flask] = state.flasks;
    if (!flask) throw new Error('no flask');
    const judgement = judgeRun(state);
    const one = { incidentId: 'bubble-in-tip', waterMl: null, volumetricFlaskMl: null };
    const usual = assessFlaskIncident(state, judgement, flask, { ...one, measured: null });
    expect(usual).toMatchObject({ verdict: 'void', direction: 'too-low' });
    const measured = { what: 'volumeMl', value: '0.24' } as const;
    const bubble = assessFlaskIncident(state, judgement, flask, {
      ...one,
      measured: stored(measured),
    });
    // 0.24 mL of a titre of 23.39 mL.
    expect(bubble.biasPercent?.[0]).toBeCloseTo((100 * 0.24) / 23.39, 9);
    // 20 mL of water of 4 mmol/L alkalinity, in mL of 0.1 mol/L.
    const tap = assessFlaskIncident(state, judgement, flask, {
      ...{ incidentId: 'tap-water', volumetricFlaskMl: null, waterMl: decimalText('20') },
      measured: { what: 'alkalinityMmolPerL', value: decimalText('4') },
    });
    expect(tap.titreMl?.[0]).toBeCloseTo((0.02 * 4) / (judgement.averaged?.mean ?? 0), 9);
    expect(incidentsOf(state).map(({ id }) => id)).not.toContain('iron-left-in-air');
  });

  test('one that spoils a titration which counts asks for a reason before certifying; a void one does not', () => {
    const script = noted(concordantSeries(), 2, 'bubble-in-tip');
    const codesOf = ({ state }: RunScript) =>
      certificationFindings(state, judgeRun(state), {
        certifiedOn: plainDate('2026-03-02'),
        validUntil: plainDate('2026-03-20'),
      }).map(({ code }) => code);
    expect(codesOf(script)).toContain('incident-unresolved');
    script.add('run.flask-voided', { flask: 2, reason: 'bubble' });
    expect(codesOf(script)).not.toContain('incident-unresolved');
    expect(codesOf(noted(concordantSeries(), 2, 'flask-wet-with-water'))).not.toContain(
      'incident-unresolved',
    );
  });

  test('its verdict stands until it is followed: to act, to discard, to correct where no size says by how much', () => {
    const unresolved = ({ state }: RunScript) =>
      certificationFindings(state, judgeRun(state), {
        certifiedOn: plainDate('2026-03-02'),
        validUntil: plainDate('2026-03-20'),
      }).flatMap(({ code, values }) => (code === 'incident-unresolved' ? [values] : []));
    expect(unresolved(sized(concordantSeries(), 'bubble-in-tip', 'volumeMl', '0.02'))).toEqual([]);
    expect(unresolved(noted(concordantSeries(), 2, 'wrong-figure'))).toMatchObject([
      { flask: 2, verdict: 'correct' },
    ]);
    const bracketed = new RunScript(references(), {
      rules: { ...PLAIN_RULES, firstIsRough: false },
    })
      .weigh(1, '0.4800')
      .read(1, 'initial', '0.00')
      .add('run.provisional-read', { flask: 1, readingMl: '23.48' })
      .read(1, 'final', '23.52')
      .add('run.end-point-graded', { flask: 1, grade: 'far-over' });
    expect(unresolved(noted(bracketed, 1, 'overshot-bracketed'))).toEqual([]);
    expect(unresolved(noted(concordantSeries(), 2, 'read-at-once'))).toMatchObject([
      { verdict: 'act-now' },
    ]);
    // A standard solution that was filled past its mark is so for every flask, also beside one that was voided.
    const script = aliquots(
      'hydroxide-by-hydrochloric-acid',
      bottleOf('hydrochloric-acid', made('0.1000')),
      { substanceId: 'sodium-hydroxide', nominalMolarity: '0.1' },
    );
    for (const flask of [1, 2]) {
      script.add('run.flask-pipetted', { flask, volumeMl: '25', reason: null });
      script.read(flask, 'initial', '0.00').read(flask, 'final', '25.00');
    }
    noted(script, 2, 'filled-past-mark');
    script.add('run.flask-voided', { flask: 2, reason: 'spilt' });
    expect(unresolved(script)).toMatchObject([{ flask: 2, verdict: 'discard-solution' }]);
  });

  test('one of measured size corrects its titre, and its uncertainty stays whatever the scatter', () => {
    const rules = { ...PLAIN_RULES, firstIsRough: false };
    const series = (last: string): RunScript =>
      ['23.40', '23.50', last].reduce(
        (script, titre, i) => script.titrate(i + 1, '0.4800', '0.00', titre),
        new RunScript(references(), { rules: { ...rules, weighedConcordance: 'none' } }),
      );
    const resultIn = (script: RunScript) => {
      const { result } = judgeRun(script.state);
      if (!result) throw new Error('the series has no result');
      return result;
    };
    // A bubble of 0.20 mL was read as titrant: 23.80 is 23.60.
    const bubble = resultIn(sized(series('23.80'), 'bubble-in-tip', 'volumeMl', '0.20', 3));
    const without = resultIn(series('23.60'));
    expect(bubble.evaluation.value).toBeCloseTo(without.evaluation.value, 12);
    expect(bubble.repeatabilityFrom).toBe('scatter');
    const line = bubble.evaluation.budget.find(({ input }) => input.effect === 'Incidents');
    // Two readings of 0.02 mL triangular, of one titre in three.
    const uMl = (Math.SQRT2 * 0.02) / Math.sqrt(6);
    expect(line?.standardUncertainty).toBeCloseTo(uMl, 9);
    expect((line?.contribution ?? 0) / bubble.evaluation.value).toBeCloseTo(
      -uMl / 23.6 ** 2 / (1 / 23.4 + 1 / 23.5 + 1 / 23.6),
      9,
    );
    // 0.0100 g left on the boat: 0.4800 g as weighed were 0.4700 g. The titre is made as long as for all of it.
    const spilt = sized(series('23.01'), 'solid-left-behind', 'massG', '0.0100', 3);
    const molarity = judgeRun(spilt.state).replicates[2]?.molarity ?? Number.NaN;
    expect(molarity).toBeCloseTo((1000 * 0.47 * 0.9998) / 204.2223 / 23.01, 7);
    // An indicator that a blank took off is not taken off twice.
    const drops = sized(series('23.60'), 'too-much-indicator', 'drops', '10', 3);
    const corrected = judgeRun(drops.state).replicates[2]?.molarity ?? Number.NaN;
    // 10 drops of 0.05 mL of 0.5 % at 320 g/mol take 0.078 mL of 0.1 mol/L at most, half of it at least.
    expect(corrected).toBeCloseTo((1000 * 0.48 * 0.9998) / 204.2223 / (23.6 - 0.0586), 5);
    drops.add('run.blank-made', { flask: 4 }).read(4, 'initial', '0.00').read(4, 'final', '0.08');
    const byBlank = judgeRun(drops.state).replicates[2]?.molarity ?? Number.NaN;
    expect(byBlank).toBeCloseTo((1000 * 0.48 * 0.9998) / 204.2223 / 23.52, 7);
  });

  test('a fault at the last look at the burette asks for a reason, until it is looked at again', () => {
    const codes = ({ state }: RunScript) =>
      certificationFindings(state, judgeRun(state), {
        certifiedOn: plainDate('2026-03-02'),
        validUntil: plainDate('2026-03-20'),
      }).map(({ code }) => code);
    const faults = [{ checkId: 'leak', remark: 'a drop in 20 s' }];
    const script = concordantSeries().add('run.burette-checked', { faults });
    expect(codes(script)).toContain('burette-fault');
    expect(codes(script.add('run.burette-checked', { faults: [] }))).not.toContain('burette-fault');
  });

  test('what cannot happen in such a run, or to a flask that is not there, is refused', () => {
    const { state } = concordantSeries();
    const check = (flask: number, incidentId: string) =>
      checkRunFact(
        state,
        new RunScript().propose('run.incident-noted', {
          flask,
          incidentId,
          ...unsized,
        }),
      ).map(({ code }) => code);
    expect(check(2, 'bubble-in-tip')).toEqual([]);
    expect(check(9, 'bubble-in-tip')).toEqual(['unknown-flask']);
    expect(check(2, 'earthquake')).toEqual(['unknown-incident']);
  });
});

test('the burette is looked over before the first reading; what was off is kept, the edge follows the titrant', () => {
  const script = new RunScript().weigh(1, '0.4802');
  const faults = [{ checkId: 'tip', remark: 'a bubble, let out' }];
  const { state } = script.add('run.burette-checked', { faults });
  expect(state.buretteChecked).toMatchObject([{ faults, by: 'ines' }]);
  const other = script.propose('run.burette-checked', { faults: [{ checkId: 'x', remark: '' }] });
  expect(checkRunFact(state, other).map(({ code }) => code)).toEqual(['unknown-check']);
});

test.each<[string, string, string, Partial<typeof PLAIN_RULES>, string | null, string]>([
  ['permanganate', 'permanganate-by-sodium-oxalate', '0.02', {}, 'violet', 'top'],
  [
    'permanganate by a house that reads the bottom',
    'permanganate-by-sodium-oxalate',
    '0.02',
    { darkMeniscus: 'bottom' },
    'violet',
    'bottom',
  ],
  // So weak that light falls through to the bottom of the meniscus.
  ['weak permanganate', 'permanganate-by-sodium-oxalate', '0.001', {}, 'violet', 'bottom'],
  ['dichromate', 'dichromate-by-iron-ii', '0.0167', {}, 'orange', 'bottom'],
  // Starch shows its end, and yet it is dark.
  ['iodine', 'iodine-by-thiosulfate', '0.05', {}, 'brown', 'top'],
  ['hydroxide', 'naoh-by-khp', '0.1', {}, null, 'bottom'],
])('%s is drawn and read as it looks', (_, methodId, nominalMolarity, rules, word, readAt) => {
  const method = methodOf(methodId);
  const run = references({
    method,
    bottle: bottleOf(method.titrantIds[0] ?? '', { nominalMolarity }),
  });
  const liquid = buretteLiquid(run, { ...PLAIN_RULES, ...rules });
  expect(liquid).toMatchObject({ word, readAt });
  expect(liquid.css).toEqual(word === null ? null : expect.stringMatching(/^#[0-9a-f]{6}$/));
  const check = buretteChecks(run, { ...PLAIN_RULES, ...rules }).find(
    ({ id }) => id === 'meniscus',
  );
  expect(check?.text).toContain(`the ${readAt} of the meniscus`);
});
