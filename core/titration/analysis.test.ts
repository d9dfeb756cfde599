import { describe, expect, test } from 'vitest';
import { CATALOGUE, RESULT_UNITS } from '../chemistry';
import type { PlainDate } from '../grammar';
import type { GivenSample } from '../test-support/analyses';
import { analysisOf, analysisScript } from '../test-support/analyses';
import { pipetteOf, RunScript } from '../test-support/runs';
import { idOf, stored } from '../test-support/stored';
import type { BottleState } from '../reagent';
import {
  budgetByEffect,
  combineComponents,
  minus,
  plus,
  propagate,
  sum,
  UNITS,
  withFigures,
} from '../measurement';
import type { EquipmentState } from '../metrology';
import { deliveryRepeatability } from '../metrology';
import { forecastFlask } from './figures';
import { nextStep, proposeDilution, workedOn } from './guidance';
import { differenceOf, judgeRun } from './judging';
import type { RunFact } from './record';
import { checkRunFact, checkRunStart } from './record';
import { analysisOf as analysisRunOf, readingToCarryOver, seriesOf } from './run';
import { inRuns, isAnalysis, samplesPerRun, soughtOf } from './setUp';
import { asPlanned } from './whatIf';

/** Pipettes into a flask and titrates it from zero. */
function pipette(
  script: RunScript,
  flask: number,
  volumeMl: string,
  finalMl: string,
  sampleId?: string,
): RunScript {
  return script
    .add('run.flask-pipetted', { flask, volumeMl, reason: null, ...(sampleId && { sampleId }) })
    .read(flask, 'initial', '0.00')
    .read(flask, 'final', finalMl);
}

const HYDROXIDE = { substanceId: 'sodium-hydroxide', molarity: '0.1000' };

function resultOf(script: RunScript) {
  const { result } = judgeRun(script.state);
  if (!result) throw new Error('there is no result');
  return result.evaluation;
}

