import { describe, expect, test } from 'vitest';
import { resultsCsv } from './document/resultsCsv';
import type { GivenSample } from '../test-support/analyses';
import { analysisScript } from '../test-support/analyses';
import type { RunScript } from '../test-support/runs';
import { stored } from '../test-support/stored';
import type { ReportDecision } from './judging';
import { foundIn, heldOf, issueReport, judgeRun, partsFound, statedText } from './judging';
import { forecastNextEnd } from './figures';
import { nextStep } from './guidance';
import { checkRunFact } from './record';
import { analysisOf } from './run';

const DECISION: ReportDecision = stored({
  number: 'W-1-R1',
  form: 'batch',
  controls: [],
  signatures: [],
  isIndependent: true,
  issuedById: 'jasna',
  issuedOn: '2026-03-02',
  reason: null,
});

const ACID = { substanceId: 'hydrochloric-acid', molarity: '0.1000' };

/** Readings at both ends of each titration, from zero. */
type Ends = readonly (readonly [first: string, last: string])[];

function titrated(script: RunScript, pipetteMl: string, ends: Ends): RunScript {
  ends.forEach(([first, last], i) => {
    const flask = i + 1;
    script
      .add('run.flask-pipetted', { flask, volumeMl: pipetteMl, reason: null })
      .read(flask, 'initial', '0.00')
      .read(flask, 'first-end', first)
      .read(flask, 'final', last);
  });
  return script;
}

function lye(ends: Ends, sample: Partial<GivenSample> = {}): RunScript {
  const asked = { unit: 'g/L', as: 'NaOH', ...sample } as const;
  return titrated(analysisScript('lye-two-ends', ACID, { pipetteMl: '10' }, asked), '10', ends);
}

function water(ends: Ends): RunScript {
  const asked = { unit: 'mmol/L', as: 'HCO3' } as const;
  const script = analysisScript('alkalinity-two-ends', ACID, { pipetteMl: '100' }, asked);
  return titrated(script, '100', ends);
}

function told(script: RunScript) {
  const series = analysisOf(script.state);
  const judgement = judgeRun(series);
  if (!judgement.result) throw new Error('there is no result');
  const found = foundIn(series, judgement.result);
  const parts = partsFound(series, judgement);
  return {
    parts,
    text: statedText({ series, judgement }, found, parts),
    held: heldOf(series, found, parts),
    cases: parts.cases.map((one) =>
      one.map(({ part, found: of }) => `${part.id} ${of.value.toFixed(2)}`),
    ),
  };
}

