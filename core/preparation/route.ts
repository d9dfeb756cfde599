import type { Id } from '../grammar';
import type { Component } from '../measurement';
import { combineComponents, figureText, roundSignificant } from '../measurement';
import type { HouseRules } from '../laboratory';
import type { Balance } from '../metrology';
import type { PreparationSource } from './work';

/** A vessel that measures a volume, with what is known of it. */
export interface MeasuringVessel {
  readonly id: Id;
  readonly name: string;
  readonly kind: 'volumetric-flask' | 'one-mark-pipette' | 'measuring-cylinder';
  readonly volumeMl: number;
  readonly tolerance: readonly Component[];
}

export interface SolidOnShelf {
  readonly id: Id;
  readonly name: string;
  readonly molarMassGPerMol: number;
  readonly purity: number;
  /** Relative, of purity and molar mass together. */
  readonly relativeUncertainty: number;
  /** Whether it is a standard: weighed exactly, its solution is one too. */
  readonly isStandard: boolean;
  readonly leftG: number;
}

export interface ConcentrateOnShelf {
  readonly id: Id;
  readonly name: string;
  readonly molarityMolPerL: number;
  /** What its label would mean in the other way of stating a percentage. */
  readonly remark: string;
  readonly leftMl: number;
}

export interface SolutionOnShelf {
  readonly id: Id;
  readonly name: string;
  readonly molarityMolPerL: number;
  /** Relative standard uncertainty of a certified molarity; null while it is only nominal. */
  readonly relativeUncertainty: number | null;
  readonly leftMl: number;
  /** A sample that came to the laboratory, which is not on the shelf. */
  readonly isSample: boolean;
}

/** What a laboratory has, as far as a plan goes. */
export interface PlannerShelf {
  readonly solids: readonly SolidOnShelf[];
  readonly concentrates: readonly ConcentrateOnShelf[];
  readonly solutions: readonly SolutionOnShelf[];
  readonly vessels: readonly MeasuringVessel[];
  readonly balances: readonly { readonly id: Id; readonly balance: Balance }[];
}

export interface Wish {
  readonly molarityMolPerL: number;
  readonly volumeMl: number;
  /** A standard must be exact; a titrant that will be standardized need not be. */
  readonly exactness: 'exact' | 'approximate';
  /** Whether a molarity that does not follow from how it is made is found out afterwards; an auxiliary solution is good as it is. */
  readonly isStandardizedLater: boolean;
  /** What holds an approximate volume. */
  readonly madeUpIn: HouseRules['titrantsMadeUpIn'];
  /** What it is dissolved in, `water`. */
  readonly solventName: string;
  /** The most of the solute that dissolves; null where no limit is kept. */
  readonly solubilityMolPerL: number | null;
  /** Relative expanded uncertainty (k = 2) that is good enough; absent when any is. */
  readonly targetRelativeU?: number;
}

/** One quantity of a plan: how much, with what, how exactly, and why. */
export interface PlannedQuantity {
  readonly what: string;
  readonly amount: number;
  readonly unit: 'g' | 'mL';
  readonly with: string;
  readonly exactness: 'exact' | 'approximate';
  readonly why: string;
  /** The equation that gives the amount, with its figures; absent where there is nothing to calculate. */
  readonly how?: string;
}

/** A way to what is wanted. */
export interface Route {
  readonly kind: 'weigh' | 'concentrate' | 'add-volumes' | 'strengthen' | 'dilute' | 'dilute-twice';
  /** The same for whoever starts it; null where something that it needs is missing. */
  readonly source: PreparationSource | null;
  readonly sourceId: string;
  readonly sourceName: string;
  readonly quantities: readonly PlannedQuantity[];
  readonly molarityMolPerL: number;
  readonly volumeMl: number;
  /** Relative standard uncertainty of the molarity; null where it is nominal. */
  readonly relativeUncertainty: number | null;
  /** What most of that uncertainty comes from. */
  readonly dominatedBy: string | null;
  /** What speaks against it, in sentences; the route is then not offered first. */
  readonly objections: readonly string[];
}

/** A molarity within this of the one wanted is near enough: it is known, not round. */
export const NEAR_ENOUGH = 0.02;

/** A solution that is hardly stronger than what is wanted is no stock to dilute by cylinder. */
export const LEAST_DILUTION = 1.5;

