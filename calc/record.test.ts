import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, test } from 'vitest';
import type { ComparedPlace } from './compare';
import { compare } from './compare';
import { calculate, TASKS, unknownKeys } from './record';
import { recordJsonSchema } from './recordFile';

const dilution = { task: 'dilution', initial_molarity_mol_per_L: 1, final_volume_mL: 250 };

describe('records', () => {
  test('the committed JSON Schema is that of the format', () => {
    const file = join(import.meta.dirname, '..', 'docs', 'record-format.schema.json');
    expect(JSON.parse(readFileSync(file, 'utf8'))).toEqual(
      JSON.parse(JSON.stringify(recordJsonSchema())),
    );
  });

  test('every task is described', () => {
    const text = readFileSync(join(import.meta.dirname, '..', 'docs', 'record-format.md'), 'utf8');
    expect(TASKS.map((task) => task.name).filter((name) => !text.includes(`\`${name}\``))).toEqual(
      [],
    );
  });

  test.each([
    [null, 'invalid', 'task'],
    [[], 'invalid', 'task'],
    [{ task: 'guess' }, 'invalid', 'task'],
    [{ task: 'molar-mass' }, 'invalid', 'formula'],
    [{ task: 'molar-mass', formula: 7 }, 'invalid', 'formula'],
    [{ task: 'molar-mass', formula: 'NaXx' }, 'unknown-element', 'formula'],
    [dilution, 'empty', 'initial_volume_mL'],
    [{ ...dilution, final_molarity_mol_per_L: 2 }, 'cannot-concentrate', 'initial_volume_mL'],
    [{ ...dilution, final_molarity_mol_per_L: 0 }, 'non-positive', 'final_molarity_mol_per_L'],
    [
      { task: 'water-density', temperatures_degC: [20, 41] },
      'temperature-out-of-range',
      'temperatures_degC',
    ],
    [{ task: 'propagate', model: 'a*b', inputs: [{ symbol: 'a', value: 1 }] }, 'syntax', 'model'],
    [
      {
        task: 'propagate',
        model: 'a',
        inputs: [{ symbol: 'a', value_g: 1, components: [{ half_width_mL: 1 }] }],
      },
      'incompatible-units',
      'components',
    ],
  ])('%j is refused', (record, problem, field) => {
    expect(calculate(record)).toMatchObject({ kind: 'refused', problem, field });
  });

  const standardize = {
    task: 'standardize',
    mole_ratio: { titrant: 1, standard: 1 },
    standard: { molar_mass_g_per_mol: 204.22, purity_percent: 99.98 },
    replicates: [{ id: '1', mass_g: 0.48, initial_reading_mL: 0, final_reading_mL: 23.5 }],
  };
  const [replicate] = standardize.replicates;
  const concentrate = {
    task: 'volume-of-concentrate',
    mass_fraction_percent: 37,
    density_g_per_mL: 1.19,
    molar_mass_g_per_mol: 36.46,
    target_molarity_mol_per_L: 0.1,
    final_volume_mL: 1000,
  };
  const buoyancy = {
    task: 'buoyancy',
    balance_indication_g: 0.5,
    sample_density_kg_per_m3: 1640,
    air_density_kg_per_m3: 1.2,
    weights_density_kg_per_m3: 8000,
  };
  const twice = [
    { symbol: 'a', value: 1 },
    { symbol: 'b', value: 2 },
  ];
  const propagate = { task: 'propagate', model: 'a/b', inputs: twice, trials: 1000 };

  // Each would be computed as something else than what was meant.
  test.each([
    [{ task: 'molar-mass', formula: 'KI03' }, 'syntax', 'letter O'],
    [{ task: 'molar-mass', formula: 'N02' }, 'syntax', 'letter O'],
    [{ task: 'balance', equation: '2H2 + O2 -> 2H2O' }, 'syntax', 'blank after a coefficient'],
    [{ task: 'balance', equation: '2KMnO4 -> K2O + Mn2O7' }, 'syntax', '2KMnO4'],
    [{ ...propagate, model: '1/2a' }, 'syntax', 'lacks a *'],
    [{ ...propagate, model: '2(a-b)' }, 'syntax', 'lacks a *'],
    [{ ...propagate, inputs: [...twice, { symbol: 'a', value: 3 }] }, 'syntax', 'called a'],
    [
      { ...standardize, standard: { ...standardize.standard, purity_percent: 0.9998 } },
      'out-of-range',
      'If a fraction was meant',
    ],
    [{ ...standardize, blank_mL: -0.05 }, 'non-positive', 'negative'],
    [{ ...standardize, replicates: [replicate, replicate] }, 'syntax', 'called 1'],
    [
      { ...standardize, replicates: [{ ...replicate, aliquot_mL: 25 }] },
      'incompatible-units',
      'a mass and an aliquot',
    ],
    [{ ...concentrate, density_g_per_mL: 1190 }, 'out-of-range', 'kg/m3'],
    [{ ...concentrate, mass_fraction_percent: 0.37 }, 'out-of-range', 'If a fraction was meant'],
    [{ ...buoyancy, sample_density_kg_per_m3: 1.64 }, 'out-of-range', 'g/mL'],
    [{ ...buoyancy, weights_density_kg_per_m3: 8 }, 'out-of-range', 'g/mL'],
    [{ task: 'round', value: 1.2345, expanded_uncertainty: 0 }, 'non-positive', 'above zero'],
    [{ task: 'round', value: 1.2345, expanded_uncertainty: -0.01 }, 'non-positive', 'above zero'],
  ])('instead of being misread %j is refused', (record, problem, sentence) => {
    expect(calculate(record)).toMatchObject({
      kind: 'refused',
      problem,
      sentence: expect.stringContaining(sentence) as string,
    });
  });

  test('what comes near to it and can be meant is computed', () => {
    for (const record of [
      { task: 'molar-mass', formula: 'Fe0.95O' },
      { task: 'molar-mass', formula: '3CdSO4·8H2O' },
      { task: 'balance', equation: '2 H2 + O2 -> 2 H2O' },
      { ...propagate, model: '1/2*a' },
      { ...standardize, standard: { ...standardize.standard, purity_percent: 1.01 } },
      { ...standardize, blank_mL: 0 },
      { ...concentrate, mass_fraction_percent: 1.01 },
      { ...concentrate, density_g_per_mL: 13.5 },
      { ...buoyancy, sample_density_kg_per_m3: 500 },
    ]) {
      expect(calculate(record), JSON.stringify(record)).toMatchObject({ kind: 'results' });
    }
    // One reading that cannot be is that titration's alone.
    const below = { ...replicate, id: '2', initial_reading_mL: -0.1 };
    expect(calculate({ ...standardize, replicates: [replicate, below] })).toMatchObject({
      kind: 'results',
      results: { replicates: [{ id: '1' }, { id: '2', error: 'non-positive' }] },
    });
    // What fails after its readings keeps its titre.
    const used = { ...replicate, id: '2', final_reading_mL: 0.04 };
    expect(
      calculate({ ...standardize, blank_mL: 0.05, replicates: [replicate, used] }),
    ).toMatchObject({
      results: { replicates: [{ id: '1' }, { id: '2', error: 'no-net-titre', titre_mL: 0.04 }] },
    });
  });

  test('a key that is not known is told', () => {
    expect(unknownKeys({ ...dilution, version: 1, inital_volume_mL: 1 })).toEqual([
      'inital_volume_mL',
    ]);
  });
});

