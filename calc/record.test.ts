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
});
