import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { molarMass } from '#core/chemistry';
import type { Determination, TitrationReplicate } from '#core/determination';
import { nominalDilutions } from '#core/determination';
import { exact, UNITS } from '#core/measurement';
import { judgeRun } from '#core/titration/judging';
import { byAliquots, byWeighedStandard } from '../test-support/determinations';
import { concordantSeries, RunScript } from '../test-support/runs';
import { explain, explainRun } from './index';
import type { Surroundings, Suspected } from './index';

const OXALIC = molarMass('H2C2O4.2H2O').valueGPerMol;
const TRUE_MOLARITY = 0.1013;

/** Three careful titrations of oxalic acid dihydrate, ratio 2, that give the true molarity to the last digit read. */
function series(initials: readonly number[] = [0.12, 1.05, 0.4]): readonly TitrationReplicate[] {
  return initials.map((initialMl, i) => {
    const massG = [0.1562, 0.1603, 0.1498][i] ?? 0.15;
    const titreMl = (2000 * massG) / (OXALIC * TRUE_MOLARITY);
    return {
      id: String(i + 1),
      fillings: [{ initialMl, finalMl: Number((initialMl + titreMl).toFixed(2)) }],
      portion: { massG },
    };
  });
}

/** Oxalic acid dihydrate as it was taken, with two moles of titrant to its one. */
const oxalic = (molarMassGPerMol = OXALIC, soughtPerKnown = 2): Determination =>
  byWeighedStandard(molarMassGPerMol, 1, { soughtPerKnown: exact(soughtPerKnown) });

function suspected(determination = oxalic(), replicates = series()): Suspected {
  return { determination, replicates, expectedMolPerL: 0.1 };
}

const SURROUNDINGS: Surroundings = {
  otherForms: [{ name: 'oxalic acid dihydrate', molarMassGPerMol: OXALIC }],
  balancedRatio: 2,
  concentrateDensityGPerMl: 1.525,
  titrantDilutionFactor: null,
  tareG: 12.4,
  excessMl: null,
  buretteCapacityMl: 50,
  readingDecimals: 2,
  history: [],
};
const TOLERANCES = { expectedPercent: 5, agreementPercent: 0.3 };

function withReplicate(
  index: number,
  change: (one: TitrationReplicate) => TitrationReplicate,
): Suspected {
  return suspected(
    oxalic(),
    series().map((one, i) => (i === index ? change(one) : one)),
  );
}

const shifted = (
  one: TitrationReplicate,
  entry: 'initialMl' | 'finalMl',
  to: (ml: number) => number,
): TitrationReplicate => ({
  ...one,
  fillings: one.fillings.map((filling) => ({
    ...filling,
    [entry]: Number(to(filling[entry]).toFixed(2)),
  })),
});

test('a run is explained from its own records', () => {
  const explained = ({ state }: RunScript) => explainRun(state, judgeRun(state));
  expect(explained(concordantSeries())).toMatchObject({ isOutOfLine: false });
  const slipped = concordantSeries().titrate(5, '0.4801', '0.10', '24.56');
  const diagnosis = explained(slipped);
  // 0.10 to 23.56 was titrated; one mark too many was counted.
  expect(diagnosis?.explanations[0]).toMatchObject({ id: 'reading' });
  expect(diagnosis?.explanations[0]?.suspects).toContainEqual({
    replicateId: 'flask 5',
    entry: 'final-reading',
    meant: 23.56,
  });
  expect(explained(new RunScript())).toBeNull();
});

