import { describe, expect, test } from 'vitest';
import { controlVerdict } from '../statistics';
import type { ControlPoint } from './control';
import { controlText, standingOfControl } from './control';

/** A chart of settled points, one a day. */
function chart(values: readonly number[], isSettled = true): readonly ControlPoint[] {
  return values.map((value, i) => ({
    ...{ runId: null, at: `2026-01-${String(i + 1).padStart(2, '0')}`, value, range: null },
    isSettled,
  }));
}

/** So many points about 6, one above and one below in turn: mean 6, s known. */
const evenly = (count: number): readonly number[] =>
  Array.from({ length: count }, (_, i) => (i % 2 === 0 ? 5.94 : 6.06));

describe('limits of a control', () => {
  test('come from twenty earlier points, not from nineteen', () => {
    expect(standingOfControl([])).toBeNull();
    const few = standingOfControl(chart([...evenly(19), 9]));
    expect(few).toMatchObject({ verdict: 'no-limits', earlier: 19, limits: null });
    const enough = standingOfControl(chart([...evenly(20), 9]));
    expect(enough).toMatchObject({ verdict: 'out', earlier: 20 });
    expect(enough?.limits?.centre).toBeCloseTo(6, 12);
    // 0.06 sqrt(20 / 19)
    expect(enough?.limits?.sigma).toBeCloseTo(0.061559, 5);
  });

  test('leave out what was neither reported nor taken over, and what is always the same', () => {
    const open = chart(evenly(20), false);
    expect(standingOfControl([...open, ...chart([9])])).toMatchObject({ earlier: 0 });
    const constant = standingOfControl(chart([...Array.from({ length: 20 }, () => 6), 9]));
    expect(constant?.verdict).toBe('no-limits');
  });

  test('tell how many lie on one side', () => {
    const row = standingOfControl(chart([...evenly(19), 5.94, ...Array<number>(8).fill(6.03)]));
    expect(row?.onOneSide).toBe(8);
    const said = row && controlText({ code: 'QC-W', unit: 'g/L', standing: row });
    expect(said).toMatch(/^Control QC-W: 6\.030 g\/L, in control; 27 earlier points/);
    expect(said).toContain('8 in a row on one side of the mean');
  });
});

test.each<[string, readonly number[], string]>([
  ['at 3 s', [3], 'in-control'],
  ['beyond 3 s', [-3.01], 'out'],
  ['one beyond 2 s', [0, 0, 2.1], 'in-control'],
  ['two of three beyond 2 s on one side', [2.1, 0, 2.1], 'warned'],
  ['two of three at 2 s', [2.1, 0, 2], 'in-control'],
  ['two of three on either side', [-2.1, 0, 2.1], 'in-control'],
  ['two of four', [2.1, 0, 0, 2.1], 'in-control'],
])('by the run rules, %s', (_, values, verdict) => {
  expect(controlVerdict(values, { centre: 0, sigma: 1 })).toBe(verdict);
});
