import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test } from 'vitest';
import { plainDate } from '#core/grammar';
import { currentSchemaVersion } from '#core/ledger';
import {
  certifiedFigures,
  issueCertificate,
  issueReport,
  judgeRun,
  reportedFigures,
} from '#core/titration/judging';
import { analysisOf } from '#core/titration/run';
import { analysisScript } from '../core/test-support/analyses';
import { concordantSeries } from '../core/test-support/runs';
import { idOf } from '../core/test-support/stored';
import { reproduce } from './reproduce';

/** What the tests' records are called in place of ids. */
const NAMES =
  /(?<=[":/])(f\d+|ines|mirela|run-1|lot-khp|sample-W-1|(?:bottle|balance|burette|lot|pipette)-[a-z0-9-]+)(?=["/@])/g;

/** An id for a name, the same each time. */
function idFor(name: string): string {
  const hex = Buffer.from(name).toString('hex').padEnd(12, '0').slice(0, 12);
  return `01900000-0000-7000-8000-${hex}`;
}

/** A certificate's file, as the server writes it. */
function fileOf(): string {
  const { facts, references, state } = concordantSeries();
  const judgement = judgeRun(state);
  const certificate = issueCertificate(state, judgement, {
    ...{ number: '0417-1', certifiedById: idOf('mirela'), signatures: [], isIndependent: true },
    ...{ certifiedOn: plainDate('2026-03-02'), validUntil: plainDate('2026-03-20'), reason: null },
  });
  const file = JSON.stringify({
    ...{ format: 'vine-measure-certificate', formatVersion: 1, certificate },
    figures: certifiedFigures(judgement),
    // The scripts write today's shapes.
    source: {
      facts: facts.map((fact) => ({ ...fact, schemaVersion: currentSchemaVersion(fact.kind) })),
      references,
    },
  });
  return file.replaceAll(NAMES, idFor);
}

/** What becomes of the file with one thing changed in it. */
function withChange(from: string | RegExp, to: string) {
  const file = fileOf();
  const changed = file.replace(from, to);
  expect(changed).not.toBe(file);
  return reproduce(JSON.parse(changed));
}

test('a certificate is computed again from its own file: identical, or where not', () => {
  const again = reproduce(JSON.parse(fileOf()));
  expect(again).toEqual({ kind: 'identical', compared: expect.any(Number) as unknown });
  expect(again.kind === 'identical' && again.compared).toBeGreaterThan(50);

  // A digit of a reading that was entered: the figures no longer follow from it.
  const entered = withChange('"readingMl":"23.44"', '"readingMl":"23.45"');
  expect(entered).toMatchObject({ kind: 'different' });
  expect(JSON.stringify(entered)).toContain('figures.molarity.value');
  // A digit of what it states.
  expect(withChange(/"molarity":"0\.1(\d)/, '"molarity":"0.2$1')).toMatchObject({
    kind: 'different',
    places: [expect.stringMatching(/^certificate\.molarity: the file has "0\.2/)],
  });
  // A figure of the budget, in its thirteenth digit the same, in its eleventh another.
  const share = /"share":(0\.\d{10})\d/;
  expect(withChange(share, '"share":$19')).toMatchObject({ kind: 'different' });
  expect(withChange('"formatVersion":1', '"formatVersion":3')).toMatchObject({ kind: 'refused' });
  expect(reproduce({ ...(JSON.parse(fileOf()) as object), more: 1 })).toMatchObject({
    kind: 'refused',
  });
});

/** The file of a report of lye, titrated at two ends. */
function reportFileOf(): string {
  const script = analysisScript(
    'lye-two-ends',
    { substanceId: 'hydrochloric-acid', molarity: '0.1000' },
    { pipetteMl: '10' },
    { unit: 'g/L', as: 'NaOH' },
  )
    .add('run.flask-pipetted', { flask: 1, volumeMl: '10', reason: null })
    .read(1, 'initial', '0.00')
    .read(1, 'first-end', '20.00')
    .read(1, 'final', '22.00');
  const { facts, references } = script;
  const run = analysisOf(script.state);
  const report = issueReport(run, {
    ...{ number: 'W-1-R1', form: 'batch', controls: [], signatures: [], isIndependent: true },
    ...{ issuedById: idOf('mirela'), issuedOn: plainDate('2026-03-02'), reason: null },
  });
  const file = JSON.stringify({
    ...{
      format: 'vine-measure-report',
      formatVersion: 1,
      report,
      figures: reportedFigures(run),
      documents: [],
    },
    source: {
      facts: facts.map((fact) => ({ ...fact, schemaVersion: currentSchemaVersion(fact.kind) })),
      references,
    },
  });
  return file.replaceAll(NAMES, idFor);
}

test('a report is computed again from its own file, the parts that two ends tell with it', () => {
  expect(reproduce(JSON.parse(reportFileOf()))).toMatchObject({ kind: 'identical' });
  const changed = reportFileOf().replace(/("part":"carbonate".*?"value":")2/, '$13');
  expect(reproduce(JSON.parse(changed))).toMatchObject({
    kind: 'different',
    places: [expect.stringContaining('report.results.0.parts.2 carbonate.value')],
  });
});

test('a file that an earlier version kept is still computed again', () => {
  const kept = join(import.meta.dirname, 'goldens', 'certificate-1.json');
  const again = reproduce(JSON.parse(readFileSync(kept, 'utf8')));
  expect(again).toMatchObject({ kind: 'identical' });
});

test('its figures are in SI units', () => {
  const { figures } = JSON.parse(fileOf()) as { figures: ReturnType<typeof certifiedFigures> };
  expect(figures.molarity.unit).toBe('mol/m3');
  expect(figures.molarity.value).toBeCloseTo(100, -1);
  expect(figures.replicates[1]?.titre?.value).toBeCloseTo(23.39e-6, 12);
  const ofInput = (name: RegExp) => figures.budget.find((line) => name.test(line.name));
  expect(ofInput(/molar mass/)).toMatchObject({ unit: 'kg/mol' });
  expect(ofInput(/molar mass/)?.value).toBeCloseTo(0.204222, 6);
  const variance = figures.budget.reduce((sum, { contribution }) => sum + contribution ** 2, 0);
  expect(Math.sqrt(variance)).toBeCloseTo(figures.molarity.standardUncertainty, 9);
});
