import { describe, expect, test } from 'vitest';
import type { Plain } from '../grammar';
import { plainDate } from '../grammar';
import { withFigures } from '../measurement';
import type { BottleState } from '../reagent';
import type { ReportedContent, Requirement, SampleState } from '../sample';
import type { GivenSample } from '../test-support/analyses';
import { analysisScript } from '../test-support/analyses';
import { bottleOf, RunScript } from '../test-support/runs';
import { idOf, stored } from '../test-support/stored';
import { reportDocument, resultsCsv } from './document';
import type { ReportDecision } from './judging';
import {
  draftDigest,
  issueReport,
  judgedSeries,
  nextReportNumber,
  reportedFigures,
  reportFindings,
  restated,
  restatedTitrant,
  reviewOf,
  signedSoFar,
  signingFindings,
  signingOf,
} from './judging';
import { checkWithdrawingReport } from './record';
import type { AnalysisRun } from './run';
import { analysisOf } from './run';
import type { CalculatedMolarity } from './setUp';
import { asCalculated, isAnalysis } from './setUp';

const ACIDITY = { unit: 'g/L', as: 'C4H6O6', expected: '6.2' } as const;
const AT_LEAST: Plain<Requirement> = {
  kind: 'limits',
  lower: '3.5',
  upper: null,
  rule: 'guarded-acceptance',
};

/** A batch of titratable acidity: 10 mL of each, with hydroxide of 0.1 mol/L. */
function batch(...given: readonly Partial<GivenSample>[]): RunScript {
  const samples = given.map((one, i) => ({ ...ACIDITY, code: `W-${String(i + 1)}`, ...one }));
  return analysisScript(
    'titratable-acidity',
    { substanceId: 'sodium-hydroxide', molarity: '0.1000' },
    { pipetteMl: '10' },
    ...samples,
  );
}

let flask = 0;

/** Titrates a portion of a sample from zero. */
function titrate(script: RunScript, finalMl: string, code = 'W-1'): RunScript {
  flask += 1;
  return script
    .add('run.flask-pipetted', {
      ...{ flask, volumeMl: '10', reason: null, sampleId: `sample-${code}` },
    })
    .read(flask, 'initial', '0.00')
    .read(flask, 'final', finalMl);
}

/** Two wines, each in duplicate. */
function twoWines(): RunScript {
  flask = 0;
  const script = batch({ requirement: AT_LEAST }, {});
  titrate(script, '8.26');
  titrate(script, '8.28');
  titrate(script, '9.00', 'W-2');
  return titrate(script, '9.02', 'W-2');
}

const runOf = ({ state }: RunScript): AnalysisRun => analysisOf(state);

const DECISION: ReportDecision = {
  ...{ number: 'W-1-R1', form: 'batch', controls: [], signatures: [], isIndependent: true },
  ...{ issuedById: idOf('mirela'), issuedOn: plainDate('2026-03-02'), reason: null },
};

const NOW = { bottles: [], samples: [], controls: [] };

function against(script: RunScript, now: Parameters<typeof reportFindings>[1] = NOW) {
  return reportFindings(runOf(script), now).map(({ severity, code }) => `${severity}: ${code}`);
}

test('a report freezes what was found of each sample, with the rule that was agreed', () => {
  const report = issueReport(runOf(twoWines()), DECISION);
  // 0.1 x 8.27 / 2 x 150.087 / 10, and with 9.01 mL.
  const [first, second] = report.results;
  expect(first?.unrounded.value).toBeCloseTo(6.2061, 4);
  expect(second?.unrounded.value).toBeCloseTo(6.7614, 4);
  expect(first).toMatchObject({
    code: 'W-1',
    stated: `6.206 ± ${first?.expandedUncertainty ?? ''} g/L as tartaric acid (k = ${first?.coverageFactor ?? ''})`,
    titrationsAveraged: 2,
    titrationsMade: 2,
    held: { text: 'Passes: probability of conformity above 99 %', isGood: true },
  });
  expect(second?.held).toBeNull();
  expect(report).toMatchObject({
    titrant: { described: 'bottle 0417 (as made)', certificateNumber: null },
    amends: null,
    notFound: [],
  });
});