describe('a result out of line', () => {
  test('silence while everything is in line', () => {
    expect(explain(suspected(), SURROUNDINGS, TOLERANCES)).toMatchObject({
      isOutOfLine: false,
      explanations: [],
    });
  });

  test.each<[string, Suspected, string | null, number | null]>([
    ['other-hydrate', suspected(oxalic(90.03)), null, OXALIC],
    ['ratio-upside-down', suspected(oxalic(OXALIC, 1 / 2)), null, 2],
    ['ratio-forgotten', suspected(oxalic(OXALIC, 1)), null, 2],
    ['mass-per-volume', { ...suspected(), expectedMolPerL: 0.1 / 1.525 }, null, 0.1],
    [
      'decimal-point',
      withReplicate(1, (one) => ({ ...one, portion: { massG: 1.603 } })),
      '2',
      0.1603,
    ],
    ['tare', withReplicate(0, (one) => ({ ...one, portion: { massG: 12.5562 } })), '1', 0.1562],
    ['reading', withReplicate(2, (one) => shifted(one, 'finalMl', (ml) => ml + 1)), '3', 23.86],
    ['reading', withReplicate(0, (one) => shifted(one, 'initialMl', (ml) => 1 - ml)), '1', 0.12],
  ])('%s is found', (id, input, replicateId, meant) => {
    const { isOutOfLine, explanations } = explain(input, SURROUNDINGS, TOLERANCES);
    expect(isOutOfLine).toBe(true);
    expect(explanations[0]?.id).toBe(id);
    const suspects = explanations[0]?.suspects ?? [];
    expect(new Set(suspects.map((one) => one.replicateId))).toEqual(new Set([replicateId]));
    const meantDigits = suspects.map((one) => one.meant?.toFixed(4));
    if (meant !== null) expect(meantDigits).toContain(meant.toFixed(4));
  });

  test('two flasks exchanged: both masses are named', () => {
    const [first, second, third] = series();
    if (!first || !second || !third) throw new Error('three replicates');
    const exchanged = suspected(oxalic(), [
      { ...first, portion: second.portion },
      { ...second, portion: first.portion },
      third,
    ]);
    const [best] = explain(exchanged, SURROUNDINGS, TOLERANCES).explanations;
    expect(best?.id).toBe('flasks-exchanged');
    expect(best?.suspects.map(({ meant }) => meant)).toEqual([0.1562, 0.1603]);
  });

  test('a carried-over reading is changed at both places', () => {
    const chain = series([0.12, 24.6, 0.4]).map((one, i) =>
      i === 0 ? shifted(one, 'finalMl', () => 24.6) : one,
    );
    // The true reading was 24.60; 25.60 was written down for both.
    const slipped = suspected(
      oxalic(),
      chain.map((one, i) =>
        i === 0
          ? shifted(one, 'finalMl', () => 25.6)
          : i === 1
            ? shifted(one, 'initialMl', () => 25.6)
            : one,
      ),
    );
    const [best] = explain(slipped, SURROUNDINGS, {
      ...TOLERANCES,
      agreementPercent: 1,
    }).explanations;
    expect(best).toMatchObject({
      id: 'reading',
      suspects: [
        { replicateId: '1', meant: 24.6 },
        { replicateId: '2', meant: 24.6 },
      ],
    });
  });

  test('the wrong pipette and a dilution of the standard', () => {
    const replicates = [24.71, 24.73, 24.7].map((finalMl, i) => ({
      id: String(i),
      fillings: [{ initialMl: 0, finalMl }],
      portion: { aliquotMl: 20 },
    }));
    const solution = suspected(byAliquots(0.1), replicates);
    const [best] = explain(
      solution,
      { ...SURROUNDINGS, balancedRatio: null },
      TOLERANCES,
    ).explanations;
    expect(best).toMatchObject({
      id: 'wrong-pipette',
      suspects: [{ replicateId: null, meant: 25 }],
    });
    const dilutions = nominalDilutions([{ aliquotMl: 10, flaskMl: 100 }]);
    const molarity = exact(0.125, UNITS.molePerLitre);
    const diluted = suspected(
      byAliquots(0.1, { known: { kind: 'solution', molarity, dilutions } }),
      replicates,
    );
    const [dilution] = explain(
      diluted,
      { ...SURROUNDINGS, balancedRatio: null },
      TOLERANCES,
    ).explanations;
    expect(dilution?.id).toBe('dilution');
  });

  test('slow drift goes on from the history, and a wet standard explains a few per cent too high', () => {
    const history = [0.1065, 0.1042];
    const found = { ...suspected(), expectedMolPerL: 0.1042 };
    const narrow = { expectedPercent: 1, agreementPercent: 0.3 };
    const { explanations } = explain(found, { ...SURROUNDINGS, history }, narrow);
    expect(explanations.map(({ id }) => id)).toContain('drift');
    const high = { ...suspected(), expectedMolPerL: 0.0995 };
    expect(explain(high, SURROUNDINGS, narrow).explanations[0]?.id).toBe('impure-standard');
  });

  test('whatever is entered, at most three explanations come, each in line, and nothing is changed', () => {
    const figure = fc.integer({ min: 0, max: 5000 }).map((hundredths) => hundredths / 100);
    fc.assert(
      fc.property(
        fc.array(fc.tuple(figure, figure, fc.double({ min: 0.01, max: 2, noNaN: true })), {
          minLength: 1,
          maxLength: 5,
        }),
        (rows) => {
          const replicates = rows.map(([a, b, massG], i) => ({
            id: String(i),
            fillings: [{ initialMl: Math.min(a, b), finalMl: Math.max(a, b) + 0.01 }],
            portion: { massG },
          }));
          const input = suspected(oxalic(), replicates);
          const before = JSON.stringify(input);
          const { isOutOfLine, explanations } = explain(input, SURROUNDINGS, TOLERANCES);
          expect(JSON.stringify(input)).toBe(before);
          expect(explanations.length).toBeLessThanOrEqual(isOutOfLine ? 3 : 0);
          for (const { molarityMolPerL, rangePercent, id } of explanations) {
            expect(rangePercent).toBeLessThanOrEqual(TOLERANCES.agreementPercent);
            if (id !== 'mass-per-volume') {
              expect(Math.abs(molarityMolPerL / 0.1 - 1)).toBeLessThanOrEqual(0.0500001);
            }
          }
        },
      ),
      { numRuns: 40 },
    );
  });
});
