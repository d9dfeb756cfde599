import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';
import { Unanswerable } from '../problem';
import type { Component, Distribution } from './component';
import { componentDistribution, componentUncertainty, HALF_WIDTHS } from './component';
import type { Column } from './tape';

/** Adds draws of an effect to the first `count` trials of a column. */
type Drawing = (column: Column, count: number) => void;

const TWO_TO_MINUS_32 = 2 ** -32;

/** Strips under the normal curve, the edge where the tail begins, and the area of each strip. */
const STRIPS = 128;
const LAST_EDGE = 3.442619855899;
const STRIP_AREA = 9.91256303526217e-3;

/** Where each strip ends, from the lowest up; the last is the axis. */
const EDGES = edgesOfStrips();

/** The part of each strip that lies wholly under the curve. */
const INNER_PARTS = Float64Array.from(
  { length: STRIPS },
  (_, i) => (EDGES[i + 1] as number) / (EDGES[i] as number),
);

function edgesOfStrips(): Float64Array {
  const height = (x: number): number => Math.exp((-x * x) / 2);
  const edges = new Float64Array(STRIPS + 1);
  edges[0] = STRIP_AREA / height(LAST_EDGE);
  edges[1] = LAST_EDGE;
  for (let i = 2; i < STRIPS; i += 1) {
    const below = edges[i - 1] as number;
    edges[i] = Math.sqrt(-2 * Math.log(STRIP_AREA / below + height(below)));
  }
  return edges;
}

/** Seeded random numbers of the distributions that effects have. */
export class Chance {
  private readonly generator: ReturnType<typeof xoroshiro128plus>;

  constructor(seed: number) {
    this.generator = xoroshiro128plus(seed);
  }

  /** Uniform between 0 and 1, both excluded, in steps of 2⁻³². */
  uniform(): number {
    return ((this.generator.next() >>> 0) + 0.5) * TWO_TO_MINUS_32;
  }

  /** Uniform between two limits. */
  between(from: number, to: number): number {
    return from + (to - from) * this.uniform();
  }

  /**
   * Standard normal by the ziggurat method: a strip of equal area is chosen, and a point in it nearly always lies under the curve.
   * Source: G. Marsaglia and W. W. Tsang, J. Stat. Softw. 5 (2000) 8; the form of J. A. Doornik (2005), whose strip and place
   * share no bits.
   */
  normal(): number {
    for (;;) {
      const bits = this.generator.next();
      const strip = bits & (STRIPS - 1);
      const place = ((bits >>> 7) + 0.5) * 2 ** -24 - 1;
      const edge = EDGES[strip] as number;
      if (Math.abs(place) < (INNER_PARTS[strip] as number)) return place * edge;
      if (strip === 0) return this.normalTail(place < 0 ? -1 : 1);
      const x = place * edge;
      const outer = Math.exp((x * x - edge * edge) / 2);
      const inner = Math.exp((x * x - (EDGES[strip + 1] as number) ** 2) / 2);
      if (inner + this.uniform() * (outer - inner) < 1) return x;
    }
  }

  /** Beyond the last edge. */
  private normalTail(sign: 1 | -1): number {
    for (;;) {
      const x = -Math.log(this.uniform()) / LAST_EDGE;
      if (-2 * Math.log(this.uniform()) >= x * x) return sign * (LAST_EDGE + x);
    }
  }

  /** Triangular between -1 and 1, by the inverse of its distribution function. */
  triangular(): number {
    const u = this.uniform();
    return u < 0.5 ? Math.sqrt(2 * u) - 1 : 1 - Math.sqrt(2 * (1 - u));
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
  if (distribution !== 'student') {
    return LOOPS[distribution](chance, HALF_WIDTHS[distribution] * standardUncertainty);
  }
  const freedom = Math.max(1, Math.floor(component.degreesOfFreedom ?? Number.POSITIVE_INFINITY));
  if (!Number.isFinite(freedom)) return LOOPS.normal(chance, standardUncertainty);
  return (column, count) => {
    for (let i = 0; i < count; i += 1) {
      column[i] = (column[i] as number) + standardUncertainty * chance.student(freedom);
    }
  };
}

/** A loop of its own for each distribution: one loop that calls whatever draw it is given takes half as long again. */
const LOOPS: Readonly<Record<Distribution, (chance: Chance, halfWidth: number) => Drawing>> = {
  normal: (chance, halfWidth) => (column, count) => {
    for (let i = 0; i < count; i += 1) {
      column[i] = (column[i] as number) + halfWidth * chance.normal();
    }
  },
  rectangular: (chance, halfWidth) => (column, count) => {
    for (let i = 0; i < count; i += 1) {
      column[i] = (column[i] as number) + halfWidth * (2 * chance.uniform() - 1);
    }
  },
  triangular: (chance, halfWidth) => (column, count) => {
    for (let i = 0; i < count; i += 1) {
      column[i] = (column[i] as number) + halfWidth * chance.triangular();
    }
  },
  arcsine: (chance, halfWidth) => (column, count) => {
    for (let i = 0; i < count; i += 1) {
      column[i] = (column[i] as number) + halfWidth * Math.sin(2 * Math.PI * chance.uniform());
    }
  },
};

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
            'These correlation coefficients contradict each other.',
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
