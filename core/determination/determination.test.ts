import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { exact, UNITS } from '#core/measurement';
import { byAliquots, byWeighedStandard, excessOf, inFlask } from '../test-support/determinations';
import type { Determination, TitrationReplicate } from './index';
import { determine, expectedEnd, MOLARITY, PlainDetermination } from './index';

const STANDARDIZATION = byWeighedStandard(204.22, 0.9995, {
  blank: { kind: 'subtracted', volume: exact(0.03, UNITS.millilitre) },
});

const replicates: fc.Arbitrary<TitrationReplicate[]> = fc
  .array(
    fc.record({
      massG: fc.integer({ min: 3000, max: 8000 }).map((tenths) => tenths / 10_000),
      titre: fc.integer({ min: 1500, max: 4500 }),
      start: fc.integer({ min: 0, max: 400 }),
      isRough: fc.boolean(),
    }),
    { minLength: 1, maxLength: 7 },
  )
  .map((rows) =>
    rows.map(({ massG, titre, start, isRough }, i) => ({
      id: String(i),
      fillings: [{ initialMl: start / 100, finalMl: (start + titre) / 100 }],
      portion: { massG },
      isRough,
    })),
  );

const RULES = [
  { quantity: 'result', limit: { maxRelativeRangePercent: 2 }, atLeast: 2 },
  { quantity: 'titre', limit: { maxRange: 0.1 }, atLeast: 2 },
] as const;

describe('a determination', () => {
  test('does not depend on the order of its replicates', () => {
    const shuffled = replicates.chain((rows) =>
      fc.tuple(fc.constant(rows), fc.shuffledSubarray(rows, { minLength: rows.length })),
    );
    fc.assert(
      fc.property(shuffled, ([rows, other]) => {
        const a = determine(STANDARDIZATION, rows, RULES);
        const b = determine(STANDARDIZATION, other, RULES);
        expect(b.summary?.n).toBe(a.summary?.n);
        if (a.summary && b.summary) {
          expect(b.summary.mean / a.summary.mean).toBeCloseTo(1, 12);
          expect(b.summary.range).toBeCloseTo(a.summary.range, 14);
        }
        a.concordance.forEach((set, i) => {
          expect(b.concordance[i]?.ids.length).toBe(set?.ids.length);
        });
        const resultOf = (result: typeof a, id: string): unknown =>
          result.replicates.find((one) => one.id === id);
        for (const { id } of rows) expect(resultOf(b, id)).toEqual(resultOf(a, id));
      }),
    );
  });

  test('a filling in two, read in decimals, gives the same titre', () => {
    const whole = {
      id: 'a',
      fillings: [{ initialMl: 0.1, finalMl: 48.3 }],
      portion: { massG: 0.9 },
    };
    const parts = {
      ...whole,
      fillings: [
        { initialMl: 0.1, finalMl: 40.2 },
        { initialMl: 0.3, finalMl: 8.4 },
      ],
    };
    const titres = [whole, parts].map((one) => {
      const [outcome] = determine(STANDARDIZATION, [one], []).replicates;
      return outcome?.kind === 'found' ? outcome.titreMl : null;
    });
    expect(titres).toEqual([48.2, 48.2]);
  });

  test('the forecast is where a titration with the expected molarity ends', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.2, max: 0.9, noNaN: true }),
        fc.double({ min: 0.05, max: 0.2, noNaN: true }),
        (massG, molarity) => {
          const basis = {
            expected: molarity,
            relativeHalfBand: 0.05,
            initialMl: 1.5,
            capacityMl: 50,
            dropMl: 0.05,
          };
          const { onBurette: end, halfBandMl } = expectedEnd(STANDARDIZATION, { massG }, basis);
          const made: TitrationReplicate = {
            id: 'made',
            fillings: [{ initialMl: 1.5, finalMl: end.expected }],
            portion: { massG },
          };
          const { summary } = determine(STANDARDIZATION, [made], []);
          expect((summary?.mean ?? 0) / molarity).toBeCloseTo(1, 9);
          expect(end.runFreelyTo).toBeLessThanOrEqual(Math.max(1.5, end.expected));
          expect(end.holds).toBe(end.expected + halfBandMl <= 50);
        },
      ),
    );
  });

  test.each([
    [{ initialMl: 5, finalMl: 4 }, 'negative-titre'],
    [{ initialMl: 5, finalMl: 5.03 }, 'no-net-titre'],
  ])('%j is told as %s, and counts nowhere', (filling, kind) => {
    const one = { id: 'a', fillings: [filling], portion: { massG: 0.5 } };
    const { replicates: outcomes, summary } = determine(STANDARDIZATION, [one], []);
    expect(outcomes[0]).toMatchObject({ kind: 'failed', problem: { kind } });
    expect(summary).toBeNull();
  });
});