describe('lye by two ends', () => {
  // 20.00 and 22.00 mL of 0.1 mol/L: 2.00 mL for the carbonate, and 20.00 - 2.00 for the hydroxide, in 10 mL.
  const twice: Ends = [
    ['20.00', '22.00'],
    ['20.00', '22.00'],
  ];

  test('hydroxide and carbonate are those of the hand calculation, with their U', () => {
    const { parts, text } = told(lye(twice));
    const [[hydroxide, carbonate] = []] = parts.cases;
    expect(hydroxide?.found.value).toBeCloseTo((0.1 * 18 * 39.997) / 10, 2);
    expect(carbonate?.found.value).toBeCloseTo((0.1 * 2 * 105.988) / 10, 2);
    // Of the two volumes: readings 0.01 (triangular, shared at the first end of the difference), drop and graduation 0.05 mL.
    const once = (halfMl: number): number => halfMl / Math.sqrt(3);
    const graduation = 0.05 / Math.sqrt(6);
    const reading = 0.01 / Math.sqrt(6);
    // Carbonate: last less first; both graduations and shades whole, what varies over the root of two flasks.
    const uMl = Math.hypot(
      ...[graduation, graduation, once(0.025), once(0.025)],
      ...[once(0.025), once(0.025), reading, reading].map((one) => one / Math.SQRT2),
    );
    // Pipette, titrant and temperature add two per cent of that.
    const byHand = (0.1 * uMl * 105.988) / 10;
    expect((carbonate?.found.standardUncertainty ?? 0) / byHand).toBeCloseTo(1.02, 2);
    expect(text).toMatch(
      /^in all 8\.\d+ ± 0\.\d+ g\/L as sodium hydroxide .*; hydroxide 7\.\d+ ± 0\.\d+ g\/L as sodium hydroxide .*, carbonate 2\.\d+ ± 0\.\d+ g\/L as sodium carbonate/,
    );
  });

  test('what one part is asked for is held against that part; the rest is stated of the same base', () => {
    const requirement = { kind: 'limits', lower: '7.5', upper: '8.5', rule: 'simple' } as const;
    const { held, text } = told(lye(twice, { as: 'KOH', part: 'hydroxide', requirement }));
    // All of it would pass as sodium hydroxide; of the hydroxide there are 10.1 g/L as potassium hydroxide.
    expect(held).toMatchObject({ isGood: false });
    expect(held?.text).toMatch(/^Fails: .* \(hydroxide\)$/);
    expect(text).toMatch(
      /hydroxide 10\.\d+ .* potassium hydroxide .*carbonate 2\.\d+ .* potassium carbonate/,
    );
    const least = { ...requirement, lower: '7.0', upper: '7.3' };
    expect(told(lye(twice, { part: 'hydroxide', requirement: least })).held?.isGood).toBe(true);
    expect(told(lye(twice, { requirement: least })).held?.isGood).toBe(false);
  });

  test('where scatter says more than the inputs, it counts', () => {
    const carbonateOf = (ends: Ends) => told(lye(ends)).parts.cases[0]?.[1]?.found;
    const apart: Ends = [
      ['19.90', '22.00'],
      ['20.10', '22.00'],
    ];
    // 2.10 and 1.90 mL: s = 0.1414 mL, over the root of two 0.1 mL.
    expect(carbonateOf(apart)?.value).toBeCloseTo(carbonateOf(twice)?.value ?? 0, 6);
    expect(carbonateOf(apart)?.standardUncertainty).toBeGreaterThan((0.1 * 0.1 * 105.988) / 10);
    expect(carbonateOf(apart)?.coverageFactor).toBeGreaterThan(2);
  });

  test('without its first end a titration tells the whole and no part', () => {
    const script = lye([]).add('run.flask-pipetted', { flask: 1, volumeMl: '10', reason: null });
    script.read(1, 'initial', '0.00').read(1, 'final', '22.00');
    expect(told(script).parts.cases).toEqual([]);
    expect(told(script).text).toMatch(/^in all 8\.\d+ ± /);
  });

  test('the report holds the parts, in its words, its figures and its table', () => {
    const report = issueReport(analysisOf(lye(twice).state), DECISION);
    expect(report.results[0]?.parts?.map(({ part, as }) => [part, as])).toEqual([
      ['hydroxide', 'NaOH'],
      ['carbonate', 'Na2CO3'],
    ]);
    const lines = resultsCsv(report).split('\r\n');
    expect(lines[2]).toMatch(/,Na2?OH,.*,hydroxide$/);
    expect(lines[3]).toMatch(/,Na2CO3,.*,carbonate$/);
  });
});

describe('alkalinity of water by two ends', () => {
  test.each([
    ['hydroxide beside carbonate: 2P more than M', '6.00', [['hydroxide 4.00', 'carbonate 2.00']]],
    [
      'carbonate beside hydrogencarbonate: 2P less than M',
      '2.00',
      [['carbonate 2.00', 'hydrogencarbonate 4.00']],
    ],
    [
      'neither, to within U: both cases',
      '4.00',
      [
        ['hydroxide 0.00', 'carbonate 4.00'],
        ['carbonate 4.00', 'hydrogencarbonate 0.00'],
      ],
    ],
    [
      'just within U: both cases',
      '4.05',
      [
        ['hydroxide 0.10', 'carbonate 3.95'],
        ['carbonate 4.05', 'hydrogencarbonate -0.10'],
      ],
    ],
    ['beyond U: one case', '4.20', [['hydroxide 0.40', 'carbonate 3.80']]],
  ])('%s', (_, first, cases) => {
    const script = water([
      [first, '8.00'],
      [first, '8.00'],
    ]);
    const { parts, text } = told(script);
    expect(told(script).cases).toEqual(cases);
    // P by itself stands in any case.
    expect(parts.always.map(({ found }) => found.value)).toEqual([
      expect.closeTo(Number(first), 1),
    ]);
    expect(text.includes('; or ')).toBe(cases.length > 1);
  });
});