describe('a content comes out as by hand', () => {
  interface Case {
    readonly analysis: string;
    readonly titrant: { readonly substanceId: string; readonly molarity: string };
    /** A mass in g, or a volume in mL. */
    readonly portion: { readonly massG: string } | { readonly volumeMl: string };
    readonly sample: GivenSample;
    readonly finalMl: string;
    /** In the unit of the sample. */
    readonly byHand: number;
  }
  test.each<[string, Case]>([
    [
      // 0.1 mol/L x 8.26 mL x 1/2 x 150.087 g/mol / 10 mL
      'titratable acidity as tartaric acid',
      {
        ...{ analysis: 'titratable-acidity', titrant: HYDROXIDE, portion: { volumeMl: '10' } },
        sample: { unit: 'g/L', as: 'C4H6O6' },
        ...{ finalMl: '8.26', byHand: (0.1 * 8.26 * 0.5 * 150.087) / 10 },
      },
    ],
    [
      'the same as sulfuric acid',
      {
        ...{ analysis: 'titratable-acidity', titrant: HYDROXIDE, portion: { volumeMl: '10' } },
        sample: { unit: 'g/L', as: 'H2SO4' },
        ...{ finalMl: '8.26', byHand: (0.1 * 8.26 * 0.5 * 98.072) / 10 },
      },
    ],
    [
      'the same in milliequivalents',
      {
        ...{ analysis: 'titratable-acidity', titrant: HYDROXIDE, portion: { volumeMl: '10' } },
        sample: { unit: 'meq/L', as: 'C4H6O6' },
        ...{ finalMl: '8.26', byHand: 82.6 },
      },
    ],
    [
      'an impure solid, % by mass',
      {
        ...{ analysis: 'khp-purity', titrant: HYDROXIDE, portion: { massG: '1.0000' } },
        sample: { unit: '% m/m', as: 'C8H5KO4' },
        ...{ finalMl: '24.48', byHand: 100 * 0.1 * 0.02448 * 204.221 },
      },
    ],
    [
      'acetic acid by mass, with the density of the vinegar',
      {
        ...{ analysis: 'acetic-acid-in-vinegar', titrant: HYDROXIDE, portion: { volumeMl: '2' } },
        sample: { unit: '% m/m', as: 'CH3COOH', density: '1.0060' },
        ...{ finalMl: '17.00', byHand: (100 * 0.1 * 0.017 * 60.052) / (2 * 1.006) },
      },
    ],
    [
      'acetic acid by volume, with the density of the pure acid',
      {
        ...{ analysis: 'acetic-acid-in-vinegar', titrant: HYDROXIDE, portion: { volumeMl: '2' } },
        sample: { unit: '% V/V', as: 'CH3COOH' },
        ...{ finalMl: '17.00', byHand: (100 * 0.1 * 0.017 * 60.052) / (2 * 1.049) },
      },
    ],
    [
      'a cleaner diluted 10 to 250, of the original',
      {
        ...{
          analysis: 'acid-in-cleaning-product',
          titrant: HYDROXIDE,
          portion: { volumeMl: '10' },
        },
        sample: { unit: 'mol/L', as: 'HCl', dilutions: [['10', '250']] },
        ...{ finalMl: '12.40', byHand: (0.1 * 12.4 * 25) / 10 },
      },
    ],
    [
      'a tablet, mg in one',
      {
        ...{ analysis: 'acid-drug-in-tablets', titrant: HYDROXIDE, portion: { massG: '0.5000' } },
        sample: { unit: 'mg/unit', as: 'C9H8O4', unitMass: '0.6000' },
        ...{ finalMl: '23.10', byHand: (0.1 * 23.1 * 180.158 * 0.6) / 0.5 },
      },
    ],
    [
      'the equivalent mass of an unknown acid',
      {
        ...{ analysis: 'unknown-solid-acid', titrant: HYDROXIDE, portion: { massG: '0.2000' } },
        sample: { unit: 'g/mol', as: null },
        ...{ finalMl: '26.65', byHand: 0.2 / (0.1 * 0.02665) },
      },
    ],
    [
      'oxalic acid by permanganate',
      {
        analysis: 'oxalic-acid-by-permanganate',
        titrant: { substanceId: 'potassium-permanganate', molarity: '0.0200' },
        portion: { volumeMl: '25' },
        sample: { unit: 'mol/L', as: 'H2C2O4' },
        ...{ finalMl: '25.10', byHand: (0.02 * 25.1 * 2.5) / 25 },
      },
    ],
    [
      'iron by dichromate, in equivalents',
      {
        analysis: 'iron-by-dichromate',
        titrant: { substanceId: 'potassium-dichromate', molarity: '0.0167' },
        portion: { volumeMl: '20' },
        sample: { unit: 'eq/L', as: 'Fe' },
        ...{ finalMl: '21.30', byHand: (0.0167 * 21.3 * 6) / 20 },
      },
    ],
    [
      'hardness in German degrees',
      {
        analysis: 'total-hardness',
        titrant: { substanceId: 'disodium-edta-dihydrate', molarity: '0.0100' },
        portion: { volumeMl: '100' },
        sample: { unit: 'German degrees', as: 'CaCO3' },
        ...{ finalMl: '26.00', byHand: 2.6 * 5.6077 },
      },
    ],
    [
      'peroxide in volumes of oxygen: 1 mol/L gives 11.2',
      {
        analysis: 'peroxide-by-permanganate',
        titrant: { substanceId: 'potassium-permanganate', molarity: '0.0200' },
        portion: { volumeMl: '5' },
        sample: { unit: 'volumes of oxygen', as: 'H2O2' },
        ...{ finalMl: '20.00', byHand: ((0.02 * 20 * 2.5) / 5) * 11.207 },
      },
    ],
    [
      'of dry matter, of which there is nine tenths',
      {
        ...{ analysis: 'khp-purity', titrant: HYDROXIDE, portion: { massG: '1.0000' } },
        sample: { unit: '% m/m', as: 'C8H5KO4', dryMatter: '90' },
        ...{ finalMl: '25.00', byHand: (100 * 0.1 * 0.025 * 204.222) / (1 * 0.9) },
      },
    ],
    [
      'an acid value, mg of potassium hydroxide for a gram',
      {
        analysis: 'acid-value',
        titrant: { substanceId: 'potassium-hydroxide', molarity: '0.1000' },
        portion: { massG: '5.0000' },
        sample: { unit: 'mg/g', as: 'KOH' },
        ...{ finalMl: '18.00', byHand: (0.1 * 18 * 56.105) / 5 },
      },
    ],
  ])('%s', (_, { analysis, titrant, portion, sample, finalMl, byHand }) => {
    const portioning = 'massG' in portion ? 'weighed' : { pipetteMl: portion.volumeMl };
    const script = analysisScript(analysis, titrant, portioning, sample);
    for (const flask of [1, 2, 3]) {
      if ('massG' in portion) script.titrate(flask, portion.massG, '0.00', finalMl);
      else pipette(script, flask, portion.volumeMl, finalMl);
    }
    const { value, combinedStandardUncertainty: u } = resultOf(script);
    expect(value / byHand).toBeCloseTo(1, 4);
    // Burette, portion, titrant and end point: some parts in a thousand.
    expect(u / value).toBeGreaterThan(0.0005);
    expect(u / value).toBeLessThan(0.01);
  });

  test('a pipette that diluted and then took the aliquots is off the same way in both', () => {
    const of = (dilutions: GivenSample['dilutions']) => {
      const sample = { unit: 'mol/L', as: 'HCl', ...(dilutions && { dilutions }) } as const;
      const script = analysisScript(
        'acid-in-cleaning-product',
        HYDROXIDE,
        { pipetteMl: '10' },
        sample,
      );
      pipette(pipette(script, 1, '10', '12.40'), 2, '10', '12.40');
      return resultOf(script);
    };
    const [plain, diluted] = [of(undefined), of([['10', '250']])];
    expect(diluted.value / plain.value).toBeCloseTo(25, 9);
    const inputs = diluted.budget.map(({ input }) => input.name);
    expect(inputs.filter((name) => name === 'calibration of P10')).toHaveLength(1);
    const relative = ({ value, combinedStandardUncertainty: u }: typeof plain): number => u / value;
    const byDilution = Math.sqrt(relative(diluted) ** 2 - relative(plain) ** 2);
    // 0.03 mL / sqrt(6) of 10 mL, twice in the same direction: (2 t)² - t²; beside it the flask, and two fillings.
    const t = 0.03 / Math.sqrt(6);
    const filling = (volumeMl: string): number => {
      const { equipment } = pipetteOf(volumeMl);
      if (equipment.type !== 'glassware') throw new Error('a pipette is glassware');
      return combineComponents(deliveryRepeatability(equipment, null)) / Number(volumeMl);
    };
    const byHand = Math.hypot((Math.sqrt(3) * t) / 10, t / 250, filling('10'), filling('250'));
    expect(byDilution / byHand).toBeCloseTo(1, 3);
  });
});