describe('a balance', () => {
  const DETERMINATIONS: Readonly<Record<string, (molarity: number) => Determination>> = {
    'a standard is weighed': () => byWeighedStandard(204.22, 0.9995),
    'aliquots of a standard': byAliquots,
    'the standard is in the burette': inFlask,
    'an excess is titrated back': (molarity) => inFlask(molarity, { excess: excessOf(3, 25) }),
    'a blank gives the excess': (molarity) =>
      inFlask(molarity, {
        blank: { kind: 'gives-the-excess', volume: exact(200, UNITS.millilitre) },
      }),
    'grams to a tablet': (molarity) =>
      inFlask(molarity, {
        sought: {
          statedAs: 'mass-per-unit',
          unit: UNITS.milligram,
          molarMass: exact(180.16, UNITS.gramPerMole),
          unitMass: exact(0.6, UNITS.gram),
        },
      }),
    'a molar mass': (molarity) =>
      inFlask(molarity, { sought: { statedAs: 'molar-mass', unit: UNITS.gramPerMole } }),
  };

  test.each(Object.entries(DETERMINATIONS))(
    'is solved for each of the three that it holds, and its slope is that of what it gives: %s',
    (_, determinationAt) => {
      const positive = (min: number, max: number) => fc.double({ min, max, noNaN: true });
      fc.assert(
        fc.property(
          positive(0.05, 0.2),
          positive(0.2, 0.9),
          positive(5, 45),
          (molarity, portion, titreMl) => {
            const plain = new PlainDetermination(determinationAt(molarity));
            const found = plain.found(portion, titreMl);
            expect(found).toBeGreaterThan(0);
            expect(plain.titreMl(portion, found) / titreMl).toBeCloseTo(1, 9);
            expect(plain.portion(titreMl, found) / portion).toBeCloseTo(1, 9);
            const h = titreMl * 1e-6;
            const slope =
              (plain.found(portion, titreMl + h) - plain.found(portion, titreMl - h)) /
              (2 * h * found);
            expect(slope / plain.relativePerMl(titreMl)).toBeCloseTo(1, 4);
          },
        ),
      );
    },
  );

  test('the whole of an excess is the titre at which nothing is found', () => {
    const measured = new PlainDetermination(inFlask(0.1, { excess: excessOf(0.2, 25) }));
    expect(measured.excessTitreMl).toBeCloseTo(50, 9);
    expect(measured.found(20, 50)).toBeCloseTo(0, 12);
    expect(new PlainDetermination(inFlask(0.1)).excessTitreMl).toBeNull();
  });

  test('a mass where a volume is needed is told, not reckoned with', () => {
    const one = { id: 'a', fillings: [{ initialMl: 0, finalMl: 20 }], portion: { massG: 1 } };
    const problemOf = (determination: Determination) =>
      determine(determination, [one], []).replicates[0];
    expect(problemOf(byAliquots(0.1))).toMatchObject({ problem: { kind: 'incompatible-units' } });
    expect(problemOf(byWeighedStandard(204.22))).toMatchObject({ kind: 'found' });
    expect(
      problemOf(inFlask(0.1, { sought: { ...MOLARITY, statedAs: 'molar-mass' } })),
    ).toMatchObject({ kind: 'found' });
  });
});
