import Fraction from 'fraction.js';
import { Unanswerable } from '../problem';
import type { Formula } from './formula';
import { parseFormula } from './formula';

/** The two sides of a reaction, by formula. */
export interface Reaction {
  readonly reactants: readonly string[];
  readonly products: readonly string[];
}

/** A balanced reaction: the smallest whole coefficients, in the order of its species. */
export interface BalancedReaction extends Reaction {
  readonly reactantCoefficients: readonly number[];
  readonly productCoefficients: readonly number[];
}

const ARROW = /\s*(?:<=>|<->|->|→|⇌|⟶|=)\s*/;
/** Plus signs between species stand free; those of charges do not. */
const PLUS = /\s+\+\s+/;
const WRITTEN_COEFFICIENT = /^\d+\s+/;

/**
 * Reads an equation such as `2 MnO4^- + 5 C2O4^2- + 16 H^+ -> 2 Mn^2+ + 10 CO2 + 8 H2O`. Coefficients that are
 * written, apart from their species by a blank, are left aside: balancing finds them.
 *
 * @throws Unanswerable `syntax` without exactly one arrow.
 */
export function parseEquation(text: string): Reaction {
  const sides = text.trim().split(ARROW);
  const [left, right] = sides;
  if (!left || !right || sides.length !== 2) {
    throw new Unanswerable(
      'syntax',
      'equation',
      'An equation has two sides with one arrow -> between them.',
    );
  }
  const species = (side: string): readonly string[] =>
    side.split(PLUS).map((term) => term.replace(WRITTEN_COEFFICIENT, ''));
  return { reactants: species(left), products: species(right) };
}

/**
 * How large an equation may be. The largest of the textbooks has ten species and eight elements; beyond this the search
 * for positive coefficients takes memory without end.
 */
export const EQUATION_AT_MOST = { species: 12, elements: 8, independent: 4 } as const;

/** Inequalities that the search for positive coefficients may hold at once. */
const INEQUALITIES_AT_MOST = 20_000;

/**
 * Balances a reaction over every element and the charge: the one-dimensional null space of the composition matrix,
 * found by exact elimination, scaled to the smallest whole numbers.
 *
 * @throws Unanswerable `no-solution` when no strictly positive coefficients conserve everything, `multiple-solutions`
 *   when more than one independent set does, `too-large` beyond `EQUATION_AT_MOST`, and what `parseFormula` throws.
 */
export function balance(reaction: Reaction): BalancedReaction {
  const { reactants, products } = reaction;
  const names = [...reactants, ...products];
  refuseMoreThan('species', names.length);
  names.forEach(refuseGlued);
  const formulas = names.map(parseFormula);
  refuseMoreThan('elements', new Set(formulas.flatMap(({ counts }) => [...counts.keys()])).size);
  const solutions = nullSpace(compositionMatrix(formulas, reactants.length), formulas.length);
  refuseMoreThan('independent', solutions.length);
  const [solution, ...others] = solutions;
  if (!solution || !hasPositiveCombination(solutions)) {
    throw new Unanswerable('no-solution', 'equation', whyNoSolution(reaction, formulas));
  }
  if (others.length > 0) {
    throw new Unanswerable(
      'multiple-solutions',
      'equation',
      `This equation mixes ${String(solutions.length)} independent reactions, which can run in any proportion. Write each of them on its own.`,
    );
  }
  const coefficients = smallestWhole(solution);
  return {
    ...reaction,
    reactantCoefficients: coefficients.slice(0, reactants.length),
    productCoefficients: coefficients.slice(reactants.length),
  };
}

/** A number before a hydrate belongs to its formula; before anything else it is a coefficient that was glued on. */
function refuseGlued(species: string): void {
  if (!/^\d/.test(species) || /[·•∙⋅.*]/.test(species)) return;
  throw new Unanswerable(
    'syntax',
    'equation',
    `${species} begins with a number: write a blank after a coefficient, as in 2 H2O.`,
  );
}

function refuseMoreThan(what: keyof typeof EQUATION_AT_MOST, count: number): void {
  const most = EQUATION_AT_MOST[what];
  if (count <= most) return;
  const name = what === 'independent' ? 'independent reactions' : what;
  throw new Unanswerable(
    'too-large',
    'equation',
    `This equation has ${String(count)} ${name}; at most ${String(most)} can be balanced here. Write its steps on their own.`,
  );
}