const outside = (places: readonly ComparedPlace[]): readonly ComparedPlace[] =>
  places.filter(({ isWithin }) => !isWithin);

describe('comparison', () => {
  const expected = {
    a: { b: [1, 2] },
    b: 10,
    c: null,
    error: 'syntax',
    error_also_accepted: ['empty'],
  };
  const got = { a: { b: [1.05, 2.1] }, b: 10.5, c: null, error: 'empty', more: 1 };
  const pathsOf = (tolerance: Parameters<typeof compare>[2]): string[] =>
    outside(compare(expected, got, tolerance)).map(({ path }) => path);

  test('the longest name that fits sets the limit, and lists inherit it', () => {
    expect(pathsOf({ absolute: 1 })).toEqual([]);
    expect(pathsOf({ relative: 0.01 })).toEqual(['a.b', 'a.b', 'b']);
    expect(pathsOf({ fields: { 'a.b': { absolute: 0.2 }, b: { absolute: 0 } } })).toEqual(['b']);
    expect(pathsOf({ fields: { b: { relative: 0.06 } } })).toEqual([]);
  });

  test('a limit includes what lies exactly on it, and null is not a number', () => {
    expect(compare({ x: 2 }, { x: 2.5 }, { absolute: 0.5 })).toMatchObject([
      { isWithin: true, part: 1 },
    ]);
    expect(outside(compare({ x: null }, { x: 0 }, { absolute: 1 }))).toHaveLength(1);
    expect(outside(compare({ x: [1] }, { x: [1, 1] }, { absolute: 1 }))).toHaveLength(1);
  });

  test('an indicator is compared with the step that is seen, not with one that merges with it', () => {
    const record = {
      task: 'acid-base-curve',
      flask: {
        volume_mL: 25,
        systems: [
          {
            total_mol_per_L: 0.05,
            pKa: [-3, 1.99],
            charge_fully_protonated: 0,
            protons_at_start: 2,
          },
        ],
      },
      titrant: { strong_base_mol_per_L: 0.1 },
      volumes_mL: [0],
      end_volume_mL: 30,
      indicators: [{ name: 'phenolphthalein', transition_pH: 8.3 }],
    };
    // Against the first proton it would be 100 % wrong.
    expect(calculate(record)).toMatchObject({
      results: {
        equivalence_has_step: [false, true],
        indicator_errors: [{ titration_error_percent: expect.closeTo(0, 1) as number }],
      },
    });
  });
});
