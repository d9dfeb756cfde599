import { describe, expect, test } from 'vitest';
import { stepText } from '#core/wording';
import { excessRatioOfMethod, moleRatioOfMethod } from '#core/chemistry';
import { explainRun } from '#core/explanation';
import { plainDate } from '#core/grammar';
import { decimalText } from '#core/measurement';
import type { RunScript } from '../test-support/runs';
import { aliquots, bottleOf, made, methodOf, pipetteOf } from '../test-support/runs';
import { idOf } from '../test-support/stored';
import type { RunState } from './run';
import type { RunReferences } from './setUp';
import { forecastFlask } from './figures';
import { nextStep, suggestAliquots } from './guidance';
import { assessFlaskIncident, issueCertificate, judgeRun } from './judging';
import { checkRunFact, checkRunStart } from './record';
import { takenBy } from './run';

/** 25 mL of a chloride solution, 50 mL of 0.1002 mol/L silver nitrate, the rest by 0.0998 mol/L thiocyanate. */
function chloride(
  changes: { readonly excess?: RunReferences['excess']; readonly nominalMolarity?: string } = {},
): RunScript {
  const {
    excess = {
      bottle: bottleOf('silver-nitrate', { ...made('0.1002'), code: '0402' }),
      vessel: pipetteOf('50'),
    },
    nominalMolarity = '0.1',
  } = changes;
  return aliquots(
    'chloride-by-excess-of-silver',
    bottleOf('ammonium-thiocyanate', { ...made('0.0998'), code: '0403' }),
    { substanceId: 'sodium-chloride', nominalMolarity },
    excess,
  );
}

function fill(script: RunScript, flask: number): RunScript {
  return script.add('run.flask-pipetted', { flask, volumeMl: '25.00', reason: null });
}

function titrated(script: RunScript, flask: number, from: string, to: string): RunScript {
  return fill(script, flask).read(flask, 'initial', from).read(flask, 'final', to);
}

function flaskIn({ flasks }: RunState, number = 1) {
  const flask = flasks.find((one) => one.number === number);
  if (!flask) throw new Error(`flask ${String(number)} is not there`);
  return flask;
}

describe('a back-titration, by hand calculation', () => {
  test('c = (nu_e c_e V_e - nu c_s V) / V_a, with the uncertainty of each', () => {
    const script = titrated(chloride(), 1, '0.10', '25.20');
    const judgement = judgeRun(script.state);
    // (0.1002 x 50 - 0.0998 x 25.10) / 25.00
    expect(judgement.replicates[0]?.molarity).toBeCloseTo(0.1002008, 9);
    const evaluation = judgement.result?.evaluation;
    expect(evaluation?.value).toBeCloseTo(0.1002008, 9);
    // In mmol: both solutions 0.0005 relative; pipettes 0.03/sqrt(6) and 0.01 each; burette 0.05/sqrt(6), two
    // readings 0.02/sqrt(6), end point and its shade 0.025/sqrt(3) each. The temperature cancels.
    const pipette = Math.hypot(0.03 / Math.sqrt(6), 0.01);
    const burette = Math.hypot(
      0.05 / Math.sqrt(6),
      (Math.SQRT2 * 0.02) / Math.sqrt(6),
      0.025 / Math.sqrt(3),
      0.025 / Math.sqrt(3),
    );
    const u =
      Math.hypot(
        0.0005 * 0.1002 * 50,
        0.0005 * 0.0998 * 25.1,
        0.1002 * pipette,
        0.0998 * burette,
        0.1002 * pipette,
      ) / 25;
    expect((evaluation?.combinedStandardUncertainty ?? 0) / u).toBeCloseTo(1, 4);
    expect(takenBy(script.state).map(({ id, amount }) => [id, amount])).toEqual([
      ['bottle-ammonium-thiocyanate', expect.closeTo(12 + 49.9, 9)],
      ['bottle-1', 25],
      ['bottle-silver-nitrate', 50],
    ]);
    const decision = {
      number: '0417-1',
      certifiedById: idOf('ines'),
      signatures: [],
      isIndependent: true,
      certifiedOn: plainDate('2026-03-02'),
      validUntil: plainDate('2026-06-02'),
      reason: null,
    };
    expect(issueCertificate(script.state, judgement, decision)).toMatchObject({
      standard: 'bottle 0403 (as made), excess of 50 mL of bottle 0402 (as made)',
      measuredWith: 'P25, P50',
    });
  });

  test('carbonate takes two protons of an excess of sulfuric acid: the ratios follow the equations', () => {
    const carbonate = {
      ...methodOf('ammonia-by-excess-of-acid'),
      equations: ['CO3^2- + H^+ -> CO2 + H2O', 'H^+ + OH^- -> H2O'],
      titrant: { species: 'CO3^2-', perFormulaUnit: 1 },
      excess: {
        substanceId: 'sulfuric-acid',
        reagent: { species: 'H^+', perFormulaUnit: 2 },
      },
    };
    expect(moleRatioOfMethod(carbonate)).toBe(1 / 2);
    expect(excessRatioOfMethod(carbonate)).toBe(1);
    expect(() =>
      excessRatioOfMethod({
        ...carbonate,
        excess: { substanceId: 'ammonia', reagent: { species: 'NH3', perFormulaUnit: 1 } },
      }),
    ).toThrow(/NH3, of which there is an excess, links no two/);
  });

  test('a blank gives the whole of the excess: its molarity is no longer needed', () => {
    const script = chloride()
      .add('run.blank-made', { flask: 1 })
      .read(1, 'initial', '0.00')
      .read(1, 'final', '50.00');
    titrated(script, 2, '0.00', '24.80');
    const { result, replicates } = judgeRun(script.state);
    // 0.0998 x (50.00 - 24.80) / 25.00
    expect(replicates.map(({ verdict }) => verdict)).toEqual(['blank', 'counts']);
    expect(replicates[1]?.molarity).toBeCloseTo(0.1005984, 9);
    expect(result?.evaluation.value).toBeCloseTo(0.1005984, 9);
    const effects = result?.evaluation.budget.map(({ input }) => input.effect);
    expect(effects).not.toContain('Excess');
    expect(takenBy(script.state).at(-1)).toEqual({ id: 'bottle-silver-nitrate', amount: 100 });
  });
});

