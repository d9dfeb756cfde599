import { describe, expect, test } from 'vitest';
import type { HazardCode } from '#core/chemistry';
import { CATALOGUE, findSubstance, HAZARD_STATEMENTS, hazardsAt, molarMass } from '#core/chemistry';
import { lotOf } from '../test-support/preparations';
import { stored } from '../test-support/stored';
import { hazardsOf, hazardsOfLot, hazardsOfSolution } from './index';

/** Signal word, pictograms and statements, as one line. */
function said({ signal, pictograms, statements }: ReturnType<typeof hazardsOf>): string {
  const codes = statements.map(({ code }) => code).join(' ');
  return [signal ?? 'no signal', pictograms.toSorted().join(' '), codes].join('; ');
}

describe('a solution is classified by all that is in it, each at its own concentration', () => {
  test.each([
    ['perchloric-acid', 0.1, 'Danger; corrosion flame; H226 H314'],
    ['sodium-hydroxide', 0.1, 'no signal; ; '],
    ['sodium-hydroxide', 1, 'Danger; corrosion; H290 H314'],
    ['hydrochloric-acid', 0.1, 'Warning; corrosion; H290'],
    ['sulfuric-acid', 3, 'Danger; corrosion; H290 H314'],
    ['iodine', 0.05, 'Warning; health; H373'],
    ['ammonium-iron-ii-sulfate-hexahydrate', 0.1, 'Warning; corrosion; H290'],
    ['ammonium-cerium-iv-sulfate-dihydrate', 0.1, 'Warning; corrosion; H290 H315 H319'],
    ['benzoic-acid', 0.1, 'Danger; exclamation flame; H225 H319'],
    ['silver-nitrate', 0.1, 'Warning; corrosion environment; H290 H315 H319 H410'],
    ['potassium-permanganate', 0.02, 'no signal; ; H412'],
    ['potassium-dichromate', 1 / 60, 'Danger; health; H317 H334 H340 H350 H360FD H412'],
    ['oxalic-acid-dihydrate', 0.05, 'no signal; ; '],
    ['sodium-chloride', 2, 'no signal; ; '],
  ] as const)('%s, %s mol/L', (id, molarity, expected) => {
    expect(said(hazardsOfSolution(id, molarity))).toBe(expected);
  });

  test.each([
    ['methyl-orange', 'no signal; ; '],
    ['phenolphthalein', 'Warning; flame; H226'],
    ['thymol-blue', 'Warning; flame; H226'],
    ['methyl-red', 'Danger; exclamation flame; H225 H319'],
    ['thymolphthalein', 'Danger; exclamation flame; H225 H319'],
    ['crystal-violet', 'Danger; corrosion flame; H226 H314'],
    ['diphenylamine', 'Danger; corrosion; H290 H314'],
    ['starch', 'no signal; ; '],
    ['eriochrome-black-t', 'no signal; ; '],
    ['chromate', 'Danger; environment exclamation health; H317 H340 H350i H411'],
    ['iron-iii', 'Warning; corrosion; H290 H315 H319'],
  ] as const)('indicator %s as it is made up', (id, expected) => {
    expect(said(hazardsOfSolution(id, null))).toBe(expected);
  });

  test('mass fractions come from real densities: 12 mol/L of hydrochloric acid is 37 %, not 44 %', () => {
    // 11.6 mol/L is what the 37 % acid of 1.19 g/mL holds; 6.87 mol/L is 25 % for a density of 1 only, and 22.5 % as it is.
    const { valueGPerMol } = molarMass('HCl');
    const strong = (370 * 1.19) / valueGPerMol;
    expect(said(hazardsOfSolution('hydrochloric-acid', strong))).toContain('H314');
    expect(said(hazardsOfSolution('hydrochloric-acid', 250 / valueGPerMol))).not.toContain('H314');
  });
});

