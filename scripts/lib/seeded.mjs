import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';

/** Random numbers from 0 up to 1 that a seed repeats. @param {number} seed */
export function seeded(seed) {
  const generator = xoroshiro128plus(seed);
  return () => (generator.next() >>> 0) * 2 ** -32;
}

/** A number given at the command line. @param {string} name @param {number} otherwise */
export function option(name, otherwise) {
  const at = process.argv.indexOf(`--${name}`);
  return at < 0 ? otherwise : Number(process.argv[at + 1]);
}
