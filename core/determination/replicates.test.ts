import { describe, expect, test } from 'vitest';
import { exact, UNITS } from '#core/measurement';
import { Unanswerable } from '#core/problem';
import { byAliquots, byWeighedStandard, excessOf, inFlask } from '../test-support/determinations';
import type { Content, Determination, TitrationReplicate } from './index';
import { determine, nominalDilutions, ratioOf } from './index';

const gram = (value: number) => exact(value, UNITS.gram);
const gramPerMole = (value: number) => exact(value, UNITS.gramPerMole);
const millilitre = (value: number) => exact(value, UNITS.millilitre);

/** One titration from 0.00 mL, of an aliquot of 25 mL where nothing else is said. */
function titration(titreMl: number, changes: Partial<TitrationReplicate> = {}): TitrationReplicate {
  return {
    id: 'a',
    fillings: [{ initialMl: 0, finalMl: titreMl }],
    portion: { aliquotMl: 25 },
    ...changes,
  };
}

/** The first titration's result; its kind of problem and the field where it has none. */
function resultOf(determination: Determination, replicate: TitrationReplicate): unknown {
  const [outcome] = determine(determination, [replicate], []).replicates;
  if (outcome?.kind === 'found') return outcome.result;
  return [outcome?.problem.kind, outcome?.problem.field, outcome?.titreMl];
}

describe('a determination that makes no sense is refused at its field', () => {
  const madeUp = (massG: number, volumeMl: number, flaskMl = 100) =>
    byAliquots(1, {
      known: {
        kind: 'made-up',
        purity: exact(1),
        molarMass: gramPerMole(100),
        massFactor: null,
        mass: gram(massG),
        volume: millilitre(volumeMl),
        dilutions: nominalDilutions([{ aliquotMl: 50, flaskMl }]),
      },
    });
  const blank = (kind: 'subtracted' | 'gives-the-excess', volumeMl: number) =>
    ({ kind, volume: millilitre(volumeMl) }) as const;

  test.each<[string, Determination, string, string]>([
    ['a ratio of 0', inFlask(0.1, { soughtPerKnown: exact(0) }), 'non-positive', 'mole_ratio'],
    ['an aliquot of water', byAliquots(0), 'non-positive', 'molarityMolPerL'],
    ['water in the burette', inFlask(0), 'non-positive', 'titrantMolarityMolPerL'],
    ['no molar mass', byWeighedStandard(0), 'non-positive', 'molarMassGPerMol'],
    ['a purity of 0', byWeighedStandard(100, 0), 'non-positive', 'purity'],
    ['a purity above 1', byWeighedStandard(100, 1.0001), 'out-of-range', 'purity'],
    ['a purity of 1 %', byWeighedStandard(100, 0.01), 'out-of-range', 'purity'],
    ['nothing weighed to make it up', madeUp(0, 250), 'non-positive', 'massG'],
    ['made up to nothing', madeUp(1, 0), 'non-positive', 'volumeMl'],
    ['diluted into less than was taken', madeUp(1, 250, 49), 'cannot-concentrate', 'aliquotMl'],
    [
      'a sample diluted so',
      inFlask(0.1, { dilutions: nominalDilutions([{ aliquotMl: 50, flaskMl: 49 }]) }),
      'cannot-concentrate',
      'aliquotMl',
    ],
    [
      'an excess of water',
      inFlask(0.1, { excess: excessOf(0, 50) }),
      'non-positive',
      'reagentMolarity',
    ],
    ['no excess', inFlask(0.1, { excess: excessOf(0.1, 0) }), 'non-positive', 'reagentVolume'],
    [
      'less than nothing for an excess',
      inFlask(0.1, { blank: blank('gives-the-excess', -0.1) }),
      'non-positive',
      'blankTitre',
    ],
    [
      'a blank below zero',
      byAliquots(0.1, { blank: blank('subtracted', -0.01) }),
      'non-positive',
      'blank',
    ],
  ])('%s', (_what, determination, kind, field) => {
    expect(() => determine(determination, [], [])).toThrow(
      expect.objectContaining({ kind, field }),
    );
  });

  test('what lies just within is computed', () => {
    for (const determination of [
      byWeighedStandard(100, 1),
      byWeighedStandard(100, 0.0101),
      madeUp(1, 250, 51),
      byAliquots(0.1, { blank: blank('subtracted', 0) }),
      inFlask(0.1, { blank: blank('gives-the-excess', 0) }),
    ]) {
      expect(determine(determination, [], [])).toMatchObject({ replicates: [], summary: null });
    }
    expect(() => ratioOf(0, 1)).toThrow(expect.objectContaining({ field: 'mole_ratio' }));
    expect(() => ratioOf(1, 0)).toThrow(expect.objectContaining({ field: 'mole_ratio' }));
    expect(ratioOf(5, 2)).toMatchObject({ value: 2.5 });
  });

  test('a standard solution is what was weighed, made up and diluted', () => {
    // 1.0000 g of 100 g/mol in 250 mL, 50 mL of it to 100 mL: 0.02 mol/L; 25 mL of it take 20 mL.
    expect(resultOf(madeUp(1, 250), titration(20))).toBeCloseTo((0.02 * 25) / 20, 12);
  });
});

