import { describe, expect, test } from 'vitest';
import { addToDate, daysBetween, isPlainDate, plainDateAt, plainDate } from '#core/grammar';
import { bottleOf, khpLot, references } from '../test-support/runs';
import { decimalText } from '#core/measurement';
import { idOf, stored } from '../test-support/stored';
import type { CorrectionHow } from '#core/wording';
import type { CertifiedMolarity } from './index';
import {
  freshnessOf,
  historyOf,
  lastsUntil,
  lotMolarMass,
  mayBeUsed,
  readyFrom,
  suggestValidUntil,
  whyKept,
} from './index';

const { bottle } = references();
const lot = khpLot();
const certified = {
  ...bottle,
  certified: [
    {
      runId: 'r',
      certificateNumber: '0417-1',
      molarity: '0.1021',
      expandedUncertainty: '0.0002',
      coverageFactor: '2.00',
      unrounded: null,
      certifiedOn: '2026-03-02',
      validUntil: '2026-04-02',
      corrections: null,
    },
  ],
};

test.each([
  ['2026-03-02', 'certified', 31],
  ['2026-03-25', 'certified', 8],
  ['2026-03-26', 'due-soon', 7],
  ['2026-04-02', 'due-soon', 0],
  ['2026-04-03', 'overdue', -1],
])('on %s the bottle is %s', (today, kind, daysLeft) => {
  expect(freshnessOf(stored(certified), plainDate(today))).toMatchObject({ kind, daysLeft });
});

test.each([
  // Half of what it is kept for, rounded down, but a week at most.
  ['2026-03-04', '2026-03-02', 'certified'],
  ['2026-03-04', '2026-03-03', 'due-soon'],
  ['2026-03-05', '2026-03-03', 'certified'],
  ['2026-03-05', '2026-03-04', 'due-soon'],
  ['2026-03-15', '2026-03-08', 'certified'],
  ['2026-03-15', '2026-03-09', 'due-soon'],
  ['2026-03-16', '2026-03-08', 'certified'],
  ['2026-03-16', '2026-03-09', 'due-soon'],
  ['2026-03-18', '2026-03-10', 'certified'],
  ['2026-03-18', '2026-03-11', 'due-soon'],
  // Kept for no day at all.
  ['2026-03-02', '2026-03-02', 'due-soon'],
  ['2026-03-02', '2026-03-03', 'overdue'],
])('certified on 2 March until %s, on %s it is %s', (validUntil, today, kind) => {
  const one = certified.certified.map((each) => ({ ...each, validUntil }));
  expect(freshnessOf(stored({ ...certified, certified: one }), plainDate(today)).kind).toBe(kind);
});

test('what is left of the time is a share of it, from all to nothing', () => {
  const remaining = (today: string) =>
    freshnessOf(stored(certified), plainDate(today)) as { readonly remaining: number };
  expect(remaining('2026-03-01').remaining).toBe(1);
  expect(remaining('2026-03-02').remaining).toBe(1);
  expect(remaining('2026-03-12').remaining).toBeCloseTo(21 / 31, 12);
  expect(remaining('2026-04-02').remaining).toBe(0);
  expect(remaining('2026-04-09').remaining).toBe(0);
});

test('taken from is what is in date: a titrant may be nominal, an auxiliary solution past its day may not', () => {
  const day = (kind: object, today: string) => {
    const freshness = freshnessOf(stored({ ...bottle, ...kind }), plainDate(today));
    return [freshness.kind, mayBeUsed(freshness)];
  };
  expect(day({}, '2026-03-02')).toEqual(['not-standardized', true]);
  const auxiliary = { purpose: 'auxiliary', useBy: '2026-03-02' };
  expect(day(auxiliary, '2026-03-02')).toEqual(['auxiliary', true]);
  expect(day(auxiliary, '2026-03-03')).toEqual(['expired', false]);
  const withdrawn = { factId: 'f', by: 'ines', at: '2026-03-01T08:00:00.000Z', reason: 'cloudy' };
  expect(day({ withdrawn }, '2026-03-02')).toEqual(['withdrawn', false]);
  expect(day({ certified: certified.certified }, '2026-04-02')).toEqual(['due-soon', true]);
  expect(day({ certified: certified.certified }, '2026-04-03')).toEqual(['overdue', false]);
  const made = {
    molarity: '0.1',
    expandedUncertainty: '0.0002',
    coverageFactor: '2.00',
    unrounded: null,
  };
  expect(day({ made, useBy: null }, '2036-03-02')).toEqual(['certified', true]);
});

test('a bottle without a standardization is never fresh', () => {
  expect(freshnessOf(bottle, plainDate('2026-03-02'))).toEqual({ kind: 'not-standardized' });
});