/** Coefficient of a species that is consumed; formulas are compared by what they contain. */
function coefficientOf(balanced: BalancedReaction, species: string): number {
  const wanted = signature(parseFormula(species));
  const index = balanced.reactants.findIndex(
    (formula) => signature(parseFormula(formula)) === wanted,
  );
  const among = index >= 0 ? balanced.reactantCoefficients[index] : undefined;
  const inProducts = balanced.products.findIndex(
    (formula) => signature(parseFormula(formula)) === wanted,
  );
  const coefficient = among ?? balanced.productCoefficients[inProducts];
  if (coefficient === undefined) {
    throw new Unanswerable('syntax', 'equation', `${species} does not take part in the equation.`);
  }
  return coefficient;
}

/** Amounts that react with one another, in lowest terms. */
export interface MoleRatio {
  readonly analyte: number;
  readonly titrant: number;
}

/** The amounts of two species that react with one another, in lowest terms. */
export function moleRatioOf(
  balanced: BalancedReaction,
  analyte: string,
  titrant: string,
): MoleRatio {
  return lowestTerms(
    new Fraction(coefficientOf(balanced, analyte), coefficientOf(balanced, titrant)),
  );
}

/**
 * Amounts of the analyte of the first step and the titrant of the last that belong together, when `links[i]` is made in
 * step i and consumed in the next. The ends may be named among the links.
 *
 * @throws Unanswerable `syntax` for a link that no step makes for the next.
 */
export function chainMoleRatio(
  steps: readonly BalancedReaction[],
  links: readonly string[],
  analyte: string,
  titrant: string,
): MoleRatio {
  const between = links.filter((link, i) => !isEnd(link, i, links.length, analyte, titrant));
  if (between.length !== steps.length - 1) {
    throw new Unanswerable(
      'syntax',
      'links',
      `${String(steps.length)} steps have ${String(steps.length - 1)} species between them, made in one and used in the next; ${String(between.length)} are named.`,
    );
  }
  const ratio = steps.reduce((total, step, i) => {
    const enters = coefficientOf(step, i === 0 ? analyte : (between[i - 1] ?? ''));
    const leaves = coefficientOf(step, i === steps.length - 1 ? titrant : (between[i] ?? ''));
    return total.mul(new Fraction(enters, leaves));
  }, new Fraction(1));
  return lowestTerms(ratio);
}

/** Whether a link names an end of the chain instead of something between two steps. */
function isEnd(link: string, i: number, count: number, analyte: string, titrant: string): boolean {
  return (i === 0 && link === analyte) || (i === count - 1 && link === titrant);
}

/**
 * Equivalents per mole of each partner: the smallest whole numbers for which equal equivalents react, times
 * `unitsPerEquivalence` where the partners exchange more than one proton, electron or charge for each of those (2 for
 * sulfuric acid with carbonate).
 */
export function equivalentsOf(ratio: MoleRatio, unitsPerEquivalence = 1): MoleRatio {
  return {
    analyte: ratio.titrant * unitsPerEquivalence,
    titrant: ratio.analyte * unitsPerEquivalence,
  };
}

function lowestTerms(ratio: Fraction): MoleRatio {
  return { analyte: Number(ratio.n), titrant: Number(ratio.d) };
}

function signature(formula: Formula): string {
  const counts = [...formula.counts].map(([element, count]) => element + count.toFraction());
  return [...counts.toSorted(), String(formula.charge)].join(' ');
}

/** One row for each element and one for the charge; what is formed counts negative. */
function compositionMatrix(formulas: readonly Formula[], reactantCount: number): Fraction[][] {
  const elements = new Set(formulas.flatMap((formula) => [...formula.counts.keys()]));
  const row = (of: (formula: Formula) => Fraction): Fraction[] =>
    formulas.map((formula, i) => (i < reactantCount ? of(formula) : of(formula).neg()));
  return [
    ...Array.from(elements, (element) => row((formula) => formula.counts.get(element) ?? ZERO)),
    row((formula) => new Fraction(formula.charge)),
  ];
}

const ZERO = new Fraction(0);