describe('a content is stated', () => {
  const molarMass = gramPerMole(60);
  // 20 mL of 0.1 mol/L: 2 mmol, 120 mg.
  test.each<[Content, TitrationReplicate['portion'], number]>([
    [{ statedAs: 'molarity', unit: UNITS.molePerLitre }, { aliquotMl: 25 }, 0.08],
    [
      { statedAs: 'mass-concentration', unit: UNITS.gramPerLitre, molarMass },
      { aliquotMl: 25 },
      4.8,
    ],
    [{ statedAs: 'mass-fraction', unit: UNITS.percent, molarMass }, { massG: 0.5 }, 24],
    [
      { statedAs: 'mass-per-unit', unit: UNITS.milligram, molarMass, unitMass: gram(0.6) },
      { massG: 0.5 },
      144,
    ],
    [{ statedAs: 'molar-mass', unit: UNITS.gramPerMole }, { massG: 0.5 }, 250],
    [
      { statedAs: 'equivalent-mass', unit: UNITS.gramPerMole, equivalents: exact(2) },
      { massG: 0.5 },
      125,
    ],
  ])('as %j', (sought, portion, result) => {
    const determination = inFlask(0.1, { sought });
    expect(resultOf(determination, titration(20, { portion }))).toBeCloseTo(result, 9);
    const other = 'massG' in portion ? { aliquotMl: 25 } : { massG: 0.5 };
    const field = 'massG' in other ? 'mass' : 'aliquot';
    expect(resultOf(determination, titration(20, { portion: other }))).toEqual([
      'incompatible-units',
      field,
      20,
    ]);
  });
});