describe('a batch', () => {
  const batch = () =>
    analysisScript(
      ...(['titratable-acidity', HYDROXIDE, { pipetteMl: '10' }] as const),
      { code: 'W-1', unit: 'g/L', as: 'C4H6O6', expected: '6' },
      { code: 'W-2', unit: 'g/L', as: 'C4H6O6' },
    );

  test('has a result for each sample, and the differences are surer than the contents', () => {
    const script = batch();
    pipette(pipette(script, 1, '10', '8.26', 'sample-W-1'), 2, '10', '8.28', 'sample-W-1');
    pipette(pipette(script, 3, '10', '9.00', 'sample-W-2'), 4, '10', '9.02', 'sample-W-2');
    const results = seriesOf(script.state).map((series) => judgeRun(series).result);
    const [one, other] = results;
    if (!one || !other) throw new Error('each sample has a result');
    expect(one.evaluation.value).toBeCloseTo(6.206, 3);
    expect(other.evaluation.value).toBeCloseTo(6.761, 3);
    const difference = propagate(sum([plus(other.model), minus(one.model)]), UNITS.gramPerLitre);
    expect(difference.value).toBeCloseTo(0.555, 3);
    const byItself = Math.hypot(
      ...[one, other].map(({ evaluation }) => evaluation.combinedStandardUncertainty),
    );
    expect(difference.combinedStandardUncertainty).toBeLessThan(0.9 * byItself);
    const [first, second] = seriesOf(script.state).map(analysisRunOf);
    if (!first || !second) throw new Error('there are two samples');
    const asShown = differenceOf({ series: second, result: other }, { series: first, result: one });
    expect(asShown).toMatchObject({ value: expect.stringMatching(/^0\.55/) as string });
    // Scatter counts once for each sample; what they share has cancelled.
    expect(Number(asShown?.uncertainty)).toBeLessThan(
      Math.hypot(one.evaluation.expandedUncertainty, other.evaluation.expandedUncertainty),
    );
    // The whole has none: nothing is averaged over samples.
    expect(() => judgeRun(script.state)).toThrow('as many results as samples');
  });

  test('is worked through sample after sample, flasks numbered on, each forecast by its own sample', () => {
    const script = batch();
    const next = () => {
      const { state } = script;
      const series = workedOn(state);
      const step = nextStep(series, judgeRun(series));
      return [step.action, step.flask, seriesOf(state).indexOf(series)];
    };
    expect(next()).toEqual(['pipette', 1, 0]);
    pipette(script, 1, '10', '8.26', 'sample-W-1');
    pipette(script, 2, '10', '8.28', 'sample-W-1');
    expect(next()).toEqual(['pipette', 3, 1]);
    // The burette is one: where the last sample ended, the next goes on.
    expect(readingToCarryOver(workedOn(script.state))?.value).toBe('8.28');
    script.add('run.flask-pipetted', {
      flask: 3,
      volumeMl: '10',
      reason: null,
      sampleId: 'sample-W-2',
    });
    const [, , flask] = script.state.flasks;
    if (!flask) throw new Error('flask 3 is filled');
    expect(forecastFlask(script.state, flask, 0)).toMatchObject({ basis: 'nominal' });
    script.read(3, 'initial', '0.00').read(3, 'final', '9.00');
    pipette(script, 4, '10', '9.02', 'sample-W-2');
    expect(next()[0]).toBe('certify');
  });
});