test('a blank that took nothing says nothing of the excess: its molarity counts, in the figure as in the result', () => {
  const script = chloride()
    .add('run.blank-made', { flask: 1 })
    .read(1, 'initial', '0.00')
    .read(1, 'final', '0.00');
  titrated(script, 2, '0.10', '25.20');
  const { result, replicates } = judgeRun(script.state);
  expect(replicates[1]?.molarity).toBeCloseTo(0.1002008, 9);
  expect(result?.evaluation.value).toBeCloseTo(0.1002008, 9);
  expect(result?.evaluation.budget.map(({ input }) => input.effect)).toContain('Excess');
});

test('aliquots are suggested of a standard that is in the flask only', () => {
  const methodsFor = (standardId: string): readonly string[] =>
    suggestAliquots(standardId, 0.05, [10, 20, 25, 50], 50).map(({ method }) => method.id);
  expect(methodsFor('sodium-carbonate')).toContain('hydrochloric-acid-by-sodium-carbonate');
  expect(methodsFor('sodium-carbonate')).not.toContain('carbonate-into-hydrochloric-acid');
  expect(methodsFor('ammonium-thiocyanate')).toEqual([]);
});

describe('at the bench', () => {
  test('the sentence names the excess first, the forecast is what is left of it', () => {
    const script = chloride();
    expect(stepText(nextStep(script.state, judgeRun(script.state)).says)).toBe(
      'Pipette 50 mL of bottle 0402, the excess, into flask 1, then 25 mL of bottle 0417.',
    );
    fill(script, 1);
    const forecast = forecastFlask(script.state, flaskIn(script.state), 0);
    // (0.1002 x 50 - 0.1 x 25) / 0.0998; a drop is 0.05 mL of what the 25 mL consumed.
    expect(forecast.titreMl).toBeCloseTo(25.150301, 5);
    expect(forecast.dropPercent).toBeCloseTo((100 * 0.05 * 0.0998) / 2.5, 5);
    script.add('run.blank-made', { flask: 2 });
    expect(forecastFlask(script.state, flaskIn(script.state, 2), 0).titreMl).toBeCloseTo(
      (0.1002 * 50) / 0.0998,
      6,
    );
    script.read(1, 'initial', '0.00');
    const codes = (readingMl: string) =>
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
    expect(codes('25.20')).toEqual([]);
    expect(codes('35.20')).toEqual(['titre-off-forecast']);
  });

  test('without its excess, with another one, or with too little, it does not begin', () => {
    const codes = (script: RunScript): string[] =>
      checkRunStart(script.references, plainDate('2026-03-02')).map(({ code }) => code);
    const silver = bottleOf('silver-nitrate', made('0.1002'));
    const of = (bottle: typeof silver, volumeMl: string) =>
      codes(chloride({ excess: { bottle, vessel: pipetteOf(volumeMl) } }));
    expect(codes(chloride())).toEqual([]);
    expect(codes(chloride({ excess: null }))).toEqual(['wrong-excess']);
    expect(of(bottleOf('sodium-hydroxide', made('0.1')), '50')).toEqual(['wrong-excess']);
    expect(of({ ...silver, made: null, useBy: null }, '50')).toEqual(['not-standardized']);
    expect(of({ ...silver, useBy: plainDate('2026-03-01') }, '50')).toEqual(['standard-overdue']);
    expect(of(silver, '20')).toEqual(['no-excess']);
    const direct = aliquots(
      'naoh-by-oxalic-acid',
      bottleOf('oxalic-acid-dihydrate', made('0.05')),
      {
        substanceId: 'sodium-hydroxide',
        nominalMolarity: '0.1',
      },
    );
    const excess = { bottle: silver, vessel: pipetteOf('50') };
    const wanted = checkRunStart({ ...direct.references, excess }, plainDate('2026-03-02'));
    expect(wanted.map(({ code }) => code)).toEqual(['no-excess-wanted']);
  });

  test('a portion that uses up the excess is asked about; more left than added gives no figure', () => {
    const strong = chloride({ nominalMolarity: '0.19' });
    const fact = strong.propose('run.flask-pipetted', {
      flask: 1,
      volumeMl: '25.00',
      reason: null,
    });
    expect(checkRunFact(strong.state, fact)).toMatchObject([{ code: 'excess-used-up' }]);
    const script = chloride({
      excess: { bottle: bottleOf('silver-nitrate', made('0.1002')), vessel: pipetteOf('30') },
    });
    titrated(script, 1, '0.00', '31.00');
    expect(judgeRun(script.state).replicates[0]).toMatchObject({
      verdict: 'open',
      why: { code: 'more-than-added' },
    });
  });

  test('incidents bias it as a calculation with and without them does', () => {
    const { state } = titrated(chloride(), 1, '0.10', '25.20');
    const judgement = judgeRun(state);
    const assess = (incidentId: string, volumeMl: string) =>
      assessFlaskIncident(state, judgement, flaskIn(state), {
        ...{ incidentId, waterMl: null, volumetricFlaskMl: null },
        measured: { what: 'volumeMl', value: decimalText(volumeMl) },
      });
    const molarity = (aliquotMl: number, titreMl: number): number =>
      (0.1002 * 50 - 0.0998 * titreMl) / aliquotMl;
    // A bubble of 0.25 mL was read as titrant: less seems to have been consumed.
    const bubble = assess('bubble-in-tip', '0.25');
    expect(bubble.direction).toBe('too-low');
    const low = 1 - molarity(25, 25.1) / molarity(25, 24.85);
    expect(bubble.biasPercent?.[0]).toBeCloseTo(100 * low, 6);
    // A blown-out pipette brought 0.05 mL more of what takes up the excess.
    const blown = assess('pipette-blown-out', '0.05');
    expect(blown.direction).toBe('too-high');
    expect(blown.biasPercent?.[0]).toBeCloseTo((100 * 0.05) / 25, 3);
  });

  test('a misread titre is found out in what is left of an excess too', () => {
    const script = chloride();
    titrated(script, 1, '0.00', '25.12');
    titrated(script, 2, '0.00', '25.14');
    titrated(script, 3, '0.00', '26.12');
    const diagnosis = explainRun(script.state, judgeRun(script.state));
    expect(diagnosis?.isOutOfLine).toBe(true);
    expect(diagnosis?.explanations[0]).toMatchObject({
      id: 'reading',
      suspects: expect.arrayContaining([
        expect.objectContaining({ replicateId: 'flask 3', meant: 25.12 }),
      ]) as unknown,
    });
  });
});

test('an excess from another pipette is among the explanations of a result out of line', () => {
  // Written down as 30 mL, of which 25 mL were left; the true 50 mL bring the label back.
  const script = chloride({
    excess: { bottle: bottleOf('silver-nitrate', made('0.1002')), vessel: pipetteOf('30') },
  });
  titrated(script, 1, '0.00', '25.12');
  titrated(script, 2, '0.00', '25.14');
  titrated(script, 3, '0.00', '25.13');
  const diagnosis = explainRun(script.state, judgeRun(script.state));
  const found = diagnosis?.explanations.find(({ id }) => id === 'excess-pipette');
  expect(found?.detail).toBe('50 mL of the excess went into every flask, not 30 mL');
  expect(found?.molarityMolPerL).toBeCloseTo((0.1002 * 50 - 0.0998 * 25.13) / 25, 6);
});