test('its number goes by the first sample that it states something of, which counts its reports', () => {
  const both = runOf(twoWines());
  const states = both.references.samples.map(({ state }) => state);
  expect(nextReportNumber(both, states)).toBe('W-1-R1');
  flask = 0;
  const second = runOf(titrate(batch({}, {}), '9.00', 'W-2'));
  expect(nextReportNumber(second, states)).toBe('W-2-R1');
  const reported = states.map((state) => ({
    ...state,
    reported: [{ ...REPORTED, withdrawn: null }],
  }));
  expect(nextReportNumber(second, reported)).toBe('W-2-R2');
  expect(() => nextReportNumber(runOf(batch({}, {})), states)).toThrow(RangeError);
});

/** What a report stated of a sample before. */
const REPORTED: ReportedContent = stored({
  ...{ runId: 'run-0', reportNumber: 'W-1-R1', analysisId: 'titratable-acidity', unit: 'g/L' },
  ...{ as: 'C4H6O6', stated: '6.2 g/L', reportedOn: '2026-03-01' },
});

test('its results are saved as comma-separated values, a line for each sample', () => {
  const report = issueReport(runOf(twoWines()), DECISION);
  const [first] = report.results;
  if (!first) throw new Error('it has results');
  const odd = { ...first, code: '=W,"1"' };
  const lines = resultsCsv({ ...report, results: [odd, ...report.results.slice(1)] }).split('\r\n');
  expect(lines).toHaveLength(4);
  expect(lines[0]).toMatch(/^report,issued_on,sample,analysis,value,U,k,unit,as,/);
  expect(lines[1]).toMatch(
    /^W-1-R1,2026-03-02,"'=W,""1""",titratable acidity of must and wine,6\.206,/,
  );
  expect(lines[2]).toContain('W-2,titratable acidity of must and wine,6.761,');
});

test('its file has the figures of each sample in SI units', () => {
  const [figures] = reportedFigures(runOf(twoWines()));
  expect(figures?.result.unit).toBe('kg/m3');
  expect(figures?.result.value).toBeCloseTo(6.2061, 4);
  const variance = figures?.budget.reduce((sum, { contribution }) => sum + contribution ** 2, 0);
  expect(Math.sqrt(variance ?? 0)).toBeCloseTo(figures?.result.standardUncertainty ?? 0, 9);
});

describe('on paper', () => {
  const context = {
    ...{ issuer: ['a laboratory'], equipment: [], auditHead: null },
    nameOf: (id: string) => id,
    dateText: (date: string) => date,
    instantText: (instant: string) => instant,
  };
  const run = runOf(twoWines());
  const report = issueReport(run, DECISION);
  const words = (of: Parameters<typeof reportDocument>[2]): string =>
    JSON.stringify(reportDocument(run, report, of, context));

  test('a batch has one document, with blanks and flasks of all', () => {
    const document = reportDocument(run, report, null, context);
    expect(document.headline).toBe('titratable acidity of must and wine: 2 samples');
    expect(document.end).toBe('End of report W-1-R1.');
    const text = words(null);
    for (const said of [
      'W-2',
      'not by this laboratory',
      'The results relate to the items as received.',
      'not to be reproduced except in full',
      'W-1: at least 3.5 g/L; passes only if it is inside by U',
      'Passes: probability of conformity above 99 %',
      '0.5 mol of tartaric acid to 1 mol of titrant',
    ]) {
      expect(text).toContain(said);
    }
  });

  test('a sample has one of its own, which tells nothing of the others', () => {
    const text = words({ sampleId: idOf('sample-W-2'), place: 2 });
    expect(text).toContain('W-1-R1/2');
    expect(text).toContain('W-2: 6.761');
    expect(text).not.toContain('"W-1"');
    expect(text).not.toContain('W-1, made up');
  });
});

