import { all, create } from 'mathjs';
import { balance, molarMass, parseEquation } from '#core/chemistry';
import { AcidBaseCurve } from '#core/equilibrium';
import type { Id } from '#core/grammar';
import type { Component, Expression, Input, Unit } from '#core/measurement';
import type { MeasuringVessel, PlannerShelf, Wish } from '#core/preparation';
import { planRoutes } from '#core/preparation';
import {
  Chance,
  define,
  exact,
  input,
  mean,
  minus,
  plus,
  product,
  quotient,
  runSimulation,
  sum,
  UNITS,
} from '#core/measurement';

/** The shortest of several runs, in ms. */
function bestMs(turns: number, work: () => unknown): number {
  let best = Number.POSITIVE_INFINITY;
  for (let turn = 0; turn < turns; turn += 1) {
    const began = performance.now();
    work();
    best = Math.min(best, performance.now() - began);
  }
  return best;
}

/** What is known of the three flasks of a standardization: mass in g, first and last reading in mL. */
const FLASKS = [
  [0.5102, 0.12, 25.07],
  [0.5115, 0.34, 25.35],
  [0.5098, 0.21, 25.14],
] as const;
const PURITY = { value: 0.9998, halfWidth: 0.0005 };
const MOLAR_MASS = { value: 204.2223, u: 0.0047 };
const GAMMA = 2.1e-4;
const TRIALS = 1_000_000;

/** A full standardization with 18 inputs: three ways to the same million trials. */
function simulation(): object {
  const model = standardization();
  const modelMs = bestMs(3, () =>
    runSimulation(model, UNITS.molePerLitre, { trials: TRIALS, seed: 1 }),
  );
  const handMs = bestMs(3, handWritten);
  // A twentieth of the trials: the general-purpose library would take minutes.
  const libraryMs = 20 * bestMs(1, () => byLibrary(TRIALS / 20));
  return { modelMs, handMs, libraryMs };
}

function standardization(): Expression {
  const known = (symbol: string, value: number, unit: Unit, component: Component): Expression => {
    const one: Input = {
      ...{ id: symbol, symbol, name: symbol, effect: symbol, value, unit },
      ...{ components: [component], degreesOfFreedom: Number.POSITIVE_INFINITY },
      ...{ source: 'given', variation: 'common' },
    };
    return input(one);
  };
  const limits = (name: string, distribution: 'rectangular' | 'triangular', halfWidth: number) => ({
    name,
    distribution,
    halfWidth,
  });
  const purity = known('P', PURITY.value, UNITS.one, limits('P', 'rectangular', PURITY.halfWidth));
  const molarMass = known('M', MOLAR_MASS.value, UNITS.gramPerMole, {
    name: 'M',
    standardUncertainty: MOLAR_MASS.u,
  });
  const linearity = known('L', 0, UNITS.gram, limits('L', 'rectangular', 0.0002));
  const calibration = known('C', 0, UNITS.millilitre, limits('C', 'triangular', 0.03));
  const temperature = known('T', 0, UNITS.kelvin, { name: 'T', standardUncertainty: 1.5 });
  const repeatability = known('f', 1, UNITS.one, { name: 'f', standardUncertainty: 0.0005 });
  const thermal = sum([
    plus(exact(1)),
    minus(product([exact(GAMMA, UNITS.perKelvin), temperature])),
  ]);
  const molarities = FLASKS.map(([massG, initialMl, finalMl], i) => {
    const own = (name: string): string => name + String(i);
    const mass = known(own('m'), massG, UNITS.gram, { name: 'm', standardUncertainty: 0.0001 });
    const reading = (name: string, value: number): Expression =>
      known(own(name), value, UNITS.millilitre, limits(name, 'triangular', 0.02));
    const drop = known(own('d'), 0, UNITS.millilitre, limits('d', 'rectangular', 0.025));
    const volume = product([
      sum([
        plus(reading('b', finalMl)),
        minus(reading('a', initialMl)),
        plus(calibration),
        plus(drop),
      ]),
      thermal,
    ]);
    return quotient(
      product([sum([plus(mass), plus(linearity)]), purity]),
      product([molarMass, volume]),
    );
  });
  return define('c', 'molarity', UNITS.molePerLitre, product([mean(molarities), repeatability]));
}