describe('at the bench', () => {
  const check = (script: RunScript, moment: 'first-end' | 'final', readingMl: string) =>
    checkRunFact(
      script.state,
      script.propose('run.burette-read', {
        ...{ flask: script.state.lastFlask, moment, readingMl, carriedFrom: null, reason: null },
      }),
    ).map(({ code }) => code);
  const begun = (ends: Ends = []): RunScript => {
    const script = lye(ends);
    const flask = script.state.lastFlask + 1;
    return script
      .add('run.flask-pipetted', { flask, volumeMl: '10', reason: null })
      .read(flask, 'initial', '0.00');
  };

  test('the first end is asked before the last, and where it is expected once a flask tells', () => {
    const next = (script: RunScript) => nextStep(script.state, judgeRun(script.state));
    expect(next(begun())).toMatchObject({
      action: 'read-first-end',
      says: { code: 'to-first-end', values: { until: 'the last pink is gone', expectedMl: null } },
    });
    const second = begun([['20.00', '22.00']]);
    expect(next(second).says.values.expectedMl).toBeCloseTo(20, 6);
    second.read(2, 'first-end', '20.02');
    // Drawing and sentence alike: the last end is near 22, and the burette stands at 20.02 already.
    const [, flask] = second.state.flasks;
    expect(flask && forecastNextEnd(second.state, flask, null)).toMatchObject({
      isFirst: false,
      onBurette: { runFreelyTo: 20.02 },
    });
    expect(next(second)).toMatchObject({
      action: 'read-final',
      says: { code: 'run-freely', values: { add: 'methyl orange, 3 drops' } },
    });
  });

  test.each([
    ['at the level from which it began', '0.00', ['reads-upwards']],
    ['beyond the last mark', '50.01', ['off-scale']],
    ['where the flask before has it', '20.05', []],
    ['two millilitres off', '18.00', ['titre-off-forecast']],
  ])('a first end %s', (_, readingMl, codes) => {
    expect(check(begun([['20.00', '22.00']]), 'first-end', readingMl)).toEqual(codes);
  });

  test('it lies before the last end, is read once, and only where there are two', () => {
    const script = begun().read(1, 'first-end', '20.00');
    expect(check(script, 'first-end', '20.00')).toEqual(['already-read']);
    expect(check(script, 'final', '19.99')).toEqual(['reads-upwards']);
    script.read(1, 'final', '22.00');
    const corrected = (readingMl: string) =>
      checkRunFact(
        script.state,
        script.propose('run.reading-corrected', {
          ...{ corrects: script.state.flasks[0]?.firstEnd?.reading.factId ?? '', readingMl },
          reason: 'misread',
        }),
      ).map(({ code }) => code);
    expect(corrected('21.99')).toEqual([]);
    expect(corrected('22.00')).toEqual(['reads-upwards']);
    const unread = begun().read(1, 'final', '22.00');
    expect(check(unread, 'first-end', '20.00')).toEqual(['not-titrating']);
    const single = analysisScript(
      'titratable-acidity',
      { ...ACID, substanceId: 'sodium-hydroxide' },
      { pipetteMl: '10' },
      { unit: 'g/L', as: 'C4H6O6' },
    )
      .add('run.flask-pipetted', { flask: 1, volumeMl: '10', reason: null })
      .read(1, 'initial', '0.00');
    expect(check(single, 'first-end', '4.00')).toEqual(['one-end-only']);
  });

  test('a refill before the first end counts for both ends, one after it for the last', () => {
    const refilled = (atFirst: boolean) => {
      const script = begun();
      const refill = (): void => {
        const at = script.state.flasks[0]?.firstEnd ? '20.00' : '8.00';
        script
          .add('run.burette-refilled', {
            flask: 1,
            refill: 1,
            moment: 'stop',
            readingMl: at,
            reason: null,
          })
          .add('run.burette-refilled', {
            flask: 1,
            refill: 1,
            moment: 'restart',
            readingMl: '1.00',
            reason: null,
          });
      };
      if (atFirst) refill();
      script.read(1, 'first-end', atFirst ? '13.00' : '20.00');
      if (!atFirst) refill();
      return told(script.read(1, 'final', atFirst ? '15.00' : '3.00')).cases;
    };
    // 8.00 + 12.00 mL to the first end, 2.00 mL more to the last, either way.
    expect(refilled(true)).toEqual(refilled(false));
    expect(refilled(true)).toEqual([['hydroxide 7.20', 'carbonate 2.12']]);
  });
});