test('whatever is entered of a batch is checked by its own sample, with the whole of it at hand', () => {
  const script = analysisScript(
    ...(['titratable-acidity', HYDROXIDE, { pipetteMl: '10' }] as const),
    { code: 'W-1', unit: 'g/L', as: 'C4H6O6', expected: '6' },
    { code: 'W-2', unit: 'g/L', as: 'C4H6O6', expected: '12' },
  );
  pipette(script, 1, '10', '8.26', 'sample-W-1');
  const second = { flask: 2, volumeMl: '10', reason: null, sampleId: 'sample-W-2' };
  script.add('run.flask-pipetted', second).read(2, 'initial', '0.00');
  const { state } = script;
  const codes = (fact: RunFact): readonly string[] =>
    checkRunFact(state, fact).map(({ code }) => code);
  const portion = state.flasks[1]?.portion.factId ?? '';
  const correction = { corrects: portion, volumeMl: '10.1', reason: 'another pipette' };
  expect(codes(script.propose('run.volume-corrected', correction))).toEqual([]);
  const final = { flask: 2, moment: 'final', carriedFrom: null, reason: null } as const;
  expect(codes(script.propose('run.burette-read', { ...final, readingMl: '16.50' }))).toEqual([]);
  // 12 g/L of it are expected, twice as much as of the first: 2 x 12 x 10 / (0.1 x 150.087) mL.
  const [, flask] = state.flasks;
  expect(flask && forecastFlask(state, flask, 0).titreMl).toBeCloseTo(15.991, 2);
  expect(codes(script.propose('run.blank-made', { flask: 3 }))).toEqual([]);
  const incident = { measured: null, waterMl: null, volumetricFlaskMl: null, remark: '' };
  const noted = { flask: 2, incidentId: 'overshot', ...incident };
  expect(() => codes(script.propose('run.incident-noted', noted))).not.toThrow();
});

describe('each way to state an analysis, of each portion that it takes', () => {
  const known = { density: '1.05', unitMass: '0.6' };
  const ways = CATALOGUE.analyses.flatMap((analysis) =>
    analysis.portions.flatMap(({ kind }) =>
      analysis.units.flatMap((unit) =>
        (analysis.statedAs.length > 0 ? analysis.statedAs : [null]).map((as) => ({
          ...{ analysis, kind, unit, as: as?.formula ?? null },
        })),
      ),
    ),
  );

  function benchFor({ analysis, kind, unit, as }: (typeof ways)[number], sample: object = known) {
    const [substanceId = ''] = analysis.titrantIds;
    const molarity = String(analysis.nominalMolarityMolPerL);
    return analysisScript(
      ...([analysis.id, { substanceId, molarity }] as const),
      kind === 'weighed' ? 'weighed' : { pipetteMl: '25' },
      { unit, as, ...sample },
    ).state;
  }
  function against(way: (typeof ways)[number], sample?: object): readonly string[] {
    const findings = checkRunStart(benchFor(way, sample).references, '2026-03-02' as PlainDate);
    return findings.map(({ code }) => code).filter((code) => NEEDS.includes(code));
  }
  const NEEDS = ['volume-needed', 'density-missing', 'unit-mass-missing'];

  test.each(
    ways.map((way) => [
      `${way.analysis.id}, ${way.kind}, ${way.unit}, ${way.as ?? 'as it is'}`,
      way,
    ]),
  )('%s: has a figure, or is refused', (_, way) => {
    const isByVolume = RESULT_UNITS[way.unit].unit.dimension.volume < 0;
    expect(against(way)).toEqual(way.kind === 'weighed' && isByVolume ? ['volume-needed'] : []);
    if (against(way).length > 0) return;
    const { setUp, references } = benchFor(way);
    expect(isAnalysis(references) && soughtOf(references).expected).toBeGreaterThan(0);
    if (way.analysis.excess === null) expect(() => asPlanned(setUp, references)).not.toThrow();
  });

  test('and says what is missing of the sample for it', () => {
    const missing = new Set(ways.flatMap((way) => against(way, {})));
    expect([...missing].toSorted()).toEqual(NEEDS.toSorted());
  });
});

