import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { Unanswerable } from '../problem';
import {
  balance,
  chainMoleRatio,
  describeEndPoint,
  equivalentsOf,
  findAnalysis,
  findMethod,
  moleRatioOf,
  molarMass,
  parseEquation,
  parseFormula,
  ratiosOfAnalysis,
  statedAsOf,
} from './index';
import type { BalancedReaction, FormulaPiece } from './index';

/** The kind of problem that a question meets; null when it has an answer. */
function problemOf(ask: () => unknown): string | null {
  try {
    ask();
    return null;
  } catch (error) {
    if (error instanceof Unanswerable) return error.kind;
    throw error;
  }
}

const countsOf = (formula: string): Record<string, number> =>
  Object.fromEntries(
    [...parseFormula(formula).counts].map(([element, count]) => [element, count.valueOf()]),
  );

describe('formulas', () => {
  test('atoms of one element add linearly, elements in quadrature', () => {
    const { standardUncertaintyGPerMol, valueGPerMol } = molarMass('C8H5KO4');
    const parts = [8 * 0.0014, 5 * 0.00016, 0.0001, 4 * 0.00077].map((half) => half / Math.sqrt(3));
    expect(standardUncertaintyGPerMol).toBeCloseTo(Math.hypot(...parts), 12);
    expect(valueGPerMol).toBeCloseTo(204.2223, 4);
  });

  test.each([
    ['S', 32.06, 0.016],
    ['Li', 6.94, 0.057],
    ['O', 15.999, 0.00077],
    ['C', 12.011, 0.0014],
    ['H', 1.008, 0.00016],
  ])(
    'of %s the half-width covers the interval from the conventional value',
    (symbol, value, half) => {
      const { valueGPerMol, standardUncertaintyGPerMol } = molarMass(symbol);
      expect(valueGPerMol).toBe(value);
      expect(standardUncertaintyGPerMol * Math.sqrt(3)).toBeCloseTo(half, 10);
    },
  );

  test.each([
    ['CuSO4.5H2O', { Cu: 1, S: 1, O: 9, H: 10 }],
    ['CuSO4*5H2O', { Cu: 1, S: 1, O: 9, H: 10 }],
    ['CaSO4·½H2O', { Ca: 1, S: 1, O: 4.5, H: 1 }],
    ['CaSO4.0.5H2O(s)', { Ca: 1, S: 1, O: 4.5, H: 1 }],
    ['K₄[Fe(CN)₆] · 3H₂O', { K: 4, Fe: 1, C: 6, N: 6, H: 6, O: 3 }],
    ['2MgO·SiO2', { Mg: 2, O: 4, Si: 1 }],
    ['{Co[(NH3)6]}Cl3', { Co: 1, N: 6, H: 18, Cl: 3 }],
    ['Fe0.95O', { Fe: 0.95, O: 1 }],
  ])('%s is counted', (formula, counts) => {
    expect(countsOf(formula)).toEqual(counts);
  });

  test.each([
    ['SO4^2-', -2],
    ['SO4^-2', -2],
    ['SO₄²⁻(aq)', -2],
    ['C2O4 2-', -2],
    ['MnO4-', -1],
    ['Fe^3+', 3],
    ['e^-', -1],
  ])('%s carries its charge', (formula, charge) => {
    expect(parseFormula(formula).charge).toBe(charge);
  });

  test.each([
    ['', 'empty'],
    ['  ', 'empty'],
    ['C8H5)', 'unbalanced-brackets'],
    ['(H2', 'unbalanced-brackets'],
    ['(H2]', 'unbalanced-brackets'],
    ['h2o', 'syntax'],
    ['H2O!', 'syntax'],
    ['H0', 'syntax'],
    ['()2', 'syntax'],
    ['CuSO4..5H2O', 'syntax'],
    ['Fe3+', 'syntax'],
    ['Xx2', 'unknown-element'],
    ['TcO2', 'no-atomic-weight'],
  ])('%j is refused as %s', (formula, kind) => {
    expect(problemOf(() => molarMass(formula))).toBe(kind);
  });

  test('a refusal names the position', () => {
    expect(() => parseFormula('Ca(Xx)2')).toThrow('There is no element Xx (position 4).');
  });

  test('the printed form has its subscripts, dot and raised charge', () => {
    const levels = { line: '', subscript: '_', superscript: '^' };
    const printed = (pieces: readonly FormulaPiece[]): string =>
      pieces.map(({ text, level }) => levels[level] + text).join('');
    expect(printed(parseFormula('(NH4)2Fe(SO4)2.6H2O').pieces)).toBe('(NH_4)_2Fe(SO_4)_2·6H_2O');
    expect(printed(parseFormula('Cr2O7^2-').pieces)).toBe('Cr_2O_7^2−');
  });

  test('a bracket with a subscript is its content so many times', () => {
    const inner = fc.constantFrom('H2O', 'SO4', 'NH4', 'CH3COO', '[Fe(CN)6]');
    fc.assert(
      fc.property(inner, fc.integer({ min: 1, max: 30 }), (formula, times) => {
        const single = countsOf(formula);
        for (const [element, count] of Object.entries(countsOf(`(${formula})${String(times)}`))) {
          expect(count).toBe(times * (single[element] ?? 0));
        }
      }),
    );
  });
});