/** What somebody would write for this one formula: a loop over a typed array, sorted for the interval. */
function handWritten(): number {
  const chance = new Chance(1);
  const results = new Float64Array(TRIALS);
  for (let i = 0; i < TRIALS; i += 1) {
    const purity = PURITY.value + PURITY.halfWidth * (2 * chance.uniform() - 1);
    const molarMassGPerMol = MOLAR_MASS.value + MOLAR_MASS.u * chance.normal();
    const linearity = 0.0002 * (2 * chance.uniform() - 1);
    const calibration = 0.03 * chance.triangular();
    const thermal = 1 - GAMMA * 1.5 * chance.normal();
    let total = 0;
    for (const [massG, initialMl, finalMl] of FLASKS) {
      const mass = massG + 0.0001 * chance.normal() + linearity;
      const volume =
        finalMl +
        0.02 * chance.triangular() -
        (initialMl + 0.02 * chance.triangular()) +
        calibration +
        0.025 * (2 * chance.uniform() - 1);
      total += (1000 * mass * purity) / (molarMassGPerMol * volume * thermal);
    }
    results[i] = (total / 3) * (1 + 0.0005 * chance.normal());
  }
  results.sort();
  let squares = 0;
  for (const result of results) squares += (result - 0.1) ** 2;
  return squares + (results[25_000] ?? 0);
}

/** The same model in a general-purpose expression library, compiled once. */
function byLibrary(trials: number): number {
  const chance = new Chance(1);
  const flask = (i: string): string =>
    `1000*(m${i}+L)*P/(M*(b${i}-a${i}+C+d${i})*(1-${String(GAMMA)}*T))`;
  const compiled = create(all ?? {}).compile(`(${['0', '1', '2'].map(flask).join('+')})/3*f`);
  const results = new Float64Array(trials);
  const scope = new Map<string, number>();
  for (let i = 0; i < trials; i += 1) {
    scope.set('P', PURITY.value + PURITY.halfWidth * (2 * chance.uniform() - 1));
    scope.set('M', MOLAR_MASS.value + MOLAR_MASS.u * chance.normal());
    scope.set('L', 0.0002 * (2 * chance.uniform() - 1));
    scope.set('C', 0.03 * chance.triangular());
    scope.set('T', 1.5 * chance.normal());
    scope.set('f', 1 + 0.0005 * chance.normal());
    FLASKS.forEach(([massG, initialMl, finalMl], flaskIndex) => {
      const own = String(flaskIndex);
      scope.set(`m${own}`, massG + 0.0001 * chance.normal());
      scope.set(`a${own}`, initialMl + 0.02 * chance.triangular());
      scope.set(`b${own}`, finalMl + 0.02 * chance.triangular());
      scope.set(`d${own}`, 0.025 * (2 * chance.uniform() - 1));
    });
    results[i] = compiled.evaluate(scope) as number;
  }
  results.sort();
  return results[Math.floor(trials / 40)] ?? 0;
}

const PHOSPHORIC = { pKa: [2.15, 7.2, 12.35], totalMolPerL: 0.1, volumeMl: 25 };
const BASE_MOL_PER_L = 0.1;
const VOLUMES = Array.from({ length: 1000 }, (_, i) => i * 0.1);

/** Phosphoric acid with hydroxide, a thousand points: the curve, and a bisection of the charge balance. */
function curve(): object {
  const { pKa, totalMolPerL, volumeMl } = PHOSPHORIC;
  const curveMs = bestMs(20, () => {
    const found = new AcidBaseCurve({
      flask: {
        volumeMl,
        systems: [{ name: 'phosphoric acid', totalMolPerL, pKa, charge: 0, protonsAtStart: 3 }].map(
          ({ charge, ...system }) => ({ ...system, chargeFullyProtonated: charge }),
        ),
      },
      titrant: { kind: 'strong-base', molarityMolPerL: BASE_MOL_PER_L },
      kw: 1e-14,
      activity: { kind: 'ideal' },
    });
    return VOLUMES.map((volume) => found.at(volume).pH);
  });
  const bisectionMs = bestMs(5, () => VOLUMES.map(bisect));
  return { curveMs, bisectionMs };
}

/** pH by halving the range from -3 to 18 until the last bit stands. */
function bisect(addedMl: number): number {
  const { pKa, totalMolPerL, volumeMl } = PHOSPHORIC;
  const whole = volumeMl + addedMl;
  const acid = (totalMolPerL * volumeMl) / whole;
  const base = (BASE_MOL_PER_L * addedMl) / whole;
  const charge = (pH: number): number => {
    const hydrogen = 10 ** -pH;
    const [k1, k2, k3] = pKa.map((one) => 10 ** -one) as [number, number, number];
    const terms = [hydrogen ** 3, hydrogen ** 2 * k1, hydrogen * k1 * k2, k1 * k2 * k3];
    const all = terms.reduce((total, term) => total + term, 0);
    const bound = terms.reduce((total, term, lost) => total + lost * term, 0) / all;
    return hydrogen - 1e-14 / hydrogen + base - acid * bound;
  };
  let low = -3;
  let high = 18;
  for (;;) {
    const middle = (low + high) / 2;
    if (middle <= low || middle >= high) return middle;
    if (charge(middle) > 0) low = middle;
    else high = middle;
  }
}