/** A basis of the vectors that a matrix takes to zero, by reduction to echelon form. */
function nullSpace(matrix: readonly (readonly Fraction[])[], width: number): Fraction[][] {
  const rows = matrix.map((row) => [...row]);
  const pivots: number[] = [];
  for (let column = 0; column < width; column += 1) {
    const at = pivots.length;
    const found = rows.findIndex((row, i) => i >= at && !isZero(row[column]));
    const pivotRow = rows[found];
    if (!pivotRow) continue;
    [rows[at], rows[found]] = [pivotRow, rows[at] ?? pivotRow];
    const pivot = pivotRow[column] ?? ZERO;
    rows[at] = pivotRow.map((value) => value.div(pivot));
    const normal = rows[at];
    rows.forEach((row, i) => {
      const factor = row[column] ?? ZERO;
      if (i === at || isZero(factor)) return;
      rows[i] = row.map((value, j) => value.sub(factor.mul(normal[j] ?? ZERO)));
    });
    pivots.push(column);
  }
  const free = Array.from({ length: width }, (_, column) => column).filter(
    (column) => !pivots.includes(column),
  );
  return free.map((chosen) =>
    Array.from({ length: width }, (_, column) => {
      if (column === chosen) return new Fraction(1);
      const pivotIndex = pivots.indexOf(column);
      return pivotIndex < 0 ? ZERO : (rows[pivotIndex]?.[chosen] ?? ZERO).neg();
    }),
  );
}

/**
 * Whether some combination of the vectors is above zero in every place: Fourier-Motzkin elimination of the weights from
 * the strict inequalities, one for each place.
 */
function hasPositiveCombination(vectors: readonly (readonly Fraction[])[]): boolean {
  const width = vectors[0]?.length ?? 0;
  let inequalities = Array.from({ length: width }, (_, place) =>
    vectors.map((vector) => vector[place] ?? ZERO),
  );
  for (let weight = 0; weight < vectors.length; weight += 1) {
    if (inequalities.some((row) => row.every(isZero))) return false;
    const scaled = inequalities.map((row) => {
      const size = (row[weight] ?? ZERO).abs();
      return isZero(size) ? row : row.map((value) => value.div(size));
    });
    const signOf = (row: readonly Fraction[]): number => (row[weight] ?? ZERO).compare(0);
    const above = scaled.filter((row) => signOf(row) > 0);
    const below = scaled.filter((row) => signOf(row) < 0);
    inequalities = [
      ...scaled.filter((row) => signOf(row) === 0),
      ...above.flatMap((a) => below.map((b) => a.map((value, i) => value.add(b[i] ?? ZERO)))),
    ];
    if (inequalities.length > INEQUALITIES_AT_MOST) {
      const sentence = 'This equation takes too long to balance. Write its steps on their own.';
      throw new Unanswerable('too-large', 'equation', sentence);
    }
  }
  return inequalities.length === 0;
}

function isZero(value: Fraction | undefined): boolean {
  return value === undefined || value.compare(0) === 0;
}

function smallestWhole(solution: readonly Fraction[]): number[] {
  const oneSign =
    (solution[0] ?? ZERO).compare(0) < 0 ? solution.map((value) => value.neg()) : solution;
  const denominator = oneSign.reduce((total, value) => leastCommonMultiple(total, value.d), 1n);
  const whole = oneSign.map((value) => value.n * (denominator / value.d));
  const divisor = whole.reduce(greatestCommonDivisor, 0n);
  return whole.map((value) => Number(value / divisor));
}

function greatestCommonDivisor(a: bigint, b: bigint): bigint {
  return b === 0n ? a : greatestCommonDivisor(b, a % b);
}

function leastCommonMultiple(a: bigint, b: bigint): bigint {
  return (a / greatestCommonDivisor(a, b)) * b;
}

/** What stands in the way, in words: an element on one side only, or nothing simpler than the whole. */
function whyNoSolution({ reactants }: Reaction, formulas: readonly Formula[]): string {
  const elementsOf = (side: readonly Formula[]): Set<string> =>
    new Set(side.flatMap((formula) => [...formula.counts.keys()]));
  const left = elementsOf(formulas.slice(0, reactants.length));
  const right = elementsOf(formulas.slice(reactants.length));
  const lonely = [
    ...[...left]
      .filter((element) => !right.has(element))
      .map((element) => `${element} stands only on the left`),
    ...[...right]
      .filter((element) => !left.has(element))
      .map((element) => `${element} stands only on the right`),
  ];
  return lonely.length > 0
    ? `This cannot be balanced: ${lonely.join(', ')}. A reactant or product is missing.`
    : 'No positive coefficients conserve every element and the charge. A reactant or product is missing (perhaps H^+, H2O or e^-), or a charge is wrong.';
}
