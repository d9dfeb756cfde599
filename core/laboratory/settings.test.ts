import { describe, expect, test } from 'vitest';
import { plainDate } from '../grammar';
import { suggestValidUntil } from '../reagent';
import { decimalText } from '../measurement';
import { checkSettings, DEFAULT_SETTINGS, ownKeepingDays, SETTINGS } from './settings';

test('what ships can be followed', () => {
  expect(checkSettings(DEFAULT_SETTINGS)).toEqual([]);
});

describe('each figure has its bounds', () => {
  for (const { key, answer } of SETTINGS) {
    if (answer.kind === 'choice') continue;
    const { least, most } = answer;
    const step = answer.kind === 'count' ? 1 : 0.1;
    const against = (value: number) =>
      checkSettings({
        ...DEFAULT_SETTINGS,
        [key]: answer.kind === 'count' ? value : String(value),
      })
        .filter(({ code }) => code === 'out-of-bounds')
        .map(({ field }) => field);
    test(`${key}: ${String(least)} to ${String(most)}`, () => {
      expect(against(least - step)).toEqual([key]);
      expect(against(least)).toEqual([]);
      expect(against(most)).toEqual([]);
      expect(against(most + step)).toEqual([key]);
    });
  }
});

test.each([
  [8, 16, []],
  [8, 9, []],
  [8, 8, ['workday-without-hours']],
  [9, 8, ['workday-without-hours']],
])('a day from %d to %d h', (workdayBegins, workdayEnds, expected) => {
  const settings = { ...DEFAULT_SETTINGS, workdayBegins, workdayEnds };
  expect(checkSettings(settings).map(({ code }) => code)).toEqual(expected);
});

test('a time to keep is the laboratory’s where it has set one, and each substance has one', () => {
  const one = { substanceId: 'sodium-hydroxide', days: 10 };
  const settings = { ...DEFAULT_SETTINGS, keeping: [one] };
  expect(checkSettings(settings)).toEqual([]);
  expect(checkSettings({ ...settings, keeping: [one, one] }).map(({ code }) => code)).toEqual([
    'kept-twice',
  ]);
  const made = {
    substanceId: 'sodium-hydroxide',
    nominalMolarity: decimalText('0.1'),
    preparedOn: plainDate('2026-03-02'),
  };
  const since = plainDate('2026-03-05');
  const days = ownKeepingDays(settings, 'sodium-hydroxide');
  expect(suggestValidUntil(made, since, days)).toBe('2026-03-15');
  const others = ownKeepingDays(settings, 'hydrochloric-acid');
  expect(suggestValidUntil(made, since, others)).toBe(suggestValidUntil(made, since));
});

test('no time to keep outlasts what cannot be renewed by standardizing', () => {
  const made = {
    substanceId: 'potassium-permanganate',
    nominalMolarity: decimalText('0.02'),
    preparedOn: plainDate('2025-10-30'),
  };
  expect(suggestValidUntil(made, plainDate('2026-01-20'), 90)).toBe('2026-01-30');
});
