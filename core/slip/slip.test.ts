import { describe, expect, test } from 'vitest';
import { findSubstance } from '#core/chemistry';
import { isNetOf, suspectForm, suspectReading, suspectWeighing } from './index';

describe('a final reading off the forecast', () => {
  const context = {
    initialMl: 2.1,
    expectedTitreMl: 25,
    halfBandMl: 0.15,
    capacityMl: 50,
    decimals: 2,
  };
  test.each([
    [27.12, null, null],
    [27.88, 'read-upwards', 27.12],
    [28.88, 'wrong-mark', 27.12],
    [28.12, 'whole-millilitres-off', 27.12],
    [37.05, 'whole-millilitres-off', 27.05],
    [72.1, 'digits-swapped', 27.1],
    [2.71, 'digit-dropped', 27.01],
    [40.33, null, null],
  ])('%d mL: %s, %d mL meant', (typed, kind, meant) => {
    const slip = suspectReading(typed, context);
    expect(slip?.kind ?? null).toBe(kind);
    if (meant !== null) expect(slip?.meant).toBe(meant);
  });

  test('initial and final reading exchanged', () => {
    expect(suspectReading(2.1, { ...context, initialMl: 27.1 })?.kind).toBe('exchanged');
  });
});

test.each([
  [0.5102, null, null],
  [5.102, 'decimal-point', 0.5102],
  [0.051, 'decimal-point', 0.51],
  [12.9102, 'tare-not-subtracted', 0.5102],
  [0.2222, null, null],
  [0.0512, 'decimal-point', 0.512],
])('a mass of %d g where 0.51 g were intended: %s', (typed, kind, meant) => {
  const slip = suspectWeighing(typed, {
    intendedG: 0.51,
    toleranceG: 0.03,
    decimals: 4,
    tareG: 12.4,
  });
  expect(slip?.kind ?? null).toBe(kind);
  if (meant !== null) expect(slip?.meant).toBeCloseTo(meant, 4);
});

test('net is gross minus tare, in decimals', () => {
  expect(isNetOf(0.1, 24.6, 24.5, 4)).toBe(true);
  expect(isNetOf(0.11, 24.6, 24.5, 4)).toBe(false);
});

test.each([
  ['oxalic-acid-dihydrate', 126.06, null],
  ['oxalic-acid-dihydrate', 90.03, 'oxalic-acid-anhydrous'],
  ['ammonium-iron-ii-sulfate-hexahydrate', 278.01, 'iron-ii-sulfate-heptahydrate'],
  ['potassium-hydrogen-phthalate', 126.06, null],
])('%s with %d g/mol: %s', (id, stated, other) => {
  const substance = findSubstance(id);
  expect(substance && (suspectForm(stated, substance)?.id ?? null)).toBe(other);
});
