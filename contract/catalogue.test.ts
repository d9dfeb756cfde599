import * as v from 'valibot';
import { describe, expect, test } from 'vitest';
import {
  CATALOGUE,
  checkCatalogue,
  extendCatalogue,
  findMethod,
  findSubstance,
  hazardsAt,
  moleRatioOfMethod,
  ratiosOfAnalysis,
  statedAsOf,
} from '#core/chemistry';
import { catalogueSchema } from './index';

describe('the catalogue that ships', () => {
  test('fits the schema, and every formula, reaction and name in it holds', () => {
    expect(v.safeParse(catalogueSchema, CATALOGUE).issues).toBeUndefined();
    expect(checkCatalogue(CATALOGUE)).toEqual([]);
  });

  test('the balanced reactions give the known mole ratios', () => {
    const known: Record<string, number> = {
      'naoh-by-khp': 1,
      'naoh-by-oxalic-acid': 2,
      'naoh-by-benzoic-acid': 1,
      'hydrochloric-acid-by-sodium-carbonate': 2,
      'carbonate-into-hydrochloric-acid': 2,
      'permanganate-by-sodium-oxalate': 2 / 5,
      'permanganate-by-iron-ii': 1 / 5,
      'dichromate-by-iron-ii': 1 / 6,
      'thiosulfate-by-iodate': 6,
      'thiosulfate-by-dichromate': 6,
      'iodine-by-thiosulfate': 1 / 2,
      'edta-by-calcium-carbonate': 1,
      'cerium-iv-by-sodium-oxalate': 2,
      'sulfuric-acid-by-sodium-carbonate': 1,
      'perchloric-acid-by-khp': 1,
    };
    const found = CATALOGUE.methods
      .filter(({ id }) => id in known)
      .map((method) => [method.id, moleRatioOfMethod(method)]);
    expect(Object.fromEntries(found)).toEqual(known);
    const ratios = CATALOGUE.analyses.map((one) => [
      one.id,
      ratiosOfAnalysis(one, statedAsOf(one, null)),
    ]);
    expect(Object.fromEntries(ratios)).toMatchObject({
      'titratable-acidity': { perTitrant: 1 / 2, equivalents: 2 },
      'carbonate-by-back-titration': { perTitrant: 1 / 2, perExcess: 1 / 2, equivalents: 2 },
      'sulfur-dioxide': { perTitrant: 1, perExcess: null },
      'oxalic-acid-by-permanganate': { perTitrant: 5 / 2, equivalents: 2 },
      'iron-by-dichromate': { perTitrant: 6, equivalents: 1 },
      'unknown-solid-acid': { perTitrant: 1, equivalents: 1 },
    });
  });

  test.each([
    ['potassium-dichromate', 100, 'H301', 'H225'],
    ['potassium-dichromate', 0.49, 'H350', null],
    ['sodium-hydroxide', 0.4, null, 'H314'],
    ['sodium-hydroxide', 2, 'H314', 'H315'],
    ['hydrochloric-acid', 0.36, 'H290', 'H314'],
  ])('hazards of %s at %d %% have %s and not %s', (id, percent, has, hasNot) => {
    const codes: readonly string[] = hazardsAt(findSubstance(id)?.hazards ?? [], percent);
    if (has) expect(codes).toContain(has);
    expect(codes).not.toContain(hasNot ?? 'H225');
  });
});

describe('entries of a laboratory’s own', () => {
  const own = { ...findMethod('naoh-by-khp'), id: 'own-method', rules: { persistenceS: 15 } };

  test('take the same path and stand before those that ship', () => {
    const entries = v.parse(catalogueSchema, { methods: [own, { ...own, id: 'naoh-by-khp' }] });
    const extended = extendCatalogue(CATALOGUE, entries);
    expect(checkCatalogue(extended)).toEqual([]);
    expect(extended.methods).toHaveLength(CATALOGUE.methods.length + 1);
    expect(extended.methods.find(({ id }) => id === 'naoh-by-khp')?.rules).toEqual({
      persistenceS: 15,
    });
  });

  test.each([
    [{ equations: ['C8H5O4^- + OH^- -> C8H4O4^2-'] }, { code: 'bad-entry' }],
    [{ standardId: 'moon-dust' }, { code: 'no-such-entry', values: { id: 'moon-dust' } }],
    [{ indicatorId: 'litmus' }, { code: 'no-such-entry', values: { id: 'litmus' } }],
    [{ id: 'naoh-by-oxalic-acid' }, null],
  ])('%j is told', (change, told) => {
    const entries = v.parse(catalogueSchema, { methods: [{ ...own, ...change }] });
    const [finding] = checkCatalogue(extendCatalogue(CATALOGUE, entries));
    if (told) expect(finding).toMatchObject(told);
    else expect(finding).toBeUndefined();
  });

  test.each([
    [{ rules: { persistenceS: -1 } }],
    [{ colours: { ...own.colours, before: { word: 'blue', css: 'blue' } } }],
    [{ surprise: true }],
  ])('%j does not fit the schema', (change) => {
    expect(v.is(catalogueSchema, { methods: [{ ...own, ...change }] })).toBe(false);
  });
});