test('a judgement is made once, and again when figures are written otherwise', () => {
  const given = { unit: 'g/L', as: 'C4H6O6' } as const;
  const script = analysisScript('titratable-acidity', HYDROXIDE, { pipetteMl: '10' }, given);
  const { state } = pipette(script, 1, '10', '8.26');
  const sources = () => JSON.stringify(judgeRun(state).result?.evaluation.budget);
  expect(judgeRun(state)).toBe(judgeRun(state));
  expect(sources()).toContain('± 0.05 mL');
  expect(withFigures(',', sources)).toContain('± 0,05 mL');
  expect(sources()).toContain('± 0.05 mL');
});

test('what U will come to is told beforehand, and is what the series then has', () => {
  const given = { unit: 'g/L', as: 'C4H6O6', expected: '6.2' } as const;
  const script = analysisScript('titratable-acidity', HYDROXIDE, { pipetteMl: '10' }, given);
  const { setUp, references } = script.state;
  const planned = asPlanned(setUp, references);
  // c V M / 2 V_a = 6.2 g/L at 8.26 mL.
  pipette(pipette(script, 1, '10', '8.26'), 2, '10', '8.26');
  const { value, expandedUncertainty, budget } = resultOf(script);
  expect(planned?.value).toBeCloseTo(value, 9);
  expect(planned?.expandedUncertainty).toBeCloseTo(expandedUncertainty, 9);
  expect(planned?.effects[0]?.effect).toBe(budgetByEffect(budget)[0]?.effect);
  const shares = planned?.effects.map(({ share }) => share) ?? [];
  expect(shares.reduce((sum, one) => sum + one, 0)).toBeGreaterThanOrEqual(0.8);
  // Much more than a burette holds is not planned.
  const strong = { ...given, expected: '600' };
  const beyond = analysisScript('titratable-acidity', HYDROXIDE, { pipetteMl: '10' }, strong).state;
  expect(asPlanned(beyond.setUp, beyond.references)).toBeNull();
});

describe('a certificate that ends or is corrected otherwise', () => {
  const CERTIFICATE = {
    ...{ runId: 'run-0', certificateNumber: '0417-1', molarity: '0.1000', coverageFactor: '2.00' },
    ...{ expandedUncertainty: '0.0003', unrounded: null },
    ...{ certifiedOn: '2026-03-01', validUntil: '2026-05-01' },
  } as const;
  const how = (percentCorrected: 'corrected' | 'carried', referenceC = '20') => ({
    ...{ referenceC, asMeasured: '0.1001', buoyancy: null, thermometer: null },
    temperature: { percent: '0.1', how: percentCorrected },
  });
  const against = (
    certificate: object,
    analysisId = 'titratable-acidity',
    portioning: Parameters<typeof analysisScript>[2] = { pipetteMl: '10' },
  ): readonly string[] => {
    const { statedAs, units } = analysisOf(analysisId);
    const as = statedAs[0]?.formula ?? null;
    const { references } = analysisScript(analysisId, HYDROXIDE, portioning, {
      ...{ unit: units[0] ?? 'g/L', as },
    }).state;
    if (!isAnalysis(references)) throw new Error('samples are titrated here');
    const certified = stored([{ ...CERTIFICATE, corrections: null, ...certificate }]);
    const titrant = { ...references.titrant, certified } as BottleState;
    const findings = checkRunStart({ ...references, titrant }, '2026-03-02' as PlainDate);
    return findings.map(({ code }) => code);
  };

  test('asks for a reason where the indicator is another, and where none told one end', () => {
    expect(against({ indicatorId: 'bromothymol-blue' })).toEqual([]);
    expect(against({ indicatorId: 'phenolphthalein' })).toEqual(['other-indicator']);
    expect(against({ indicatorId: null })).toEqual(['other-indicator']);
    // Nobody wrote it down in those days.
    expect(against({})).toEqual([]);
  });

  test('asks for one where a volume stands against a mass, and only there', () => {
    const weighed = (corrections: object) =>
      against({ indicatorId: 'phenolphthalein', corrections }, 'khp-purity', 'weighed');
    expect(weighed(how('carried'))).toEqual([]);
    expect(weighed(how('corrected'))).toEqual(['other-temperature-rule']);
    expect(weighed(how('carried', '25'))).toEqual(['other-temperature-rule']);
    const aliquots = { indicatorId: 'bromothymol-blue', corrections: how('corrected') };
    expect(against(aliquots)).toEqual([]);
  });
});