describe('bands, at and below each limit', () => {
  const at = (id: string, percent: number): readonly HazardCode[] =>
    hazardsAt(findSubstance(id)?.hazards ?? [], percent);

  test.each([
    ['potassium-dichromate', 5, ['H314', 'H302', 'H331'], 4.99],
    ['potassium-dichromate', 3, ['H318'], 2.99],
    ['potassium-dichromate', 1, ['H319', 'H315'], 0.99],
    ['potassium-dichromate', 2.5, ['H411'], 2.49],
    ['hydrogen-peroxide', 70, ['H271'], 69.9],
    ['hydrogen-peroxide', 50, ['H314', 'H272'], 49.9],
    ['hydrogen-peroxide', 35, ['H315', 'H335'], 34.9],
    ['hydrogen-peroxide', 8, ['H318'], 7.9],
    ['hydrogen-peroxide', 5, ['H319'], 4.9],
    ['perchloric-acid', 50, ['H271'], 49.9],
    ['perchloric-acid', 10, ['H272', 'H314'], 9.9],
    ['oxalic-acid-anhydrous', 3, ['H318'], 2.9],
    ['oxalic-acid-anhydrous', 1, ['H319'], 0.9],
    ['silver-nitrate', 3, ['H318'], 2.9],
    ['ammonia', 3, ['H318'], 2.9],
    ['nitric-acid', 26.5, ['EUH071', 'H331'], 26.4],
    ['potassium-chromate', 0.1, ['H350i'], 0.09],
    ['boric-acid', 0.3, ['H360FD'], 0.29],
    ['borax', 0.3, ['H360FD'], 0.29],
    ['sodium-hypochlorite', 5, ['EUH031', 'H314'], 4.9],
    ['potassium-bromate', 0.1, ['H350'], 0.09],
    ['potassium-bromate', 25, ['H301'], 24.9],
    ['formaldehyde', 0.1, ['H350'], 0.09],
    ['mercury-ii-chloride', 25, ['H300'], 24.9],
    ['barium-chloride-dihydrate', 25, ['H301'], 24.9],
    ['copper-sulfate-pentahydrate', 3, ['H318', 'H410'], 2.9],
  ] as const)('%s from %s %%: %j', (id, from, codes, below) => {
    expect(at(id, from)).toEqual(expect.arrayContaining([...codes]));
    for (const code of codes) expect(at(id, below), code).not.toContain(code);
  });
});

describe('pictograms give way to each other (CLP, article 26)', () => {
  test.each([
    [['H301', 'H302', 'H315'], ['skull']],
    [['H314', 'H315', 'H319'], ['corrosion']],
    // Harm by mouth, and irritated airways, are no irritation of skin and eyes.
    [
      ['H314', 'H302'],
      ['corrosion', 'exclamation'],
    ],
    [
      ['H318', 'H335'],
      ['corrosion', 'exclamation'],
    ],
    [['H334', 'H317', 'H319'], ['health']],
    [['H317'], ['exclamation']],
    [
      ['H372', 'H319'],
      ['health', 'exclamation'],
    ],
  ] as const)('%j', (codes, pictograms) => {
    expect(hazardsOf(codes).pictograms).toEqual(pictograms);
  });

  test('nothing has no signal word', () => {
    expect(hazardsOf([])).toEqual({
      ...{ signal: null, pictograms: [], statements: [], precautions: [], sheet: null },
    });
  });
});

describe('what to do about it', () => {
  test('the most urgent first, six at most', () => {
    const codes = (of: readonly HazardCode[]): readonly string[] =>
      hazardsOf(of).precautions.map(({ code }) => code);
    expect(codes(['H314', 'H290'])).toEqual([
      'P305+P351+P338',
      'P303+P361+P353',
      'P301+P330+P331',
      'P280',
      'P260',
      'P390',
    ]);
    expect(codes(['H412'])).toEqual(['P273', 'P501']);
    expect(codes([])).toEqual([]);
    const dichromate = findSubstance('potassium-dichromate')?.hazards ?? [];
    expect(codes(hazardsAt(dichromate, 100))).toHaveLength(6);
  });

  test('every hazard that has a pictogram has something to do about it', () => {
    for (const [code, { pictogram }] of Object.entries(HAZARD_STATEMENTS)) {
      // The keys of the table.
      const { precautions } = hazardsOf([code as HazardCode]);
      expect(precautions.length > 0 || pictogram === null, code).toBe(true);
    }
  });
});

test('the safety data sheet of a lot goes before the catalogue, for that lot alone', () => {
  const lot = lotOf('sodium-chloride');
  expect(hazardsOfLot(lot)).toMatchObject({ signal: null, sheet: null });
  const sheet = 'sheet 12 of 2026-05-04';
  const by = { factId: 'f', by: 'ines', at: '2026-03-02T08:00:00.000Z' };
  const classified = { ...by, codes: ['H319'] as const, sheet };
  const sixMolar = { meaning: 'by-molarity', molarity: '6' } as const;
  const hydroxide = lotOf('sodium-hydroxide', { purity: '1', dissolved: sixMolar });
  expect(said(hazardsOfLot(hydroxide))).toBe('Danger; corrosion; H290 H314');
  expect(hazardsOfLot(stored({ ...lot, classified }))).toMatchObject({ signal: 'Warning', sheet });
});

test('a lot is as it was received; whatever is in a solution is in the catalogue', () => {
  expect(hazardsOfLot(lotOf('sodium-hydroxide'))).toMatchObject({ signal: 'Danger' });
  for (const { id } of CATALOGUE.substances)
    expect(() => hazardsOfSolution(id, 0.1), id).not.toThrow();
  for (const { id } of CATALOGUE.indicators)
    expect(() => hazardsOfSolution(id, null), id).not.toThrow();
});
