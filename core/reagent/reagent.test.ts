import { expect, test } from 'vitest';
import { addToDate, daysBetween, isPlainDate, plainDateAt, plainDate } from '#core/grammar';
import { khpLot, references } from '../test-support/runs';
import { stored } from '../test-support/stored';
import { freshnessOf, lotMolarMass, suggestValidUntil } from './index';

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
      certifiedOn: '2026-03-02',
      validUntil: '2026-04-02',
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

test('a bottle without a standardization is never fresh', () => {
  expect(freshnessOf(bottle, plainDate('2026-03-02'))).toEqual({ kind: 'not-standardized' });
});

test('keeping times run by the calendar, days by the laboratory clock', () => {
  expect(suggestValidUntil('sodium-hydroxide', plainDate('2026-01-31'))).toBe('2026-02-28');
  expect(suggestValidUntil('water', plainDate('2026-01-31'))).toBeNull();
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
