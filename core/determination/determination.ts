import type { Expression, Unit } from '../measurement';
import { coherentValue, evaluate, exact, UNITS } from '../measurement';
import type { DilutionStep } from '../preparation';
import { overallDilutionFactor } from '../preparation';
import { requireNotNegative, requirePercentage, requirePositive, requirePurity } from '../problem';
import { EXPRESSIONS } from './arithmetic';
import type { Balance, Factor } from './balance';
import { over, times } from './balance';

/** An aliquot made up to the mark of a flask. */
export interface Dilution {
  readonly aliquot: Expression;
  readonly flask: Expression;
}

/** A standard of which a mass is weighed into each flask. */
export interface WeighedStandard {
  readonly kind: 'weighed';
  readonly purity: Expression;
  readonly molarMass: Expression;
  /** From what the balance shows to the mass; null where that is taken for it. */
  readonly massFactor: Expression | null;
}

/** A solution whose molarity is known: in the burette, or of which each flask gets an aliquot. */
export interface KnownSolution {
  readonly kind: 'solution';
  readonly molarity: Expression;
  readonly dilutions: readonly Dilution[];
}

/** A solution of a standard, known by what was weighed to make it up. */
interface MadeUpStandard extends Omit<WeighedStandard, 'kind'> {
  readonly kind: 'made-up';
  readonly mass: Expression;
  readonly volume: Expression;
  readonly dilutions: readonly Dilution[];
}

/** What is known beforehand. */
export type Known = WeighedStandard | KnownSolution | MadeUpStandard;

/** As what something sought is stated, in which unit, and what that needs. */
export type Content = { readonly unit: Unit } & (
  | { readonly statedAs: 'molarity' | 'molar-mass' }
  | { readonly statedAs: 'mass-concentration'; readonly molarMass: Expression }
  | {
      readonly statedAs: 'mass-fraction';
      readonly molarMass: Expression;
      /** Of the sample, where portions of it are volumes; absent where they are weighed. */
      readonly density?: Expression;
      /** The dry part of the sample, where the content is that of dry matter. */
      readonly dryMatter?: Expression;
    }
  | {
      readonly statedAs: 'volume-fraction';
      readonly molarMass: Expression;
      /** Of what is sought, pure. */
      readonly pureDensity: Expression;
    }
  | {
      /** Equivalents in a litre. */
      readonly statedAs: 'equivalents';
      readonly equivalents: Expression;
    }
  | {
      readonly statedAs: 'mass-per-unit';
      readonly molarMass: Expression;
      /** Of one unit, such as a tablet; absent where each portion is one. */
      readonly unitMass?: Expression;
    }
  | {
      readonly statedAs: 'equivalent-mass';
      /** Equivalents in a mole of what is sought. */
      readonly equivalents: Expression;
    }
);

/** A molarity in mol/L. */
export const MOLARITY = { statedAs: 'molarity', unit: UNITS.molePerLitre } as const;

/** The reagent of a back-titration: what every flask gets of it. */
export interface Excess {
  readonly molarity: Expression;
  readonly volume: Expression;
  /** Moles of what is sought that a mole of it takes up. */
  readonly soughtPerExcess: Expression;
}

/** What a blank says: nothing, what the medium takes of every titre, or all that there is of an excess. */
export type Blank =
  | { readonly kind: 'none' }
  | { readonly kind: 'subtracted' | 'gives-the-excess'; readonly volume: Expression };

interface Common {
  /** Moles of what is sought that belong to a mole of what is known. */
  readonly soughtPerKnown: Expression;
  readonly blank: Blank;
}

/** A solution is standardized: it is in the burette, and each flask holds a portion of a standard. */
interface ContentOfBurette extends Common {
  readonly soughtIn: 'burette';
  readonly sought: typeof MOLARITY;
  readonly known: Known;
  readonly excess: null;
}

