import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { Determination, TitrationReplicate } from './index';
import { determine, expectedEnd } from './index';

const STANDARDIZATION: Extract<Determination, { kind: 'standardization' }> = {
  kind: 'standardization',
  standard: { kind: 'weighed', molarMassGPerMol: 204.22, purity: 0.9995 },
  ratio: { titrant: 1, other: 1 },
  blankMl: 0.03,
};

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
          const end = expectedEnd(STANDARDIZATION, { massG }, basis);
          const made: TitrationReplicate = {
            id: 'made',
            fillings: [{ initialMl: 1.5, finalMl: end.readingMl }],
            portion: { massG },
          };
          const { summary } = determine(STANDARDIZATION, [made], []);
          expect((summary?.mean ?? 0) / molarity).toBeCloseTo(1, 9);
          expect(end.runFreelyToMl).toBeLessThanOrEqual(Math.max(1.5, end.readingMl));
          expect(end.holds).toBe(end.readingMl + end.halfBandMl <= 50);
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
