/** A seeded source of chance: the same seed gives the same laboratory. */
export interface Chance {
  /** Uniform between two limits. */
  readonly between: (from: number, to: number) => number;
  /** Normal with mean 0 and standard deviation 1. */
  readonly normal: () => number;
}

/** Mulberry32: 32 bits of state, enough for made-up history. */
export function seededChance(seed: number): Chance {
  let state = seed >>> 0;
  const uniform = (): number => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 2 ** 32;
  };
  return {
    between: (from, to) => from + (to - from) * uniform(),
    // Box-Muller; 1 - u keeps the logarithm away from zero.
    normal: () => Math.sqrt(-2 * Math.log(1 - uniform())) * Math.cos(2 * Math.PI * uniform()),
  };
}