test('keeping times run by the calendar, days by the laboratory clock', () => {
  const made = (substanceId: string, molarity: string, preparedOn = '2026-01-31') => ({
    substanceId,
    nominalMolarity: decimalText(molarity),
    preparedOn: plainDate(preparedOn),
  });
  const until = (of: ReturnType<typeof made>) => suggestValidUntil(of, plainDate('2026-01-31'));
  expect(until(made('sodium-hydroxide', '0.1'))).toBe('2026-02-28');
  expect(until(made('water', '0.1'))).toBeNull();
  // A weak base is spoilt sooner by the same carbon dioxide.
  expect(until(made('sodium-hydroxide', '0.05'))).toBe('2026-02-28');
  expect(until(made('sodium-hydroxide', '0.049'))).toBe('2026-02-07');
  // Standardizing renews the molarity, not the solution: three months after it was made it ends.
  expect(until(made('potassium-permanganate', '0.02', '2025-11-20'))).toBe('2026-02-14');
  expect(until(made('potassium-permanganate', '0.02', '2025-11-14'))).toBe('2026-02-14');
  expect(until(made('potassium-permanganate', '0.02', '2025-11-13'))).toBe('2026-02-13');
  expect(lastsUntil(made('potassium-permanganate', '0.02', '2025-10-30'))).toBe('2026-01-30');
  expect(lastsUntil(made('sodium-hydroxide', '0.1'))).toBeNull();
  // Strong hydroxide that was made here is clear after a week; what was bought has stood.
  const strong = { ...made('sodium-hydroxide', '19'), preparationId: idOf('p') };
  expect(readyFrom(strong)).toBe('2026-02-07');
  expect(readyFrom({ ...strong, preparationId: null })).toBeNull();
  expect(readyFrom({ ...strong, nominalMolarity: decimalText('9.9') })).toBeNull();
  expect(plainDateAt('2026-03-02T23:30:00.000Z', 'Europe/Vienna')).toBe('2026-03-03');
  expect(
    daysBetween(plainDate('2026-02-27'), addToDate(plainDate('2026-02-27'), { days: 3 })),
  ).toBe(3);
  expect(['2026-02-29', '2026-2-1', 'today'].map(isPlainDate)).toEqual([false, false, false]);
});

test("the certificate's molar mass goes before the formula's", () => {
  expect(lotMolarMass(lot.lot).valueGPerMol).toBeCloseTo(204.2223, 4);
  const stated = { valueGPerMol: '204.2212', standardUncertaintyGPerMol: '0.0038' };
  expect(lotMolarMass({ ...lot.lot, statedMolarMass: stored(stated) }).valueGPerMol).toBe(204.2212);
});

describe('the certificates of a bottle under one rule', () => {
  const size = (percent: string, how: CorrectionHow) => ({ percent, how });
  const entry = (certifiedOn: string, molarity: string, corrections: object | null) =>
    stored<CertifiedMolarity>({
      ...{ runId: 'r', certificateNumber: certifiedOn, molarity, certifiedOn },
      ...{ expandedUncertainty: '0.00020', coverageFactor: '2.00', unrounded: null },
      validUntil: '2026-12-31',
      corrections: corrections as CertifiedMolarity['corrections'],
    });
  const at25 = (how: CorrectionHow) => ({
    ...{ referenceC: '20', asMeasured: '0.10000', thermometer: 'T1' },
    temperature: size('0.111', how),
    buoyancy: size('0.058', how),
  });
  const rule = (how: 'corrected' | 'carried') => ({
    volumeCorrection: how,
    buoyancyCorrection: how,
    referenceTemperatureC: '20' as const,
  });
  const before = entry('2026-01-10', '0.10000', null);
  const plain = entry('2026-02-10', '0.10000', at25('carried'));
  const corrected = entry('2026-03-10', '0.10017', at25('corrected'));

  test('those that were corrected otherwise are told as today, and the day of the switch is marked', () => {
    const seen = (how: 'corrected' | 'carried') =>
      historyOf([before, plain, corrected], rule(how)).map(({ underTodaysRule, switchedOn }) => [
        underTodaysRule,
        switchedOn,
      ]);
    // 0.10000 x 1.00111 x 1.00058
    expect(seen('corrected')).toEqual([
      [null, null],
      ['0.10017', null],
      [null, '2026-03-10'],
    ]);
    expect(seen('carried')).toEqual([
      [null, null],
      [null, null],
      ['0.10000', '2026-03-10'],
    ]);
  });

  test('a molarity between two solutions has nothing to correct, and is no switch', () => {
    const between = entry('2026-03-20', '0.10020', {
      ...{ referenceC: '20', asMeasured: '0.10020', thermometer: 'T1' },
      ...{ temperature: null, buoyancy: null },
    });
    expect(historyOf([corrected, between], rule('corrected')).map((one) => one.switchedOn)).toEqual(
      [null, null],
    );
    const at27 = entry('2026-03-21', '0.10020', { ...at25('corrected'), referenceC: '27' });
    expect(historyOf([corrected, at27], rule('corrected'))[1]?.switchedOn).toBe('2026-03-21');
  });

  test('a temperature that nobody measured corrects nothing, whatever the rule', () => {
    const unmeasured = { ...at25('carried'), thermometer: null };
    const [first] = historyOf([entry('2026-02-10', '0.10000', unmeasured)], rule('corrected'));
    expect(first?.underTodaysRule).toBe('0.10006');
  });
});

test.each([
  ['0.1', null, /keeps for 1 month at this strength, by the catalogue/],
  ['0.1', 14, /keeps for 14 days by the laboratory’s own time/],
])('how long %s mol/L keeps, own time %s', (nominalMolarity, ownDays, expected) => {
  const bottle = bottleOf('sodium-hydroxide', { nominalMolarity });
  expect(whyKept(bottle, ownDays)).toMatch(expected);
});

test('of what nobody has an interval, that is what is said', () => {
  expect(whyKept(bottleOf('no-such-substance', {}), null)).toMatch(/Nobody has said/);
});