describe('what speaks against a report', () => {
  test('nothing where every sample was titrated in duplicate', () => {
    expect(against(twoWines())).toEqual([]);
  });

  test('no result at all; one sample without a result, or with a single titration', () => {
    flask = 0;
    const script = batch({}, {});
    expect(against(script)).toEqual(['impossible: no-result']);
    titrate(script, '8.26');
    expect(against(script)).toEqual([
      'unlikely: sample-not-concordant',
      'unlikely: sample-not-found',
    ]);
    titrate(script, '8.28');
    expect(against(script)).toEqual(['unlikely: sample-not-found']);
    expect(issueReport(runOf(script), DECISION).notFound).toEqual(['W-2']);
  });

  test('the certificate of its titrant was withdrawn', () => {
    const run = runOf(twoWines());
    const { titrant } = run.references;
    const said = { factId: 'f9', by: 'mirela', at: '2026-03-02T09:00:00.000Z' };
    const certified = bottleOf('sodium-hydroxide', {
      certified: [
        {
          ...{ runId: 'run-0', certificateNumber: '0417-1', molarity: '0.1000' },
          ...{ expandedUncertainty: '0.0002', coverageFactor: '2.00', unrounded: null },
          ...{ certifiedOn: '2026-03-01', validUntil: '2026-03-20', corrections: null },
        },
      ],
    });
    const gone = (certificateNumber: string): BottleState =>
      stored({
        ...certified,
        certificatesWithdrawn: [{ ...said, runId: 'run-0', certificateNumber, reason: 'a slip' }],
      });
    const codes = (known: typeof titrant, now: typeof titrant) =>
      reportFindings(
        { ...run, references: { ...run.references, titrant: known } },
        { ...NOW, bottles: [now] },
      ).map(({ severity, code }) => `${severity}: ${code}`);
    expect(codes(certified, gone('0417-1'))).toEqual(['impossible: titrant-certificate-withdrawn']);
    expect(codes(certified, gone('0417-0'))).toEqual([]);
    // Once another takes its place, the run goes on with that.
    const [first] = certified.certified;
    if (!first) throw new Error('it is certified');
    const again = { ...first, certificateNumber: '0417-2' };
    const replaced: BottleState = {
      ...gone('0417-1'),
      ...{ version: 9, certified: [first, again] },
    };
    const offered = (bottle: BottleState) =>
      restatedTitrant(
        { ...run, references: { ...run.references, titrant: certified } },
        { bottles: [bottle] },
      ).map(({ adopt: { kind, version } }) => [kind, version]);
    expect(offered(gone('0417-1'))).toEqual([]);
    expect(offered(replaced)).toEqual([['bottle', 9]]);
    expect(offered({ ...certified, certified: [first, again] })).toEqual([]);
    // What was reported stays; beside it stands what it comes to by a titrant a hundredth stronger.
    const of = { ...run, references: { ...run.references, titrant: certified } };
    const report = issueReport(of, DECISION);
    expect(restated(of, report, certified)).toBeNull();
    expect(restated(of, report, gone('0417-1'))?.draft).toBeNull();
    const stronger = stored<typeof again>({ ...again, molarity: '0.1010' });
    const draft = restated(of, report, { ...replaced, certified: [stronger] })?.draft;
    expect(draft?.number).toBe('0417-2');
    const figureOf = (text = ''): number => Number.parseFloat(text);
    const [result] = draft?.results ?? [];
    expect(figureOf(result?.wouldBe) / figureOf(result?.stated)).toBeCloseTo(1.01, 3);
    expect(report.results[0]?.stated).toBe(result?.stated);
    // Known from how it was made, it rests on no certificate.
    expect(codes(titrant, gone('0417-1'))).toEqual([]);
  });

  test('the molarity of its titrant is calculated, and nobody has authorized it', () => {
    const { setUp, references } = twoWines().state;
    if (!isAnalysis(references) || !isAnalysis(setUp)) throw new Error('wines are titrated here');
    const calculated = {
      ...{ runId: 'run-0', molarity: '0.1010', expandedUncertainty: '0.0002' },
      ...{ coverageFactor: '2.00', unrounded: null },
    };
    const bottle = bottleOf('sodium-hydroxide', {});
    const titrant = asCalculated(bottle, stored<CalculatedMolarity>(calculated));
    expect(titrant.made?.molarity).toBe('0.1010');
    const run = runOf(new RunScript({ ...references, titrant }, {}, { ...setUp, calculated }));
    const codes = reportFindings({ ...run, flasks: runOf(twoWines()).flasks }, NOW).map(
      ({ severity, code }) => `${severity}: ${code}`,
    );
    expect(codes).toContain('impossible: titrant-awaits-authorization');
    expect(restatedTitrant(run, { bottles: [bottle] })).toEqual([]);
    // Certified since, the run goes on with that; a molarity that is known is never replaced.
    const certified = bottleOf('sodium-hydroxide', {
      version: 9,
      certified: [
        {
          ...{ runId: 'run-0', certificateNumber: '0417-1', molarity: '0.1011' },
          ...{ expandedUncertainty: '0.0002', coverageFactor: '2.00', unrounded: null },
          ...{ certifiedOn: '2026-03-01', validUntil: '2026-03-20', corrections: null },
        },
      ],
    });
    expect(restatedTitrant(run, { bottles: [certified] })).toMatchObject([
      { adopt: { kind: 'bottle', version: 9 }, reason: 'It is certified now: 0417-1.' },
    ]);
    expect(asCalculated(certified, stored<CalculatedMolarity>(calculated))).toBe(certified);
  });

  test('what is asked for was changed since: it is held against what was agreed', () => {
    const script = twoWines();
    const run = runOf(script);
    const { state } = run.references.samples[0] ?? {};
    const [request] = state?.sample.requests ?? [];
    if (!state || !request) throw new Error('there is a sample');
    const changed: SampleState = stored({
      ...state,
      sample: { ...state.sample, requests: [{ ...request, requirement: { kind: 'none' } }] },
    });
    const findings = reportFindings(run, { ...NOW, samples: [changed] });
    expect(findings.map(({ code }) => code)).toEqual(['request-changed']);
    expect(reportFindings(run, { ...NOW, samples: [state] })).toEqual([]);
    expect(issueReport(run, DECISION).results[0]?.requirement.kind).toBe('limits');
  });
});