test('a run goes on from the level of the one before, without an entry of its own', () => {
  const given = { unit: 'g/L', as: 'C4H6O6' } as const;
  const { references, setUp } = analysisScript(
    ...(['titratable-acidity', HYDROXIDE, { pipetteMl: '10' }, given] as const),
  ).state;
  const script = new RunScript(references, {}, { ...setUp, levelMl: '12.30' });
  for (const flask of [1, 2]) {
    script.add('run.flask-pipetted', { flask, volumeMl: '10', reason: null });
  }
  expect(script.state.level).toMatchObject({ readingMl: '12.30', flask: null });
  expect(nextStep(script.state, judgeRun(script.state))).toMatchObject({
    ...{ action: 'read-initial', says: { values: { levelMl: 12.3 } } },
  });
  script.read(1, 'initial', '12.30');
  expect(script.state.level).toMatchObject({ readingMl: '12.30', flask: 1 });
});

test.each([
  [1, 2, false, [1]],
  [30, 2, false, [30]],
  [31, 2, false, [16, 15]],
  [40, 2, false, [20, 20]],
  [15, 3, true, [15]],
  [16, 3, true, [8, 8]],
])(
  '%d samples of %d determinations each are as many runs as hold them',
  (samples, atLeast, firstIsRough, sizes) => {
    const perRun = samplesPerRun({ agreeAtLeast: atLeast, firstIsRough });
    const runs = inRuns(Array.from({ length: samples }), perRun);
    expect(runs.map(({ length }) => length)).toEqual(sizes);
  },
);

describe('a dilution', () => {
  const flaskOf = (volumeMl: string): EquipmentState => {
    const pipette = pipetteOf(volumeMl);
    const equipment = { ...pipette.equipment, kind: 'volumetric-flask', name: `F${volumeMl}` };
    return { ...pipette, id: idOf(`flask-${volumeMl}`), equipment } as EquipmentState;
  };
  const WARE = [pipetteOf('2'), pipetteOf('10'), pipetteOf('25'), flaskOf('100'), flaskOf('250')];
  const proposed = (expected: string, ware = WARE) => {
    const sample = { unit: 'mol/L', as: 'HCl', expected } as const;
    const { references } = analysisScript(
      ...(['acid-in-cleaning-product', HYDROXIDE, { pipetteMl: '25' }, sample] as const),
    ).state;
    if (!isAnalysis(references)) throw new Error('samples are titrated here');
    const found = proposeDilution(references, ware);
    return found && [found.pipette.equipment.name, found.flask.equipment.name];
  };

  test('is proposed where the titre goes beyond 45 of 50 mL, by the ware that there is', () => {
    expect(proposed('0.18')).toBeNull();
    expect(proposed('0.35')).toEqual(['P25', 'F100']);
    // 250 mL undiluted: a tenth is 25, a quarter 62.
    expect(proposed('1')).toEqual(['P10', 'F100']);
    expect(proposed('2.5')).toEqual(['P10', 'F250']);
  });

  test('never takes an aliquot below 5 mL, and says nothing where none fits', () => {
    expect(proposed('10')).toBeNull();
    expect(proposed('1', [pipetteOf('2'), flaskOf('100')])).toBeNull();
  });
});
