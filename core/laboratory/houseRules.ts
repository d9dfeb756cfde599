import type { DecimalText } from '../measurement';
import type { Finding } from '../record';
import { impossible } from '../record';

/**
 * The conventions on which good laboratories differ. The laboratory sets them, a method may override them, and a run
 * records the ones it followed.
 */
export interface HouseRules {
  /** Of equal aliquots: highest minus lowest titre, mL. */
  readonly concordanceRangeMl: DecimalText;
  /** How weighed portions must agree: by the range of their molarities, by their RSD, or not at all. */
  readonly weighedConcordance: 'relative-range' | 'rsd' | 'none';
  /** Highest minus lowest molarity, relative to their mean. */
  readonly concordanceRelativeRangePercent: DecimalText;
  readonly concordanceRsdPercent: DecimalText;
  readonly agreeAtLeast: number;
  readonly titrationsAtMost: number;
  readonly firstIsRough: boolean;
  /** Which choice the set-up shows first. */
  readonly standardBy: 'weighed' | 'aliquot';
  /** Which of two solutions the burette holds in the arrangement that is offered first. */
  readonly inBurette: 'titrant' | 'standard' | 'more';
  /** Whether a titrant that is a primary standard, as dichromate is, is made up by weight or standardized by another. */
  readonly primaryTitrants: 'weighed' | 'titrated';
  readonly weighing: 'tared' | 'by-difference';
  /** In what a titrant is made up that will be standardized; a standard always is in a flask. */
  readonly titrantsMadeUpIn: 'cylinder' | 'flask';
  /** Whether the last final reading is offered as the next initial one. */
  readonly startOfTitration: 'carry-on' | 'refill';
  readonly readingResolutionMl: '0.1' | '0.05' | '0.02' | '0.01';
  readonly darkMeniscus: 'top' | 'bottom';
  readonly persistenceS: number;
  /** Where the method says nothing else. */
  readonly indicatorDrops: number;
  /** Whether a titration beyond its end point is averaged: one with a drop too much, all, or none. */
  readonly overshotCounts: 'within-a-drop' | 'always' | 'never';
  /** Where an electrode followed the titration: which of the end points of its curve counts. */
  readonly endPointOfCurve: 'second-derivative' | 'first-derivative' | 'gran';
  readonly oxalateHeating: 'to-75-80' | 'until-steaming' | 'after-most';
  readonly rinses: number;
  readonly rinseMl: DecimalText;
  readonly washDown: 'distilled' | 'tap';
  readonly carbonDioxide: 'boiled' | 'fresh' | 'nothing';
  readonly outlierTest: 'grubbs' | 'dixon' | 'none';
  readonly coverage: 'effective-degrees' | 'two';
  /** How the tolerance of glassware that has not been calibrated is distributed. */
  readonly toleranceAs: 'as-registered' | 'triangular' | 'rectangular';
  /** What a result has to meet to be certified without a reason. */
  readonly testedBy: 'concordance' | 'accepted-value' | 'label';
  /** What a certificate states of how sure it is. */
  readonly certificateStates: 'uncertainty' | 'rsd';
  /** Whether a certificate gives the normality for the reaction beside the molarity. */
  readonly statesNormality: boolean;
  /** Units of labels, certificates and run sheets. The bench and the figures behind keep mL and mol/L. */
  readonly paperUnits: 'litre' | 'decimetre' | 'molar';
  /** A molarity this far from nominal is asked about at certification. */
  readonly farFromNominalAskPercent: DecimalText;
  /** This far, it needs a reason. */
  readonly farFromNominalReasonPercent: DecimalText;
  /** What a freshly made titrant may differ from its label. */
  readonly nominalTolerancePercent: DecimalText;
  readonly cleaning: 'detergent' | 'water';
  readonly waste: 'container' | 'sink';
}

/** What a method says otherwise. */
export type RuleOverrides = { readonly [K in keyof HouseRules]?: HouseRules[K] | undefined };

/** The rules as a method changes them. */
export function withOverrides(rules: HouseRules, overrides: RuleOverrides): HouseRules {
  const given = Object.entries(overrides).filter(([, value]) => value !== undefined);
  return { ...rules, ...Object.fromEntries(given) };
}

/** What we ship. */
export const DEFAULT_HOUSE_RULES: HouseRules = {
  concordanceRangeMl: '0.10',
  weighedConcordance: 'relative-range',
  concordanceRelativeRangePercent: '0.3',
  concordanceRsdPercent: '0.1',
  agreeAtLeast: 3,
  titrationsAtMost: 6,
  firstIsRough: true,
  standardBy: 'weighed',
  inBurette: 'titrant',
  primaryTitrants: 'weighed',
  weighing: 'tared',
  titrantsMadeUpIn: 'cylinder',
  startOfTitration: 'carry-on',
  readingResolutionMl: '0.01',
  darkMeniscus: 'top',
  persistenceS: 30,
  indicatorDrops: 2,
  overshotCounts: 'within-a-drop',
  endPointOfCurve: 'second-derivative',
  oxalateHeating: 'to-75-80',
  rinses: 3,
  rinseMl: '4',
  washDown: 'distilled',
  carbonDioxide: 'boiled',
  outlierTest: 'grubbs',
  coverage: 'effective-degrees',
  toleranceAs: 'as-registered',
  testedBy: 'concordance',
  certificateStates: 'uncertainty',
  statesNormality: false,
  paperUnits: 'litre',
  farFromNominalAskPercent: '5',
  farFromNominalReasonPercent: '10',
  nominalTolerancePercent: '5',
  cleaning: 'detergent',
  waste: 'container',
};

