/** A colour in sRGB, each channel 0 to 255. */
export type Srgb = readonly [red: number, green: number, blue: number];

/** A dissolved form that colours the flask. */
export interface ColouredForm {
  /** The colour of a flask that holds only this form, at the usual amount. */
  readonly colour: Srgb;
  /** How much of it there is, in parts of the usual amount. */
  readonly amount: number;
}

/** Part of an indicator in its basic form at a pH; pKin is the middle of its range. */
export function basicFraction(pH: number, pKin: number): number {
  return 1 / (1 + 10 ** (pKin - pH));
}

/** Part of a redox indicator in its oxidized form; `slopeV` is RT ln 10 / F, 0.0592 V at 25 °C. */
export function oxidizedFraction(
  potentialV: number,
  transitionPotentialV: number,
  electrons: number,
  slopeV = 0.05916,
): number {
  return 1 / (1 + 10 ** ((electrons * (transitionPotentialV - potentialV)) / slopeV));
}

/**
 * The colour of a flask that holds several coloured forms. Each lets through what its own colour shows, and
 * absorbances add by the Bouguer-Beer-Lambert law, channel by channel in linear light.
 * Source of the transfer function: IEC 61966-2-1.
 */
export function mixColours(forms: readonly ColouredForm[]): Srgb {
  const channel = (index: 0 | 1 | 2): number => {
    const absorbance = forms.reduce(
      (total, { colour, amount }) => total - amount * Math.log(toLinear(colour[index])),
      0,
    );
    return fromLinear(Math.exp(-absorbance));
  };
  return [channel(0), channel(1), channel(2)];
}

/** A black channel would absorb without end; this is as dark as a flask gets. */
const DARKEST = 1e-4;

/** What a channel of sRGB lets through, as a part of white light. */
export function toLinear(channel: number): number {
  const value = channel / 255;
  const linear = value <= 0.04045 ? value / 12.92 : ((value + 0.055) / 1.055) ** 2.4;
  return Math.max(DARKEST, linear);
}

function fromLinear(linear: number): number {
  const value = linear <= 0.0031308 ? 12.92 * linear : 1.055 * linear ** (1 / 2.4) - 0.055;
  return Math.round(255 * Math.min(1, Math.max(0, value)));
}