describe('equations', () => {
  const balanced = (text: string): BalancedReaction => balance(parseEquation(text));

  test('permanganate takes five oxalate for two', () => {
    const reaction = balanced('MnO4^- + C2O4^2- + H^+ -> Mn^2+ + CO2 + H2O');
    expect(reaction.reactantCoefficients).toEqual([2, 5, 16]);
    const ratio = moleRatioOf(reaction, 'C2O4^2-', 'MnO4^-');
    expect(ratio).toEqual({ analyte: 5, titrant: 2 });
    expect(equivalentsOf(ratio)).toEqual({ analyte: 2, titrant: 5 });
  });

  test('a half-reaction is balanced with its electrons', () => {
    expect(balanced('Cr2O7^2- + H^+ + e^- -> Cr^3+ + H2O').reactantCoefficients).toEqual([
      1, 14, 6,
    ]);
  });

  test('steps are linked by what one makes and the next uses, one for each gap; the ends may be named', () => {
    const steps = [
      balanced('IO3^- + I^- + H^+ -> I2 + H2O'),
      balanced('I2 + S2O3^2- -> I^- + S4O6^2-'),
    ];
    const ratio = (links: readonly string[]) => chainMoleRatio(steps, links, 'IO3^-', 'S2O3^2-');
    expect(ratio(['I2'])).toEqual({ analyte: 1, titrant: 6 });
    expect(ratio(['IO3^-', 'I2', 'S2O3^2-'])).toEqual({ analyte: 1, titrant: 6 });
    for (const links of [[], ['I2', 'I^-'], ['H2O', 'I2']]) {
      expect(problemOf(() => ratio(links))).toBe('syntax');
    }
    // Made by neither step.
    expect(problemOf(() => ratio(['Cl2']))).toBe('syntax');
  });

  test.each([
    ['HCl + NaOH -> NaCl', 'no-solution', 'O stands only on the left'],
    ['Fe^2+ -> Fe^3+', 'no-solution', 'No positive coefficients'],
    ['H2 + O2 + H2O -> H2O2 + H2', 'multiple-solutions', '3 independent reactions'],
    ['KClO3 + HCl -> KCl + ClO2 + Cl2 + H2O', 'multiple-solutions', '2 independent reactions'],
    // Nothing balances it, although three combinations with zeros and negative coefficients conserve everything.
    ['H2 + O2 + Cl2 + N2 -> H2O + HCl + NaN3', 'no-solution', 'Na stands only on the right'],
    ['HCl NaOH', 'syntax', 'one arrow'],
  ])('%s is refused as %s', (text, kind, sentence) => {
    expect(problemOf(() => balanced(text))).toBe(kind);
    expect(() => balanced(text)).toThrow(sentence);
  });

  test.each([
    // Twelve species of eight elements are taken on, whatever comes of them.
    ['H2 + O2 + N2 + C + S + Cl2 + Na + K -> HCl + NaCl + KCl + CO2', 'no-solution', 'stands only'],
    [
      'H2 + O2 + N2 + C + S + Cl2 + Na + K -> HCl + NaCl + KCl + CO2 + SO2',
      'too-large',
      '13 species; at most 12',
    ],
    ['H2 + O2 + N2 + C + S + Cl2 + Na + K + Br2 -> HCl', 'too-large', '9 elements; at most 8'],
    ['H2 + O2 + CO + CO2 -> H2O + CH4 + C2H6', 'multiple-solutions', '4 independent'],
    ['H2 + O2 + CO + CO2 -> H2O + CH4 + C2H6 + C3H8', 'too-large', '5 independent'],
  ])('of the size of an equation: %s: %s', (text, kind, sentence) => {
    expect(problemOf(() => balanced(text))).toBe(kind);
    expect(() => balanced(text)).toThrow(sentence);
  });

  test('whatever is typed ends: an equation of any size is balanced or refused in words', () => {
    const elements = ['H', 'C', 'N', 'O', 'S', 'Cl', 'Na', 'K'];
    const species = fc
      .array(fc.tuple(fc.constantFrom(...elements), fc.integer({ min: 1, max: 9 })), {
        minLength: 1,
        maxLength: 4,
      })
      .map((parts) => parts.map(([element, count]) => `${element}${String(count)}`).join(''));
    const side = fc.array(species, { minLength: 1, maxLength: 8 }).map((all) => all.join(' + '));
    fc.assert(
      fc.property(side, side, (left, right) => {
        try {
          balanced(`${left} -> ${right}`);
        } catch (error) {
          expect(error).toBeInstanceOf(Unanswerable);
        }
      }),
      { numRuns: 300 },
    );
  });

  test('balancing conserves every element and the charge', () => {
    const couples = [
      ['MnO4^-', 'Mn^2+'],
      ['Cr2O7^2-', 'Cr^3+'],
      ['IO3^-', 'I2'],
      ['Ce^4+', 'Ce^3+'],
      ['Fe^3+', 'Fe^2+'],
      ['CO2', 'H2C2O4'],
      ['S4O6^2-', 'S2O3^2-'],
      ['NO3^-', 'NO2'],
      ['H2O2', 'H2O'],
    ] as const;
    const pairs = fc
      .shuffledSubarray([...couples], { minLength: 2, maxLength: 2 })
      .chain(([oxidant, reductant]) =>
        fc.tuple(
          fc.shuffledSubarray([oxidant?.[0], reductant?.[1], 'H^+'], { minLength: 3 }),
          fc.shuffledSubarray([oxidant?.[1], reductant?.[0], 'H2O'], { minLength: 3 }),
        ),
      );
    let answered = 0;
    fc.assert(
      fc.property(pairs, (sides) => {
        const [reactants, products] = sides.map((side) => [...new Set(side.map(String))]);
        if (!reactants || !products) return;
        let reaction: BalancedReaction;
        try {
          reaction = balance({ reactants, products });
        } catch (error) {
          expect(error).toBeInstanceOf(Unanswerable);
          return;
        }
        answered += 1;
        expect(Math.min(...reaction.reactantCoefficients)).toBeGreaterThan(0);
        expect(totalsOf(reactants, reaction.reactantCoefficients)).toEqual(
          totalsOf(products, reaction.productCoefficients),
        );
      }),
      { numRuns: 300 },
    );
    expect(answered).toBeGreaterThan(50);
  });
});

