import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { AcidBaseFlask, AcidBaseTitrant, AcidBaseTitration, AcidSystem } from './index';
import {
  AcidBaseCurve,
  distinctSteps,
  basicFraction,
  mixColours,
  oxidizedFraction,
  RedoxCurve,
  titrationErrorPercent,
} from './index';

/** Anything that a flask may hold: a molarity over eleven powers of ten. */
const molarity = fc.double({ min: -10, max: 1, noNaN: true }).map((exponent) => 10 ** exponent);

const system: fc.Arbitrary<AcidSystem> = fc
  .record({
    totalMolPerL: molarity,
    steps: fc.array(fc.double({ min: 0.5, max: 6, noNaN: true }), { minLength: 1, maxLength: 4 }),
    chargeFullyProtonated: fc.integer({ min: 0, max: 2 }),
    start: fc.nat(4),
  })
  .map(({ steps, start, ...rest }) => ({
    name: 'acid',
    ...rest,
    // Each pKa lies above the one before.
    pKa: steps.map((_, i) => steps.slice(0, i + 1).reduce((sum, step) => sum + step, -2)),
    protonsAtStart: Math.min(start, steps.length),
  }));

const titration: fc.Arbitrary<AcidBaseTitration> = fc.record({
  flask: fc.record({
    volumeMl: fc.constant(25),
    waterAddedMl: fc.constantFrom(0, 50),
    strongAcidMolPerL: fc.oneof(fc.constant(0), molarity),
    strongBaseMolPerL: fc.oneof(fc.constant(0), molarity),
    systems: fc.array(system, { maxLength: 3 }),
  }),
  titrant: fc.record({
    kind: fc.constantFrom('strong-acid' as const, 'strong-base' as const),
    molarityMolPerL: fc.double({ min: 0.001, max: 1, noNaN: true }),
  }),
  kw: fc.constantFrom(1e-14, 1.8e-16),
  activity: fc.constant({ kind: 'ideal' as const }),
});

/** Sum of all charges from the fractions of every species, worked out apart from the curve. */
function chargeOf(
  { flask, titrant, kw }: AcidBaseTitration,
  volumeMl: number,
  pH: number,
): { net: number; size: number } {
  const whole = flask.volumeMl + (flask.waterAddedMl ?? 0) + volumeMl;
  const share = flask.volumeMl / whole;
  const added = (titrant.molarityMolPerL * volumeMl) / whole;
  const hydrogen = 10 ** -pH;
  const charges = [
    hydrogen,
    -kw / hydrogen,
    -(flask.strongAcidMolPerL ?? 0) * share,
    (flask.strongBaseMolPerL ?? 0) * share,
    titrant.kind === 'strong-base' ? added : -added,
  ];
  for (const { pKa, totalMolPerL, chargeFullyProtonated, protonsAtStart } of flask.systems ?? []) {
    const logs = pKa.reduce<number[]>(
      (sums, value) => [...sums, (sums.at(-1) ?? 0) + pH - value],
      [0],
    );
    const highest = Math.max(...logs);
    const weights = logs.map((log) => 10 ** (log - highest));
    const total = weights.reduce((sum, weight) => sum + weight, 0);
    weights.forEach((weight, lost) => {
      charges.push(((chargeFullyProtonated - lost) * totalMolPerL * share * weight) / total);
    });
    const start = chargeFullyProtonated - (pKa.length - protonsAtStart);
    charges.push(-start * totalMolPerL * share);
  }
  return {
    net: charges.reduce((sum, charge) => sum + charge, 0),
    size: charges.reduce((sum, charge) => sum + Math.abs(charge), 0),
  };
}

describe('acid-base curves', () => {
  test('the charges balance at every point, from 1e-10 to 10 mol/L', () => {
    fc.assert(
      fc.property(titration, (given) => {
        const curve = new AcidBaseCurve(given);
        for (const volumeMl of [0, 0.01, 5, 12.5, 24.99, 25, 25.01, 60, 200]) {
          const { pH } = curve.at(volumeMl);
          const { net, size } = chargeOf(given, volumeMl, pH);
          expect(Math.abs(net)).toBeLessThanOrEqual(1e-9 * size);
        }
      }),
      { numRuns: 200 },
    );
  });

  test('with activities the charges balance as well, and strong solutions are said to be beyond the model', () => {
    const given: AcidBaseTitration = {
      flask: {
        volumeMl: 25,
        systems: [
          {
            name: 'phosphoric acid',
            totalMolPerL: 0.1,
            pKa: [2.15, 7.2, 12.35],
            chargeFullyProtonated: 0,
            protonsAtStart: 3,
          },
        ],
      },
      titrant: { kind: 'strong-base', molarityMolPerL: 0.1 },
      kw: 1e-14,
      activity: { kind: 'davies', a: 0.509 },
    };
    const curve = new AcidBaseCurve(given);
    for (let volumeMl = 0; volumeMl < 90; volumeMl += 1) {
      expect(Math.abs(curve.at(volumeMl).chargeBalanceMolPerL)).toBeLessThan(1e-12);
    }
    expect(curve.isBeyondModel(25)).toBe(false);
    const strong = new AcidBaseCurve({
      ...given,
      titrant: { kind: 'strong-base', molarityMolPerL: 5 },
    });
    expect(strong.isBeyondModel(25)).toBe(true);
  });

  test('phenolphthalein is right for acetic acid, methyl orange is not', () => {
    const curve = new AcidBaseCurve({
      flask: {
        volumeMl: 25,
        systems: [
          {
            name: 'acetic acid',
            totalMolPerL: 0.1,
            pKa: [4.76],
            chargeFullyProtonated: 0,
            protonsAtStart: 1,
          },
        ],
      },
      titrant: { kind: 'strong-base', molarityMolPerL: 0.1 },
      kw: 1e-14,
      activity: { kind: 'ideal' },
    });
    const [equivalence = 0] = curve.equivalenceVolumesMl();
    const errorAt = (pH: number): number =>
      titrationErrorPercent(curve.volumeAtPh(pH, 50) ?? Number.NaN, equivalence);
    expect(Math.abs(errorAt(8.8))).toBeLessThan(0.02);
    expect(errorAt(4)).toBeLessThan(-80);
    expect(curve.volumeAtPh(13.9, 50)).toBeNull();
  });

  test('an acid cannot start with more protons than it has', () => {
    const systems = [
      { name: 'acid', totalMolPerL: 1, pKa: [4], chargeFullyProtonated: 0, protonsAtStart: 2 },
    ];
    expect(
      () =>
        new AcidBaseCurve({
          flask: { volumeMl: 25, systems },
          titrant: { kind: 'strong-base', molarityMolPerL: 0.1 },
          kw: 1e-14,
          activity: { kind: 'ideal' },
        }),
    ).toThrow(/has 1 protons to give/);
  });
});

