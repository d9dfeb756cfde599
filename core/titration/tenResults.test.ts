import { describe, expect, test } from 'vitest';
import type { Plain } from '#core/grammar';
import type { HouseRules } from '#core/laboratory';
import type { Evaluation } from '#core/measurement';
import { keptFreedom, originsOf } from '#core/measurement';
import { resultOf } from '#core/preparation';
import type { BottleState } from '#core/reagent';
import {
  PreparationScript,
  planOf,
  recordsWith,
  standardBottle,
} from '../test-support/preparations';
import {
  PLAIN_RULES,
  aliquots,
  bottleOf,
  made,
  pipetteOf,
  references,
  RunScript,
  thermometer,
} from '../test-support/runs';
import { stored } from '../test-support/stored';
import { judgeRun } from './judging';
import type { RunSetUp } from './setUp';

/** Value, u and k that `docs/checks/ten_results.py` computes from the same readings, by numerical differentiation. */
const SECOND = {
  '15 °C, corrected': [0.099868966, 1.2682e-4, 1.96],
  '30 °C, corrected, in air': [0.100259027, 1.3342e-4, 1.96],
  '25 °C, carried, scatter': [0.0999966, 2.1702e-4, 2.5706],
  'two blanks, scatter': [0.09982668, 1.8752e-4, 2.5706],
  'n = 2, pooled': [0.099996183, 1.3297e-4, 1.9694],
  'n = 3, pooled with six series': [0.099996213, 1.2851e-4, 1.9625],
  'balance with a certificate': [0.100053597, 1.3145e-4, 1.96],
  'a chain of two standards': [0.100401606, 2.2496e-4, 1.96],
  'three dilutions': [0.00080048, 2.1309e-6, 1.96],
  'a back-titration': [0.1002008, 1.897e-4, 1.96],
} as const;

interface Weighed {
  readonly titres: readonly string[];
  readonly rules?: Partial<Plain<HouseRules>>;
  readonly setUp?: Partial<Plain<RunSetUp>>;
  readonly with?: Parameters<typeof references>[0];
  readonly blanks?: readonly string[];
}

function evaluated(script: RunScript): Evaluation {
  const { result } = judgeRun(script.state);
  if (!result) throw new Error('the series has no result');
  return result.evaluation;
}

/** 0.4800 g of phthalate each. */
function weighed({
  titres,
  rules = {},
  setUp = {},
  with: records = {},
  blanks = [],
}: Weighed): Evaluation {
  const script = new RunScript(references(records), {
    rules: { ...PLAIN_RULES, firstIsRough: false, weighedConcordance: 'none', ...rules },
    ...setUp,
  });
  titres.forEach((titre, i) => script.titrate(i + 1, '0.4800', '0.00', titre));
  blanks.forEach((titre, i) => {
    const flask = titres.length + 1 + i;
    script.add('run.blank-made', { flask });
    script.read(flask, 'initial', '0.00').read(flask, 'final', titre);
  });
  return evaluated(script);
}

const ALIKE = ['23.50', '23.51', '23.52'];
const READ_ON_T1 = { with: { thermometer }, rules: { volumeCorrection: 'corrected' } } as const;
const onT1 = (temperatureC: string) => ({ temperatureC, thermometer: { id: 'T1', version: 1 } });

/** Titres of aliquots of 25 mL. */
function titrated(script: RunScript, titreMl: string, n: number, initialMl = '0.00'): RunScript {
  for (let flask = 1; flask <= n; flask += 1) {
    script.add('run.flask-pipetted', { flask, volumeMl: '25', reason: null });
    script.read(flask, 'initial', initialMl).read(flask, 'final', titreMl);
  }
  return script;
}

