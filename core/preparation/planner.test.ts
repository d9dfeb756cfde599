import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { plainDate } from '#core/grammar';
import { decimalText } from '#core/measurement';
import type { Lot, LotState } from '#core/reagent';
import { balance, khpLot, lotState } from '../test-support/runs';
import { idOf, stored } from '../test-support/stored';
import type { MeasuringVessel, PlannerShelf, Wish } from './index';
import { plannerShelf, planRoutes, whatWouldHalve } from './index';

function vessel(
  kind: MeasuringVessel['kind'],
  volumeMl: number,
  toleranceMl: number,
): MeasuringVessel {
  const name = `${kind} ${String(volumeMl)}`;
  const tolerance = [{ name, distribution: 'triangular', halfWidth: toleranceMl }] as const;
  return { id: idOf(name), name, kind, volumeMl, tolerance };
}

const VESSELS = [
  ...[5, 10, 20, 25, 50].map((ml) => vessel('one-mark-pipette', ml, 0.03)),
  ...[50, 100, 250, 500, 1000].map((ml) => vessel('volumetric-flask', ml, 0.15)),
  vessel('measuring-cylinder', 100, 1),
];
const KHP = {
  ...{ id: idOf('khp'), name: 'KHP, lot K-22', molarMassGPerMol: 204.22, purity: 0.9998 },
  ...{ relativeUncertainty: 0.0003, isStandard: true, leftG: 500 },
};
const STOCK = {
  ...{ id: idOf('s'), name: 'bottle 1', molarityMolPerL: 1, relativeUncertainty: 0.001 },
  ...{ leftMl: 1e4, isSample: false },
};
const { lot: LOT } = khpLot();
const PELLETS = {
  ...KHP,
  id: idOf('pellets'),
  name: 'NaOH, lot N',
  molarMassGPerMol: 40,
  isStandard: false,
};
const SHELF: PlannerShelf = {
  solids: [KHP],
  concentrates: [],
  solutions: [],
  vessels: VESSELS,
  balances: [{ id: idOf('b'), balance }],
};
const BY_CYLINDER = {
  madeUpIn: 'cylinder',
  isStandardizedLater: true,
  solventName: 'water',
  solubilityMolPerL: null,
} as const;
const EXACT = {
  molarityMolPerL: 0.1,
  volumeMl: 250,
  exactness: 'exact',
  ...BY_CYLINDER,
} satisfies Wish;

/** Multiplies by a factor as it is written: `× 204.2 g/mol`, `÷ 99.98 %`. */
function worthOf(product: number, factor: string): number {
  const value = Number(/[\d.]+/.exec(factor)?.[0]) / (factor.endsWith('%') ? 100 : 1);
  return factor.startsWith('÷') ? product / value : product * value;
}