/** Equations balanced and molar masses found in a second, against reading the same from JSON. */
function chemistry(): object {
  const equation = 'MnO4^- + C2O4^2- + H^+ -> Mn^2+ + CO2 + H2O';
  const formula = '(NH4)2Fe(SO4)2.6H2O';
  const times = 2000;
  const repeat = (work: () => unknown) => (): void => {
    for (let i = 0; i < times; i += 1) work();
  };
  const json = JSON.stringify({ equation, formula });
  return {
    balancingPerSecond:
      (1000 * times) /
      bestMs(
        5,
        repeat(() => balance(parseEquation(equation))),
      ),
    molarMassesPerSecond:
      (1000 * times) /
      bestMs(
        5,
        repeat(() => molarMass(formula)),
      ),
    jsonPerSecond:
      (1000 * times) /
      bestMs(
        5,
        repeat(() => JSON.parse(json) as unknown),
      ),
  };
}

const PLANNED: Wish = {
  molarityMolPerL: 0.00137,
  volumeMl: 200,
  exactness: 'exact',
  madeUpIn: 'cylinder',
  isStandardizedLater: false,
  ...{ solventName: 'water', solubilityMolPerL: null },
};

/** Ids of a shelf that nobody has on record. */
function numbered(i: number): Id {
  return `00000000-0000-7000-8000-${String(i).padStart(12, '0')}` as Id;
}

/** A shelf of 500 bottles and 200 vessels: the planner, and trying every chain of two pipettes and two flasks. */
function planner(): object {
  const vessel = (kind: MeasuringVessel['kind'], volumeMl: number, i: number): MeasuringVessel => ({
    ...{ id: numbered(i), name: `${kind} ${String(i)}`, kind, volumeMl },
    tolerance: [{ name: 'tolerance', distribution: 'triangular', halfWidth: 0.002 * volumeMl }],
  });
  const vessels = Array.from({ length: 100 }, (_, i) => [
    vessel('one-mark-pipette', 1 + (i % 25), i),
    vessel('volumetric-flask', 50 * (1 + (i % 20)), i),
  ]).flat();
  const solutions = Array.from({ length: 500 }, (_, i) => ({
    ...{ id: numbered(i), name: `bottle ${String(i)}`, molarityMolPerL: 0.05 + 0.002 * i },
    ...{ relativeUncertainty: 0.001, leftMl: 500, isSample: false },
  }));
  const shelf = { solids: [], concentrates: [], solutions, vessels, balances: [] };
  const plannerMs = bestMs(5, () => planRoutes(PLANNED, shelf));
  const enumerationMs = bestMs(1, () => enumerate(shelf));
  return { plannerMs, enumerationMs };
}

/** Every pipette into every flask, twice, for every bottle: how near the best of them comes. */
function enumerate({ solutions, vessels }: PlannerShelf): number {
  const sizesOf = (kind: MeasuringVessel['kind']): number[] => [
    ...new Set(vessels.filter((one) => one.kind === kind).map(({ volumeMl }) => volumeMl)),
  ];
  const pipettes = sizesOf('one-mark-pipette');
  const flasks = sizesOf('volumetric-flask');
  let best = Number.POSITIVE_INFINITY;
  for (const { molarityMolPerL } of solutions) {
    for (const p of pipettes) {
      for (const f of flasks) {
        for (const q of pipettes) {
          for (const g of flasks) {
            const found = ((molarityMolPerL * p) / f) * (q / g);
            best = Math.min(best, Math.abs(found / PLANNED.molarityMolPerL - 1));
          }
        }
      }
    }
  }
  return best;
}

/** Measures one figure of the computing core, named on the command line, and prints it as JSON with the peak memory. */
const FIGURES = { simulation, curve, chemistry, planner } as const;

const figure = FIGURES[process.argv[2] as keyof typeof FIGURES];
console.log(
  JSON.stringify({ ...figure(), peakMb: Math.round(process.resourceUsage().maxRSS / 1024) }),
);