describe('one titration', () => {
  test.each<[string, Determination, TitrationReplicate, unknown]>([
    [
      'without an aliquot',
      byAliquots(0.1),
      titration(25, { portion: { aliquotMl: 0 } }),
      'aliquot',
    ],
    ['without a mass', byWeighedStandard(100), titration(25, { portion: { massG: 0 } }), 'mass'],
  ])('%s gives nothing', (_what, determination, replicate, field) => {
    expect(resultOf(determination, replicate)).toEqual(['non-positive', field, 25]);
  });

  test('is read downwards, from zero on; what stands still is a titre of nothing', () => {
    const reading = (initialMl: number, finalMl: number) =>
      resultOf(byAliquots(0.1), titration(0, { fillings: [{ initialMl, finalMl }] }));
    expect(reading(10, 9.99)).toEqual(['negative-titre', 'final_reading', null]);
    expect(reading(10, 10)).toEqual(['no-net-titre', 'final_reading', 0]);
    expect(reading(-0.01, 10)).toEqual(['non-positive', 'initial_reading', null]);
    expect(reading(0, 10)).toBeCloseTo(0.25, 12);
  });

  test('leaves what the blank does not take, and all of an excess at most', () => {
    const less = byAliquots(0.1, { blank: { kind: 'subtracted', volume: millilitre(0.05) } });
    expect(resultOf(less, titration(0.05))).toEqual(['no-net-titre', 'final_reading', 0.05]);
    expect(resultOf(less, titration(25.05))).toBeCloseTo(0.1, 12);
    const back = inFlask(0.1, { excess: excessOf(0.1, 50) });
    expect(resultOf(back, titration(30))).toBeCloseTo(0.08, 12);
    expect(resultOf(back, titration(49.9))).toBeCloseTo(0.0004, 9);
    for (const used of [50, 50.1]) {
      expect(resultOf(back, titration(used))).toEqual([
        'no-reagent-consumed',
        'final_reading',
        used,
      ]);
    }
  });

  test('of an aliquot that was diluted itself finds so much more', () => {
    const dilutions = [{ aliquotMl: 10, flaskMl: 100 }];
    const determination = inFlask(0.1);
    expect(resultOf(determination, titration(20, { dilutions }))).toBeCloseTo(0.8, 9);
  });
});

describe('a series', () => {
  const series = [
    titration(25, { id: 'rough', isRough: true }),
    titration(25.01, { id: '1' }),
    titration(25.02, { id: '2' }),
    titration(25.2, { id: '3' }),
    titration(25.03, { id: 'voided', isVoided: true }),
    titration(0, { id: 'failed' }),
  ];

  test('counts what is neither rough nor voided and has a result', () => {
    const { countedIds, summary, replicates } = determine(byAliquots(0.1), series, []);
    expect(countedIds).toEqual(['1', '2', '3']);
    expect(summary).toMatchObject({ n: 3 });
    expect(summary?.mean).toBeCloseTo((2.5 / 25.01 + 2.5 / 25.02 + 2.5 / 25.2) / 3, 12);
    // The others are told all the same.
    expect(replicates.map((one) => [one.id, one.kind])).toEqual([
      ['rough', 'found'],
      ['1', 'found'],
      ['2', 'found'],
      ['3', 'found'],
      ['voided', 'found'],
      ['failed', 'failed'],
    ]);
  });

  test('is concordant by its titres, or by its results, in those that agree', () => {
    const rule = (quantity: 'titre' | 'result', atLeast: number) =>
      determine(byAliquots(0.1), series, [{ quantity, limit: { maxRange: 0.05 }, atLeast }])
        .concordance[0];
    expect(rule('titre', 2)).toMatchObject({ ids: ['1', '2'] });
    expect(rule('titre', 2)?.meanTitreMl).toBeCloseTo(25.015, 9);
    expect(rule('titre', 2)?.titreRangeMl).toBeCloseTo(0.01, 9);
    expect(rule('titre', 2)?.meanResult).toBeCloseTo((2.5 / 25.01 + 2.5 / 25.02) / 2, 12);
    expect(rule('titre', 3)).toBeNull();
    // Results of 0.1 mol/L all lie within 0.05 of each other.
    expect(rule('result', 3)?.ids).toEqual(expect.arrayContaining(['1', '2', '3']));
  });

  test('knows its titrations by name, and passes on what is no problem of theirs', () => {
    const twice = [titration(25), titration(26)];
    expect(() => determine(byAliquots(0.1), twice, [])).toThrow(
      expect.objectContaining({ kind: 'syntax', field: 'id' }),
    );
    const broken = { ...titration(25), fillings: null } as unknown as TitrationReplicate;
    expect(() => determine(byAliquots(0.1), [broken], [])).not.toThrow(Unanswerable);
    expect(() => determine(byAliquots(0.1), [broken], [])).toThrow(TypeError);
  });
});