describe('the routes to a solution', () => {
  test('a standard is weighed exactly, into the smallest flask that holds it', () => {
    const [route] = planRoutes({ ...EXACT, volumeMl: 200 }, SHELF);
    expect(route).toMatchObject({ kind: 'weigh', volumeMl: 250, objections: [] });
    expect(route?.quantities.map(({ exactness }) => exactness)).toEqual(['exact', 'exact']);
    expect(route?.quantities[0]?.amount).toBeCloseTo((0.1 * 0.25 * 204.22) / 0.9998, 9);
    expect(route?.dominatedBy).toBe('the purity');
    expect(route?.relativeUncertainty).toBeGreaterThan(0.0003);
  });

  test('a titrant is approximate, and never called exact', () => {
    const wish = {
      molarityMolPerL: 0.1,
      volumeMl: 1000,
      exactness: 'approximate',
      ...BY_CYLINDER,
    } satisfies Wish;
    const [route] = planRoutes(wish, { ...SHELF, solids: [PELLETS] });
    expect(route?.relativeUncertainty).toBeNull();
    expect(new Set(route?.quantities.map(({ exactness }) => exactness))).toEqual(
      new Set(['approximate']),
    );
    const [asStandard] = planRoutes(EXACT, { ...SHELF, solids: [PELLETS] });
    expect(asStandard?.objections[0]).toMatch(/is not a primary standard/);
  });

  test('what is said of how an amount comes about gives that amount', () => {
    const concentrate = { id: idOf('c'), name: 'HCl', molarityMolPerL: 12.1, remark: '' };
    const shelf = {
      ...{ ...SHELF, concentrates: [{ ...concentrate, leftMl: 1e3 }] },
      solutions: [STOCK, { ...STOCK, id: idOf('w'), name: 'bottle 2', molarityMolPerL: 0.08 }],
    };
    const wish = { ...EXACT, exactness: 'approximate', volumeMl: 731 } satisfies Wish;
    const routes = [...planRoutes(wish, shelf), ...planRoutes(EXACT, shelf)];
    const said = routes
      .filter(({ kind }) => !kind.startsWith('dilute'))
      .flatMap(({ kind, quantities }) =>
        quantities.flatMap(({ how = '', amount }) => {
          const product = /= ([^=]*)$/.exec(how)?.[1] ?? '';
          const factors = product.match(/[×÷]? ?[\d.]+ (%|[a-zA-Z/]+)/g) ?? [];
          if (factors.length < 3) return [];
          return [[kind, factors.reduce(worthOf, 1), amount] as const];
        }),
      );
    expect(new Set(said.map(([kind]) => kind))).toEqual(
      new Set(['weigh', 'concentrate', 'add-volumes']),
    );
    for (const [, worth, amount] of said) expect(worth / amount).toBeCloseTo(1, 3);
  });

  test('what no cylinder measures is said before it is poured', () => {
    const concentrate = { id: 'c', name: 'HCl', molarityMolPerL: 12, remark: '', leftMl: 1e3 };
    const shelf = { ...SHELF, solids: [], concentrates: [concentrate] };
    const objectionsTo = (molarityMolPerL: number) =>
      planRoutes(
        { ...EXACT, molarityMolPerL, exactness: 'approximate', volumeMl: 1000 },
        stored(shelf),
      )[0]?.objections;
    expect(objectionsTo(0.1)).toEqual([]);
    expect(objectionsTo(0.001)).toEqual([expect.stringMatching(/^0.083 mL is too little/)]);
  });

  test('a house rule makes titrants up in a flask, pellets and concentrate; their molarity stays nominal', () => {
    const concentrate = { id: 'c', name: 'HCl', molarityMolPerL: 12, remark: '', leftMl: 1e3 };
    const wish = { ...EXACT, volumeMl: 700, exactness: 'approximate', madeUpIn: 'flask' } as const;
    const shelf = { ...SHELF, solids: [PELLETS], concentrates: [concentrate] };
    for (const route of planRoutes(wish, stored(shelf))) {
      expect(route.source).toMatchObject({ flaskId: 'volumetric-flask 1000' });
      expect(route).toMatchObject({ volumeMl: 1000, relativeUncertainty: null });
      expect(route.quantities[1]).toMatchObject({ exactness: 'approximate', amount: 1000 });
    }
    const [pellets] = planRoutes(wish, { ...SHELF, solids: [PELLETS] });
    expect(pellets?.quantities[0]?.amount).toBeCloseTo((0.1 * 40) / 0.9998, 9);
    // Dichromate, say: in a flask it is a standard, weighed as one.
    const [standard] = planRoutes(wish, SHELF);
    expect(standard?.quantities.map(({ exactness }) => exactness)).toEqual(['exact', 'exact']);
    // None is that large: a beaker.
    const [large] = planRoutes({ ...wish, volumeMl: 2000 }, { ...SHELF, solids: [PELLETS] });
    expect(large?.source).toMatchObject({ flaskId: null });
  });

  test('a mass too small for the balance is said before weighing', () => {
    const coarse = { ...balance, name: 'T2', repeatabilityG: '0.01', linearityG: '0.02' };
    const shelf = { ...SHELF, balances: [{ id: 'b', balance: coarse }] };
    const [route] = planRoutes({ ...EXACT, volumeMl: 50 }, stored(shelf));
    expect(route?.objections).toEqual([expect.stringMatching(/too small for T2: uncertain by/)]);
  });

  test('50 % by mass is 19.1 mol/L, by volume 12.5 mol/L: another volume is taken', () => {
    const wish = {
      molarityMolPerL: 0.1,
      volumeMl: 1000,
      exactness: 'approximate',
      ...BY_CYLINDER,
    } satisfies Wish;
    const lotOf = (dissolved: Lot['dissolved']): LotState =>
      lotState({ ...LOT, substanceId: 'sodium-hydroxide', purity: '0.5', dissolved });
    const shelfOf = (dissolved: Lot['dissolved']): PlannerShelf =>
      plannerShelf(
        'sodium-hydroxide',
        { lots: [lotOf(dissolved)], bottles: [], equipment: [] },
        (id) => (id === 'lot-khp' ? 6 : undefined),
        plainDate('2026-03-02'),
      );
    const byMass = shelfOf({ meaning: 'by-mass', densityGPerMl: decimalText('1.525') });
    const byVolume = shelfOf({ meaning: 'by-volume' });
    const [first, second] = [byMass, byVolume].map((shelf) => planRoutes(wish, shelf)[0]);
    expect(first?.quantities[0]?.amount.toFixed(2)).toBe('5.25');
    expect(first?.quantities[0]?.why).toMatch(/% by mass; grams in 100 mL would be 12.5 mol/);
    expect(first?.objections).toEqual([]);
    expect(second?.quantities[0]?.amount.toFixed(2)).toBe('8.00');
    expect(second?.objections).toEqual(['Only 6 mL of NaOH 50 %, lot K-22 are left.']);
    expect(planRoutes({ ...wish, molarityMolPerL: 15 }, byVolume)).toEqual([]);
  });

  test('volumes are added for what is standardized afterwards: 20 mL of 6 mol/L and 380 mL of water', () => {
    const stock = { ...STOCK, molarityMolPerL: 6, relativeUncertainty: null };
    const shelf = { ...SHELF, solids: [], solutions: [stock] };
    const wish = {
      molarityMolPerL: 0.3,
      volumeMl: 400,
      exactness: 'approximate',
      ...BY_CYLINDER,
    } satisfies Wish;
    const [route] = planRoutes(wish, shelf).filter(({ kind }) => kind === 'add-volumes');
    expect(route?.source).toMatchObject({ kind: 'add-volumes', takeMl: '20.0', fillMl: '380' });
    expect(
      planRoutes({ ...wish, exactness: 'exact' }, shelf).map(({ kind }) => kind),
    ).not.toContain('add-volumes');
  });

  test('an uncertainty asked for is compared, and what would halve it is found by trying', () => {
    const strict: Wish = { ...EXACT, volumeMl: 50, targetRelativeU: 0.0005 };
    const [route] = planRoutes(strict, SHELF);
    expect(route?.objections).toEqual([expect.stringMatching(/more than the 0.05 % asked for/)]);
    const wish = { ...EXACT, volumeMl: 50 };
    const [small] = planRoutes(wish, SHELF);
    if (!small) throw new Error('no route');
    expect(whatWouldHalve(wish, small, SHELF)).toMatch(/^Halved by KHP, lot K-22, 250 mL/);
    const [large] = planRoutes({ ...wish, volumeMl: 1000 }, SHELF);
    if (!large) throw new Error('no route');
    expect(whatWouldHalve({ ...wish, volumeMl: 1000 }, large, SHELF)).toMatch(
      /Nothing on the shelf/,
    );
  });

  test('a large factor is reached in two steps; what is left over, or nominal, is said', () => {
    const stock = { ...STOCK, leftMl: 5 };
    const shelf = { ...SHELF, solids: [], solutions: [stock] };
    const [single] = planRoutes({ ...EXACT, molarityMolPerL: 0.1 }, shelf);
    expect(single).toMatchObject({ kind: 'dilute', molarityMolPerL: 0.1 });
    expect(single?.objections).toEqual(['Only 5 mL of bottle 1 are left.']);
    const [double] = planRoutes({ ...EXACT, molarityMolPerL: 0.001 }, shelf);
    expect(double?.kind).toBe('dilute-twice');
    expect(double?.molarityMolPerL).toBeCloseTo(0.001, 5);
    const nominal = { ...stock, relativeUncertainty: null, leftMl: 900 };
    const [unsure] = planRoutes(EXACT, { ...shelf, solutions: [nominal] });
    expect(unsure?.objections[0]).toMatch(/has not been standardized/);
  });

  test('the second flask is never the one that is still full; a pipette used again is off twice', () => {
    const pipette = vessel('one-mark-pipette', 10, 0.02);
    const flask = vessel('volumetric-flask', 100, 0.1);
    const twin = { ...flask, id: 'twin', name: 'twin' };
    const exactStock = { ...STOCK, relativeUncertainty: 0 };
    const shelf = (vessels: readonly MeasuringVessel[]) => ({
      ...{ ...SHELF, solids: [], solutions: [exactStock] },
      vessels,
    });
    const wish = { ...EXACT, molarityMolPerL: 0.01, volumeMl: 100 };
    const stagesOf = (vessels: readonly MeasuringVessel[]) => {
      const [route] = planRoutes(wish, shelf(vessels));
      return route?.source?.kind === 'dilute' ? { ...route, stages: route.source.stages } : null;
    };
    expect(stagesOf([pipette, flask])).toBeNull();
    const both = stagesOf([pipette, flask, stored(twin)]);
    expect(new Set(both?.stages.map(({ flaskId }) => flaskId)).size).toBe(2);
    expect(both?.stages.map(({ pipetteId }) => pipetteId)).toEqual([pipette.id, pipette.id]);
    // Twice the pipette, in the same direction; each flask once.
    const [ofPipette, ofFlask] = [0.02 / Math.sqrt(6) / 10, 0.1 / Math.sqrt(6) / 100];
    expect(both?.relativeUncertainty).toBeCloseTo(Math.hypot(2 * ofPipette, ofFlask, ofFlask), 12);
  });

  test('every route gives the molarity it says, and enough of it', () => {
    const molarity = fc.double({ min: 0.0005, max: 0.9, noNaN: true });
    fc.assert(
      fc.property(molarity, fc.integer({ min: 30, max: 1000 }), (molarityMolPerL, volumeMl) => {
        const routes = planRoutes(
          { molarityMolPerL, volumeMl, exactness: 'exact', ...BY_CYLINDER },
          { ...SHELF, solutions: [STOCK] },
        );
        for (const route of routes) {
          expect(route.volumeMl).toBeGreaterThanOrEqual(volumeMl);
          expect(Math.abs(route.molarityMolPerL / molarityMolPerL - 1)).toBeLessThanOrEqual(0.0205);
          if (route.kind === 'weigh') continue;
          const volumes = route.quantities.map(({ amount }) => amount);
          const factor = volumes.reduce(
            (total, ml, i) => (i % 2 === 0 ? total / ml : total * ml),
            1,
          );
          expect(route.molarityMolPerL * factor).toBeCloseTo(1, 9);
        }
        expect(routes.map(({ objections }) => objections.length)).toEqual(
          routes.map(({ objections }) => objections.length).toSorted((a, b) => a - b),
        );
      }),
    );
  });
});