/** Acid by carbonate, and hydroxide by that acid, on one burette with one pipette. */
function chain(): Evaluation {
  const carbonate = bottleOf('sodium-carbonate', made('0.05012'));
  const acid = { substanceId: 'hydrochloric-acid', nominalMolarity: '0.1' };
  const first = evaluated(
    titrated(aliquots('hydrochloric-acid-by-sodium-carbonate', carbonate, acid), '25.06', 3),
  );
  const certified: Partial<Plain<BottleState>> = {
    made: {
      ...{ molarity: '0.1', expandedUncertainty: '0.0001', coverageFactor: '1.96' },
      unrounded: {
        molarity: first.value,
        standardUncertainty: first.combinedStandardUncertainty,
        effectiveDegreesOfFreedom: keptFreedom(first),
        restsOn: originsOf(first),
      },
    },
    useBy: '2026-12-31',
  };
  const hydroxide = { substanceId: 'sodium-hydroxide', nominalMolarity: '0.1' };
  const passedOn = bottleOf('hydrochloric-acid', certified);
  return evaluated(
    titrated(aliquots('hydroxide-by-hydrochloric-acid', passedOn, hydroxide), '24.90', 3),
  );
}

function dilutions(): Evaluation {
  const stages = ['F100', 'F100', 'F250'].map((flaskId) => ({ pipetteId: 'V10', flaskId }));
  const parent = standardBottle();
  const plan = planOf(
    { kind: 'dilute', from: { kind: 'bottle', bottleId: parent.id }, stages },
    { soluteId: 'sodium-chloride', targetMolarity: '0.0008' },
  );
  const result = resultOf(new PreparationScript(plan).state, recordsWith([], [parent]));
  if (result?.kind !== 'made') throw new Error('the dilution is known from how it was made');
  return result.evaluation;
}

function back(): Evaluation {
  const silver = bottleOf('silver-nitrate', { code: '0402', ...made('0.1002') });
  const thiocyanate = bottleOf('ammonium-thiocyanate', { code: '0403', ...made('0.0998') });
  const chloride = { substanceId: 'sodium-chloride', nominalMolarity: '0.1' };
  const excess = { bottle: silver, vessel: pipetteOf('50') };
  const script = aliquots('chloride-by-excess-of-silver', thiocyanate, chloride, excess);
  return evaluated(titrated(script, '25.20', 1, '0.10'));
}

const point = (nominal: number, deviation: number) => ({
  ...{ nominal, deviation, expandedUncertainty: 0.0004, repeatability: null },
});

const FIRST: Readonly<Record<keyof typeof SECOND, () => Evaluation>> = {
  '15 °C, corrected': () => weighed({ titres: ALIKE, ...READ_ON_T1, setUp: onT1('15.0') }),
  '30 °C, corrected, in air': () =>
    weighed({
      titres: ALIKE,
      with: { thermometer },
      rules: { volumeCorrection: 'corrected', buoyancyCorrection: 'corrected' },
      setUp: onT1('30.0'),
    }),
  '25 °C, carried, scatter': () =>
    weighed({ titres: ['23.44', '23.50', '23.56'], setUp: { temperatureC: '25' } }),
  'two blanks, scatter': () =>
    weighed({ titres: ['23.60', '23.66', '23.72'], blanks: ['0.10', '0.14'] }),
  'n = 2, pooled': () => weighed({ titres: ['23.49', '23.51'], rules: { pooling: 'pooled' } }),
  'n = 3, pooled with six series': () =>
    weighed({
      titres: ['23.48', '23.50', '23.52'],
      rules: { pooling: 'pooled' },
      setUp: { earlierSeries: { series: 6, relativeSdPercent: '0.080', degreesOfFreedom: 14 } },
    }),
  'balance with a certificate': () => {
    const { standard } = references();
    if (standard.kind !== 'lot') throw new Error('the standard is weighed');
    const balance = { ...standard.balance, calibration: [point(0, 0), point(1, 0.001)] };
    return weighed({ titres: ALIKE, with: { balance: stored(balance) } });
  },
  'a chain of two standards': chain,
  'three dilutions': dilutions,
  'a back-titration': back,
};

describe('a second calculation, in another language, comes to the same', () => {
  test.each(Object.entries(FIRST))('%s', (name, evaluate) => {
    const [value, u, k] = SECOND[name as keyof typeof SECOND];
    const evaluation = evaluate();
    expect(evaluation.value / value).toBeCloseTo(1, 7);
    expect(evaluation.combinedStandardUncertainty / u).toBeCloseTo(1, 3);
    expect(evaluation.coverageFactor).toBeCloseTo(k, 3);
  });
});
