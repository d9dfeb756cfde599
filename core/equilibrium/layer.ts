import type { Srgb } from './colour';
import { mixColours, toLinear } from './colour';

/** `#rrggbb` as channels. @throws RangeError for anything else */
export function srgbOf(css: string): Srgb {
  const [, red = '', green = '', blue = ''] = /^#(..)(..)(..)$/.exec(css) ?? [];
  const channels = [red, green, blue].map((hex) => Number.parseInt(hex, 16));
  const [r, g, b] = channels;
  if (r === undefined || g === undefined || b === undefined || channels.some(Number.isNaN)) {
    throw new RangeError(`${css} is no colour`);
  }
  return [r, g, b];
}

/** Channels as `#rrggbb`. */
export function cssOf(colour: Srgb): string {
  return `#${colour.map((channel) => channel.toString(16).padStart(2, '0')).join('')}`;
}

/**
 * The colour of a layer of solution that lets through what `css` shows where it is as strong and as deep as usual, for `amount` times
 * as much of what colours it.
 */
export function layerColour(css: string, amount: number): string {
  return cssOf(mixColours([{ colour: srgbOf(css), amount }]));
}

/**
 * How bright a colour is, 0 for black to 1 for white: its relative luminance.
 * Source: IEC 61966-2-1.
 */
export function luminanceOf(css: string): number {
  const [red, green, blue] = srgbOf(css);
  return 0.2126 * toLinear(red) + 0.7152 * toLinear(green) + 0.0722 * toLinear(blue);
}
