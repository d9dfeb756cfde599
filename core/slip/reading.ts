import { roundHalfEven } from '../measurement';
import type { SlipSaid } from '../wording';

/** What may have gone wrong with a figure, and the figure that was then meant. */
export type SuspectedSlip = SlipSaid & { readonly meant: number };

/** Whole millilitres by which a reading is easily off: a mark miscounted, or one of the numbered marks mistaken. */
const MISCOUNTED_ML = [1, 10, 5, 2] as const;

/**
 * Every reading that the typed one may stand for. A burette reads downwards from 0, so one that is read upwards from the mark
 * below gives 7.90 for 7.10, and 8.90 when that mark is taken for the next one.
 */
export function readingSlips(typedMl: number, decimals: number): readonly SuspectedSlip[] {
  const mark = Math.ceil(typedMl);
  return distinct(typedMl, decimals, [
    { kind: 'read-upwards', meant: 2 * mark - 1 - typedMl },
    { kind: 'wrong-mark', meant: 2 * mark - 2 - typedMl },
    ...MISCOUNTED_ML.flatMap((off): SuspectedSlip[] =>
      [off, -off].map((shift) => ({
        kind: 'whole-millilitres-off',
        meant: typedMl + shift,
        offMl: off,
      })),
    ),
    ...digitSlips(typedMl, decimals),
  ]);
}

/** Two neighbouring digits exchanged, a digit left out, or the decimal point a place off. */
function digitSlips(typed: number, decimals: number): readonly SuspectedSlip[] {
  const digits = roundHalfEven(typed, decimals).replace('.', '');
  const toNumber = (text: string): number => Number(text) / 10 ** decimals;
  const swapped = Array.from({ length: digits.length - 1 }, (_, i): SuspectedSlip => {
    const turned =
      digits.slice(0, i) + digits.charAt(i + 1) + digits.charAt(i) + digits.slice(i + 2);
    return { kind: 'digits-swapped', meant: toNumber(turned) };
  });
  // A digit that was left out may have been any, at any place: 2.15 for 22.15, 21.15 or 2.415 read on.
  const dropped = Array.from({ length: digits.length + 1 }, (_, place) =>
    Array.from({ length: 10 }, (__, digit): SuspectedSlip => {
      const whole = digits.slice(0, place) + String(digit) + digits.slice(place);
      return { kind: 'digit-dropped', meant: toNumber(whole) };
    }),
  ).flat();
  return [...swapped, ...dropped];
}

function distinct(
  typed: number,
  decimals: number,
  slips: readonly SuspectedSlip[],
): readonly SuspectedSlip[] {
  const seen = new Set([Number(roundHalfEven(typed, decimals))]);
  return slips.flatMap((slip) => {
    const meant = Number(roundHalfEven(slip.meant, decimals));
    if (meant < 0 || seen.has(meant)) return [];
    seen.add(meant);
    return [{ ...slip, meant }];
  });
}

/** What a final reading is judged by. All in mL. */
export interface ReadingContext {
  readonly initialMl: number;
  readonly expectedTitreMl: number;
  /** A titre is expected within plus or minus this. */
  readonly halfBandMl: number;
  readonly capacityMl: number;
  readonly decimals: number;
}

/**
 * The reading that was probably meant by a final reading off the forecast: of the slips that bring the titre into its band, the
 * likelier kind first. Null when the typed reading fits, or nothing known explains it.
 */
export function suspectReading(typedMl: number, context: ReadingContext): SuspectedSlip | null {
  const { initialMl, expectedTitreMl, halfBandMl, capacityMl, decimals } = context;
  const isExpected = (finalMl: number, fromMl = initialMl): boolean =>
    finalMl <= capacityMl && Math.abs(finalMl - fromMl - expectedTitreMl) <= halfBandMl;
  if (isExpected(typedMl)) return null;
  if (isExpected(initialMl, typedMl)) {
    return { kind: 'exchanged', meant: initialMl };
  }
  return readingSlips(typedMl, decimals).find(({ meant }) => isExpected(meant)) ?? null;
}

/** What a mass is judged by, in g. */
export interface WeighingContext {
  readonly intendedG: number;
  /** A mass is as intended within plus or minus this. */
  readonly toleranceG: number;
  readonly decimals: number;
  /** What the empty vessel weighs, when it is known. */
  readonly tareG?: number;
}

/**
 * The mass that was probably meant by one out of line with what was to be weighed: the decimal point a place off, the tare not
 * subtracted, digits exchanged. Null when the mass fits, or nothing known explains it.
 */
export function suspectWeighing(
  typedG: number,
  { intendedG, toleranceG, decimals, tareG }: WeighingContext,
): SuspectedSlip | null {
  const isIntended = (massG: number): boolean => Math.abs(massG - intendedG) <= toleranceG;
  if (isIntended(typedG)) return null;
  const powers: SuspectedSlip[] = [0.1, 10, 0.01, 100].map((factor) => ({
    kind: 'decimal-point',
    meant: typedG * factor,
  }));
  const tare: SuspectedSlip[] =
    tareG === undefined ? [] : [{ kind: 'tare-not-subtracted', meant: typedG - tareG }];
  const slips = distinct(typedG, decimals, [...powers, ...tare, ...digitSlips(typedG, decimals)]);
  return slips.find(({ meant }) => isIntended(meant)) ?? null;
}

/** Whether a net mass is what gross and tare give, to the digits of the balance. */
export function isNetOf(netG: number, grossG: number, tareG: number, decimals: number): boolean {
  return roundHalfEven(netG, decimals) === roundHalfEven(grossG - tareG, decimals);
}