/** A portion of what is sought is in each flask; a solution of known molarity is in the burette. */
interface ContentOfFlask extends Common {
  readonly soughtIn: 'flask';
  readonly sought: Content;
  readonly dilutions: readonly Dilution[];
  /** From what the balance shows of a portion to its mass; absent where that is taken for it, or a volume is measured. */
  readonly massFactor?: Expression;
  readonly known: KnownSolution;
  /** What is left of it is titrated; null without one, and where the blank gives it. */
  readonly excess: Excess | null;
}

/** What is determined, from what, and how: what is in the burette, in the flask, added in excess, and taken off as a blank. */
export type Determination = ContentOfBurette | ContentOfFlask;

/**
 * The balance of a determination, from which all its figures follow. For a titrant c V = nu n, where n is m b P / M of a weighed
 * standard or c_s V_a of a solution; for what is in the flask x = nu c_s V, or x = nu_e c_e V_e - nu c_s V where an excess is
 * titrated back; x is c V_a, c_eq V_a / z, beta V_a / M, w m / M or w rho V_a / M, phi rho_pure V_a / M, q m / (M m_unit), q / M of one whole unit, m / M or
 * m / (z M_eq).
 * Source: the balance of amounts at the equivalence point.
 */
export function balanceOf(determination: Determination): Balance<Expression> {
  const { soughtPerKnown, known } = determination;
  const arithmetic = EXPRESSIONS;
  if (determination.soughtIn === 'burette') {
    return {
      sought: [times('sought'), times('titre')],
      known: [times(soughtPerKnown), ...portionOf(known)],
      excess: null,
      arithmetic,
    };
  }
  const { excess, dilutions, massFactor } = determination;
  return {
    sought: [
      ...contentOf(determination.sought),
      ...massFactorOf(massFactor),
      ...diluted(dilutions),
    ],
    known: [times(soughtPerKnown), ...molarityOf(determination.known), times('titre')],
    excess: excess && [times(excess.soughtPerExcess), times(excess.molarity), times(excess.volume)],
    arithmetic,
  };
}

/** The amount of a standard in a portion of it. */
function portionOf(known: Known): readonly Factor<Expression>[] {
  return known.kind === 'weighed'
    ? [
        times('portion'),
        ...massFactorOf(known.massFactor),
        times(known.purity),
        over(known.molarMass),
      ]
    : [...molarityOf(known), times('portion')];
}

function massFactorOf(massFactor: Expression | null = null): readonly Factor<Expression>[] {
  return massFactor ? [times(massFactor)] : [];
}

function molarityOf(solution: KnownSolution | MadeUpStandard): readonly Factor<Expression>[] {
  const steps = diluted(solution.dilutions);
  if (solution.kind === 'solution') return [times(solution.molarity), ...steps];
  const { mass, massFactor, purity, molarMass, volume } = solution;
  return [
    times(mass),
    ...massFactorOf(massFactor),
    times(purity),
    over(molarMass),
    over(volume),
    ...steps,
  ];
}

function diluted(dilutions: readonly Dilution[]): readonly Factor<Expression>[] {
  return dilutions.flatMap(({ aliquot, flask }) => [times(aliquot), over(flask)]);
}

/** The amount of what is sought in a portion. */
function contentOf(sought: Content): readonly Factor<Expression>[] {
  const portion = times('portion');
  switch (sought.statedAs) {
    case 'molarity':
      return [times('sought'), portion];
    case 'equivalents':
      return [times('sought'), portion, over(sought.equivalents)];
    case 'mass-concentration':
      return [times('sought'), portion, over(sought.molarMass)];
    case 'mass-fraction':
      return [
        times('sought'),
        portion,
        ...(sought.density ? [times(sought.density)] : []),
        ...(sought.dryMatter ? [times(sought.dryMatter)] : []),
        over(sought.molarMass),
      ];
    case 'volume-fraction':
      return [times('sought'), portion, times(sought.pureDensity), over(sought.molarMass)];
    case 'mass-per-unit':
      return [
        times('sought'),
        ...(sought.unitMass ? [portion, over(sought.unitMass)] : []),
        over(sought.molarMass),
      ];
    case 'molar-mass':
      return [portion, over('sought')];
    case 'equivalent-mass':
      return [portion, over('sought'), over(sought.equivalents)];
  }
}

