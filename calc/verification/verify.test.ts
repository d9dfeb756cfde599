import { describe, expect, test } from 'vitest';
import { PACK, verifyCase } from './verify';

describe('verification pack', () => {
  test.each(PACK.map((one) => [one.id, one] as const))('%s', (_, one) => {
    expect(verifyCase(one).places.filter(({ isWithin }) => !isWithin)).toEqual([]);
  });

  test('goes through all eight points, with at least forty cases and ids of their own', () => {
    expect(new Set(PACK.map(({ point }) => point)).size).toBe(8);
    expect(new Set(PACK.map(({ id }) => id)).size).toBe(PACK.length);
    expect(PACK.length).toBeGreaterThanOrEqual(40);
  });

  test('a figure outside its tolerance fails its case', () => {
    const [first] = PACK;
    if (!first) throw new Error('the pack is empty');
    const shifted = { ...first, expected: { molar_mass_g_per_mol: 204.3 } };
    expect(verifyCase(shifted).isWithin).toBe(false);
  });
});