test('it is signed as a certificate is: for a draft that any further entry changes, by whoever may', () => {
  const script = twoWines();
  const signatories = { traineeIds: [], authorizingIds: [idOf('ines'), idOf('mirela')] };
  const draft = draftDigest(script.state);
  expect(withFigures(',', () => draftDigest(script.state))).toBe(draft);
  const signing = () => signingOf(script.state, signatories);
  expect(signing()?.needed).toEqual(['performed', 'authorized']);
  const codes = (id: string, means: 'performed' | 'authorized') =>
    signingFindings(script.state, signing(), means, {
      ...{ id: idOf(id), roles: ['analyst', 'authorized-signatory'] },
    }).map(({ code }) => code);
  expect(codes('mirela', 'authorized')).toEqual(['not-signed']);
  script.add('run.performed', { draft: draft ?? '' });
  expect(signedSoFar(script.state)).toEqual(['performed']);
  expect(codes('mirela', 'authorized')).toEqual([]);
  expect(codes('ines', 'authorized')).toEqual(['own-work']);
  titrate(script, '9.01', 'W-2');
  expect(signedSoFar(script.state)).toEqual([]);
  expect(
    reviewOf(script.state, { ...NOW, lots: [], equipment: [] }, plainDate('2026-03-02')),
  ).toEqual([]);
});

test('a report closes its run; withdrawn, it opens it again, and the next one amends it', () => {
  const script = twoWines();
  const report = issueReport(runOf(script), DECISION);
  script.add('run.reported', { report });
  expect(script.state).toMatchObject({ status: 'reported', report: { number: 'W-1-R1' } });
  expect(against(script)).toEqual(['impossible: run-closed']);
  const signatory = { id: idOf('mirela'), roles: ['authorized-signatory'] } as const;
  const checks = (number: string, roles = signatory) =>
    checkWithdrawingReport(script.state, number, roles).map(({ code }) => code);
  expect(checks('W-1-R1')).toEqual([]);
  expect(checks('W-1-R2')).toEqual(['report-not-in-force']);
  script.add('run.report-withdrawn', { number: 'W-1-R1', reason: 'another bottle' });
  expect(script.state).toMatchObject({ status: 'open', report: null });
  titrate(script, '8.27');
  const amended = issueReport(runOf(script), { ...DECISION, number: 'W-1-R2' });
  expect(amended.amends).toBe('W-1-R1');
  expect(judgedSeries(runOf(script))).toHaveLength(2);
});