/** A figure of an equation as it is shown, to four digits. */
export function figure(value: number, unit: string): string {
  return `${figureText(roundSignificant(value, 4))} ${unit}`;
}

/** The volume of a solution that holds what is wanted: V = c V' / c'. */
export function howMuchOf(
  { molarityMolPerL }: Pick<Wish, 'molarityMolPerL'>,
  volumeMl: number,
  strengthMolPerL: number,
): string {
  return `V = c V′ ÷ c′ = ${figure(molarityMolPerL, 'mol/L')} × ${figure(volumeMl, 'mL')} ÷ ${figure(strengthMolPerL, 'mol/L')}`;
}

/** The smallest vessel of a kind that holds a volume; null when there is none. */
export function smallestHolding(
  vessels: readonly MeasuringVessel[],
  kind: MeasuringVessel['kind'],
  volumeMl: number,
): MeasuringVessel | null {
  return (
    vessels
      .filter((vessel) => vessel.kind === kind && vessel.volumeMl >= volumeMl)
      .toSorted((a, b) => a.volumeMl - b.volumeMl)[0] ?? null
  );
}

/** The flask in which the house rule has a titrant made up; null for a beaker, and where none is large enough. */
export function flaskFor(
  { madeUpIn, volumeMl }: Wish,
  vessels: readonly MeasuringVessel[],
): MeasuringVessel | null {
  return madeUpIn === 'flask' ? smallestHolding(vessels, 'volumetric-flask', volumeMl) : null;
}

/** Why a quantity need not be exact. */
export function whyApproximate({ isStandardizedLater }: Wish): string {
  return isStandardizedLater
    ? 'Titration will find the molarity, whatever this amount was.'
    : 'Nothing is calculated from it: an approximate amount will do.';
}

/** Solvent to an approximate volume: in a beaker, or in the flask that the house rule asks for. */
export function madeUp(
  wish: Wish,
  volumeMl: number,
  flask: MeasuringVessel | null,
): PlannedQuantity {
  return {
    what: flask ? 'made up to the mark' : wish.solventName,
    amount: volumeMl,
    unit: 'mL',
    with: flask?.name ?? 'a cylinder and a beaker',
    exactness: 'approximate',
    why: flask ? `A house rule. ${whyApproximate(wish)}` : whyApproximate(wish),
  };
}

/** Relative standard uncertainty of the volume of a vessel. */
export function vesselUncertainty({ tolerance, volumeMl }: MeasuringVessel): number {
  return combineComponents(tolerance) / volumeMl;
}

/** Below this part of what it holds a cylinder measures nothing. */
const LEAST_OF_CYLINDER = 0.05;

/** Says that a volume is too small for the cylinder that is to measure it; nothing when it is not. */
export function tooLittle(volumeMl: number, cylinder: MeasuringVessel | null): readonly string[] {
  return cylinder && volumeMl < LEAST_OF_CYLINDER * cylinder.volumeMl
    ? [
        `${figureText(roundSignificant(volumeMl, 2))} mL is too little for ${cylinder.name}: make a stronger solution of it first, and dilute that.`,
      ]
    : [];
}

/** The most that dissolves, where more is wanted than that, mol/L; else null. */
export function exceededSolubility({
  molarityMolPerL,
  solubilityMolPerL,
}: Pick<Wish, 'molarityMolPerL' | 'solubilityMolPerL'>): number | null {
  return solubilityMolPerL !== null && molarityMolPerL > solubilityMolPerL
    ? solubilityMolPerL
    : null;
}

/** Says that something does not suffice; nothing when it does. */
export function notEnough(
  needed: number,
  left: number,
  unit: 'g' | 'mL',
  name: string,
): readonly string[] {
  return needed <= left
    ? []
    : [`Only ${String(Number(left.toPrecision(3)))} ${unit} of ${name} are left.`];
}

/** A part of the whole as a percentage of two figures. */
export function percent(relative: number): string {
  return `${String(Number((100 * relative).toPrecision(2)))} %`;
}

/** Parts of a relative uncertainty, combined, and the name of the largest. */
export function combineRelative(parts: readonly (readonly [name: string, relative: number])[]): {
  readonly relativeUncertainty: number;
  readonly dominatedBy: string | null;
} {
  const [largest] = parts.toSorted((a, b) => b[1] - a[1]);
  return {
    relativeUncertainty: Math.hypot(...parts.map(([, relative]) => relative)),
    dominatedBy: largest?.[0] ?? null,
  };
}