describe('redox curves', () => {
  const iron = { name: 'Fe3+/Fe2+', electrons: 1, formalPotentialV: 0.68 };
  const couple = fc.record({
    electrons: fc.integer({ min: 1, max: 6 }),
    formalPotentialV: fc.double({ min: 1.1, max: 1.8, noNaN: true }),
    hydrogenIons: fc.integer({ min: 0, max: 14 }),
    reducedPerOxidized: fc.constantFrom(1, 2),
  });

  test('the potential rises with every drop of oxidant, and passes the couples where it must', () => {
    fc.assert(
      fc.property(couple, ({ electrons, ...rest }) => {
        const curve = new RedoxCurve({
          analyte: iron,
          analyteMolPerL: 0.1,
          titrant: { name: 'oxidant', electrons, ...rest },
          titrantMolPerL: 0.1 / electrons,
          titrantIs: 'oxidant',
          flaskVolumeMl: 25,
          pH: 0,
          temperatureC: 25,
        });
        const at = (volumeMl: number): number => curve.at(volumeMl) ?? Number.NaN;
        const potentials = [1, 5, 12.5, 20, 24.9, 25.1, 30, 50].map(at);
        potentials.slice(1).forEach((potential, i) => {
          expect(potential).toBeGreaterThan(potentials[i] ?? 0);
        });
        expect(at(12.5)).toBeCloseTo(0.68, 3);
        expect(curve.equivalenceVolumeMl()).toBeCloseTo(25, 9);
      }),
      { numRuns: 100 },
    );
  });
});

describe('colours', () => {
  test('half of an indicator is basic at its pKin, half oxidized at its potential', () => {
    expect(basicFraction(9.1, 9.1)).toBe(0.5);
    expect(basicFraction(10.1, 9.1)).toBeCloseTo(10 / 11, 12);
    expect(oxidizedFraction(0.84, 0.84, 2)).toBe(0.5);
  });

  test('one form alone has its own colour, two absorb together', () => {
    const yellow = { colour: [245, 223, 110] as const, amount: 1 };
    const blue = { colour: [74, 111, 181] as const, amount: 1 };
    expect(mixColours([yellow])).toEqual(yellow.colour);
    expect(mixColours([])).toEqual([255, 255, 255]);
    const mixed = mixColours([
      { ...yellow, amount: 0.5 },
      { ...blue, amount: 0.5 },
    ]);
    expect(mixed[1]).toBeGreaterThan(mixed[0]);
    expect(mixed[1]).toBeGreaterThan(mixed[2]);
  });
});

describe('steps that are seen apart', () => {
  const flaskOf = (flask: Partial<AcidBaseFlask>, kind: AcidBaseTitrant['kind']) =>
    new AcidBaseCurve({
      flask: { volumeMl: 25, ...flask },
      titrant: { kind, molarityMolPerL: 0.1 },
      kw: 1.008e-14,
      activity: { kind: 'ideal' },
    });
  const acid = (pKa: readonly number[], totalMolPerL = 0.05) => ({
    systems: [
      { name: 'acid', totalMolPerL, pKa, chargeFullyProtonated: 0, protonsAtStart: pKa.length },
    ],
  });
  const carbonate = (totalMolPerL: number, strongBaseMolPerL: number) => ({
    strongBaseMolPerL,
    systems: [
      {
        ...{ name: 'carbonate', totalMolPerL, pKa: [6.35, 10.33] },
        chargeFullyProtonated: 0,
        protonsAtStart: 0,
      },
    ],
  });

  test.each([
    [
      'sulfuric acid: its first proton is as strong as its solvent',
      acid([-3, 1.99]),
      'strong-base',
      [false, true],
    ],
    ['tartaric acid: pKa 3.0 and 4.4', acid([3.04, 4.37]), 'strong-base', [false, true]],
    ['malonic acid: pKa 2.9 and 5.7', acid([2.85, 5.7]), 'strong-base', [true, true]],
    ['phosphoric acid', acid([2.15, 7.2, 12.35]), 'strong-base', [true, true, true]],
    ['sodium carbonate', carbonate(0.05, 0), 'strong-acid', [true, true]],
    [
      'hydroxide beside as much carbonate',
      carbonate(0.05, 0.03),
      'strong-acid',
      [false, true, true],
    ],
  ] as const)('%s', (_, flask, kind, seen) => {
    const curve = flaskOf(flask, kind);
    expect(distinctSteps(curve, curve.equivalenceVolumesMl())).toEqual(seen);
  });
});
