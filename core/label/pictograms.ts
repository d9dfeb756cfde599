import type { Pictogram } from '../chemistry';

/**
 * The symbol inside the diamond of a hazard pictogram, drawn in a box of 100 by 100: an outline to fill. What each shows is set by
 * the Globally Harmonized System; the drawings are our own.
 */
const SYMBOLS: Readonly<Record<Pictogram, string>> = {
  flame:
    'M50 24c4 11 15 17 15 31 0 10-6 17-15 17s-15-7-15-17c0-7 4-11 7-16 1 5 3 7 5 8 3-8 0-15 3-23z M34 76h32v4H34z',
  'flame-over-circle':
    'M50 20c3 9 11 13 11 23 0 4-2 8-4 10h-3c3-4 3-9-2-13-4 4-6 9-3 13h-4c-4-3-6-6-6-11 0-6 3-9 5-12 1 4 2 5 4 6 2-6-1-10 2-16z M50 53a13 13 0 1 0 .01 0z M50 59a7 7 0 1 1-.01 0z M32 82h36v3H32z',
  corrosion:
    'M22 36l20-9 3 5-20 10z M58 26l20 10-3 6-20-10z M33 46h4v6h-4z M35 55h4v6h-4z M62 46h4v6h-4z M60 55h4v6h-4z M20 68h24c-4 3-8 2-10 5-3-3-9 1-14-5z M54 66c3-3 9-3 13-1l13 3v6H58c-4-2-6-5-4-8z M20 76h60v4H20z',
  skull:
    'M50 22c-13 0-20 8-20 18 0 6 3 10 7 13v7h26v-7c4-3 7-7 7-13 0-10-7-18-20-18z M42 38a5 5 0 1 0 .01 0z M58 38a5 5 0 1 0 .01 0z M50 47l3 6h-6z M28 64l44 14-2 5-44-14z M72 64l2 5-44 14-2-5z',
  exclamation: 'M45 24h10l-3 34h-4z M50 64a6 6 0 1 0 .01 0z',
  health:
    'M50 20a8 8 0 1 0 .01 0z M34 82V52c0-9 6-14 16-14s16 5 16 14v30z M50 46l3 8 8-3-3 8 8 3-8 4 3 8-8-4-3 8-3-8-8 4 3-8-8-4 8-3-3-8 8 3z',
  environment:
    'M22 74h56v4H22z M34 74V52l-8-9 3-2 6 6V32h4v16l9-8 2 3-11 11v20z M48 68c6-8 16-8 22-2l8-5-2 9 2 5-8-3c-6 5-16 4-22-4z M66 66a2 2 0 1 0 .01 0z',
};

/** A hazard pictogram as SVG: a red diamond with its symbol in black. */
export function pictogramSvg(pictogram: Pictogram): string {
  return [
    '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 100 100" width="100" height="100">',
    '<path d="M50 3 97 50 50 97 3 50z" fill="#fff" stroke="#c8102e" stroke-width="6"/>',
    `<path d="${SYMBOLS[pictogram]}" fill="#000" fill-rule="evenodd"/>`,
    '</svg>',
  ].join('');
}

/** What a pictogram says, for whoever does not see it. */
export const PICTOGRAM_NAMES: Readonly<Record<Pictogram, string>> = {
  flame: 'flammable',
  'flame-over-circle': 'oxidizer',
  corrosion: 'corrosive',
  skull: 'toxic',
  exclamation: 'harmful or irritating',
  health: 'serious health hazard',
  environment: 'dangerous for the environment',
};