/** Whether portions are masses; else they are volumes. */
export function takesMasses(determination: Determination): boolean {
  if (determination.soughtIn === 'burette') return determination.known.kind === 'weighed';
  switch (determination.sought.statedAs) {
    case 'molarity':
    case 'equivalents':
    case 'mass-concentration':
    case 'volume-fraction':
      return false;
    case 'mass-fraction':
      return determination.sought.density === undefined;
    case 'mass-per-unit':
    case 'molar-mass':
    case 'equivalent-mass':
      return true;
  }
}

/** A solution of that molarity, as if it were exactly known. */
export function solutionOf(molarityMolPerL: number): KnownSolution {
  const molarity = exact(molarityMolPerL, UNITS.molePerLitre);
  return { kind: 'solution', molarity, dilutions: [] };
}

/** Moles to moles. @throws Unanswerable unless both are above zero. */
export function ratioOf(numerator: number, denominator: number): Expression {
  requirePositive(numerator, 'mole_ratio');
  requirePositive(denominator, 'mole_ratio');
  return exact(numerator / denominator);
}

/** Dilution steps known by their nominal volumes. */
export function nominalDilutions(steps: readonly DilutionStep[]): readonly Dilution[] {
  return steps.map(({ aliquotMl, flaskMl }) => ({
    aliquot: exact(aliquotMl, UNITS.millilitre),
    flask: exact(flaskMl, UNITS.millilitre),
  }));
}

/** How many times weaker dilutions make what they begin with. @throws Unanswerable when an aliquot exceeds its flask. */
function factorOf(dilutions: readonly Dilution[]): number {
  const inMl = (volume: Expression): number => evaluate(volume, UNITS.millilitre);
  return overallDilutionFactor(
    dilutions.map(({ aliquot, flask }) => ({ aliquotMl: inMl(aliquot), flaskMl: inMl(flask) })),
  );
}

/** @throws Unanswerable when a quantity that the determination rests on cannot be. */
export function requireSense(determination: Determination): void {
  requirePositive(coherentValue(determination.soughtPerKnown), 'mole_ratio');
  requireKnown(determination);
  const { blank } = determination;
  if (blank.kind === 'subtracted') {
    requireNotNegative(evaluate(blank.volume, UNITS.millilitre), 'blank');
  }
  if (determination.soughtIn === 'burette') return;
  const { excess, dilutions } = determination;
  factorOf(dilutions);
  if (excess) {
    requirePositive(coherentValue(excess.molarity), 'reagentMolarity');
    requirePositive(evaluate(excess.volume, UNITS.millilitre), 'reagentVolume');
  }
  if (blank.kind === 'gives-the-excess') {
    requireNotNegative(evaluate(blank.volume, UNITS.millilitre), 'blankTitre');
  }
}

function requireKnown({ known, soughtIn }: Determination): void {
  if (known.kind === 'solution') {
    const field = soughtIn === 'burette' ? 'molarityMolPerL' : 'titrantMolarityMolPerL';
    requirePositive(coherentValue(known.molarity), field);
  } else {
    requirePositive(coherentValue(known.molarMass), 'molarMassGPerMol');
    requirePurity(coherentValue(known.purity));
    requirePercentage(coherentValue(known.purity), 'purity');
  }
  if (known.kind === 'made-up') {
    requirePositive(coherentValue(known.mass), 'massG');
    requirePositive(evaluate(known.volume, UNITS.millilitre), 'volumeMl');
  }
  if (known.kind !== 'weighed') factorOf(known.dilutions);
}
