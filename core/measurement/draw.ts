import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';
import { Unanswerable } from '../problem';
import type { Component, Distribution } from './component';
import { componentDistribution, componentUncertainty, HALF_WIDTHS } from './component';
import type { Column } from './tape';

/** Adds draws of an effect to the first `count` trials of a column. */
type Drawing = (column: Column, count: number) => void;

const TWO_TO_MINUS_32 = 2 ** -32;

/** Seeded random numbers of the distributions that effects have. */
export class Chance {
  private readonly generator: ReturnType<typeof xoroshiro128plus>;
  /** The second of a pair of normal numbers, kept for the next call. */
  private spare: number | null = null;

  constructor(seed: number) {
    this.generator = xoroshiro128plus(seed);
  }

  /** Uniform between 0 and 1, both excluded, in steps of 2⁻³². */
  uniform(): number {
    return ((this.generator.next() >>> 0) + 0.5) * TWO_TO_MINUS_32;
  }

  /** Standard normal. Source: G. Marsaglia, polar method; JCGM 101:2008, C.4 has the trigonometric form of it. */
  normal(): number {
    if (this.spare !== null) {
      const kept = this.spare;
      this.spare = null;
      return kept;
    }
    let x: number;
    let y: number;
    let square: number;
    do {
      x = 2 * this.uniform() - 1;
      y = 2 * this.uniform() - 1;
      square = x * x + y * y;
    } while (square >= 1 || square === 0);
    const factor = Math.sqrt((-2 * Math.log(square)) / square);
    this.spare = y * factor;
    return x * factor;
  }

  /** Student's t with whole degrees of freedom. Source: JCGM 101:2008, 6.4.9. */
  student(degreesOfFreedom: number): number {
    let squares = 0;
    for (let i = 0; i < degreesOfFreedom; i += 1) squares += this.normal() ** 2;
    return this.normal() / Math.sqrt(squares / degreesOfFreedom);
  }
}

/** How an effect is drawn, scaled to a column's unit. Degrees of freedom of Student's t are truncated to whole ones. */
export function drawingOf(component: Component, chance: Chance, toCoherent: number): Drawing {
  const standardUncertainty = componentUncertainty(component) * toCoherent;
  const distribution = componentDistribution(component);
  if (distribution === 'student') {
    const freedom = Math.max(1, Math.floor(component.degreesOfFreedom ?? Number.POSITIVE_INFINITY));
    if (!Number.isFinite(freedom)) return add(() => standardUncertainty * chance.normal());
    return add(() => standardUncertainty * chance.student(freedom));
  }
  return add(
    standardDrawing(distribution, chance, HALF_WIDTHS[distribution] * standardUncertainty),
  );
}

function standardDrawing(
  distribution: Distribution,
  chance: Chance,
  halfWidth: number,
): () => number {
  switch (distribution) {
    case 'normal':
      return () => halfWidth * chance.normal();
    case 'rectangular':
      return () => halfWidth * (2 * chance.uniform() - 1);
    case 'triangular':
      return () => halfWidth * (chance.uniform() + chance.uniform() - 1);
    case 'arcsine':
      return () => halfWidth * Math.sin(2 * Math.PI * chance.uniform());
  }
}

function add(draw: () => number): Drawing {
  return (column, count) => {
    for (let i = 0; i < count; i += 1) column[i] = (column[i] as number) + draw();
  };
}

/**
 * Lower triangular factor L of a correlation matrix, L Lᵀ = R, by Cholesky's method.
 *
 * @throws Unanswerable `out-of-range` when no quantities can be correlated like that.
 */
export function correlationFactor(matrix: readonly (readonly number[])[]): number[][] {
  const factor = matrix.map((row) => row.map(() => 0));
  const get = (i: number, j: number): number => factor[i]?.[j] ?? 0;
  matrix.forEach((row, i) => {
    const own = factor[i] ?? [];
    for (let j = 0; j <= i; j += 1) {
      let rest = row[j] ?? 0;
      for (let k = 0; k < j; k += 1) rest -= get(i, k) * get(j, k);
      if (i === j) {
        if (rest < -1e-12) {
          throw new Unanswerable(
            'out-of-range',
            'correlations',
            'No quantities can be correlated like this: the coefficients contradict each other.',
          );
        }
        own[j] = Math.sqrt(Math.max(0, rest));
      } else {
        own[j] = get(j, j) > 0 ? rest / get(j, j) : 0;
      }
    }
  });
  return factor;
}
