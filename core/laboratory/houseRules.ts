import type { Finding } from '../record';
import { impossible } from '../record';
import type { NamedRule } from './rule';
import { checkBounds } from './rule';
import type { HouseRules, RuleKey } from './rules';
import { HOUSE_RULES } from './rules';

/** What a method says otherwise. */
export type RuleOverrides = { readonly [K in RuleKey]?: HouseRules[K] | undefined };

/** The rules as a method changes them. */
export function withOverrides(rules: HouseRules, overrides: RuleOverrides): HouseRules {
  const given = Object.entries(overrides).filter(([, value]) => value !== undefined);
  return { ...rules, ...Object.fromEntries(given) };
}

/** All rules as one of their properties says; the entry of each gives the value its type. */
function allRules(which: 'default' | 'before'): HouseRules {
  return Object.fromEntries(HOUSE_RULES.map((rule) => [rule.key, rule[which]])) as HouseRules;
}

/** What we ship. */
export const DEFAULT_HOUSE_RULES = allRules('default');

/**
 * What was in force in a laboratory before it had written any rules down, in the days when the founding did not write the
 * shipped ones down.
 */
export const UNWRITTEN_RULES = allRules('before');

/** How volumes and masses are corrected. */
export type CorrectionRules = Pick<
  HouseRules,
  'volumeCorrection' | 'referenceTemperatureC' | 'buoyancyCorrection'
>;

/** The rules by which volumes and masses are corrected, of all. */
export function correctionRulesOf(rules: HouseRules): CorrectionRules {
  const { volumeCorrection, referenceTemperatureC, buoyancyCorrection } = rules;
  return { volumeCorrection, referenceTemperatureC, buoyancyCorrection };
}

/** What a laboratory chooses at once of how its figures are corrected. */
export const CORRECTION_PRESETS = {
  corrected: { volumeCorrection: 'corrected', buoyancyCorrection: 'corrected' },
  plain: { volumeCorrection: 'carried', buoyancyCorrection: 'carried' },
} as const satisfies Readonly<Record<string, RuleOverrides>>;

/** Whether a laboratory of before has still to say how its figures are corrected. */
export function isCorrectionUnsaid({ buoyancyCorrection }: HouseRules): boolean {
  return buoyancyCorrection === 'left-out';
}

/** What volumes and molarities are called on paper; a millilitre and a cubic centimetre are the same. */
export interface PaperUnits {
  readonly volume: 'mL' | 'cm³';
  readonly molarity: 'mol/L' | 'mol/dm³' | 'M';
  /** Null where the house rule gives no normality. */
  readonly normality: 'eq/L' | 'eq/dm³' | 'N' | null;
}

/** The units that the house rule writes on paper. */
export function paperUnitsOf({
  paperUnits,
  statesNormality,
}: Pick<HouseRules, 'paperUnits' | 'statesNormality'>): PaperUnits {
  const units = UNITS_OF[paperUnits];
  return statesNormality ? units : { ...units, normality: null };
}

const UNITS_OF: Readonly<Record<HouseRules['paperUnits'], PaperUnits>> = {
  litre: { volume: 'mL', molarity: 'mol/L', normality: 'eq/L' },
  decimetre: { volume: 'cm³', molarity: 'mol/dm³', normality: 'eq/dm³' },
  molar: { volume: 'mL', molarity: 'M', normality: 'N' },
};

/** What makes rules, all or some, impossible to follow. */
export function checkRules(rules: RuleOverrides): readonly Finding[] {
  const findings: Finding[] = [...checkBounds(HOUSE_RULES, rules)];
  const { titrationsAtMost = Infinity, agreeAtLeast = 0 } = rules;
  if (titrationsAtMost < agreeAtLeast) {
    findings.push(impossible('too-few', 'titrationsAtMost'));
  }
  const { farFromNominalReasonPercent = Infinity, farFromNominalAskPercent = 0 } = rules;
  if (Number(farFromNominalReasonPercent) < Number(farFromNominalAskPercent)) {
    findings.push(impossible('reason-before-question', 'farFromNominalReasonPercent'));
  }
  return findings;
}

/** The rules that are not what others say, by their content: 0.3 and 0.30 are the same. */
export function deviatingRules(rules: HouseRules, from: HouseRules): readonly RuleKey[] {
  const isSame = (a: unknown, b: unknown): boolean =>
    a === b || (typeof a === 'string' && a !== '' && Number(a) === Number(b));
  return Object.keys(from)
    .map((key) => key as RuleKey)
    .filter((key) => !isSame(rules[key], from[key]));
}

/** What a rule or a setting says, in words: `30 s`, `by difference`. */
export function ruleWords<K extends string, V>(
  { key, answer }: NamedRule<K, V>,
  rules: Readonly<Record<K, V>>,
): string {
  const value = rules[key];
  return answer.kind === 'choice'
    ? (answer.choices.find(([choice]) => choice === value)?.[1] ?? String(value))
    : `${String(value)} ${answer.unit}`;
}

/** Where rules are not those in force, in a sentence each, in the order of the work. */
export function describeDeviations(rules: HouseRules, inForce: HouseRules): readonly string[] {
  const keys = new Set(deviatingRules(rules, inForce));
  return HOUSE_RULES.filter(({ key }) => keys.has(key)).map(
    (rule) =>
      `${rule.question}: ${ruleWords(rule, rules)} (house rule: ${ruleWords(rule, inForce)}).`,
  );
}
