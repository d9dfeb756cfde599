import { describe, expect, test } from 'vitest';
import { aroundWith } from '../test-support/around';
import { factOf } from '../test-support/facts';
import { idOf } from '../test-support/stored';
import { checkFact } from '../ledger';
import type { Plain } from '../grammar';
import { decimalText } from '../measurement';
import type { Measured, Verdict } from './decision';
import { decide, ofAccepted, ofClaim } from './decision';
import type { DecisionRule, Sample } from './sample';

const d = decimalText;

describe('a result held against limits', () => {
  /** A result with its U, k = 2, of which much is known. */
  const measured = (value: number, expandedUncertainty: number): Measured => ({
    value,
    expandedUncertainty,
    standardUncertainty: expandedUncertainty / 2,
    degreesOfFreedom: Infinity,
  });
  const limits = (lower: string | null, upper: string | null, rule: DecisionRule) =>
    ({
      kind: 'limits',
      lower: lower === null ? null : d(lower),
      upper: upper === null ? null : d(upper),
      rule,
    }) as const;

  test('total sulfur dioxide of 196 ± 8 mg/L passes 200 as it stands, at 84 %, and fails with a guard', () => {
    const y = measured(196, 8);
    expect(decide(y, limits(null, '200', 'simple'))).toMatchObject({ verdict: 'pass', guard: 0 });
    expect(decide(y, limits(null, '200', 'simple')).probability).toBeCloseTo(0.8413, 4);
    expect(decide(y, limits(null, '200', 'guarded-acceptance'))).toMatchObject({
      verdict: 'fail',
      guard: 8,
    });
  });

  test('volatile acidity of 1.24 ± 0.06 g/L conforms to 1.20 with a probability of 9 %', () => {
    const { probability, verdict } = decide(measured(1.24, 0.06), limits(null, '1.20', 'simple'));
    expect([verdict, probability.toFixed(3)]).toEqual(['fail', '0.091']);
  });

  // The limit 10, U 2: each rule at, inside and outside its own boundary.
  test.each<[DecisionRule, ...(readonly [number, Verdict | null])[]]>([
    ['none', [8, null], [12, null]],
    ['simple', [10, 'pass'], [10.001, 'fail']],
    ['guarded-acceptance', [8, 'pass'], [8.001, 'fail']],
    ['guarded-rejection', [12, 'pass'], [12.001, 'fail']],
    ['four-way', [8, 'pass'], [8.001, 'conditional-pass']],
    ['four-way', [10, 'conditional-pass'], [10.001, 'conditional-fail']],
    ['four-way', [12, 'conditional-fail'], [12.001, 'fail']],
  ])('by the rule “%s”: %j, %j', (rule, ...cases) => {
    for (const [value, verdict] of cases) {
      expect(decide(measured(value, 2), limits(null, '10', rule)).verdict).toBe(verdict);
      // The same from below.
      expect(decide(measured(20 - value, 2), limits('10', null, rule)).verdict).toBe(verdict);
    }
  });

  test('between two limits the probability is what lies between; few degrees of freedom make it less sure', () => {
    const y = measured(10, 1);
    const both = limits('9', '11', 'simple');
    expect(decide(y, both).probability).toBeCloseTo(0.9545, 4);
    expect(decide({ ...y, degreesOfFreedom: 3 }, both).probability).toBeCloseTo(0.8607, 4);
  });

  test('a tablet against its claim, a control against its accepted value', () => {
    const claim = {
      kind: 'label-claim',
      claim: d('500'),
      window: { fromPercent: d('95'), toPercent: d('105') },
    } as const;
    expect(ofClaim(measured(475, 5), claim)).toEqual({
      percent: 95,
      expandedPercent: 1,
      isWithin: true,
    });
    expect(ofClaim(measured(474.9, 5), claim).isWithin).toBe(false);
    expect(ofClaim(measured(474.9, 5), { ...claim, window: null }).isWithin).toBeNull();

    const accepted = {
      kind: 'accepted-value',
      value: d('6.05'),
      expandedUncertainty: d('0.12'),
      withinPercent: d('2'),
    } as const;
    const against = ofAccepted(measured(6.2, 0.09), accepted);
    expect(against.en).toBeCloseTo(1, 9);
    expect(against.relativeErrorPercent).toBeCloseTo(2.479, 3);
    expect(against.isWithin).toBe(false);
  });
});