/** Atoms and charge of one side, in a fixed order. */
function totalsOf(side: readonly string[], coefficients: readonly number[]): [string, number][] {
  const totals = new Map<string, number>();
  side.forEach((species, i) => {
    const { counts, charge } = parseFormula(species);
    for (const [element, count] of [...counts, ['charge', charge] as const]) {
      totals.set(element, (totals.get(element) ?? 0) + (coefficients[i] ?? 0) * Number(count));
    }
  });
  return [...totals].filter(([, total]) => total !== 0).toSorted();
}

test('an indicator is dosed in drops, a solid one by the spatula', () => {
  const dosed = (id: string): string => {
    const method = findMethod(id);
    if (!method) throw new Error(`the catalogue lacks ${id}`);
    return describeEndPoint(method, { indicatorDrops: 4 });
  };
  expect(dosed('edta-by-calcium-carbonate')).toBe(
    'eriochrome black T, a spatula tip of the mixture',
  );
  expect(dosed('naoh-by-khp')).toBe('phenolphthalein, 2 drops');
});

// Moles of what is stated per mole of titrant, as the references on each determination give them.
test.each([
  ['titratable-acidity', 'C4H6O6', 1 / 2],
  ['volatile-acidity', 'CH3COOH', 1],
  ['sulfur-dioxide', 'SO2', 1],
  ['sulfur-dioxide-by-aspiration', 'SO2', 1 / 2],
  ['disulfite-assay', 'Na2S2O5', 1 / 4],
  ['assimilable-nitrogen', 'N', 1],
  ['hydrogencarbonate-assay', 'KHCO3', 1],
  ['alkalinity-to-4-5', 'CaCO3', 1 / 2],
  ['hydroxide-beside-carbonate', 'NaOH', 1],
  ['lye-two-ends', 'NaOH', 1],
  ['alkalinity-two-ends', 'CaCO3', 1 / 2],
  ['nitrogen-by-distillation', 'N', 1],
  ['nitrogen-by-distillation', 'N25', 1 / 4],
  ['acid-value', 'KOH', 1],
  ['saponification-value', 'KOH', 1],
  ['oxalic-acid-by-permanganate', 'Ca', 5 / 2],
  ['iron-by-permanganate', 'Fe', 5],
  ['iron-by-dichromate', 'Fe', 6],
  ['iron-by-cerium-iv', 'Fe', 1],
  ['peroxide-by-permanganate', 'H2O2', 5 / 2],
  ['peroxide-by-cerium-iv', 'H2O2', 1 / 2],
  ['peracetic-acid', 'CH3COOOH', 1 / 2],
  ['available-chlorine', 'Cl2', 1 / 2],
  ['ascorbic-acid', 'C6H8O6', 1],
  ['ethanol-by-dichromate', 'C2H5OH', 1 / 4],
  // 180.156 g/mol over 7.2 are 25.0 mg of glucose to a millimole.
  ['reducing-sugar-by-copper', 'C6H12O6', 1 / 7.2],
  ['total-hardness', 'CaCO3', 1],
  ['calcium-hardness', 'Ca', 1],
  ['aluminium', 'Al', 1],
  ['nickel', 'Ni', 1],
])('%s finds %s in the ratio %d', (id, formula, ratio) => {
  const analysis = findAnalysis(id);
  if (!analysis) throw new Error(`the catalogue lacks ${id}`);
  const { perTitrant } = ratiosOfAnalysis(analysis, statedAsOf(analysis, formula));
  expect(statedAsOf(analysis, formula)?.formula).toBe(formula);
  expect(perTitrant).toBeCloseTo(ratio, 12);
});

test('protein is nitrogen times the factor that its name states', () => {
  const analysis = findAnalysis('nitrogen-by-distillation');
  const proteins = analysis?.statedAs.filter(({ name }) => name.startsWith('protein')) ?? [];
  expect(proteins).toHaveLength(3);
  for (const { name, formula, perFormulaUnit } of proteins) {
    const factor = molarMass(formula).valueGPerMol / perFormulaUnit / molarMass('N').valueGPerMol;
    expect(factor).toBeCloseTo(Number(/× ([\d.]+)/.exec(name)?.[1]), 10);
  }
});