/**
 * Frozen: what was in force in a laboratory before it had written any rules down, in the days when the founding did not
 * write the shipped ones down. A rule that comes later gets what the program then did.
 */
export const UNWRITTEN_RULES: HouseRules = {
  concordanceRangeMl: '0.10',
  weighedConcordance: 'relative-range',
  concordanceRelativeRangePercent: '0.3',
  concordanceRsdPercent: '0.1',
  agreeAtLeast: 3,
  titrationsAtMost: 6,
  firstIsRough: true,
  standardBy: 'weighed',
  inBurette: 'titrant',
  primaryTitrants: 'weighed',
  weighing: 'tared',
  titrantsMadeUpIn: 'cylinder',
  startOfTitration: 'carry-on',
  readingResolutionMl: '0.01',
  darkMeniscus: 'top',
  persistenceS: 30,
  indicatorDrops: 2,
  overshotCounts: 'within-a-drop',
  endPointOfCurve: 'second-derivative',
  oxalateHeating: 'to-75-80',
  rinses: 3,
  rinseMl: '4',
  washDown: 'distilled',
  carbonDioxide: 'boiled',
  outlierTest: 'grubbs',
  coverage: 'effective-degrees',
  toleranceAs: 'as-registered',
  testedBy: 'concordance',
  certificateStates: 'uncertainty',
  statesNormality: false,
  paperUnits: 'litre',
  farFromNominalAskPercent: '5',
  farFromNominalReasonPercent: '10',
  nominalTolerancePercent: '5',
  cleaning: 'detergent',
  waste: 'container',
};

/** What volumes and molarities are called on paper; a millilitre and a cubic centimetre are the same. */
export interface PaperUnits {
  readonly volume: 'mL' | 'cm³';
  readonly molarity: 'mol/L' | 'mol/dm³' | 'M';
}

/** The units that the house rule writes on paper. */
export function paperUnitsOf({ paperUnits }: Pick<HouseRules, 'paperUnits'>): PaperUnits {
  switch (paperUnits) {
    case 'litre':
      return { volume: 'mL', molarity: 'mol/L' };
    case 'decimetre':
      return { volume: 'cm³', molarity: 'mol/dm³' };
    case 'molar':
      return { volume: 'mL', molarity: 'M' };
  }
}

/** What a figure may be, where a rule outside it would say nothing or ask for what nobody can do. */
const BOUNDS: Partial<Record<keyof HouseRules, readonly [least: number, most: number]>> = {
  concordanceRangeMl: [0.005, 1],
  concordanceRelativeRangePercent: [0.01, 5],
  concordanceRsdPercent: [0.01, 5],
  agreeAtLeast: [2, 10],
  rinseMl: [0, 100],
  farFromNominalAskPercent: [0.1, 50],
  farFromNominalReasonPercent: [0.1, 50],
  nominalTolerancePercent: [0.1, 50],
};

/** What makes rules, all or some, impossible to follow. */
export function checkRules(rules: RuleOverrides): readonly Finding[] {
  const findings: Finding[] = [];
  for (const [key, [least, most]] of Object.entries(BOUNDS)) {
    const value = rules[key as keyof HouseRules];
    if (value === undefined || (Number(value) >= least && Number(value) <= most)) continue;
    const message = `A house rule lies between ${String(least)} and ${String(most)} here.`;
    findings.push(impossible('out-of-bounds', key, message));
  }
  const { titrationsAtMost = Infinity, agreeAtLeast = 0 } = rules;
  if (titrationsAtMost < agreeAtLeast) {
    const message = 'There must be at least as many titrations as have to agree.';
    findings.push(impossible('too-few', 'titrationsAtMost', message));
  }
  const { farFromNominalReasonPercent = Infinity, farFromNominalAskPercent = 0 } = rules;
  if (Number(farFromNominalReasonPercent) < Number(farFromNominalAskPercent)) {
    const message = 'A reason is asked for further from the label than explanations are.';
    findings.push(impossible('out-of-order', 'farFromNominalReasonPercent', message));
  }
  return findings;
}

/** The rules that are not what others say, by their content: 0.3 and 0.30 are the same. */
export function deviatingRules(rules: HouseRules, from: HouseRules): readonly (keyof HouseRules)[] {
  const isSame = (a: unknown, b: unknown): boolean =>
    a === b || (typeof a === 'string' && a !== '' && Number(a) === Number(b));
  return Object.keys(from)
    .map((key) => key as keyof HouseRules)
    .filter((key) => !isSame(rules[key], from[key]));
}