describe('a sample', () => {
  const wine: Plain<Sample> = {
    code: 'W-107',
    description: 'Riesling',
    source: 'tank 7',
    customer: 'cellar',
    sampledBy: 'Tobin Velt',
    sampledOn: null,
    receivedOn: '2026-03-02',
    condition: 'clear, cool',
    amount: { value: d('100'), unit: 'mL' },
    density: null,
    unitMass: null,
    store: 'refrigerator',
    keepUntil: null,
    requests: [
      {
        analysisId: 'titratable-acidity',
        unit: 'g/L',
        as: 'C4H6O6',
        expected: d('6.2'),
        requirement: { kind: 'limits', lower: d('3.5'), upper: null, rule: 'simple' },
      },
    ],
  };
  const [request] = wine.requests;
  if (!request) throw new Error('it asks for something');
  const asking = (changes: object): Partial<Plain<Sample>> => ({
    requests: [{ ...request, ...changes }],
  });
  const against = (changes: Partial<Plain<Sample>>, around = aroundWith()): readonly string[] =>
    checkFact(factOf('sample.received', 'w', { ...wine, ...changes }), null, around).map(
      ({ code, field }) => `${field}: ${code}`,
    );

  test.each<[string, Partial<Plain<Sample>>, readonly string[]]>([
    ['as it should be', {}, []],
    ['received tomorrow', { receivedOn: '2026-03-03' }, ['receivedOn: date-to-come']],
    [
      'taken after it was received',
      {
        sampledOn: '2026-03-02',
        receivedOn: '2026-03-01',
      },
      ['receivedOn: received-before-sampled'],
    ],
    ['the same twice', { requests: [request, request] }, ['requests: asked-twice']],
    [
      'in a unit of another analysis',
      asking({ unit: 'mg/unit' }),
      ['requests.0.unit: other-unit', 'sample: unit-mass-missing'],
    ],
    [
      'as an acid that it is not stated as',
      asking({ as: 'HCl' }),
      ['requests.0.as: not-stated-as'],
    ],
    [
      'an analysis that there is not',
      asking({ analysisId: 'guess' }),
      ['requests.0.analysisId: not-in-catalogue'],
    ],
    [
      'limits the wrong way round',
      asking({ requirement: { kind: 'limits', lower: d('4'), upper: d('3'), rule: 'simple' } }),
      ['requests.0.requirement: limits-crossed'],
    ],
    [
      'a limit without a figure',
      asking({ requirement: { kind: 'limits', lower: null, upper: null, rule: 'simple' } }),
      ['requests.0.requirement: no-limit'],
    ],
    [
      'by mass without its density',
      asking({ analysisId: 'acetic-acid-in-vinegar', unit: '% m/m', as: 'CH3COOH' }),
      ['sample: density-missing'],
    ],
    [
      'in dry matter that nobody knows',
      asking({ analysisId: 'khp-purity', unit: '% m/m', as: 'C8H5KO4', onDryMatter: true }),
      ['sample: dry-matter-missing'],
    ],
    [
      'by volume in dry matter',
      { ...asking({ onDryMatter: true }), dryMatter: { value: d('90'), plusMinus: d('0.1') } },
      ['requests.0.unit: dry-matter-by-mass'],
    ],
    [
      'by mass with its density',
      {
        ...asking({ analysisId: 'acetic-acid-in-vinegar', unit: '% m/m', as: 'CH3COOH' }),
        density: { value: d('1.006'), plusMinus: d('0.001') },
      },
      [],
    ],
  ])('%s', (_, changes, codes) => {
    expect(against(changes)).toEqual(codes);
  });

  test('has a code that no other has', () => {
    const around = aroundWith({}, { sampleCoded: () => idOf('other') });
    expect(against({}, around)).toEqual(['code: sample-code-taken']);
  });
});
